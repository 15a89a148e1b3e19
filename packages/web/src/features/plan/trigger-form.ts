import { formatNumber } from '@entretien/core/basics';
import { checkByCode } from '@entretien/core/checks';
import type { CalendarInterval } from '@entretien/core/basics';
import type { DataPlate } from '@entretien/core/machine';
import {
  limitChecks,
  triggerLimits,
  triggerModuleOf,
  type Trigger,
  type TriggerField,
} from '@entretien/core/plan';
import { readNumber } from '@entretien/core/quantities';

/** A trigger as it stands in its form: texts as typed, so that nothing typed is lost. */
export interface TriggerForm {
  readonly kind: Trigger['kind'];
  readonly texts: Readonly<Record<string, string>>;
  /** The triggers that it holds, by field. */
  readonly inner?: Readonly<Record<string, TriggerForm>>;
}

/** A field as the form shows it. */
export interface FormField {
  readonly name: string;
  readonly label: string;
  readonly unit?: string | undefined;
  readonly isOptional?: boolean | undefined;
  readonly options?: readonly (readonly [string, string])[] | undefined;
  /** Bounds of the figure; a field without is a choice or a list. */
  readonly min?: number;
  readonly max?: number;
  readonly isWhole?: boolean | undefined;
  readonly hint?: string;
}

/** The choice of a field that may be left out. */
const NONE = 'none';
/** A form counts all of its intervals alike. */
const COUNTED: FormField = {
  name: 'unit',
  label: 'Counted in',
  options: [
    ['months', 'months'],
    ['days', 'days'],
  ],
};

/** The fields that a form shows, one after the other; what it holds within has a form of its own. */
export function fieldsOfTrigger(form: TriggerForm, plate: DataPlate): readonly FormField[] {
  const { fields } = triggerModuleOf(form);
  const shown = fields.flatMap((field) => formField(field, form, plate));
  const first = fields.findIndex(({ as }) => as === 'interval');
  return first < 0 ? shown : shown.toSpliced(first + 1, 0, COUNTED);
}

function formField(field: TriggerField, { texts }: TriggerForm, plate: DataPlate): FormField[] {
  const { name, label, isOptional } = field;
  if (label === undefined) return [];
  switch (field.as) {
    case 'figure': {
      const { beside, min, max, isWhole } = field;
      if (beside && texts[beside[0]] !== beside[1]) return [];
      // What stands beside a choice is asked for there.
      const mayStayEmpty = isOptional && !beside;
      return [{ name, label, unit: unitOf(field, texts), min, max, isWhole, isOptional: mayStayEmpty }];
    }
    case 'interval':
      return [
        { name, label, min: triggerLimits.months[0], max: mostSteps(texts), isWhole: true, isOptional },
      ];
    case 'figures':
      return [{ name, label, unit: field.unit, hint: field.hint }];
    case 'choice':
      return [
        {
          name,
          label,
          options: isOptional ? [[NONE, 'a figure'] as const, ...field.options] : field.options,
        },
      ];
    case 'check':
      return [{ name, label, options: limitChecks(plate).map((check) => [check.code, check.name] as const) }];
    default:
      return [];
  }
}

function mostSteps({ unit }: TriggerForm['texts']): number {
  return unit === 'days' ? triggerLimits.days[1] : triggerLimits.months[1];
}

/** A limit is in the unit of what is measured; a share of something is typed in per cent. */
function unitOf(
  field: TriggerField & { readonly as: 'figure' },
  texts: TriggerForm['texts'],
): string | undefined {
  if (field.unit !== undefined || texts.check === undefined) return field.unit;
  if (isShare(texts)) return '%';
  const figure = checkByCode(texts.check)?.figure;
  if (!figure) return '';
  return figure.unit ?? storedUnits[figure.quantity ?? ''] ?? '';
}

const storedUnits: Partial<Record<string, string>> = {
  pressure: 'bar',
  flow: 'L/min',
  temperature: '°C',
  'temperature-rise': 'K',
  length: 'mm',
  capacitance: 'µF',
};

function isShare({ of = NONE }: TriggerForm['texts']): boolean {
  return of !== NONE;
}

/** A new trigger of a kind, with what is usual in it. */
export function newTrigger(kind: Trigger['kind'], plate: DataPlate): TriggerForm {
  return formOf({ kind, ...triggerModuleOf({ kind }).usual(plate) } as Trigger, plate);
}

