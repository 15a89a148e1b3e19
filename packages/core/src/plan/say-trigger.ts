import { sayStored, type SayQuantity } from './say-figures.js';
import type { ServiceTask, Trigger } from './service-plan.js';
import { sayTrigger } from './triggers/index.js';

/** When the first of some triggers makes a task due; without any it is done on failure. */
export function sayTriggers(triggers: readonly Trigger[], say: SayQuantity = sayStored): string {
  return triggers.map((one) => sayTrigger(one, say)).join(' or ') || 'on failure';
}

/** The interval of a task: what is done a single time does not come every so often. */
export function sayInterval(
  { triggers, once }: Pick<ServiceTask, 'triggers' | 'once'>,
  say: SayQuantity = sayStored,
): string {
  const said = sayTriggers(triggers, say);
  return once ? `once, ${said.replaceAll(/\bevery /g, 'after ')}` : said;
}
