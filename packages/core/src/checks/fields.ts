import type { DataPlate } from '../machine/index.js';
import type { QuantityKind } from '../quantities/index.js';
import type {
  ChoiceFieldDefinition,
  DateFieldDefinition,
  NumberFieldDefinition,
  QuantityFieldDefinition,
  TextFieldDefinition,
} from './check.js';

interface More {
  readonly optional?: true;
  readonly plate?: keyof DataPlate;
  readonly stays?: true;
  readonly stage?: number;
  readonly more?: true;
  readonly onAsking?: true;
  readonly onlyOn?: (plate: DataPlate) => boolean;
  readonly hint?: string;
}

export function quantity(
  kind: QuantityKind,
  code: string,
  name: string,
  min: number,
  max: number,
  more: More = {},
): QuantityFieldDefinition {
  return { as: 'quantity', quantity: kind, code, name, min, max, ...more };
}

export function number(
  unit: string,
  code: string,
  name: string,
  min: number,
  max: number,
  more: More = {},
): NumberFieldDefinition {
  return { as: 'number', unit, code, name, min, max, ...more };
}

export function choice(
  code: string,
  name: string,
  options: Readonly<Record<string, string>>,
  more: More = {},
): ChoiceFieldDefinition {
  const list = Object.entries(options).map(([option, text]) => ({ code: option, name: text }));
  return { as: 'choice', code, name, options: list, ...more };
}

export function date(code: string, name: string, more: More = {}): DateFieldDefinition {
  return { as: 'date', code, name, ...more };
}

export function text(code: string, name: string, maxLength: number, more: More = {}): TextFieldDefinition {
  return { as: 'text', code, name, maxLength, ...more };
}

export const yesNo = { yes: 'yes', no: 'no' } as const;

/** A pressure by gauge. */
export function gauge(code: string, name: string, more: More & { readonly max?: number } = {}) {
  const { max = 600, ...rest } = more;
  return quantity('pressure', code, name, 0, max, rest);
}

/** What the gauge itself can do: its class counts toward safety. */
export const gaugeFields = [
  number('%', 'gaugeClass', 'Accuracy class of the gauge', 0.05, 6, {
    optional: true,
    stays: true,
    more: true,
    hint: 'On its dial: 0.6, 1.0, 1.6, 2.5.',
  }),
  gauge('gaugeScaleBar', 'Full scale of the gauge', { optional: true, stays: true, more: true, max: 1000 }),
] as const;

/** Room air. */
export function ambient(code: string, name: string, more: More = {}) {
  return quantity('temperature', code, name, -40, 60, more);
}
