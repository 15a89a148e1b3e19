import type { StartingPoint } from '../due-point.js';
import type { AnyTrigger, JudgedTrigger, Moment, TaskTerms } from '../judged.js';
import { formatStored, type FormatQuantity } from '../format-figures.js';
import { combinedTriggers } from './combined.js';
import { intervalTriggers } from './intervals.js';
import { measuredTriggers } from './measured.js';
import type { Shares, TriggerModule } from './trigger-kind.js';
import { wearTriggers } from './wear.js';

const known = [...intervalTriggers, ...wearTriggers, ...measuredTriggers, ...combinedTriggers] as const;

export type Trigger = (typeof known)[number]['trigger'];

/** Kinds of trigger by their code. */
export type TriggerKinds = ReadonlyMap<string, TriggerModule>;

export function triggerKindsOf(modules: readonly TriggerModule[]): TriggerKinds {
  return new Map(modules.map((module) => [module.kind, module]));
}

/** Every kind of trigger, in the order in which a form offers them. */
export const triggerModules: readonly TriggerModule[] = known;
const ours = triggerKindsOf(known);

/** The codes of all kinds. */
export const triggerKinds = known.map(({ kind }) => kind) as readonly Trigger['kind'][];

/** The kind of a trigger. */
export function triggerModuleOf({ kind }: AnyTrigger, kinds: TriggerKinds = ours): TriggerModule {
  const module = kinds.get(kind);
  if (!module) throw new RangeError(`There is no kind of trigger called ${kind}.`);
  return module;
}

/** When a trigger makes its task due, in words that follow the name of the task. */
export function describeTrigger(
  trigger: AnyTrigger,
  format: FormatQuantity = formatStored,
  kinds: TriggerKinds = ours,
): string {
  const text = (one: AnyTrigger) => describeTrigger(one, format, kinds);
  return triggerModuleOf(trigger, kinds).text(trigger, format, { text });
}

/** Judges a trigger at a moment. */
export function judgeTrigger(
  trigger: AnyTrigger,
  task: TaskTerms,
  start: StartingPoint | null,
  moment: Moment,
  kinds: TriggerKinds = ours,
): JudgedTrigger {
  const judge = (one: AnyTrigger) => judgeTrigger(one, task, start, moment, kinds);
  return triggerModuleOf(trigger, kinds).judge(trigger, task, start, moment, { judge });
}

/** A trigger with severity counted in. */
export function scaled<One extends AnyTrigger>(
  trigger: One,
  shares: Shares,
  kinds: TriggerKinds = ours,
): One {
  const inner = <Held extends AnyTrigger>(one: Held) => scaled(one, shares, kinds);
  const module = triggerModuleOf(trigger, kinds);
  return (module.scaled?.(trigger, shares, { scaled: inner }) ?? trigger) as One;
}

/** What makes no sense in a trigger beyond its bounds. */
export function triggerProblem(trigger: AnyTrigger, kinds: TriggerKinds = ours): string | null {
  const problem = (one: AnyTrigger) => triggerProblem(one, kinds);
  return triggerModuleOf(trigger, kinds).problem?.(trigger, { problem }) ?? null;
}

export { runMoments, type NotBeforeTrigger, type RunMoment, type RunTrigger } from './combined.js';
export { type CalendarTrigger, type HoursTrigger, type MilestoneTrigger } from './intervals.js';
export { limitChecks, type ConditionTrigger } from './measured.js';
export { triggerKind, triggerLimits, type TriggerField, type TriggerModule } from './trigger-kind.js';
export { type SeasonTrigger, type WaterTrigger } from './wear.js';
