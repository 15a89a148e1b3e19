import { formatDay, localDayAt, type Instant } from '../basics/index.js';
import { meterScaleAt, describeUseChange, type MeterScale } from '../hours/index.js';
import { clockHours, clockRate, hourClockOf, type RunHoursBasis } from './clock.js';
import type { StartingPoint } from './due-point.js';
import { historyUpTo, type Deferral, type CompressorHistory } from './history.js';
import { judgeTriggers, deferralInForce, type JudgedTriggers } from './judge-task.js';
import { earlier } from './moments.js';
import { isRoutine, type ServicePlan, type ServiceTask, type Trigger } from './service-plan.js';
import { factorsOf, scaledTriggers, severitiesOf, type AppliedFactor, type Severities } from './severity.js';
import { lastDoneByTask, settledBy, startingPointByTask, startingPointOf } from './starting-point.js';
import type { JudgedTask, TaskStanding } from './task-standing.js';
import { vesselStandings } from './vessel.js';
import { RANK, type Moment } from './judged.js';
import type { RunTrigger } from './triggers/index.js';

/** Work that belongs to every run, by whoever runs the machine. */
export interface RoutineTask {
  readonly code: string;
  readonly name: string;
  readonly station: string;
  /** Severity counted in. */
  readonly triggers: readonly RunTrigger[];
  readonly factors: readonly AppliedFactor[];
}

/** What is due on a compressor, at one moment. */
export interface Standing {
  readonly at: Instant;
  /** Continuous run hours at that moment; null when nothing is known of them. */
  readonly runHours: number | null;
  readonly runHoursBasis: RunHoursBasis | null;
  /** How the figure on the meter follows from them. */
  readonly meter: MeterScale;
  /** Hours a day at that moment, the season counted in; 0 when it stands still, null when nothing is known. */
  readonly hoursPerDay: number | null;
  /** Most pressing first; what a bigger task that is due covers comes last. */
  readonly tasks: readonly TaskStanding[];
  readonly routine: readonly RoutineTask[];
  /** While no fact is added, no state changes before this moment; null when none ever will. */
  readonly steadyUntil: Instant | null;
}

/**
 * What is due, when, and which trigger rules: a pure function of plan, history and moment, so that it can be
 * asked about any past or future date.
 *
 * @param knownAt leaves out what was recorded later; default: everything is known
 */
export function standing(
  plan: ServicePlan,
  history: CompressorHistory,
  at: Instant,
  knownAt: Instant = Number.POSITIVE_INFINITY,
): Standing {
  return standingOf(plan, historyUpTo(history, at, knownAt), at);
}

/** The same for a history that holds nothing but what had happened by then, as known then. */
export function standingOf(plan: ServicePlan, known: CompressorHistory, at: Instant): Standing {
  return judgeTasks(plan, known, at).standing;
}

/** A standing with the judging behind it, by task: what explains it is what made it. */
export interface JudgedPlan {
  readonly plan: ServicePlan;
  readonly standing: Standing;
  readonly judged: ReadonlyMap<string, JudgedTask>;
  /** A lasting change of use that dates by hours follow, in words. */
  readonly useChange: () => string | null;
}

/** Judges a plan against a history that holds nothing but what had happened by then, as known then. */
export function judgePlan(plan: ServicePlan, known: CompressorHistory, at: Instant): JudgedPlan {
  const { standing, judged, change } = judgeTasks(plan, known, at);
  return {
    plan,
    standing,
    judged: new Map(judged.map((one) => [one.standing.code, one])),
    useChange: () => (change ? describeUseChange(change, known.timeZone) : null),
  };
}

