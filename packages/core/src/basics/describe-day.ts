import { formatDay, localDayAt, type LocalDate } from './local-date.js';
import type { Instant } from './instant.js';

const MONTHS = ['Jan', 'Feb', 'Mar', 'Apr', 'May', 'Jun', 'Jul', 'Aug', 'Sep', 'Oct', 'Nov', 'Dec'] as const;

/** The name of a month, 0 = January. */
export function monthName(month: number): string {
  return MONTHS[month]!;
}

/** A local date in words: `5 Dec 2026`. */
export function describeDay(date: LocalDate): string {
  const [year, month, day] = date.split('-').map(Number) as [number, number, number];
  return `${day} ${monthName(month - 1)} ${year}`;
}

/** The day of a moment at a site, in words. */
export function describeDayAt(instant: Instant, timeZone: string): string {
  return describeDay(formatDay(localDayAt(instant, timeZone)));
}
