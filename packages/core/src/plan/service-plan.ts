import type { Trigger } from './triggers/index.js';

export type { Trigger };

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

/** A figure that another source gives for the interval of a task, kept beside the chosen one. */
export interface OtherInterval {
  readonly origin: IntervalOrigin;
  readonly triggers: readonly Trigger[];
}

/** Who chose among several figures, and why. */
export interface IntervalChoice {
  readonly because: string;
  readonly by: string;
}

/** Bounds of what stands in a task and in a plan. */
export const taskLimits = {
  name: 80,
  caution: 600,
  because: 400,
  how: 1000,
  reason: 300,
  minutes: 10_000,
  triggers: 8,
  others: 4,
  covers: 30,
  checks: 10,
  opens: 5,
  kit: 30,
  count: 100,
  severity: 6,
  times: [0.01, 20],
  override: [0.05, 20],
  tasks: 100,
  packages: 20,
  choices: 40,
} as const;

export const severityKinds = ['dust', 'heat', 'damp', 'light-use'] as const;
export type SeverityKind = (typeof severityKinds)[number];

/** How a condition of the place or of the use changes the intervals of a task. */
export interface SeverityRule {
  readonly kind: SeverityKind;
  /** Factor on the interval while the condition holds; that of heat is reckoned from the temperature. */
  readonly times?: number | undefined;
  /** Left out: all of its intervals. */
  readonly on?: 'hours' | 'calendar' | undefined;
  readonly because: string;
}

/** What is taken along for a task. */
export interface KitItem {
  /** What part it is, in a technician's words; which one fits is the machine's affair. */
  readonly part: string;
  readonly count: number;
}

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
  /**
   * Codes of what its work opens: the isolation that it needs follows from it. Left out, those of the default plan
   * hold; where it has none, everything for what is opened, the lock alone for what is stopped.
   */
  readonly opens?: readonly string[] | undefined;
  /**
   * Codes of the checks that its work should change, the usual one first, taken before and after; empty where nothing
   * that can be measured changes. Left out, those of the default plan hold.
   */
  readonly verifiedBy?: readonly string[] | undefined;
  /**
   * Codes of the checks, any of which gives its result: the task is a test, and done only with that. Left out, those
   * of the default plan hold.
   */
  readonly testedBy?: readonly string[] | undefined;
  readonly minutes: number;
  /** Source of the triggers above: the figure that was chosen. */
  readonly origin: IntervalOrigin;
  /** What other sources say, each once. */
  readonly others?: readonly OtherInterval[] | undefined;
  /** Why this one and not another, where there is more than one. */
  readonly choice?: IntervalChoice | undefined;
  /** Late at once when past its point. */
  readonly safety?: boolean | undefined;
  /** Done a single time in the machine's life. */
  readonly once?: boolean | undefined;
  /** Codes of smaller tasks that doing this one does too. */
  readonly covers?: readonly string[] | undefined;
  /** The hazard of the work, where there is one. */
  readonly caution?: string | undefined;
  /** Why the interval is what it is, where that is not plain. */
  readonly because?: string | undefined;
  /** How it is done, in a sentence or two. */
  readonly how?: string | undefined;
  readonly kit?: readonly KitItem[] | undefined;
  readonly tools?: readonly string[] | undefined;
  readonly severity?: readonly SeverityRule[] | undefined;
}

/** A factor on one task put in place of what its rule would say. */
export interface SeverityOverride {
  readonly times: number;
  readonly reason: string;
}

/** Work that is done together: a visit takes it in one touch. */
export interface ServicePackage {
  readonly code: string;
  readonly name: string;
  /** Codes of tasks of the plan, in its order. */
  readonly tasks: readonly string[];
  readonly because?: string | undefined;
}

/** What is to be done to one compressor. */
export interface ServicePlan {
  readonly tasks: readonly ServiceTask[];
  /** What belongs together. Left out: what usually does; empty: nothing. */
  readonly packages?: readonly ServicePackage[] | undefined;
  /** The option chosen for each practice choice, by code. */
  readonly choices?: Readonly<Record<string, string>> | undefined;
  /** By code of the task, then by kind of severity. */
  readonly overrides?: SeverityOverrides | undefined;
}

/** The plan alone, out of a file or whatever else carries one. */
export function planParts({ tasks, packages, choices, overrides }: ServicePlan): ServicePlan {
  return {
    tasks,
    ...(packages ? { packages } : {}),
    ...(choices ? { choices } : {}),
    ...(overrides ? { overrides } : {}),
  };
}

export type SeverityOverrides = Readonly<
  Record<string, { readonly [Kind in SeverityKind]?: SeverityOverride | undefined }>
>;

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

/** Whether a task is done within a run, so that it has no due point. */
export function isRoutine(task: Pick<ServiceTask, 'triggers'>): boolean {
  return task.triggers.length > 0 && task.triggers.every(({ kind }) => kind === 'run');
}

/** The tasks whose interval no manual, label or rule speaks for: common practice alone, until somebody enters more. */
export function onPracticeOnly({ tasks }: Pick<ServicePlan, 'tasks'>): readonly ServiceTask[] {
  return tasks.filter(
    (task) =>
      task.origin === 'practice' && !task.others?.length && task.triggers.length > 0 && !isRoutine(task),
  );
}