/** The form of a trigger that is in the plan. */
export function formOf(trigger: Trigger, plate: DataPlate): TriggerForm {
  const { kind } = trigger;
  const values = trigger as unknown as Readonly<Record<string, unknown>>;
  const texts: Record<string, string> = {};
  const inner: Record<string, TriggerForm> = {};
  for (const field of triggerModuleOf(trigger).fields) {
    const value = values[field.name];
    if (field.as === 'trigger') {
      if (value) inner[field.name] = formOf(value as Trigger, plate);
      else if (!field.isOptional) inner[field.name] = newTrigger(heldFirst(field), plate);
    } else if (field.as === 'interval') {
      const [count, unit] = value ? stepTexts(value as CalendarInterval) : ['', undefined];
      texts[field.name] = count;
      if (unit) texts.unit ??= unit;
    } else if (field.as === 'figures') texts[field.name] = ((value ?? []) as number[]).join(', ');
    else texts[field.name] = text(value) || (field.as === 'choice' && field.isOptional ? NONE : '');
  }
  // A share of something is typed in per cent.
  if (isShare(texts) && typeof values.limit === 'number') texts.limit = text(values.limit * 100);
  return { kind, texts, inner };
}

/** What a held trigger begins as: a floor by hours, and whatever it holds back by what is measured. */
export function heldFirst({ kinds }: { readonly kinds: readonly string[] }): Trigger['kind'] {
  return (kinds.includes('condition') ? 'condition' : kinds[0]) as Trigger['kind'];
}

function text(value: unknown): string {
  return typeof value === 'number' || typeof value === 'string' ? String(value) : '';
}

function stepTexts(step: CalendarInterval): readonly [string, string] {
  return 'months' in step ? [text(step.months), 'months'] : [text(step.days), 'days'];
}

/** What a form means; a sentence for each field that is not understood. */
export type ReadTrigger =
  | { readonly ok: true; readonly trigger: Trigger }
  | { readonly ok: false; readonly problems: Readonly<Record<string, string>> };

/**
 * Reads a form.
 *
 * @param before what the plan had there: what the form does not ask for stays as it was
 */
export function readTrigger(form: TriggerForm, plate: DataPlate, before?: Trigger): ReadTrigger {
  const problems: Record<string, string> = {};
  const shown = new Map(fieldsOfTrigger(form, plate).map((field) => [field.name, field]));
  const kept = before?.kind === form.kind ? (before as unknown as Readonly<Record<string, unknown>>) : {};
  const values: Record<string, unknown> = { kind: form.kind };
  for (const field of triggerModuleOf(form).fields) {
    const { name } = field;
    const asked = shown.get(name);
    if (field.as === 'trigger') {
      if (field.isOptional && !form.inner?.[name]) continue;
      const held = readTrigger(
        form.inner?.[name] ?? newTrigger(heldFirst(field), plate),
        plate,
        kept[name] as Trigger | undefined,
      );
      if (held.ok) values[name] = held.trigger;
      else for (const [at, sentence] of Object.entries(held.problems)) problems[`${name}.${at}`] = sentence;
    } else if (asked) {
      const value = readField(field, asked, form.texts, (sentence) => (problems[name] = sentence));
      if (value !== undefined) values[name] = value;
    } else if (field.label === undefined && kept[name] !== undefined) values[name] = kept[name];
  }
  return Object.keys(problems).length === 0
    ? { ok: true, trigger: values as unknown as Trigger }
    : { ok: false, problems };
}

function readField(
  field: TriggerField,
  asked: FormField,
  texts: TriggerForm['texts'],
  err: (sentence: string) => void,
): unknown {
  const typed = (texts[field.name] ?? '').trim();
  switch (field.as) {
    case 'figures':
      return readFigures(typed, err);
    case 'choice':
      return typed === NONE || typed === '' ? undefined : typed;
    case 'check':
      return typed === '' ? void err('Choose what is measured.') : typed;
    default: {
      const figure = readFigure(asked, typed, err);
      if (figure === undefined) return undefined;
      if (field.as === 'interval') return texts.unit === 'days' ? { days: figure } : { months: figure };
      return field.name === 'limit' && isShare(texts) ? figure / 100 : figure;
    }
  }
}

function readFigure(
  { min = -Infinity, max = Infinity, isOptional, isWhole }: FormField,
  typed: string,
  err: (sentence: string) => void,
): number | undefined {
  if (typed === '') return isOptional ? undefined : void err('Enter a figure.');
  const outcome = readNumber(typed);
  if (!outcome.ok) return void err(outcome.problem.sentence);
  if (outcome.value < min || outcome.value > max) {
    return void err(`From ${min} to ${formatNumber(max)}.`);
  }
  return isWhole && !Number.isInteger(outcome.value) ? void err('A whole number.') : outcome.value;
}

function readFigures(typed: string, err: (sentence: string) => void): number[] | undefined {
  const figures = typed
    .split(/[,;]\s*|\s+/)
    .filter(Boolean)
    .map(Number);
  const [, mostHours] = triggerLimits.hours;
  const isRising = figures.every((one, index) => one > (figures[index - 1] ?? 0) && one <= mostHours);
  if (figures.length > 0 && figures.length <= triggerLimits.figures[1] && isRising) return figures;
  return void err('Rising figures of run hours, like 500, 2000, 8000.');
}
