import { sayStored, type SayQuantity } from './say-figures.js';
import type { Trigger } from './service-plan.js';
import { sayTrigger } from './triggers/index.js';

/** When the first of some triggers makes a task due; without any it is done on failure. */
export function sayTriggers(triggers: readonly Trigger[], say: SayQuantity = sayStored): string {
  return triggers.map((one) => sayTrigger(one, say)).join(' or ') || 'on failure';
}
