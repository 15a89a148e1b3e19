import type { CalendarStep } from '../basics/index.js';

export const taskActions = [
  'inspect',
  'clean',
  'drain',
  'replace',
  'test',
  'calibrate',
  'sample',
  'overhaul',
] as const;
export type TaskAction = (typeof taskActions)[number];

/** What state the machine must be in for a task. */
export const isolationStates = [
  'running',
  'stopped',
  'stopped-under-pressure',
  'isolated-and-vented',
] as const;
export type IsolationState = (typeof isolationStates)[number];

/** Where an interval was taken from. The maker's book always beats common practice. */
export const intervalOrigins = ['book', 'label', 'practice', 'regulation', 'own-history'] as const;
export type IntervalOrigin = (typeof intervalOrigins)[number];

/** Due every so many run hours. */
export interface HoursTrigger {
  readonly kind: 'hours';
  readonly every: number;
  /** The first time only, counted from commissioning. */
  readonly first?: number;
  /** Hours before the point from which the task counts as nearing; default a tenth, at least 5 h. */
  readonly nearing?: number;
}

/** Due every so many months or days. */
export interface CalendarTrigger {
  readonly kind: 'calendar';
  readonly every: CalendarStep;
  /** The first time only, counted from commissioning. */
  readonly first?: CalendarStep;
  /** Days before the date from which the task counts as nearing; default a tenth, at least 7 days. */
  readonly nearing?: number;
}

export type Trigger = HoursTrigger | CalendarTrigger;

/** A piece of service work that comes round, whichever of its triggers comes first. */
export interface ServiceTask {
  /** Stable code, shared by every family that has the task. */
  readonly code: string;
  /** What to do, in a few words. */
  readonly name: string;
  /** Code of the station where it is done. */
  readonly station: string;
  readonly action: TaskAction;
  readonly triggers: readonly Trigger[];
  /**
   * `last-done`: the interval restarts when the work is done. `grid`: the work belongs to fixed multiples
   * (of run hours from zero, of months from commissioning), so doing one late does not move the next.
   */
  readonly counting: 'last-done' | 'grid';
  readonly isolation: IsolationState;
  readonly minutes: number;
  readonly origin: IntervalOrigin;
  /** Late at once when past its point. */
  readonly safety?: boolean;
  /** Done a single time in the machine's life. */
  readonly once?: boolean;
  /** Codes of smaller tasks that doing this one does too. */
  readonly covers?: readonly string[];
  /** The hazard of the work, where there is one. */
  readonly caution?: string;
  /** Why the interval is what it is, where that is not plain. */
  readonly because?: string;
}

/** What is to be done to one compressor. */
export interface ServicePlan {
  readonly tasks: readonly ServiceTask[];
}

/** A plan as it holds from a moment on. */
export interface PlanVersion {
  readonly version: number;
  readonly effectiveAt: number;
  readonly plan: ServicePlan;
}

/** The version in force at a moment: the latest that had taken effect; the first before that. */
export function planVersionAt(versions: readonly PlanVersion[], at: number): PlanVersion | undefined {
  let inForce = versions[0];
  for (const candidate of versions) {
    const later = inForce === undefined || candidate.version > inForce.version;
    if (later && candidate.effectiveAt <= at) inForce = candidate;
  }
  return inForce;
}
