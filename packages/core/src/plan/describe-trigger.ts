import { formatStored, type FormatQuantity } from './format-figures.js';
import type { ServiceTask, Trigger } from './service-plan.js';
import { describeTrigger } from './triggers/index.js';

/** When the first of some triggers makes a task due; without any it is done on failure. */
export function describeTriggers(
  triggers: readonly Trigger[],
  format: FormatQuantity = formatStored,
): string {
  return triggers.map((one) => describeTrigger(one, format)).join(' or ') || 'on failure';
}

/** The interval of a task: what is done a single time does not come every so often. */
export function formatInterval(
  { triggers, once }: Pick<ServiceTask, 'triggers' | 'once'>,
  format: FormatQuantity = formatStored,
): string {
  const text = describeTriggers(triggers, format);
  return once ? `once, ${text.replaceAll(/\bevery /g, 'after ')}` : text;
}