function judgeTasks(plan: ServicePlan, known: CompressorHistory, at: Instant) {
  const judging = planAt(plan, known, at);
  const { moment } = judging;
  const judged: JudgedTask[] = [];
  const routine: RoutineTask[] = [];
  for (const task of plan.tasks) {
    if (isRoutine(task)) {
      const { triggers, factors } = judging.intervalsOf(task);
      const { code, name, station } = task;
      routine.push({ code, name, station, triggers: triggers as readonly RunTrigger[], factors });
    } else {
      const one = judging.judge(task);
      if (one) judged.push(one);
    }
  }
  if (known.vessels) judged.push(...vesselStandings(known.vessels, moment, known));
  const tasks = settleCovered(judged, plan);
  let steadyUntil: Instant | null = null;
  for (const { changesAt } of judged) steadyUntil = earlier(steadyUntil, changesAt);
  const standing: Standing = {
    at,
    runHours: moment.hours,
    runHoursBasis: judging.basis,
    meter: meterScaleAt(known.meterChanges, moment.clock.runHours.counts, at),
    hoursPerDay: clockRate(moment.clock, at),
    tasks,
    routine,
    steadyUntil,
  };
  return { standing, judged, change: moment.clock.model?.change ?? null };
}

/** A plan about to be judged at a moment: what all of its tasks share is worked out once. */
export interface PlanAt {
  readonly moment: Moment;
  readonly basis: RunHoursBasis | null;
  /** The triggers of a task with the severity of this machine counted in. */
  intervalsOf(task: ServiceTask): {
    readonly triggers: readonly Trigger[];
    readonly factors: readonly AppliedFactor[];
  };
  /** Null for work done once that is done, or that nobody can say was done. */
  judge(task: ServiceTask): JudgedTask | null;
}

/** Lays out a plan against a history that holds nothing but what had happened by `at`. */
export function planAt(plan: ServicePlan, known: CompressorHistory, at: Instant): PlanAt {
  const clock = hourClockOf(known, at);
  const now = clockHours(clock, at);
  const moment: Moment = { at, hours: now?.hours ?? null, clock, history: known };
  let severities: Severities | null = null;
  const lastDone = lastDoneByTask(plan, known.services);
  const deferrals = latestDeferrals(known.deferrals);
  const tasks = tasksByCode(plan);
  const set = startingPointByTask(known.startingPoints, tasks);
  const intervalsOf = (task: ServiceTask) => {
    if (task.severity === undefined) return { triggers: task.triggers, factors: NO_FACTORS };
    severities ??= severitiesOf(known, clock);
    const factors = factorsOf(task, severities, plan.overrides);
    return { triggers: scaledTriggers(task, factors), factors };
  };
  return {
    moment,
    basis: now?.basis ?? null,
    intervalsOf,
    judge(task) {
      const last = lastDone.get(task.code);
      if (task.once && (last || known.history === 'unknown')) return null;
      const start = startingPointOf({ code: task.code, last, set: set.get(task.code), tasks }, clock, known);
      const { triggers, factors } = intervalsOf(task);
      const sum = seenOrDue(task, start, judgeTriggers(task, triggers, start, moment));
      return describe(task, { sum, start, factors, deferral: deferrals.get(task.code) }, moment);
    },
  };
}

/** What keeps somebody safe and was never seen is due, whatever was estimated. */
function seenOrDue(
  { safety }: ServiceTask,
  start: StartingPoint | null,
  sum: JudgedTriggers,
): JudgedTriggers {
  return safety && start === null && sum.state === 'unknown' ? { ...sum, state: 'due' } : sum;
}

const NO_FACTORS: readonly AppliedFactor[] = [];

const taskMaps = new WeakMap<ServicePlan, ReadonlyMap<string, ServiceTask>>();

function tasksByCode(plan: ServicePlan): ReadonlyMap<string, ServiceTask> {
  let known = taskMaps.get(plan);
  if (!known) taskMaps.set(plan, (known = new Map(plan.tasks.map((task) => [task.code, task]))));
  return known;
}

const NONE_PUT_OFF: ReadonlyMap<string, Deferral> = new Map();

function latestDeferrals(deferrals: readonly Deferral[] = []): ReadonlyMap<string, Deferral> {
  if (deferrals.length === 0) return NONE_PUT_OFF;
  const latest = new Map<string, Deferral>();
  for (const one of deferrals) {
    const before = latest.get(one.task);
    if (!before || one.deferredAt >= before.deferredAt) latest.set(one.task, one);
  }
  return latest;
}

