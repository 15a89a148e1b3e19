import { monthName } from './describe-day.js';
import { formatsInUse } from './formats.js';
import { parseLocalDate, type LocalDate } from './local-date.js';
import { err, ok, type Result } from './result.js';

const NUMBERS = /^(\d{1,2})[./\s-]+(\d{1,2})[./\s-]+(\d{4}|\d{2})$/;
const DAY_FIRST = /^(\d{1,2})\.?\s+([a-z]{3,9})\.?,?\s+(\d{4}|\d{2})$/;
const MONTH_FIRST = /^([a-z]{3,9})\.?\s+(\d{1,2}),?\s+(\d{4}|\d{2})$/;

/**
 * Reads a day as people write it: `2026-12-05`, `5 Dec 2026`, `Dec 5, 2026`, `5.12.2026`, `5/12/26`. Of numbers alone
 * the order is the reader’s own, unless only the other one can be.
 *
 * @returns the local date; or a problem that says how to write it
 */
export function readDay(text: string): Result<LocalDate> {
  const plain = text.trim().toLowerCase();
  if (/^\d{4}-\d{2}-\d{2}$/.test(plain)) return checked(plain);
  const [, first, second, third] = NUMBERS.exec(plain) ?? [];
  if (first !== undefined && second !== undefined) {
    const isMonthFirst = formatsInUse().dayOrder === 'month-day' ? Number(first) <= 12 : Number(second) > 12;
    const [day, month] = isMonthFirst ? [second, first] : [first, second];
    return dayOf(third!, Number(month), day);
  }
  const byDay = DAY_FIRST.exec(plain);
  if (byDay) return dayOf(byDay[3]!, monthOf(byDay[2]!), byDay[1]!);
  const byMonth = MONTH_FIRST.exec(plain);
  if (byMonth) return dayOf(byMonth[3]!, monthOf(byMonth[1]!), byMonth[2]!);
  return err('not-a-date', 'Write the day like 5 Dec 2026, or choose it.');
}

/** A day with its time, as it is kept: `2026-12-05T08:30`. */
export function readDayAndTime(text: string): Result<string> {
  const parts = /^(.*?)(?:,\s*|\s+|T)(\d{1,2})[:.](\d{2})$/i.exec(text.trim());
  if (!parts) return err('not-a-time', 'Write day and time like 5 Dec 2026, 08:30.');
  const [hour, minute] = [Number(parts[2]), Number(parts[3])];
  if (hour > 23 || minute > 59) return err('not-a-time', `There is no such time as ${parts[2]}:${parts[3]}.`);
  const day = readDay(parts[1]!);
  return day.ok ? ok(`${day.value}T${String(hour).padStart(2, '0')}:${parts[3]}`) : day;
}

function monthOf(name: string): number {
  for (let month = 1; month <= 12; month += 1)
    if (monthName(month - 1).toLowerCase() === name.slice(0, 3)) return month;
  return 0;
}

function dayOf(year: string, month: number, day: string): Result<LocalDate> {
  const whole = year.length === 2 ? `20${year}` : year;
  return checked(`${whole}-${String(month).padStart(2, '0')}-${day.padStart(2, '0')}`);
}

function checked(date: string): Result<LocalDate> {
  const read = parseLocalDate(date);
  return read.ok ? ok(date) : read;
}
