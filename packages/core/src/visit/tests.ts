import { checksFor } from '../checks/index.js';
import type { DataPlate } from '../machine/index.js';
import { usualTest, type ServiceTask } from '../plan/index.js';

/** Mark of a test in a service that has no result, before its code: it was looked at, and stays due. */
export const LOOKED_AT = 'looked-at:';

/** The checks that give a test its result on a machine, any of which will do; none for what is no test. */
export function resultsOf(
  { code, testedBy }: Pick<ServiceTask, 'code' | 'testedBy'>,
  plate: DataPlate,
): readonly string[] {
  const possible = new Set(checksFor(plate).map((check) => check.code));
  // Plans saved before tasks said so themselves follow the default.
  return (testedBy ?? usualTest(code, plate)).filter((check) => possible.has(check));
}
