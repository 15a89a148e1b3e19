import { formatsInUse } from './formats.js';
import { formatDay, localDayAt, type LocalDate } from './local-date.js';
import type { Instant } from './instant.js';

const MONTHS = ['Jan', 'Feb', 'Mar', 'Apr', 'May', 'Jun', 'Jul', 'Aug', 'Sep', 'Oct', 'Nov', 'Dec'] as const;

/** The name of a month, 0 = January. */
export function monthName(month: number): string {
  return MONTHS[month]!;
}

/** A local date as its reader writes it: `5 Dec 2026`. */
export function describeDay(date: LocalDate): string {
  const { dayOrder } = formatsInUse();
  if (dayOrder === 'year-first') return date;
  return dayOrder === 'month-day'
    ? `${describeDayOfYear(date)}, ${date.slice(0, 4)}`
    : `${describeDayOfYear(date)} ${date.slice(0, 4)}`;
}

/** A local date without its year: `5 Dec`. */
export function describeDayOfYear(date: LocalDate): string {
  const { dayOrder } = formatsInUse();
  if (dayOrder === 'year-first') return date.slice(5);
  const [, month, day] = date.split('-').map(Number) as [number, number, number];
  const name = monthName(month - 1);
  return dayOrder === 'month-day' ? `${name} ${day}` : `${day} ${name}`;
}

/** The day of a moment at a site, in words. */
export function describeDayAt(instant: Instant, timeZone: string): string {
  return describeDay(formatDay(localDayAt(instant, timeZone)));
}
