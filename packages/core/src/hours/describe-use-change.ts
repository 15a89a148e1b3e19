import { describeDayAt } from '../basics/index.js';
import type { UseChange } from './weigh-views.js';

const TIMES = [
  '',
  'as much',
  'twice as much',
  'three times as much',
  'four times as much',
  'five times as much',
];
const PARTS = ['', '', 'half as much', 'a third as much', 'a quarter as much', 'a fifth as much'];

/** How much more, or less, a machine is used than before: `five times as much`, `half as much again`. */
export function describeTimesUsed(times: number): string {
  if (times >= 1) {
    if (times < 1.75) return 'half as much again';
    return (
      TIMES[Math.round(times)] ??
      (times > 10 ? 'more than ten times as much' : `${Math.round(times)} times as much`)
    );
  }
  const part = 1 / Math.max(times, 1e-9);
  if (part < 1.75) return 'two thirds as much';
  return PARTS[Math.round(part)] ?? `a ${Math.round(part)}th as much`;
}

/** Less than this share of what it was is hardly any use. */
const HARDLY = 0.1;

/**
 * A change of use in words.
 *
 * @example sayUseChange({ at, before: 1, since: 5 }, 'Europe/Zurich') // → Used five times as much since about 2 Oct 2026
 */
export function describeUseChange({ at, before, since }: UseChange, timeZone: string): string {
  const on = describeDayAt(at, timeZone);
  const times = since / Math.max(before, 1e-9);
  if (times < HARDLY) return `Hardly used since about ${on}`;
  return `Used ${describeTimesUsed(times)} since about ${on}`;
}
