import { DAY_MS, dayNumberOf, startOfLocalDay, type Instant } from '../basics/index.js';
import { assumedUntil, clockForecast, clockReaches, type HourClock } from './clock.js';
import { conditionFound, type ConditionFound, type WithinReason } from './condition.js';
import { calendarDuePoint, hoursDuePoint, milestoneDuePoint, type StartingPoint } from './due-point.js';
import type { PutOff, UnitHistory } from './history.js';
import { livesOf, wornPoint, type SeasonLives } from './season-wear.js';
import type { NotBeforeTrigger, ServiceTask, Trigger } from './service-plan.js';
import { earlier, later } from './moments.js';

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
  readonly history: UnitHistory;
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
  readonly trigger: Trigger;
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

/** All triggers of a task taken together. */
export interface JudgedTriggers {
  readonly state: TaskState;
  readonly used: number | null;
  readonly hoursPoint: number | null;
  readonly dayPoint: number | null;
  readonly ruling: JudgedTrigger | null;
  /** The first to come, by early dates and by late ones. */
  readonly earlyAt: Instant | null;
  readonly lateAt: Instant | null;
  readonly changesAt: Instant | null;
  readonly all: readonly JudgedTrigger[];
}

/** Judges every trigger of a task, and takes the first to come. */
export function judgeTriggers(
  task: ServiceTask,
  triggers: readonly Trigger[],
  start: StartingPoint | null,
  moment: Moment,
): JudgedTriggers {
  let state: TaskState = 'unknown';
  let used: number | null = null;
  let hoursPoint: number | null = null;
  let dayPoint: number | null = null;
  let ruling: JudgedTrigger | null = null;
  let earlyAt: Instant | null = null;
  let lateAt: Instant | null = null;
  let changesAt: Instant | null = null;
  let isJudged = false;
  const all: JudgedTrigger[] = [];
  for (const trigger of triggers) {
    const judged = judgeTrigger(trigger, task, start, moment);
    all.push(judged);
    if (judged.axis === 'hours') hoursPoint = Math.min(hoursPoint ?? Infinity, judged.point!);
    else if (judged.axis === 'day') dayPoint = Math.min(dayPoint ?? Infinity, judged.point!);
    // A trigger that cannot be judged leaves the word to those that can.
    if (judged.state === 'unknown') continue;
    if (!isJudged || RANK[judged.state] > RANK[state]) state = judged.state;
    isJudged = true;
    if (judged.used !== null) used = Math.max(used ?? 0, judged.used);
    changesAt = earlier(changesAt, judged.changesAt);
    earlyAt = earlier(earlyAt, judged.earlyAt);
    lateAt = earlier(lateAt, judged.lateAt);
    if (judged.axis !== null && (ruling === null || comesBefore(judged, ruling))) ruling = judged;
  }
  return { state, used, hoursPoint, dayPoint, ruling, earlyAt, lateAt, changesAt, all };
}

function judgeTrigger(
  trigger: Trigger,
  task: ServiceTask,
  start: StartingPoint | null,
  moment: Moment,
): JudgedTrigger {
  // What is measured can speak for a machine whose history nobody knows.
  if (trigger.kind === 'condition') return judgeCondition(trigger, task, start, moment);
  if (trigger.kind === 'run') return withoutPoint(trigger, 'within-a-run');
  if (trigger.kind === 'not-before') return judgeNotBefore(trigger, task, start, moment);
  if (start === null) return withoutPoint(trigger, 'no-start');
  if (trigger.kind === 'calendar') return judgeCalendar(trigger, task, start, moment);
  if (start.hours === null || moment.hours === null) return withoutPoint(trigger, 'hours-unknown');
  const { hours } = start;
  switch (trigger.kind) {
    case 'hours': {
      const point = hoursDuePoint(trigger, task.counting, start, hours);
      return judgeHoursPoint(trigger, task, start, point, moment);
    }
    case 'milestone': {
      const point = milestoneDuePoint(trigger, start, hours);
      return point
        ? judgeHoursPoint(trigger, task, start, point, moment)
        : { ...withoutPoint(trigger, 'no-milestone-left'), state: 'fresh' };
    }
    case 'season':
    case 'water': {
      const lives = livesOf(trigger);
      if (!lives) return withoutPoint(trigger, 'cannot-be-reckoned');
      const now = { at: moment.at, hours: moment.hours };
      const worn = wornPoint(lives, { at: start.at, hours }, now, moment.clock, moment.history.timeZone);
      const span = worn.due - hours;
      const window = Math.min(Math.max(span * 0.1, 1), span / 2);
      return { ...judgeHoursPoint(trigger, task, start, { ...worn, span, window }, moment), lives };
    }
  }
}

function withoutPoint(trigger: Trigger, noPoint: NoPoint): JudgedTrigger {
  return {
    trigger,
    axis: null,
    point: null,
    span: null,
    state: 'unknown',
    used: null,
    earlyAt: null,
    dueAt: null,
    lateAt: null,
    changesAt: null,
    noPoint,
  };
}

