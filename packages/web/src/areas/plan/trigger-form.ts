import { checkByCode, checksFor, type CheckDefinition } from '@entretien/core/checks';
import type { CalendarStep } from '@entretien/core/basics';
import type { DataPlate } from '@entretien/core/machine';
import type { CalendarTrigger, HoursTrigger, RunMoment, Trigger } from '@entretien/core/plan';
import { readNumber } from '@entretien/core/quantities';

/** A trigger as it stands in its form: texts as typed, so that nothing typed is lost. */
export interface TriggerForm {
  readonly kind: Trigger['kind'];
  readonly texts: Readonly<Record<string, string>>;
  /** What a floor holds back. */
  readonly inner?: TriggerForm | undefined;
}

/** A field of a trigger's form. */
export interface TriggerField {
  readonly name: string;
  readonly label: string;
  readonly unit?: string;
  readonly isOptional?: boolean;
  readonly options?: readonly (readonly [string, string])[];
  /** Bounds of the figure; a field without is a choice or a list. */
  readonly min?: number;
  readonly max?: number;
  readonly isWhole?: boolean;
  readonly hint?: string;
}

export const kindNames: Readonly<Record<Trigger['kind'], string>> = {
  hours: 'Run hours',
  calendar: 'Calendar',
  season: 'Hours by season',
  milestone: 'Fixed figures of hours',
  condition: 'A measured limit',
  water: 'Water taken up',
  'not-before': 'Not before',
  run: 'Every run',
};

const steps: TriggerField = {
  name: 'unit',
  label: 'Counted in',
  options: [
    ['months', 'months'],
    ['days', 'days'],
  ],
};
const most = { hours: 200_000, steps: 18_000 };

const runMoments: readonly (readonly [RunMoment, string])[] = [
  ['each-day', 'each day of use'],
  ['at-start', 'at each start'],
  ['at-stop', 'at each stop'],
  ['while-running', 'while running'],
];

/** Checks that a limit can be set on: those with a figure that wears one way. */
export function limitChecks(plate: DataPlate): readonly CheckDefinition[] {
  return checksFor(plate).filter(({ figure }) => figure !== undefined && figure.worse !== 'either');
}

/** The fields that a kind of trigger asks for. */
export function fieldsOfTrigger({ kind, texts }: TriggerForm, plate: DataPlate): readonly TriggerField[] {
  switch (kind) {
    case 'hours':
      return [
        { name: 'every', label: 'Every', unit: 'h', min: 0.1, max: most.hours },
        { name: 'first', label: 'First at', unit: 'h', min: 0.1, max: most.hours, isOptional: true },
      ];
    case 'calendar':
      return [
        { name: 'every', label: 'Every', min: 1, max: most.steps, isWhole: true },
        steps,
        { name: 'first', label: 'First after', min: 1, max: most.steps, isWhole: true, isOptional: true },
      ];
    case 'season':
      return [
        { name: 'warm', label: 'In the warm season', unit: 'h', min: 0.1, max: most.hours },
        { name: 'cold', label: 'In the cold season', unit: 'h', min: 0.1, max: most.hours },
      ];
    case 'milestone':
      return [{ name: 'at', label: 'At', unit: 'h', hint: 'Like 500, 2000, 8000.' }];
    case 'water':
      return [
        { name: 'takesG', label: 'The cartridge takes up', unit: 'g', min: 0.1, max: 100_000 },
        { name: 'fadLpm', label: 'Free air delivered', unit: 'L/min', min: 1, max: 200_000 },
        { name: 'holdingBar', label: 'Holding pressure', unit: 'bar', min: 1, max: 600 },
        { name: 'warmC', label: 'Last separator, warm season', unit: '°C', min: -30, max: 80 },
        { name: 'coldC', label: 'Last separator, cold season', unit: '°C', min: -30, max: 80 },
      ];
    case 'condition':
      return [
        {
          name: 'check',
          label: 'Measured by',
          options: limitChecks(plate).map(({ code, name }) => [code, name] as const),
        },
        {
          name: 'of',
          label: 'The limit is',
          options: [
            ['figure', 'a figure'],
            ['baseline', 'a share of the baseline'],
          ],
        },
        { name: 'limit', label: 'Limit', unit: limitUnit(texts), min: -1000, max: 1_000_000 },
      ];
    case 'not-before':
      return [
        { name: 'floor', label: 'Never before', min: 1, max: most.hours },
        {
          name: 'unit',
          label: 'Counted in',
          options: [
            ['hours', 'hours'],
            ['months', 'months'],
          ],
        },
      ];
    case 'run':
      return [
        { name: 'when', label: 'When', options: runMoments },
        ...(texts.when === 'while-running'
          ? [{ name: 'everyMinutes', label: 'Every', unit: 'min', min: 1, max: 1440, isWhole: true }]
          : []),
      ];
  }
}

