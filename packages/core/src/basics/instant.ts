import { err, ok, type Result } from './result.js';

/** A moment: whole milliseconds since 1970-01-01T00:00:00Z. */
export type Instant = number;

export const HOUR_MS = 3_600_000;
export const DAY_MS = 86_400_000;

const SHAPE = /^(\d{4})-(\d{2})-(\d{2})T(\d{2}):(\d{2})(?::(\d{2})(?:\.(\d{1,3}))?)?Z$/;

/** The earliest and latest moments that any fact may carry. */
export const EARLIEST_INSTANT: Instant = Date.UTC(1950, 0, 1);
export const LATEST_INSTANT: Instant = Date.UTC(2200, 0, 1);

/**
 * Reads a UTC instant written as `2026-11-24T08:30:00Z` (seconds and milliseconds optional).
 *
 * @returns the instant in ms, or a problem `not-an-instant`. A day that does not exist is refused
 * rather than rolled over, which is what `Date` would do.
 * @example parseInstant('2026-02-30T00:00:00Z') // → problem: there is no 30 February
 */
export function parseInstant(text: string): Result<Instant> {
  const match = SHAPE.exec(text);
  if (!match) return err('not-an-instant', 'Write the moment in UTC, like 2026-11-24T08:30:00Z.');
  const [year, month, day, hour, minute, second, milli] = match
    .slice(1)
    .map((part, index) => (index === 6 ? Number((part ?? '').padEnd(3, '0')) : Number(part ?? 0)));
  const instant = Date.UTC(year!, month! - 1, day, hour, minute, second, milli);
  if (new Date(instant).toISOString().slice(0, 16) !== text.slice(0, 16) || second! > 59) {
    return err('not-an-instant', `There is no such moment as ${text}.`);
  }
  if (instant < EARLIEST_INSTANT || instant >= LATEST_INSTANT) {
    return err('not-an-instant', 'The moment must lie between the years 1950 and 2200.');
  }
  return ok(instant);
}

/** Writes an instant as `2026-11-24T08:30:00.000Z`. */
export function formatInstant(instant: Instant): string {
  return new Date(instant).toISOString();
}
