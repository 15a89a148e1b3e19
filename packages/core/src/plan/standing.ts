import {
  DAY_MS,
  formatDay,
  localDayAt,
  startOfLocalDay,
  type Instant,
  type LocalDate,
} from '../basics/index.js';
import {
  assumedUntil,
  clockForecast,
  clockHours,
  clockRate,
  clockReaches,
  hourClockOf,
  type HourClock,
  type RunHoursBasis,
} from './clock.js';
import { calendarDuePoint, hoursDuePoint, type StartingPoint } from './due-point.js';
import { historyUpTo, type ServiceRecord, type UnitHistory } from './history.js';
import type { CalendarTrigger, HoursTrigger, ServicePlan, ServiceTask } from './service-plan.js';

/** From settled to pressing. `unknown`: nobody can say; it wants an inspection. */
export const taskStates = ['fresh', 'unknown', 'nearing', 'due', 'overdue'] as const;
export type TaskState = (typeof taskStates)[number];

/** What is due on one task, at one moment. */
export interface TaskStanding {
  readonly code: string;
  readonly name: string;
  readonly station: string;
  readonly safety: boolean;
  readonly state: TaskState;
  /** Share of the interval used, 1 at its point, above 1 when past it; null when unknown. */
  readonly usedFraction: number | null;
  /** Run hours at which it falls due; null without an hours trigger or a starting point. */
  readonly dueAtHours: number | null;
  /** Hours left until then, negative when past. */
  readonly remainingHours: number | null;
  /** Day on which its calendar trigger falls due; null without one or without a starting point. */
  readonly dueOn: LocalDate | null;
  /** Day on which it fell or will likely fall due, by whichever trigger comes first. */
  readonly likelyOn: LocalDate | null;
  /** The same as a moment. */
  readonly likelyAt: Instant | null;
  /** One chance in ten that it falls due before this day. */
  readonly earlyOn: LocalDate | null;
  /** One chance in ten that it falls due after this day; null when there is no telling. */
  readonly lateOn: LocalDate | null;
  readonly earlyAt: Instant | null;
  readonly lateAt: Instant | null;
  /** The trigger that comes first. */
  readonly ruledBy: 'hours' | 'calendar' | null;
  readonly lastDoneAt: Instant | null;
  /** Continuous run hours when it was last done. */
  readonly lastDoneHours: number | null;
}

/** What is due on a compressor, at one moment. */
export interface Standing {
  readonly at: Instant;
  /** Continuous run hours at that moment; null when nothing is known of them. */
  readonly runHours: number | null;
  readonly runHoursBasis: RunHoursBasis | null;
  /** Hours a day at that moment, the season counted in; 0 when it stands still, null when nothing is known. */
  readonly hoursPerDay: number | null;
  /** Most pressing first. */
  readonly tasks: readonly TaskStanding[];
  /** While no fact is added, no state changes before this moment; null when none ever will. */
  readonly steadyUntil: Instant | null;
}

const OVERDUE_SHARE = 0.1;
const OVERDUE_DAYS = 7;

/**
 * What is due, when, and which trigger rules: a pure function of plan, history and moment, so that it can be
 * asked about any past or future date.
 *
 * @param knownAt leaves out what was recorded later; default: everything is known
 */
export function standing(
  plan: ServicePlan,
  history: UnitHistory,
  at: Instant,
  knownAt: Instant = Number.POSITIVE_INFINITY,
): Standing {
  return standingOf(plan, historyUpTo(history, at, knownAt), at);
}

/** The same for a history that holds nothing but what had happened by then, as known then. */
export function standingOf(plan: ServicePlan, known: UnitHistory, at: Instant): Standing {
  const clock = hourClockOf(known, at);
  const now = clockHours(clock, at);
  const lastDone = lastDoneByTask(plan, known.services);
  const moment: Moment = { at, hours: now?.hours ?? null, clock, history: known };
  const judged: JudgedTask[] = [];
  for (const task of plan.tasks) {
    const last = lastDone.get(task.code);
    if (task.once && (last || known.history === 'unknown')) continue;
    judged.push(judgeTask(task, last, moment));
  }
  judged.sort(byUrgency);
  return {
    at,
    runHours: now?.hours ?? null,
    runHoursBasis: now?.basis ?? null,
    hoursPerDay: clockRate(clock, at),
    tasks: judged.map(({ standing: task }) => task),
    steadyUntil: earliest(judged.map((task) => task.changesAt)),
  };
}

interface Moment {
  readonly at: Instant;
  readonly hours: number | null;
  readonly clock: HourClock;
  readonly history: UnitHistory;
}

