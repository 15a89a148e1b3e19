import {
  dayNumberOf,
  formatDay,
  localDayAt,
  shiftDays,
  type DayNumber,
  type Instant,
  type LocalDate,
} from '../basics/index.js';
import { checkByCode, type CheckValues, type Judgement } from '../checks/index.js';
import type { PointPlate } from './point.js';
import { pointTasks, type PointTask } from './tasks.js';

/** Something found at a point of use, as it was judged. */
export interface PointLook {
  readonly check: string;
  readonly values: CheckValues;
  readonly judgement: Judgement;
}

/** What was done at a point of use at one time: tasks, looks, or both. */
export interface PointWork {
  readonly id: string;
  readonly doneAt: Instant;
  readonly tasks: readonly string[];
  readonly looks: readonly PointLook[];
}

/** How a point of use may stand, the gravest first. */
export const pointStates = ['stopped', 'overdue', 'due', 'nearing', 'fresh'] as const;
export type PointState = (typeof pointStates)[number];
export type PointTaskState = Exclude<PointState, 'stopped'>;

export interface PointTaskStanding extends PointTask {
  readonly lastDoneAt: Instant | null;
  readonly dueOn: LocalDate;
  readonly state: PointTaskState;
  /** Share of its interval that has gone. */
  readonly used: number;
  /** Why it is due before its day. */
  readonly because: string | null;
}

/** Why a point of use must not be used. */
export interface PointStop {
  readonly workId: string;
  readonly check: string;
  readonly since: Instant;
  readonly why: string;
}

export interface PointStanding {
  readonly tasks: readonly PointTaskStanding[];
  readonly stops: readonly PointStop[];
  /** The worst of its tasks; `stopped` comes before every one of them. */
  readonly state: PointState;
}

/** How far before its day a task is nearing: an eighth of its interval, no more than a month (common practice). */
const NEARING = { share: 1 / 8, mostDays: 30 } as const;
/** It is late once half its interval has gone over its day. */
const LATE_SHARE = 0.5;

const gravity = (state: PointState) => pointStates.indexOf(state);

/**
 * How a point of use stands: what is due, from the days of its tasks and from what was last found.
 *
 * @param work everything that stands, in any order
 */
export function pointStanding(
  plate: PointPlate,
  work: readonly PointWork[],
  { now, timeZone }: { readonly now: Instant; readonly timeZone: string },
): PointStanding {
  const known = work.filter(({ doneAt }) => doneAt <= now).sort(byMoment);
  const last = lastLooks(known);
  const today = localDayAt(now, timeZone);
  const tasks = pointTasks(plate)
    .map((task) => taskStanding(plate, task, known, last, today, timeZone))
    .sort((one, other) => gravity(one.state) - gravity(other.state) || compareDays(one, other));
  const stops = [...last.values()]
    .filter(({ look }) => look.judgement.verdict === 'stop')
    .map(({ look, work: { id, doneAt } }) => ({
      workId: id,
      check: look.check,
      since: doneAt,
      why: `${checkByCode(look.check)?.name ?? look.check}: ${look.judgement.reason}`,
    }));
  return { tasks, stops, state: stops.length > 0 ? 'stopped' : (tasks[0]?.state ?? 'fresh') };
}

interface LastLook {
  readonly look: PointLook;
  readonly work: PointWork;
}

/** The last of each check. */
function lastLooks(known: readonly PointWork[]): ReadonlyMap<string, LastLook> {
  return new Map(known.flatMap((work) => work.looks.map((look) => [look.check, { look, work }] as const)));
}

function taskStanding(
  plate: PointPlate,
  task: PointTask,
  known: readonly PointWork[],
  last: ReadonlyMap<string, LastLook>,
  today: DayNumber,
  timeZone: string,
): PointTaskStanding {
  const done = known.findLast(({ tasks }) => tasks.includes(task.code));
  const from = done === undefined ? dayNumberOf(plate.fittedOn) : localDayAt(done.doneAt, timeZone);
  const due = shiftDays(from, task.every);
  const span = due - from;
  const called = (task.calledBy ?? [])
    .map((check) => last.get(check))
    .find(
      (found) =>
        found !== undefined &&
        found.look.judgement.verdict !== 'good' &&
        (done === undefined || found.work.doneAt > done.doneAt),
    );
  const byDay: PointTaskState =
    today > due + span * LATE_SHARE
      ? 'overdue'
      : today >= due
        ? 'due'
        : today >= due - Math.min(NEARING.mostDays, span * NEARING.share)
          ? 'nearing'
          : 'fresh';
  const byLook: PointTaskState =
    called === undefined ? 'fresh' : called.look.judgement.verdict === 'watch' ? 'nearing' : 'due';
  const isCalled = called !== undefined && gravity(byLook) < gravity(byDay);
  const foundOn = called === undefined ? due : localDayAt(called.work.doneAt, timeZone);
  return {
    ...task,
    lastDoneAt: done?.doneAt ?? null,
    dueOn: formatDay(isCalled && byLook === 'due' ? Math.min(due, foundOn) : due),
    state: isCalled ? byLook : byDay,
    used: Math.max(0, (today - from) / span),
    because: isCalled ? called.look.judgement.reason : null,
  };
}

/** What happened in one millisecond by its id: a bowl looked at before and after within one is one page’s doing. */
function byMoment(one: PointWork, other: PointWork): number {
  return one.doneAt - other.doneAt || (one.id < other.id ? -1 : 1);
}

function compareDays(one: PointTaskStanding, other: PointTaskStanding): number {
  return one.dueOn < other.dueOn ? -1 : one.dueOn > other.dueOn ? 1 : 0;
}