function limitUnit({ check = '', of }: TriggerForm['texts']): string {
  if (of === 'baseline') return '%';
  const figure = checkByCode(check)?.figure;
  if (!figure) return '';
  const stored: Partial<Record<string, string>> = {
    pressure: 'bar',
    flow: 'L/min',
    temperature: '°C',
    'temperature-rise': 'K',
    length: 'mm',
    capacitance: 'µF',
  };
  return figure.unit ?? stored[figure.quantity ?? ''] ?? '';
}

/** A new trigger of a kind, with what is usual in it. */
export function newTrigger(kind: Trigger['kind'], plate: DataPlate): TriggerForm {
  const check = limitChecks(plate)[0]?.code ?? '';
  const usual: Record<Trigger['kind'], TriggerForm['texts']> = {
    hours: { every: '500' },
    calendar: { every: '12', unit: 'months' },
    season: { warm: '20', cold: '30' },
    milestone: { at: '500, 2000, 8000' },
    condition: { check, of: 'figure', limit: '' },
    water: {
      fadLpm: text(plate.fadLpm),
      holdingBar: text(plate.holdingBar),
      takesG: text(plate.cartridgeTakesG),
      warmC: '32',
      coldC: '18',
    },
    'not-before': { floor: '500', unit: 'hours' },
    run: { when: 'each-day' },
  };
  return {
    kind,
    texts: usual[kind],
    ...(kind === 'not-before' ? { inner: newTrigger('condition', plate) } : {}),
  };
}

function text(figure: number | undefined): string {
  return figure === undefined ? '' : String(figure);
}

/** The form of a trigger that is in the plan. */
export function formOf(trigger: Trigger): TriggerForm {
  const form = (texts: Record<string, string>, inner?: TriggerForm): TriggerForm => ({
    kind: trigger.kind,
    texts,
    ...(inner ? { inner } : {}),
  });
  switch (trigger.kind) {
    case 'hours':
      return form({ every: text(trigger.every), first: text(trigger.first) });
    case 'calendar': {
      const [every, unit] = stepTexts(trigger.every);
      return form({ every, unit, first: trigger.first ? stepTexts(trigger.first)[0] : '' });
    }
    case 'season':
      return form({ warm: text(trigger.warm), cold: text(trigger.cold) });
    case 'milestone':
      return form({ at: trigger.at.join(', ') });
    case 'water': {
      const { takesG, fadLpm, holdingBar, warmC, coldC } = trigger;
      return form({
        takesG: text(takesG),
        fadLpm: text(fadLpm),
        holdingBar: text(holdingBar),
        warmC: text(warmC),
        coldC: text(coldC),
      });
    }
    case 'condition':
      return form({
        check: trigger.check,
        of: trigger.of ?? 'figure',
        limit: text(trigger.of === 'baseline' ? trigger.limit * 100 : trigger.limit),
      });
    case 'not-before': {
      const { floor } = trigger;
      const [every, unit] = floor.kind === 'hours' ? [text(floor.every), 'hours'] : stepTexts(floor.every);
      return form({ floor: every, unit }, formOf(trigger.trigger));
    }
    case 'run':
      return form({ when: trigger.when, everyMinutes: text(trigger.everyMinutes) });
  }
}

