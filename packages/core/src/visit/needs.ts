import { pointOf, pointsNeeded } from '../isolation/index.js';
import type { DataPlate } from '../machine/index.js';
import { usualOpening, type ServiceTask } from '../plan/index.js';

/** Codes of what a task opens; null where nobody said: then everything. */
export function opensOf(
  { code, opens, isolation }: Pick<ServiceTask, 'code' | 'opens' | 'isolation'>,
  plate: DataPlate,
): readonly string[] | null {
  // Plans saved before tasks said so themselves follow the default.
  const known = opens ?? usualOpening(code, plate);
  if (known !== null) return known;
  if (isolation === 'running') return [];
  return isolation === 'isolated-and-vented' ? null : ['outside'];
}

/** Whether a task is done while the machine runs. */
export function isDoneRunning(
  task: Pick<ServiceTask, 'code' | 'opens' | 'isolation'>,
  plate: DataPlate,
): boolean {
  return opensOf(task, plate)?.length === 0;
}

/** Whether a task opens a space that holds air. */
export function opensAir(task: Pick<ServiceTask, 'code' | 'opens' | 'isolation'>, plate: DataPlate): boolean {
  return pointsNeeded(plate, opensOf(task, plate)).some((code) => pointOf(plate, code)?.kind === 'vent');
}

/** What several tasks open together; null where one of them does not say. */
export function opensTogether(
  tasks: readonly Pick<ServiceTask, 'code' | 'opens' | 'isolation'>[],
  plate: DataPlate,
): readonly string[] | null {
  const all = tasks.map((task) => opensOf(task, plate));
  return all.includes(null) ? null : [...new Set(all.flatMap((opens) => opens ?? []))];
}
