import { formatDay, type Instant, type LocalDate } from '../basics/index.js';
import type { MeterScale } from '../hours/index.js';
import type { StartBasis } from './due-point.js';
import { historyUpTo, type CompressorHistory } from './history.js';
import type {
  IntervalChoice,
  IntervalOrigin,
  OtherInterval,
  ServicePlan,
  ServiceTask,
  Trigger,
} from './service-plan.js';
import type { AppliedFactor } from './severity.js';
import { judgePlan, type JudgedPlan } from './standing.js';
import type { JudgedTask, TaskStanding } from './task-standing.js';
import type { JudgedTrigger, NoPoint, TaskState } from './judged.js';

/** One trigger in an explanation: as the plan has it, as it was reckoned with, and where it falls. */
export interface ExplainedTrigger {
  readonly rule: Trigger;
  /** Severity counted in; the same as the rule where nothing bears on it. */
  readonly applied: Trigger;
  readonly state: TaskState;
  /** Run hours at which it falls due; null for one that goes by the calendar, or has no point. */
  readonly dueAtHours: number | null;
  readonly dueOn: LocalDate | null;
  readonly usedFraction: number | null;
  readonly earlyAt: Instant | null;
  readonly likelyAt: Instant | null;
  readonly lateAt: Instant | null;
  /** Why it has no point; null where it has one. */
  readonly noPoint: NoPoint | null;
  /** Whether it comes first. */
  readonly isRuling: boolean;
  /** The limit and what was measured last, for a rule by condition. */
  readonly measured: ExplainedMeasurement | null;
  /** Hours that a life lasts in the warm season and in the cold, where those differ. */
  readonly lives: { readonly warm: number; readonly cold: number } | null;
}

export interface ExplainedMeasurement {
  readonly check: string;
  readonly limit: number;
  readonly latest: number;
  readonly latestAt: Instant;
  readonly count: number;
}

/** The chain of reasoning behind a date: rule → factors → last done → due. */
export interface Explanation {
  readonly code: string;
  readonly name: string;
  readonly origin: IntervalOrigin;
  readonly because: string | null;
  /** What other sources say, and why the chosen one stands. */
  readonly others: readonly OtherInterval[];
  readonly choice: IntervalChoice | null;
  readonly counting: 'last-done' | 'grid';
  readonly once: boolean;
  readonly safety: boolean;
  readonly factors: readonly AppliedFactor[];
  readonly start: {
    readonly basis: StartBasis;
    readonly on: LocalDate;
    readonly hours: number | null;
  } | null;
  readonly triggers: readonly ExplainedTrigger[];
  /** The scale that its figures of hours are said on. */
  readonly meter: MeterScale;
  /** A lasting change of use that its dates by hours follow, in words; null where there was none. */
  readonly useChange: string | null;
  readonly due: TaskStanding;
}

/**
 * Explains why a task is due when it is.
 *
 * @returns null where the plan has no such task, or it is one that is done only once and was
 */
export function explain(
  plan: ServicePlan,
  code: string,
  history: CompressorHistory,
  at: Instant,
  knownAt: Instant = Number.POSITIVE_INFINITY,
): Explanation | null {
  return explainAll(judgePlan(plan, historyUpTo(history, at, knownAt), at)).get(code) ?? null;
}

/** Explains every task of a plan that was judged, by code: what is said of it is what was judged. */
export function explainAll(plan: JudgedPlan): ReadonlyMap<string, Explanation> {
  const { standing, judged } = plan;
  const tasks = new Map(plan.plan.tasks.map((task) => [task.code, task]));
  const useChange = plan.useChange();
  return new Map(
    standing.tasks.flatMap((due) => {
      const [task, one] = [tasks.get(due.code), judged.get(due.code)];
      return task && one
        ? [[due.code, explanationOf(task, one, due, standing.meter, useChange)] as const]
        : [];
    }),
  );
}

function explanationOf(
  task: ServiceTask,
  { start, triggers, factors }: JudgedTask,
  due: TaskStanding,
  meter: MeterScale,
  useChange: string | null,
): Explanation {
  return {
    code: task.code,
    name: task.name,
    origin: task.origin,
    because: task.because ?? null,
    others: task.others ?? [],
    choice: task.choice ?? null,
    counting: task.counting,
    once: task.once ?? false,
    safety: task.safety ?? false,
    factors,
    start: start && { basis: start.basis, on: formatDay(start.day), hours: start.hours },
    triggers: triggers.all.map((one, index) => ({
      ...explainTrigger(one, task.triggers[index]!),
      isRuling: one === triggers.ruling,
    })),
    meter,
    useChange,
    due,
  };
}

function explainTrigger(judged: JudgedTrigger, rule: Trigger): Omit<ExplainedTrigger, 'isRuling'> {
  const { axis, point, found, lives } = judged;
  return {
    rule,
    applied: judged.trigger as Trigger,
    state: judged.state,
    dueAtHours: axis === 'hours' ? point : null,
    dueOn: axis === 'day' && point !== null ? formatDay(point) : null,
    usedFraction: judged.used,
    earlyAt: judged.earlyAt,
    likelyAt: judged.dueAt,
    lateAt: judged.lateAt,
    noPoint: judged.noPoint,
    measured:
      found === undefined || found.known === 'nothing'
        ? null
        : {
            check: found.latest.check,
            limit: found.limit,
            latest: found.latest.value,
            latestAt: found.latest.takenAt,
            count: found.count,
          },
    lives: lives ? { warm: lives.warm, cold: lives.cold } : null,
  };
}
