import { describeDayAt } from './describe-day.js';
import type { Instant } from './instant.js';

const formatters = new Map<string, Intl.DateTimeFormat>();

/** A moment in words at a site: `24 Nov 2026, 08:30`. */
export function formatMoment(instant: Instant, timeZone: string): string {
  let formatter = formatters.get(timeZone);
  if (!formatter) {
    formatter = new Intl.DateTimeFormat('en-GB', {
      timeZone,
      hour: '2-digit',
      minute: '2-digit',
      hourCycle: 'h23',
    });
    formatters.set(timeZone, formatter);
  }
  return `${describeDayAt(instant, timeZone)}, ${formatter.format(instant)}`;
}
