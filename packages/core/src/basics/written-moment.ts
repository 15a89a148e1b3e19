import { HOUR_MS, parseInstant, type Instant } from './instant.js';
import { instantOfLocal, parseLocalDate } from './local-date.js';
import { err, ok, type Result } from './result.js';

/** In which order a written date names year, month and day. */
export const dateOrders = ['ymd', 'dmy', 'mdy'] as const;
export type DateOrder = (typeof dateOrders)[number];

const DATE = /^(\d{1,4})[-./ ](\d{1,2})[-./ ](\d{1,4})\.?$/;
const TIME = /^(\d{1,2})[:.](\d{2})(?:[:.](\d{2})(?:[.,]\d+)?)?\s*([ap])?\.?(?:m\.?)?$/i;

/** A time left out is noon: the middle of the day is never more than half a day wrong. */
const NOON_MS = 12 * HOUR_MS;

/**
 * Reads a moment as lists write it: `24.11.2026 08:30`, `11/24/2026 8:30 pm`, `2026-11-24`, or an instant with
 * its zone, `2026-11-24T08:30:00Z`. Years have four digits: two would be guessed.
 *
 * @param order of day, month and year; an instant with its zone needs none
 * @param zone IANA time zone of the wall clock
 * @returns the instant, or a problem `not-a-moment`; a day that does not exist is refused
 */
export function readWrittenMoment(text: string, order: DateOrder, zone: string): Result<Instant> {
  const trimmed = text.trim();
  if (/^\d{4}-\d{2}-\d{2}T.*Z$/.test(trimmed)) return parseInstant(trimmed);
  const [date = '', ...time] = trimmed.split(/[T\s]+/);
  const day = readDate(date, order);
  if (!day.ok) return day;
  const ms = time.length === 0 ? ok(NOON_MS) : readTime(time.join(' '));
  return ms.ok ? ok(instantOfLocal(day.value, ms.value, zone)) : ms;
}

function readDate(text: string, order: DateOrder): Result<number> {
  const match = DATE.exec(text);
  if (!match) return notAMoment(text, order);
  const parts = [match[1]!, match[2]!, match[3]!];
  // A year that comes first gives itself away, whatever the order of the rest of the list.
  const isYearFirst = match[1]!.length === 4;
  const [year, month, day] = isYearFirst
    ? parts
    : order === 'mdy'
      ? [parts[2]!, parts[0]!, parts[1]!]
      : [parts[2]!, parts[1]!, parts[0]!];
  if (year!.length !== 4 || (order === 'ymd' && !isYearFirst)) return notAMoment(text, order);
  return parseLocalDate(`${year}-${month!.padStart(2, '0')}-${day!.padStart(2, '0')}`);
}

function readTime(text: string): Result<number> {
  const match = TIME.exec(text.trim());
  const [hour, minute, second] = [Number(match?.[1]), Number(match?.[2]), Number(match?.[3] ?? 0)];
  const half = match?.[4]?.toLowerCase();
  const isTime = match && minute < 60 && second < 60 && (half ? hour >= 1 && hour <= 12 : hour < 24);
  if (!isTime) return err('not-a-moment', `“${text.slice(0, 24)}” is no time of day. Write it like 08:30.`);
  const shown = half ? (hour % 12) + (half === 'p' ? 12 : 0) : hour;
  return ok(((shown * 60 + minute) * 60 + second) * 1000);
}

const EXAMPLES: Record<DateOrder, string> = { ymd: '2026-11-24', dmy: '24.11.2026', mdy: '11/24/2026' };

function notAMoment(text: string, order: DateOrder): Result<never> {
  return err('not-a-moment', `“${text.slice(0, 24)}” is no date. Dates are read like ${EXAMPLES[order]}.`);
}