interface Found {
  readonly sum: JudgedTriggers;
  readonly start: StartingPoint | null;
  readonly factors: readonly AppliedFactor[];
  readonly deferral: Deferral | undefined;
}

function describe(task: ServiceTask, { sum, start, factors, deferral }: Found, moment: Moment): JudgedTask {
  const { hoursPoint, dayPoint, ruling } = sum;
  const dueAt = ruling?.dueAt ?? null;
  const { timeZone } = moment.history;
  const dayOf = (at: Instant | null) => (at === null ? null : formatDay(localDayAt(at, timeZone)));
  const waiting = RANK[sum.state] >= RANK.nearing ? deferralInForce(task, deferral, start, moment) : null;
  return {
    standing: {
      code: task.code,
      name: task.name,
      station: task.station,
      safety: task.safety ?? false,
      state: waiting ? 'put-off' : sum.state,
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
      ruledBy: ruling === null ? null : ruling.axis === 'hours' ? 'hours' : 'calendar',
      rule: (ruling?.trigger.kind ?? null) as Trigger['kind'] | null,
      lastDoneAt: start?.doneAt ?? null,
      lastDoneHours: start && start.doneAt !== null ? start.hours : null,
      startedBy: start?.basis ?? null,
      coveredBy: null,
      deferral: waiting
        ? {
            reason: waiting.deferral.reason,
            untilHours: waiting.deferral.untilHours ?? null,
            untilOn: waiting.deferral.untilOn ?? null,
            risk: waiting.deferral.risk ?? null,
          }
        : null,
      vessel: null,
    },
    changesAt: waiting ? earlier(sum.changesAt, waiting.endsAt) : sum.changesAt,
    triggers: sum,
    factors,
    start,
  };
}

/**
 * When a bigger task and one that it covers are both due only the bigger is to be done: it takes over the
 * urgency of what it covers, and that comes last.
 */
function settleCovered(judged: readonly JudgedTask[], plan: ServicePlan): readonly TaskStanding[] {
  const tasks = judged.map(({ standing: one }) => one);
  const settles = settledBy(plan);
  judged.forEach(({ standing: bigger }, place) => {
    if (RANK[bigger.state] < RANK.due) return;
    const covered = settles.get(bigger.code);
    if (!covered || covered.length < 2) return;
    tasks.forEach((smaller, index) => {
      if (index === place || !covered.includes(smaller.code) || RANK[smaller.state] < RANK.nearing) return;
      tasks[index] = { ...smaller, coveredBy: bigger.code };
      const taken = tasks[place]!;
      if (RANK[smaller.state] > RANK[taken.state]) tasks[place] = { ...taken, state: smaller.state };
    });
  });
  return tasks.sort(byUrgency);
}

/** How much a task presses; a safety task that was put off stays in sight among what is due. */
function pressing({ state, safety, coveredBy }: TaskStanding): number {
  if (coveredBy !== null) return -1;
  return state === 'put-off' && safety ? RANK.due : RANK[state];
}

/**
 * Orders tasks by urgency: by state, then safety first among what is due, then by date. Negative when `a`
 * presses more. While the states stay, so does the order, at whatever moments the two were judged.
 */
export function compareUrgency(a: TaskStanding, b: TaskStanding): number {
  const [pressA, pressB] = [pressing(a), pressing(b)];
  return (
    pressB - pressA ||
    (pressA >= RANK.due ? Number(b.safety) - Number(a.safety) : 0) ||
    (a.likelyAt ?? Infinity) - (b.likelyAt ?? Infinity) ||
    Number(b.safety) - Number(a.safety)
  );
}

/** Within one unit, what has no date is ordered by how much of it is used; ties stand in the order of the plan. */
function byUrgency(a: TaskStanding, b: TaskStanding): number {
  return compareUrgency(a, b) || (b.usedFraction ?? 0) - (a.usedFraction ?? 0);
}
