import { checksFor } from '../checks/index.js';
import type { DataPlate } from '../machine/index.js';
import { opensAir } from './needs.js';
import { resultsOf } from './tests.js';
import { usualVerification, type ServiceTask } from '../plan/index.js';

/** What shows that work helped: the joints tight under full pressure, or a check after it. */
export type Verification =
  | { readonly kind: 'tight' }
  /** The result of a test: it is the work itself, whatever came out. */
  | { readonly kind: 'result'; readonly anyOf: readonly string[] }
  | {
      readonly kind: 'check';
      /** Codes of checks, any of which will do; the first is the usual one. */
      readonly anyOf: readonly string[];
    };

/** Stations where a cover comes off that holds no air: a guard, a terminal box. */
const HOLD_NO_AIR = new Set(['drive', 'motor']);

/**
 * What proves a task on a machine.
 *
 * @returns nothing for work that changes nothing that can be measured, like an inspection
 */
export function verificationsOf(
  task: Pick<ServiceTask, 'code' | 'station' | 'isolation' | 'opens' | 'verifiedBy' | 'testedBy'>,
  plate: DataPlate,
): readonly Verification[] {
  const changed = changedBy(task, plate);
  const isOpened = task.isolation === 'isolated-and-vented' || opensAir(task, plate);
  const opens = isOpened && !HOLD_NO_AIR.has(task.station);
  const results = resultsOf(task, plate);
  return [
    ...(results.length > 0 ? [{ kind: 'result', anyOf: results } as const] : []),
    ...(opens ? [{ kind: 'tight' } as const] : []),
    ...(changed.length > 0 ? [{ kind: 'check', anyOf: changed } as const] : []),
  ];
}

/** What the work should change, as far as the machine can be measured for it. */
function changedBy(
  { code, verifiedBy }: Pick<ServiceTask, 'code' | 'verifiedBy'>,
  plate: DataPlate,
): readonly string[] {
  const possible = new Set(checksFor(plate).map((check) => check.code));
  // Plans saved before tasks said so themselves follow the default.
  return (verifiedBy ?? usualVerification(code, plate)).filter((check) => possible.has(check));
}

/** Work that shows in a reading where one takes the trouble: offered before and after, and never missing. */
const WORTH: Readonly<Record<string, readonly string[]>> = { 'intake-replace': ['pump-up'] };

/** Checks that are worth taking before and after the planned work, beside those that prove it. */
export function worthMeasuring(
  tasks: readonly Pick<ServiceTask, 'code' | 'verifiedBy'>[],
  plate: DataPlate,
): readonly string[] {
  const possible = new Set(checksFor(plate).map((check) => check.code));
  const asked = new Set(beforeReadings(tasks, plate));
  return [...new Set(tasks.flatMap(({ code }) => WORTH[code] ?? []))].filter(
    (check) => possible.has(check) && !asked.has(check),
  );
}

/** The checks to take while the machine still runs: those that the planned work should change, each once. */
export function beforeReadings(
  tasks: readonly Pick<ServiceTask, 'code' | 'verifiedBy'>[],
  plate: DataPlate,
): readonly string[] {
  return [...new Set(tasks.flatMap((task) => changedBy(task, plate).slice(0, 1)))];
}
