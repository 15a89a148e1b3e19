import type { CalendarInterval } from '../../basics/index.js';
import type { DataPlate } from '../../machine/index.js';
import type { StartingPoint } from '../due-point.js';
import type { AnyTrigger, JudgedTrigger, Moment, TaskTerms } from '../judged.js';
import type { FormatQuantity } from '../format-figures.js';

/** Bounds that stand beside what they bound: forms, contract and plan file go by them. */
export const triggerLimits = {
  /** Run hours of an interval, or of a machine's life. */
  hours: [0.1, 200_000],
  months: [1, 600],
  days: [1, 18_000],
  /** Fixed figures of hours in one trigger. */
  figures: [1, 60],
} as const;

interface Field {
  readonly name: string;
  /** What it is called in a form and in a refusal; left out for what no form asks for. */
  readonly label?: string;
  /** What it means, for whoever writes a plan file. */
  readonly about?: string;
  readonly isOptional?: true;
}

/** One field of a trigger: what may stand in it, and how it is asked for. */
export type TriggerField = Field &
  (
    | {
        readonly as: 'figure';
        readonly unit?: string;
        readonly min: number;
        readonly max: number;
        readonly isWhole?: true;
        /** Asked for only beside this choice. */
        readonly beside?: readonly [string, string];
      }
    /** Whole months, or whole days. */
    | { readonly as: 'interval' }
    /** Rising figures of run hours. */
    | { readonly as: 'figures'; readonly unit: string; readonly hint: string }
    | { readonly as: 'choice'; readonly options: readonly (readonly [string, string])[] }
    /** A check whose figure wears one way. */
    | { readonly as: 'check' }
    /** First and last month of a season. */
    | { readonly as: 'months' }
    /** Another trigger, of one of some kinds. */
    | { readonly as: 'trigger'; readonly kinds: readonly string[] }
  );

/** Factors on what goes by hours, and on what goes by the calendar. */
export interface Shares {
  readonly hours: number;
  readonly calendar: number;
}

/** What a trigger that holds another asks of that one. */
export interface Inner {
  judge(trigger: AnyTrigger): JudgedTrigger;
  text(trigger: AnyTrigger): string;
  scaled<One extends AnyTrigger>(trigger: One): One;
  problem(trigger: AnyTrigger): string | null;
}

/** Everything that is true of one kind of trigger. */
export interface TriggerModule<Trigger extends AnyTrigger = AnyTrigger> {
  readonly kind: Trigger['kind'];
  readonly name: string;
  readonly fields: readonly TriggerField[];
  /** What is usual, where a form begins with it. */
  usual(plate: DataPlate): object;
  /** When it makes its task due, in words that follow the name of the task. */
  text(trigger: Trigger, format: FormatQuantity, inner: Pick<Inner, 'text'>): string;
  judge(
    trigger: Trigger,
    task: TaskTerms,
    start: StartingPoint | null,
    moment: Moment,
    inner: Pick<Inner, 'judge'>,
  ): JudgedTrigger;
  /** With severity counted in; left out where what is reckoned or measured has it in it already. */
  scaled?(trigger: Trigger, shares: Shares, inner: Pick<Inner, 'scaled'>): Trigger;
  /** What makes no sense in it beyond its bounds. */
  problem?(trigger: Trigger, inner: Pick<Inner, 'problem'>): string | null;
}

/** A kind as lists of kinds hold it: each is only ever asked about triggers of its own. */
export function triggerKind<Trigger extends AnyTrigger>(
  module: TriggerModule<Trigger>,
): TriggerModule & { readonly trigger: Trigger } {
  return module as unknown as TriggerModule & { readonly trigger: Trigger };
}

/** Nobody services at 4,924.6 h. */
export function roundHours(hours: number): number {
  return hours >= 20 ? Math.round(hours) : Math.round(hours * 10) / 10;
}

/** Half a month has no end of month to keep to: what is no whole month is counted in days. */
export function scaleStep(step: CalendarInterval, factor: number): CalendarInterval {
  if (factor === 1) return step;
  if ('days' in step) return { days: Math.max(1, Math.round(step.days * factor)) };
  const months = step.months * factor;
  return Math.abs(months - Math.round(months)) < 1e-6 && months >= 1
    ? { months: Math.round(months) }
    : { days: Math.max(1, Math.round(months * 30)) };
}
