import { ATMOSPHERE_BAR } from '../air/index.js';
import { parseLocalDate, err, ok, type LocalDate, type Result, formatNumber } from '../basics/index.js';
import type { DataPlate } from '../machine/index.js';
import { formatQuantity, unitByCode, type QuantityKind } from '../quantities/index.js';
import type {
  CheckBaseline,
  CheckDefinition,
  CheckSubject,
  CheckValues,
  FieldDefinition,
  Judgement,
} from './check.js';
import { checkByCode, fieldsOf } from './library.js';

/** What a measurement is judged with. */
export interface JudgeContext {
  /** The machine, as it was when it was measured; left out where none is meant. */
  readonly plate?: DataPlate | undefined;
  readonly baseline?: CheckBaseline | undefined;
  readonly isBaseline?: boolean;
  /** Pressure of the air about it; one standard atmosphere where the height is not known. */
  readonly atmosphereBarAbs?: number;
  /** Local day on which it was measured. */
  readonly on: LocalDate;
  /** Units that the reason is written in; the stored ones where left out. */
  readonly units?: Readonly<Partial<Record<QuantityKind, string>>>;
}

/**
 * Judges a measurement.
 *
 * @returns the judgement; or a problem: `unknown-check`, `not-this-unit`, `unknown-field`, `missing`,
 * `out-of-range`, `wrong-kind`, or what the formula behind the check refuses
 * @example judgeCheck('separator-drop', { dropBar: 1.1 }, { on: '2026-06-01' }) // → act
 */
export function judgeCheck(code: string, values: CheckValues, context: JudgeContext): Result<Judgement> {
  const check = checkByCode(code);
  if (!check) return err('unknown-check', `“${code.slice(0, 40)}” is no check of the library.`, 'check');
  const { plate } = context;
  if (plate && !check.applies(plate)) {
    return err('not-this-unit', `This unit has nothing to check for ${check.name.toLowerCase()}.`, 'check');
  }
  const read = readValues(check, values, plate);
  if (!read.ok) return read;
  return check.judge(subjectOf(read.value, context));
}

/** Figures within their bounds, those of the data plate filled in. */
function readValues(
  check: CheckDefinition,
  values: CheckValues,
  plate: DataPlate | undefined,
): Result<ReadonlyMap<string, number | string>> {
  const fields = fieldsOf(check, plate);
  const strange = Object.keys(values).find((code) => !fields.some((field) => field.code === code));
  if (strange !== undefined) {
    return err(
      'unknown-field',
      `“${strange.slice(0, 40)}” is no figure of ${check.name.toLowerCase()} on this unit.`,
      strange,
    );
  }
  const read = new Map<string, number | string>();
  for (const field of fields) {
    const given = values[field.code] ?? (field.plate && plate?.[field.plate]);
    if (given === undefined) {
      if (field.optional) continue;
      return err('missing', missingSentence(field), field.code);
    }
    const problem = fieldProblem(field, given);
    if (problem !== null) return err(problem.code, problem.sentence, field.code);
    read.set(field.code, given as number | string);
  }
  return ok(read);
}

/** That a field which cannot be done without is empty. */
export function missingSentence(field: Pick<FieldDefinition, 'as' | 'name'>): string {
  return field.as === 'choice' ? `Still to choose: “${field.name}”.` : `Still needed: “${field.name}”.`;
}

/** What is wrong with a figure of a field, whoever sent it; null when nothing is. */
export function fieldProblem(
  field: FieldDefinition,
  given: unknown,
): { readonly code: string; readonly sentence: string } | null {
  switch (field.as) {
    case 'choice':
      return field.options.some(({ code }) => code === given)
        ? null
        : {
            code: 'wrong-kind',
            sentence: `${field.name} is one of: ${field.options.map(({ name }) => name).join(', ')}.`,
          };
    case 'text':
      return typeof given === 'string' && given.trim() !== '' && given.length <= field.maxLength
        ? null
        : { code: 'wrong-kind', sentence: `${field.name}: up to ${field.maxLength} letters.` };
    case 'date':
      return typeof given === 'string' && parseLocalDate(given).ok
        ? null
        : { code: 'wrong-kind', sentence: `${field.name} is a day, like 2027-03-31.` };
    case 'number':
    case 'quantity':
      break;
  }
  if (typeof given !== 'number' || !Number.isFinite(given)) {
    return { code: 'wrong-kind', sentence: `${field.name} is a figure.` };
  }
  if (given >= field.min && given <= field.max) return null;
  const kind = field.as === 'quantity' ? field.quantity : undefined;
  const format = (value: number) =>
    kind ? quantityText(value, kind, {}) : `${formatNumber(value)} ${(field as { unit: string }).unit}`;
  const scale = kind === 'temperature' ? ' Was it read in °F?' : '';
  return {
    code: 'out-of-range',
    sentence: `${field.name}: ${format(given)}? It lies between ${format(field.min)} and ${format(field.max)}.${scale}`,
  };
}

function quantityText(value: number, kind: QuantityKind, units: NonNullable<JudgeContext['units']>): string {
  const { figure, unit } = formatQuantity(value, kind, unitByCode(kind, units[kind]));
  return `${figure} ${unit}`;
}

function subjectOf(read: ReadonlyMap<string, number | string>, context: JudgeContext): CheckSubject {
  const number = (code: string) => {
    const value = read.get(code);
    return typeof value === 'number' ? value : undefined;
  };
  return {
    number,
    need: (code) => number(code)!,
    text: (code) => {
      const value = read.get(code);
      return typeof value === 'string' ? value : undefined;
    },
    plate: context.plate,
    baseline: context.baseline,
    isBaseline: context.isBaseline ?? false,
    atmosphereBarAbs: context.atmosphereBarAbs ?? ATMOSPHERE_BAR,
    on: context.on,
    format: (value, kind) => quantityText(value, kind, context.units ?? {}),
  };
}
