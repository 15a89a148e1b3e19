import { fieldProblem, type CheckValues, type FieldDefinition } from '@entretien/core/checks';
import type { DataPlate } from '@entretien/core/machine';
import {
  formatFigure,
  formatQuantity,
  parseQuantity,
  readNumber,
  typedFigure,
  unitByCode,
  type QuantityKind,
} from '@entretien/core/quantities';

/** What stands in the fields of a check, as typed. */
export type CheckTexts = Readonly<Record<string, string>>;
export type ChosenUnits = Readonly<Partial<Record<QuantityKind, string>>>;

/** What the texts mean. */
export interface ReadTexts {
  /** Figures and findings that were understood; those of the plate are not among them. */
  readonly values: CheckValues;
  /** What is wrong with a field, by its code. */
  readonly problems: Readonly<Record<string, string>>;
}

/** Understands what stands in the fields; what is empty is left out. */
export function readTexts(
  fields: readonly FieldDefinition[],
  texts: CheckTexts,
  units: ChosenUnits,
): ReadTexts {
  const values: Record<string, number | string> = {};
  const problems: Record<string, string> = {};
  for (const field of fields) {
    const text = texts[field.code]?.trim() ?? '';
    if (text === '') continue;
    const read = readText(field, text, units);
    if (typeof read === 'object') {
      problems[field.code] = read.sentence;
      continue;
    }
    const problem = fieldProblem(field, read);
    if (problem) problems[field.code] = problem.sentence;
    else values[field.code] = read;
  }
  return { values, problems };
}

function readText(
  field: FieldDefinition,
  text: string,
  units: ChosenUnits,
): number | string | { readonly sentence: string } {
  if (field.as === 'choice' || field.as === 'date' || field.as === 'text') return text;
  if (field.as === 'number') {
    const read = readNumber(text);
    return read.ok ? read.value : { sentence: read.problem.sentence };
  }
  const assumed = unitByCode(field.quantity, units[field.quantity]);
  const read = parseQuantity(text, field.quantity, { assumed });
  return read.ok ? read.value.value : { sentence: read.problem.sentence };
}

/** A known figure as it would be typed in a field. */
export function textOf(field: FieldDefinition, value: number | string, units: ChosenUnits): string {
  if (typeof value === 'string') return value;
  if (field.as !== 'quantity') return typedFigure(formatFigure(value, { figures: 6, maxDecimals: 3 }));
  const { figure } = formatQuantity(
    value,
    field.quantity,
    unitByCode(field.quantity, units[field.quantity]),
    {
      figures: 6,
    },
  );
  return typedFigure(figure);
}

/** What the plate says where a field is left empty; undefined where it says nothing. */
export function plateText(
  field: FieldDefinition,
  plate: DataPlate | undefined,
  units: ChosenUnits,
): string | undefined {
  const value = field.plate && plate?.[field.plate];
  return typeof value === 'number' ? textOf(field, value, units) : undefined;
}

/** The texts to begin with: what stays the same from one measurement to the next. */
export function stayingTexts(
  fields: readonly FieldDefinition[],
  last: CheckValues | undefined,
  units: ChosenUnits,
): CheckTexts {
  const texts = fields.flatMap((field) => {
    const value = last?.[field.code];
    return field.stays && value !== undefined ? [[field.code, textOf(field, value, units)] as const] : [];
  });
  return Object.fromEntries(texts);
}