interface JudgedTask {
  readonly standing: TaskStanding;
  readonly changesAt: Instant | null;
}

const coveringByPlan = new WeakMap<ServicePlan, ReadonlyMap<string, readonly string[]>>();

/** For each task code, what a record of it settles: itself and the tasks it covers, however deep. */
function settledBy(plan: ServicePlan): ReadonlyMap<string, readonly string[]> {
  let covering = coveringByPlan.get(plan);
  if (!covering) {
    const direct = new Map(plan.tasks.map((task) => [task.code, task.covers ?? []]));
    const reach = (code: string, seen: Set<string>): Set<string> => {
      if (seen.has(code)) return seen;
      seen.add(code);
      for (const covered of direct.get(code) ?? []) reach(covered, seen);
      return seen;
    };
    covering = new Map(plan.tasks.map((task) => [task.code, [...reach(task.code, new Set())]]));
    coveringByPlan.set(plan, covering);
  }
  return covering;
}

function lastDoneByTask(
  plan: ServicePlan,
  services: readonly ServiceRecord[],
): ReadonlyMap<string, ServiceRecord> {
  const covering = settledBy(plan);
  const last = new Map<string, ServiceRecord>();
  for (const service of services) {
    for (const done of service.tasks) {
      for (const code of covering.get(done) ?? []) {
        const before = last.get(code);
        if (!before || service.doneAt > before.doneAt) last.set(code, service);
      }
    }
  }
  return last;
}

function judgeTask(task: ServiceTask, last: ServiceRecord | undefined, moment: Moment): JudgedTask {
  const start = startingPoint(last, moment);
  const sum = start ? judgeTriggers(task, start, moment) : NOTHING_KNOWN;
  const { hoursPoint, dayPoint, ruling } = sum;
  const dueAt = ruling?.dueAt ?? null;
  const dayOf = (at: Instant | null) =>
    at === null ? null : formatDay(localDayAt(at, moment.history.timeZone));
  return {
    standing: {
      code: task.code,
      name: task.name,
      station: task.station,
      safety: task.safety ?? false,
      state: sum.state,
      usedFraction: sum.used,
      dueAtHours: hoursPoint,
      remainingHours: hoursPoint === null || moment.hours === null ? null : hoursPoint - moment.hours,
      dueOn: dayPoint === null ? null : formatDay(dayPoint),
      earlyOn: dayOf(sum.earlyAt),
      likelyOn: dayOf(dueAt),
      lateOn: dayOf(sum.lateAt),
      earlyAt: sum.earlyAt,
      likelyAt: dueAt,
      lateAt: sum.lateAt,
      ruledBy: ruling?.kind ?? null,
      lastDoneAt: start?.doneAt ?? null,
      lastDoneHours: start && start.doneAt !== null ? start.hours : null,
    },
    changesAt: sum.changesAt,
  };
}

/** All triggers of a task taken together. */
interface JudgedTriggers {
  readonly state: TaskState;
  readonly used: number | null;
  readonly hoursPoint: number | null;
  readonly dayPoint: number | null;
  readonly ruling: JudgedTrigger | null;
  /** The first to come, by early dates and by late ones. */
  readonly earlyAt: Instant | null;
  readonly lateAt: Instant | null;
  readonly changesAt: Instant | null;
}

const NOTHING_KNOWN: JudgedTriggers = {
  state: 'unknown',
  used: null,
  hoursPoint: null,
  dayPoint: null,
  ruling: null,
  earlyAt: null,
  lateAt: null,
  changesAt: null,
};

function judgeTriggers(task: ServiceTask, start: StartingPoint, moment: Moment): JudgedTriggers {
  let state: TaskState = 'unknown';
  let used: number | null = null;
  let hoursPoint: number | null = null;
  let dayPoint: number | null = null;
  let ruling: JudgedTrigger | null = null;
  let earlyAt: Instant | null = null;
  let lateAt: Instant | null = null;
  let changesAt: Instant | null = null;
  for (const trigger of task.triggers) {
    const judged = judgeTrigger(trigger, task, start, moment);
    if (!judged) continue;
    if (judged.kind === 'hours') hoursPoint = Math.min(hoursPoint ?? Infinity, judged.point);
    else dayPoint = Math.min(dayPoint ?? Infinity, judged.point);
    // A trigger that cannot be judged leaves the word to those that can.
    if (judged.state === 'unknown') continue;
    if (used === null || RANK[judged.state] > RANK[state]) state = judged.state;
    used = Math.max(used ?? 0, judged.used);
    changesAt = earlier(changesAt, judged.changesAt);
    earlyAt = earlier(earlyAt, judged.earlyAt);
    lateAt = earlier(lateAt, judged.lateAt);
    if (ruling === null || comesBefore(judged, ruling)) ruling = judged;
  }
  return { state, used, hoursPoint, dayPoint, ruling, earlyAt, lateAt, changesAt };
}

