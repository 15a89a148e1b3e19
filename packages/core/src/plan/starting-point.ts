import { dayNumberOf, HOUR_MS, localDayAt, startOfLocalDay, type Instant } from '../basics/index.js';
import { CLOCK_TOLERANCE_H } from '../hours/index.js';
import { clockHours, clockReaches, type HourClock } from './clock.js';
import { calendarDuePoint, hoursDuePoint, type StartingPoint } from './due-point.js';
import type { ServiceRecord, StartingPointFact, CompressorHistory } from './history.js';
import type { ServicePlan, ServiceTask } from './service-plan.js';
import { stickerHours } from './sticker.js';

/** The last record of a task, and by which task's code it was done. */
export interface LastDone {
  readonly record: ServiceRecord;
  readonly via: string;
}

const coveringByPlan = new WeakMap<ServicePlan, ReadonlyMap<string, readonly string[]>>();

/** For each task code, what a record of it settles: itself and the tasks it covers, however deep. */
export function settledBy(plan: ServicePlan): ReadonlyMap<string, readonly string[]> {
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

/** By code of the task: when it was last done, as itself or as part of a bigger one. */
export function lastDoneByTask(
  plan: ServicePlan,
  services: readonly ServiceRecord[],
): ReadonlyMap<string, LastDone> {
  const covering = settledBy(plan);
  const last = new Map<string, LastDone>();
  for (const record of services) {
    for (const via of record.tasks) {
      for (const code of covering.get(via) ?? []) {
        const before = last.get(code);
        const isBigger = before?.record === record && via !== code;
        if (!before || record.doneAt > before.record.doneAt || isBigger) last.set(code, { record, via });
      }
    }
  }
  return last;
}

/** Whether somebody saw it done, or wrote down the day: an estimate, or hours without a day, says neither. */
function isSeen({ basis, countsFromOn }: StartingPointFact): boolean {
  return basis === 'inspection' || (basis === 'sticker' && typeof countsFromOn === 'string');
}

const NONE_SET: ReadonlyMap<string, StartingPointFact> = new Map();

/**
 * By code of the task: where it was last decided to count from. What keeps somebody safe counts from nothing that
 * nobody saw: no estimate stands for it.
 */
export function startingPointByTask(
  facts: readonly StartingPointFact[] = [],
  tasks: ReadonlyMap<string, Pick<ServiceTask, 'safety'>> = new Map(),
): ReadonlyMap<string, StartingPointFact> {
  if (facts.length === 0) return NONE_SET;
  const last = new Map<string, StartingPointFact>();
  for (const fact of facts) {
    if (tasks.get(fact.task)?.safety && !isSeen(fact)) continue;
    const before = last.get(fact.task);
    const isLater =
      !before ||
      fact.setAt > before.setAt ||
      (fact.setAt === before.setAt && fact.recordedAt > before.recordedAt);
    if (isLater) last.set(fact.task, fact);
  }
  return last;
}

interface StartFacts {
  /** Code of the task. */
  readonly code: string;
  readonly last: LastDone | undefined;
  readonly set: StartingPointFact | undefined;
  readonly tasks: ReadonlyMap<string, ServiceTask>;
}

/** Where a task counts from; null when nobody can say. */
export function startingPointOf(
  { code, last, set, tasks }: StartFacts,
  clock: HourClock,
  history: CompressorHistory,
): StartingPoint | null {
  const { timeZone } = history;
  if (last && !(set && set.setAt > last.record.doneAt)) {
    const { doneAt } = last.record;
    const start: StartingPoint = {
      basis: 'done',
      at: doneAt,
      hours: clockHours(clock, doneAt)?.hours ?? null,
      day: localDayAt(doneAt, timeZone),
      doneAt,
    };
    const bigger = last.via === code ? undefined : tasks.get(last.via);
    return bigger?.counting === 'grid' ? { ...start, ...creditOf(bigger, start, clock) } : start;
  }
  if (set) return setPoint(set, clock, history);
  if (history.history === 'unknown') return null;
  const hours = commissionedHours(clock, history);
  return { basis: 'commissioned', at: clock.commissionedAt, hours, day: clock.commissionedDay, doneAt: null };
}

/**
 * Hours at which a machine that is known from new began: zero, unless its meter was fitted later, or shows more than
 * the machine can have run since. A machine taken over at 9,900 h is not counted from zero: its first figure is where
 * its record begins.
 */
function commissionedHours(clock: HourClock, history: CompressorHistory): number | null {
  const [first, at] = [clock.runHours.hours[0], clock.runHours.at[0]];
  if (first === undefined || at === undefined) return null;
  if (history.meterFrom === 'later') return first;
  const most = Math.max(0, at - clock.commissionedAt) / HOUR_MS + CLOCK_TOLERANCE_H;
  return first <= most ? Math.min(0, first) : first;
}

/** The grid point that a bigger task was done for counts for what it covers, too. */
function creditOf(
  bigger: ServiceTask,
  start: StartingPoint,
  clock: HourClock,
): Pick<StartingPoint, 'creditHours' | 'creditDay'> {
  const credit: { creditHours?: number; creditDay?: number } = {};
  for (const trigger of bigger.triggers) {
    if (trigger.kind === 'hours' && start.hours !== null) {
      const { due, span } = hoursDuePoint(trigger, 'grid', start, start.hours);
      credit.creditHours = Math.max(credit.creditHours ?? -Infinity, due - span);
    } else if (trigger.kind === 'calendar') {
      const { due, span } = calendarDuePoint(trigger, 'grid', start, clock.commissionedDay);
      credit.creditDay = Math.max(credit.creditDay ?? -Infinity, due - span);
    }
  }
  return credit;
}

function setPoint(set: StartingPointFact, clock: HourClock, history: CompressorHistory): StartingPoint {
  const { timeZone } = history;
  const said = stickerHours(set, set.setAt, history);
  const day = dayOf(set, said, clock, timeZone);
  const from: Instant = Math.min(set.setAt, startOfLocalDay(day, timeZone));
  if (said !== null) return { basis: set.basis, at: from, hours: said, day, doneAt: null };
  const then = clockHours(clock, set.setAt)?.hours ?? null;
  const hours =
    set.hoursUsed === undefined || set.hoursUsed === null
      ? (clockHours(clock, from)?.hours ?? null)
      : then === null
        ? null
        : then - set.hoursUsed;
  return { basis: set.basis, at: from, hours, day, doneAt: null };
}

/**
 * The day that months count from: the one that is said; of hours alone the day when the machine likely had them, and
 * where nobody can say, the beginning of its record.
 */
function dayOf(
  { countsFromOn, setAt }: StartingPointFact,
  said: number | null,
  clock: HourClock,
  timeZone: string,
): number {
  if (countsFromOn !== undefined && countsFromOn !== null) return dayNumberOf(countsFromOn);
  const lookedOn = localDayAt(setAt, timeZone);
  if (said === null) return lookedOn;
  const reached = clockReaches(clock, said);
  return Math.min(lookedOn, reached === null ? clock.commissionedDay : localDayAt(reached, timeZone));
}
