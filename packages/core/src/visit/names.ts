import { checkByCode } from '../checks/index.js';
import type { DataPlate } from '../machine/index.js';
import type { ServiceTask } from '../plan/index.js';
import { pointOf, STILL } from '../isolation/index.js';
import type { StepNames } from './steps/step-kind.js';

/** Several things in one line; names of tasks hold commas of their own. */
export function listed(names: readonly string[]): string {
  return names.join('; ');
}

/** A code for which nobody has a name. */
export function spelled(code: string): string {
  const text = code.replaceAll('-', ' ');
  return text.charAt(0).toUpperCase() + text.slice(1);
}

/** What codes are called on a machine, by its plate and its plan. */
export function namesOn(plate: DataPlate, plan: readonly Pick<ServiceTask, 'code' | 'name'>[]): StepNames {
  const find = (named: readonly { readonly code: string; readonly name: string }[], code: string) =>
    named.find((one) => one.code === code)?.name ?? spelled(code);
  return {
    task: (code) => find(plan, code),
    check: (code) => checkByCode(code)?.name ?? spelled(code),
    isolationStep: (code) =>
      code === STILL ? 'Looked again after a pause' : (pointOf(plate, code)?.name ?? spelled(code)),
    isolationTile: (code, tile) => find(pointOf(plate, code)?.tiles ?? [], tile),
  };
}