function startingPoint(last: ServiceRecord | undefined, { clock, history }: Moment): StartingPoint | null {
  if (last) {
    const hours = clockHours(clock, last.doneAt)?.hours ?? null;
    return { hours, day: localDayAt(last.doneAt, history.timeZone), doneAt: last.doneAt };
  }
  if (history.history === 'unknown') return null;
  // A machine taken over at 9,900 h is not counted from zero: its first figure is where its record begins.
  return { hours: clock.runHours.hours[0] ?? null, day: clock.commissionedDay, doneAt: null };
}

interface JudgedTrigger {
  readonly kind: 'hours' | 'calendar';
  /** Due point in hours, or as a day number. */
  readonly point: number;
  readonly state: TaskState;
  readonly used: number;
  readonly earlyAt: Instant | null;
  readonly dueAt: Instant | null;
  readonly lateAt: Instant | null;
  readonly changesAt: Instant | null;
}

function judgeTrigger(
  trigger: HoursTrigger | CalendarTrigger,
  task: ServiceTask,
  start: StartingPoint,
  moment: Moment,
): JudgedTrigger | null {
  return trigger.kind === 'hours'
    ? judgeHours(trigger, task, start, moment)
    : judgeCalendar(trigger, task, start, moment);
}

function judgeHours(
  trigger: HoursTrigger,
  task: ServiceTask,
  start: StartingPoint,
  { at, hours, clock }: Moment,
): JudgedTrigger | null {
  if (start.hours === null || hours === null) return null;
  const { due, span, window } = hoursDuePoint(trigger, task.counting, start.hours, start.doneAt !== null);
  const remaining = due - hours;
  const since = start.doneAt === null ? null : { at: start.doneAt, hours: start.hours };
  const forecast = clockForecast(clock, due, since);
  const dueAt = forecast?.likelyAt ?? null;
  const used = 1 - remaining / span;
  const believedUntil = assumedUntil(clock);
  let phase: Phase;
  if (believedUntil !== null && at >= believedUntil) {
    phase = UNKNOWN;
  } else if (remaining > 0) {
    const nearing = remaining <= window;
    const next = nearing ? dueAt : clockReaches(clock, due - window);
    phase = { state: nearing ? 'nearing' : 'fresh', changesAt: earlier(next, believedUntil) };
  } else {
    const lateAt = overdueAt(dueAt ?? at, clockReaches(clock, due + span * OVERDUE_SHARE), task);
    phase = pastDue(at, lateAt, task.safety === true && remaining < 0);
  }
  const { earlyAt = null, lateAt = null } = forecast ?? {};
  return { kind: 'hours', point: due, used, earlyAt, dueAt, lateAt, ...phase };
}

function judgeCalendar(
  trigger: CalendarTrigger,
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
  return { kind: 'calendar', point: due, used, earlyAt: dueAt, dueAt, lateAt: dueAt, ...phase };
}

/** A state, and when it ends if no fact is added. */
interface Phase {
  readonly state: TaskState;
  readonly changesAt: Instant | null;
}

const UNKNOWN: Phase = { state: 'unknown', changesAt: null };

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

const RANK: Record<TaskState, number> = { fresh: 0, unknown: 1, nearing: 2, due: 3, overdue: 4 };

/**
 * Orders tasks by urgency: by state, then safety first among what is due, then by date. Negative when `a`
 * presses more. While the states stay, so does the order, at whatever moments the two were judged.
 */
export function compareUrgency(a: TaskStanding, b: TaskStanding): number {
  return (
    RANK[b.state] - RANK[a.state] ||
    (RANK[a.state] >= RANK.due ? Number(b.safety) - Number(a.safety) : 0) ||
    (a.likelyAt ?? Infinity) - (b.likelyAt ?? Infinity) ||
    0
  );
}

/** Within one unit, what has no date is ordered by how much of it is used, and ties by name of the task. */
function byUrgency({ standing: a }: JudgedTask, { standing: b }: JudgedTask): number {
  return compareUrgency(a, b) || (b.usedFraction ?? 0) - (a.usedFraction ?? 0) || (a.code < b.code ? -1 : 1);
}

function earlier(a: Instant | null, b: Instant | null): Instant | null {
  if (a === null) return b;
  return b === null ? a : Math.min(a, b);
}

function earliest(moments: readonly (Instant | null)[]): Instant | null {
  return moments.reduce<Instant | null>((first, moment) => earlier(first, moment), null);
}