function stepTexts(step: CalendarStep): readonly [string, string] {
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
  const figures: Record<string, number> = {};
  for (const field of fieldsOfTrigger(form, plate)) {
    if (field.min === undefined) continue;
    const typed = (form.texts[field.name] ?? '').trim();
    if (typed === '') {
      if (!field.isOptional) problems[field.name] = 'Enter a figure.';
      continue;
    }
    const outcome = readNumber(typed);
    if (!outcome.ok) problems[field.name] = outcome.problem.sentence;
    else if (outcome.value < field.min || outcome.value > field.max!) {
      problems[field.name] = `From ${field.min} to ${field.max!.toLocaleString('en')}.`;
    } else if (field.isWhole && !Number.isInteger(outcome.value)) problems[field.name] = 'A whole number.';
    else figures[field.name] = outcome.value;
  }
  const trigger = triggerOf(form, figures, plate, problems, before);
  return trigger && Object.keys(problems).length === 0 ? { ok: true, trigger } : { ok: false, problems };
}

function triggerOf(
  { kind, texts, inner }: TriggerForm,
  figures: Readonly<Record<string, number>>,
  plate: DataPlate,
  problems: Record<string, string>,
  before: Trigger | undefined,
): Trigger | null {
  const step = (count: number): CalendarStep => (texts.unit === 'days' ? { days: count } : { months: count });
  const kept = before?.kind === kind ? before : undefined;
  switch (kind) {
    case 'hours': {
      const { first: _first, ...rest } = (kept ?? {}) as Partial<HoursTrigger>;
      return {
        ...rest,
        kind,
        every: figures.every!,
        ...(figures.first === undefined ? {} : { first: figures.first }),
      };
    }
    case 'calendar': {
      const { first: _first, ...rest } = (kept ?? {}) as Partial<CalendarTrigger>;
      const first = figures.first === undefined ? {} : { first: step(figures.first) };
      return { ...rest, kind, every: step(figures.every!), ...first };
    }
    case 'season':
      return {
        ...(kept as Extract<Trigger, { kind: 'season' }> | undefined),
        kind,
        warm: figures.warm!,
        cold: figures.cold!,
      };
    case 'milestone': {
      const at = (texts.at ?? '')
        .split(/[,;]\s*|\s+/)
        .filter(Boolean)
        .map(Number);
      const isRising = at.every((one, index) => one > (at[index - 1] ?? 0));
      if (at.length === 0 || at.length > 60 || !isRising || at.some((one) => one > most.hours)) {
        problems.at = 'Rising figures of run hours, like 500, 2000, 8000.';
        return null;
      }
      return { kind, at };
    }
    case 'water': {
      const { takesG, fadLpm, holdingBar, warmC, coldC } = figures as Record<string, number>;
      const rest = kept as Extract<Trigger, { kind: 'water' }> | undefined;
      return {
        ...rest,
        kind,
        takesG: takesG!,
        fadLpm: fadLpm!,
        holdingBar: holdingBar!,
        warmC: warmC!,
        coldC: coldC!,
      };
    }
    case 'condition': {
      if (!texts.check) problems.check = 'Choose what is measured.';
      const limit = figures.limit!;
      return texts.of === 'baseline'
        ? { kind, check: texts.check ?? '', limit: limit / 100, of: 'baseline' }
        : { kind, check: texts.check ?? '', limit };
    }
    case 'not-before': {
      const read = inner && readTrigger(inner, plate, kept?.kind === 'not-before' ? kept.trigger : undefined);
      if (!read) return null;
      if (!read.ok) {
        for (const [name, sentence] of Object.entries(read.problems)) problems[`inner.${name}`] = sentence;
        return null;
      }
      const { trigger } = read;
      if (trigger.kind === 'run' || trigger.kind === 'milestone' || trigger.kind === 'not-before')
        return null;
      const floor =
        texts.unit === 'hours'
          ? ({ kind: 'hours', every: figures.floor! } as const)
          : ({ kind: 'calendar', every: step(Math.round(figures.floor ?? 0)) } as const);
      return { kind, trigger, floor };
    }
    case 'run':
      return texts.when === 'while-running'
        ? { kind, when: 'while-running', everyMinutes: figures.everyMinutes! }
        : { kind, when: (texts.when ?? 'each-day') as RunMoment };
  }
}
