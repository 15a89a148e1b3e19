import { DAY_MS, startOfLocalDay, type DayNumber, type Instant } from '../basics/index.js';
import { assumedUntil, clockForecast, clockReaches, type HourClock } from './clock.js';
import type { ConditionFound, WithinReason } from './condition.js';
import type { DuePoint, StartingPoint } from './due-point.js';
import type { CompressorHistory } from './history.js';
import { earlier } from './moments.js';
import type { SeasonLives } from './season-wear.js';

/** From settled to pressing. `unknown`: nobody can say; it wants an inspection. */
export const taskStates = ['fresh', 'put-off', 'unknown', 'nearing', 'due', 'overdue'] as const;
export type TaskState = (typeof taskStates)[number];

/** How much each state presses. */
export const RANK: Record<TaskState, number> = {
  fresh: 0,
  'put-off': 0.5,
  unknown: 1,
  nearing: 2,
  due: 3,
  overdue: 4,
};

const OVERDUE_SHARE = 0.1;
const OVERDUE_DAYS = 7;

/** The moment asked about, and what is known then. */
export interface Moment {
  readonly at: Instant;
  readonly hours: number | null;
  readonly clock: HourClock;
  readonly history: CompressorHistory;
}

/** What of a task bears on how its triggers are judged. */
export interface TaskTerms {
  readonly counting: 'last-done' | 'grid';
  /** Late at once when past its point. */
  readonly safety?: boolean | undefined;
}

/** A trigger, as far as everybody knows it. */
export interface AnyTrigger {
  readonly kind: string;
}

/** Why a trigger has no point. */
export type NoPoint =
  /** Nobody knows where it counts from. */
  | 'no-start'
  /** The run hours are not known. */
  | 'hours-unknown'
  /** What it goes by was not measured. */
  | 'not-measured'
  | WithinReason
  /** The last of its fixed figures is behind. */
  | 'no-milestone-left'
  /** Its figures make no sense together. */
  | 'cannot-be-reckoned'
  /** It belongs to every run, not to a date. */
  | 'within-a-run';

/** A trigger judged at a moment. */
export interface JudgedTrigger {
  /** As it was reckoned with: severity counted in. */
  readonly trigger: AnyTrigger;
  /** Which axis its point lies on; null without a point. */
  readonly axis: 'hours' | 'day' | null;
  /** Due point in hours, or as a day number. */
  readonly point: number | null;
  readonly span: number | null;
  readonly state: TaskState;
  readonly used: number | null;
  readonly earlyAt: Instant | null;
  readonly dueAt: Instant | null;
  readonly lateAt: Instant | null;
  readonly changesAt: Instant | null;
  readonly noPoint: NoPoint | null;
  /** What it stands on besides: what was measured, the lives of the seasons. */
  readonly found?: ConditionFound | undefined;
  readonly lives?: SeasonLives | undefined;
}

/** A state, and when it ends if no fact is added. */
interface Phase {
  readonly state: TaskState;
  readonly changesAt: Instant | null;
}

/** A trigger that no point can be told of. */
export function withoutPoint(
  trigger: AnyTrigger,
  noPoint: NoPoint,
  state: TaskState = 'unknown',
): JudgedTrigger {
  return {
    trigger,
    axis: null,
    point: null,
    span: null,
    used: null,
    earlyAt: null,
    dueAt: null,
    lateAt: null,
    noPoint,
    state,
    changesAt: null,
  };
}

/** A due point in run hours, with how sure it is where it is not. */
export interface HoursPoint {
  readonly due: number;
  readonly span: number;
  readonly window: number;
  /** Where the point itself is not sure: run hours at which it may come sooner or later. */
  readonly early?: number;
  readonly late?: number | null;
  readonly used?: number;
}

/** Judges a point in run hours. */
export function judgeHoursPoint(
  trigger: AnyTrigger,
  task: TaskTerms,
  start: StartingPoint | null,
  { due, span, window, early = due, late = due, used }: HoursPoint,
  { at, hours, clock }: Moment,
): JudgedTrigger {
  const remaining = due - hours!;
  const since =
    start === null || start.basis === 'commissioned' || start.hours === null
      ? null
      : { at: start.at, hours: start.hours };
  const forecast = clockForecast(clock, due, since);
  const dueAt = forecast?.likelyAt ?? null;
  const believedUntil = assumedUntil(clock);
  let phase: Phase;
  if (believedUntil !== null && at >= believedUntil) {
    phase = { state: 'unknown', changesAt: null };
  } else if (remaining > 0) {
    const nearing = remaining <= window;
    const next = nearing ? dueAt : clockReaches(clock, due - window);
    phase = { state: nearing ? 'nearing' : 'fresh', changesAt: earlier(next, believedUntil) };
  } else {
    const lateAt = overdueAt(dueAt ?? at, clockReaches(clock, due + span * OVERDUE_SHARE), task);
    phase = pastDue(at, lateAt, task.safety === true && remaining < 0);
  }
  const lateForecast = late === due ? forecast : late === null ? null : clockForecast(clock, late, since);
  const earlyForecast = early === due ? forecast : clockForecast(clock, early, since);
  return {
    trigger,
    axis: 'hours',
    point: due,
    span,
    used: used ?? 1 - remaining / span,
    earlyAt: earlyForecast?.earlyAt ?? null,
    dueAt,
    lateAt: lateForecast?.lateAt ?? null,
    noPoint: null,
    state: phase.state,
    changesAt: phase.changesAt,
  };
}

/** Judges a day. */
export function judgeDayPoint(
  trigger: AnyTrigger,
  task: TaskTerms,
  { due, span, window }: DuePoint & { readonly due: DayNumber },
  { at, history }: Moment,
): JudgedTrigger {
  const dueAt = startOfLocalDay(due, history.timeZone);
  const startAt = startOfLocalDay(due - span, history.timeZone);
  const used = (at - startAt) / (dueAt - startAt);
  let phase: Phase;
  if (at < dueAt) {
    const nearingAt = dueAt - window * DAY_MS;
    phase =
      at >= nearingAt ? { state: 'nearing', changesAt: dueAt } : { state: 'fresh', changesAt: nearingAt };
  } else {
    const lateAt = overdueAt(dueAt, dueAt + span * OVERDUE_SHARE * DAY_MS, task);
    phase = pastDue(at, lateAt, task.safety === true && at > dueAt);
  }
  const { state, changesAt } = phase;
  return {
    trigger,
    axis: 'day',
    point: due,
    span,
    used,
    earlyAt: dueAt,
    dueAt,
    lateAt: dueAt,
    noPoint: null,
    state,
    changesAt,
  };
}

/** Past its point by more than a tenth of the interval or seven days, whichever is less; safety at once. */
function overdueAt(dueAt: Instant, tenthPastAt: Instant | null, { safety }: TaskTerms): Instant {
  if (safety) return dueAt;
  return Math.min(dueAt + OVERDUE_DAYS * DAY_MS, tenthPastAt ?? Number.POSITIVE_INFINITY);
}

function pastDue(at: Instant, lateAt: Instant, late: boolean): Phase {
  return late || at > lateAt
    ? { state: 'overdue', changesAt: null }
    : { state: 'due', changesAt: lateAt + 1 };
}

/** The trigger with the earlier date rules; one that has no date gives way to one that has. */
export function comesBefore(a: JudgedTrigger, b: JudgedTrigger): boolean {
  if (a.dueAt === null) return false;
  return b.dueAt === null || a.dueAt < b.dueAt;
}
