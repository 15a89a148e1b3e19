import { checksFor } from '../checks/index.js';
import type { DataPlate } from '../machine/index.js';
import type { ServiceTask } from '../plan/index.js';

/** What shows that work helped: the joints tight under full pressure, or a check after it. */
export type Proof =
  | { readonly kind: 'tight' }
  | {
      readonly kind: 'check';
      /** Codes of checks, any of which will do; the first is the usual one. */
      readonly anyOf: readonly string[];
    };

/** Stations where a cover comes off that holds no air: a guard, a terminal box. */
const HOLD_NO_AIR = new Set(['drive', 'motor']);

/**
 * By task, the checks that its work should change, taken before and after (common practice). What a machine
 * cannot be measured for is left out.
 */
const CHANGES: Readonly<Record<string, readonly string[]>> = {
  'ring-kit': ['pump-up', 'highest-pressure'],
  'valves-inspect': ['pump-up', 'discharge-temperature'],
  'valves-upper': ['stage-pressures', 'pump-up'],
  'valves-all': ['stage-pressures', 'pump-up'],
  overhaul: ['pump-up', 'stage-pressures'],
  'separator-replace': ['separator-drop', 'discharge-temperature'],
  'oil-change': ['discharge-temperature'],
  'oil-filter': ['discharge-temperature'],
  'first-service': ['discharge-temperature'],
  'cooling-clean': ['discharge-temperature'],
  'cartridge-replace': ['cartridge-weight'],
  'co-calibrate': ['co-monitor'],
};

/** Where a family's own differ: a screw has intake, minimum-pressure and thermostatic valves, and no stages. */
const OF_SCREWS: Readonly<Record<string, readonly string[]>> = {
  'valves-inspect': ['discharge-temperature'],
};

/** The families whose oil work shows in the discharge temperature: where the oil cools the air. */
const OIL_WORK = new Set(['oil-change', 'oil-filter', 'first-service', 'cooling-clean']);

/**
 * What proves a task on a machine.
 *
 * @returns nothing for work that changes nothing that can be measured, like an inspection
 */
export function proofsOf(
  task: Pick<ServiceTask, 'code' | 'station' | 'isolation'>,
  plate: DataPlate,
): readonly Proof[] {
  const changed = changedBy(task.code, plate);
  const opens = task.isolation === 'isolated-and-vented' && !HOLD_NO_AIR.has(task.station);
  return [
    ...(opens ? [{ kind: 'tight' } as const] : []),
    ...(changed.length > 0 ? [{ kind: 'check', anyOf: changed } as const] : []),
  ];
}

function changedBy(code: string, plate: DataPlate): readonly string[] {
  if (OIL_WORK.has(code) && plate.family !== 'screw') return [];
  const possible = new Set(checksFor(plate).map((check) => check.code));
  const own = plate.family === 'screw' ? OF_SCREWS[code] : undefined;
  return (own ?? CHANGES[code] ?? []).filter((check) => possible.has(check));
}

/** The checks to take while the machine still runs: those that the planned work should change, each once. */
export function beforeReadings(
  tasks: readonly Pick<ServiceTask, 'code'>[],
  plate: DataPlate,
): readonly string[] {
  return [...new Set(tasks.flatMap(({ code }) => changedBy(code, plate).slice(0, 1)))];
}