interface HoursPoint {
  readonly due: number;
  readonly span: number;
  readonly window: number;
  /** Where the point itself is not sure: run hours at which it may come sooner or later. */
  readonly early?: number;
  readonly late?: number | null;
  readonly used?: number;
}

function judgeHoursPoint(
  trigger: Trigger,
  task: ServiceTask,
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
    ...phase,
  };
}

function judgeCondition(
  trigger: Extract<Trigger, { kind: 'condition' }>,
  task: ServiceTask,
  start: StartingPoint | null,
  moment: Moment,
): JudgedTrigger {
  const doneHours = start?.doneAt === null || start === null ? null : start.hours;
  const found = conditionFound(trigger, moment.history, moment.clock, doneHours);
  if (found.known === 'nothing') {
    const isSettled = start !== null && start.basis !== 'commissioned';
    return { ...withoutPoint(trigger, 'not-measured'), ...(isSettled ? { state: 'fresh' } : {}), found };
  }
  if (found.known === 'within') return { ...withoutPoint(trigger, found.why), state: 'fresh', found };
  if (moment.hours === null) return { ...withoutPoint(trigger, 'hours-unknown'), found };
  return { ...judgeHoursPoint(trigger, task, start, found, moment), found };
}

function judgeCalendar(
  trigger: Extract<Trigger, { kind: 'calendar' }>,
  task: ServiceTask,
  start: StartingPoint,
  { at, clock, history }: Moment,
): JudgedTrigger {
  const { due, span, window } = calendarDuePoint(trigger, task.counting, start, clock.commissionedDay);
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
  const moments = { earlyAt: dueAt, dueAt, lateAt: dueAt };
  return { trigger, axis: 'day', point: due, span, used, noPoint: null, ...moments, ...phase };
}

/** Due at the later of the two. A floor that cannot be told does not hold anything back. */
function judgeNotBefore(
  trigger: NotBeforeTrigger,
  task: ServiceTask,
  start: StartingPoint | null,
  moment: Moment,
): JudgedTrigger {
  const inner = { ...judgeTrigger(trigger.trigger, task, start, moment), trigger };
  const floor = judgeTrigger(trigger.floor, task, start, moment);
  if (floor.state === 'unknown' || inner.state === 'unknown') return inner;
  const isHeld = comesBefore(inner, floor) || inner.axis === null;
  const held = isHeld && inner.axis !== null ? { ...floor, trigger } : inner;
  const state = RANK[inner.state] <= RANK[floor.state] ? inner.state : floor.state;
  return {
    ...held,
    found: inner.found,
    lives: inner.lives,
    state,
    used: inner.used === null ? floor.used : Math.min(inner.used, floor.used ?? inner.used),
    earlyAt: later(inner.earlyAt, floor.earlyAt),
    dueAt: later(inner.dueAt, floor.dueAt),
    lateAt: later(inner.lateAt, floor.lateAt),
    changesAt: earlier(inner.changesAt, floor.changesAt),
  };
}

/** Past its point by more than a tenth of the interval or seven days, whichever is less; safety at once. */
function overdueAt(dueAt: Instant, tenthPastAt: Instant | null, { safety }: ServiceTask): Instant {
  if (safety) return dueAt;
  return Math.min(dueAt + OVERDUE_DAYS * DAY_MS, tenthPastAt ?? Number.POSITIVE_INFINITY);
}

function pastDue(at: Instant, lateAt: Instant, late: boolean): Phase {
  return late || at > lateAt
    ? { state: 'overdue', changesAt: null }
    : { state: 'due', changesAt: lateAt + 1 };
}

/** The trigger with the earlier date rules; one that has no date gives way to one that has. */
function comesBefore(a: JudgedTrigger, b: JudgedTrigger): boolean {
  if (a.dueAt === null) return false;
  return b.dueAt === null || a.dueAt < b.dueAt;
}

/** A putting off that still holds, and when it ends; null where none does. */
export function putOffInForce(
  task: ServiceTask,
  putOff: PutOff | undefined,
  start: StartingPoint | null,
  { at, hours, clock, history }: Moment,
): { readonly putOff: PutOff; readonly endsAt: Instant | null } | null {
  if (!putOff) return null;
  // Doing the work ends it; and nobody puts off what keeps somebody alive without naming the risk.
  if (start !== null && start.basis !== 'commissioned' && start.at >= putOff.putOffAt) return null;
  if (task.safety && !putOff.risk) return null;
  const { untilHours = null, untilOn = null } = putOff;
  if (untilHours !== null && hours !== null && hours >= untilHours) return null;
  const endsOn = untilOn === null ? null : startOfLocalDay(dayNumberOf(untilOn), history.timeZone);
  if (endsOn !== null && at >= endsOn) return null;
  const endsByHours = untilHours === null ? null : clockReaches(clock, untilHours);
  return { putOff, endsAt: earlier(endsOn, endsByHours) };
}
