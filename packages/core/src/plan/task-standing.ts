import type { Instant, LocalDate } from '../basics/index.js';
import type { StartBasis, StartingPoint } from './due-point.js';
import type { Deferral } from './history.js';
import type { JudgedTriggers } from './judge-task.js';
import type { Trigger } from './service-plan.js';
import type { AppliedFactor } from './severity.js';
import type { VesselRef } from './vessel-history.js';
import type { TaskState } from './judged.js';

/** What is due on one task, at one moment. */
export interface TaskStanding {
  readonly code: string;
  readonly name: string;
  readonly station: string;
  readonly safety: boolean;
  readonly state: TaskState;
  /** Share of the interval used, 1 at its point, above 1 when past it; null when unknown. */
  readonly usedFraction: number | null;
  /** Run hours at which it falls due; null without a trigger by hours or a starting point. */
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
  /** Whether the trigger that comes first goes by run hours or by the calendar. */
  readonly ruledBy: 'hours' | 'calendar' | null;
  /** The kind of that trigger. */
  readonly rule: Trigger['kind'] | null;
  readonly lastDoneAt: Instant | null;
  /** Continuous run hours when it was last done. */
  readonly lastDoneHours: number | null;
  /** What it counts from; null when nobody can say. */
  readonly startedBy: StartBasis | null;
  /** Code of a bigger task that is due as well: doing that one does this one. */
  readonly coveredBy: string | null;
  /** Why and until when it was put off, while that holds. */
  readonly deferral: DeferralStanding | null;
  /** The receiver or cylinder whose date this is. */
  readonly vessel: VesselRef | null;
}

export interface DeferralStanding extends Pick<Deferral, 'reason'> {
  readonly untilHours: number | null;
  readonly untilOn: LocalDate | null;
  readonly risk: string | null;
}

/** A task judged, with everything that went into it. */
export interface JudgedTask {
  readonly standing: TaskStanding;
  readonly changesAt: Instant | null;
  readonly triggers: JudgedTriggers;
  readonly factors: readonly AppliedFactor[];
  readonly start: StartingPoint | null;
}
