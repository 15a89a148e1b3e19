import { tzOffset } from '@date-fns/tz';
import { DAY_MS, type Instant } from './instant.js';
import { err, ok, type Result } from './result.js';

/** A calendar day at a site, written `2026-11-24`. */
export type LocalDate = string;

/** A calendar day as a count of days since 1970-01-01: what date arithmetic is done in. */
export type DayNumber = number;

/** A step along the calendar: whole months, or whole days. */
export type CalendarInterval = { readonly months: number } | { readonly days: number };

const SHAPE = /^(\d{4})-(\d{2})-(\d{2})$/;

/**
 * Reads a local date. A day that does not exist (30 February) is refused, not rolled over.
 *
 * @returns the day number, or a problem `not-a-date`.
 */
export function parseLocalDate(text: string): Result<DayNumber> {
  const match = SHAPE.exec(text);
  if (!match) return err('not-a-date', 'Write the date as year-month-day, like 2026-11-24.');
  const ms = Date.UTC(Number(match[1]), Number(match[2]) - 1, Number(match[3]));
  if (new Date(ms).toISOString().slice(0, 10) !== text) {
    return err('not-a-date', `There is no such day as ${text}.`);
  }
  const year = Number(match[1]);
  if (year < 1950 || year >= 2200) {
    return err('not-a-date', 'The date must lie between the years 1950 and 2200.');
  }
  return ok(ms / DAY_MS);
}

const readDays = new Map<LocalDate, DayNumber>();

/** The day number of a date already known to be well formed. */
export function dayNumberOf(date: LocalDate): DayNumber {
  let day = readDays.get(date);
  if (day === undefined) {
    const outcome = parseLocalDate(date);
    if (!outcome.ok) throw new RangeError(outcome.problem.sentence);
    day = outcome.value;
    readDays.set(date, day);
  }
  return day;
}

const writtenDays = new Map<DayNumber, LocalDate>();

/** Writes a day number as `2026-11-24`. A fleet asks for the same few thousand days over and over. */
export function formatDay(day: DayNumber): LocalDate {
  let written = writtenDays.get(day);
  if (written === undefined) {
    written = new Date(day * DAY_MS).toISOString().slice(0, 10);
    writtenDays.set(day, written);
  }
  return written;
}

/**
 * The day `count` steps after an anchor. Months are always counted from the anchor and a missing day
 * becomes the month's last, so that 31 January + 1 month is the end of February and + 2 months is
 * 31 March again. (RFC 5545 recurrences skip the missing day instead; a service may not be skipped.)
 */
export function shiftDays(anchor: DayNumber, step: CalendarInterval, count = 1): DayNumber {
  if ('days' in step) return anchor + step.days * count;
  const from = new Date(anchor * DAY_MS);
  const month = from.getUTCMonth() + step.months * count;
  const year = from.getUTCFullYear();
  const lastOfMonth = new Date(Date.UTC(year, month + 1, 0)).getUTCDate();
  return Date.UTC(year, month, Math.min(from.getUTCDate(), lastOfMonth)) / DAY_MS;
}

/** The offset of a zone over one UTC day; on a day that the clocks change, also the one after the change. */
interface DayOffset {
  readonly offset: number;
  readonly changesAt: Instant;
  readonly offsetAfter: number;
}

const offsetsByZone = new Map<string, Map<DayNumber, DayOffset>>();

/** Offset of a zone at an instant, in ms. Kept per UTC day, because asking the calendar is slow. */
function zoneOffset(zone: string, instant: Instant): number {
  if (zone === 'UTC') return 0;
  let offsets = offsetsByZone.get(zone);
  if (!offsets) offsetsByZone.set(zone, (offsets = new Map<DayNumber, DayOffset>()));
  const day = Math.floor(instant / DAY_MS);
  let known = offsets.get(day);
  if (!known) offsets.set(day, (known = dayOffset(zone, day)));
  return instant < known.changesAt ? known.offset : known.offsetAfter;
}

function dayOffset(zone: string, day: DayNumber): DayOffset {
  let before = day * DAY_MS;
  let after = (day + 1) * DAY_MS;
  const offset = offsetByLibrary(zone, before);
  const offsetAfter = offsetByLibrary(zone, after);
  if (offset === offsetAfter) return { offset, changesAt: after, offsetAfter };
  while (after - before > 1) {
    const middle = Math.floor((before + after) / 2);
    if (offsetByLibrary(zone, middle) === offset) before = middle;
    else after = middle;
  }
  return { offset, changesAt: after, offsetAfter };
}

function offsetByLibrary(zone: string, instant: Instant): number {
  const minutes = tzOffset(zone, new Date(instant));
  if (Number.isNaN(minutes)) throw new RangeError(`${zone} is not a time zone of the IANA database.`);
  return minutes * 60_000;
}

const ZONE_NAME = /^[A-Z][A-Za-z_]+(\/[A-Z][A-Za-z0-9_+-]*){1,2}$/;

/**
 * Whether a name is a time zone of the IANA database, by area and place, or UTC. The reader of offsets believes
 * more than that: a date, an offset, the name of anything that every object has.
 */
export function isTimeZone(zone: string): boolean {
  if (zone === 'UTC') return true;
  if (!ZONE_NAME.test(zone)) return false;
  try {
    new Intl.DateTimeFormat('en', { timeZone: zone });
    return true;
  } catch {
    return false;
  }
}

/** A moment as clock and calendar at a site write it, for lists: `2026-11-24 08:30`. */
export function writeLocal(instant: Instant, zone: string): string {
  const local = new Date(instant + zoneOffset(zone, instant)).toISOString();
  return `${local.slice(0, 10)} ${local.slice(11, 16)}`;
}

/** The calendar day that it is at a site at an instant. */
export function localDayAt(instant: Instant, zone: string): DayNumber {
  return Math.floor((instant + zoneOffset(zone, instant)) / DAY_MS);
}

/**
 * The instant at which a local day begins. Where the clocks skip midnight, the day begins at the first
 * moment that exists.
 */
export function startOfLocalDay(day: DayNumber, zone: string): Instant {
  const wall = day * DAY_MS;
  const guess = wall - zoneOffset(zone, wall);
  const settled = wall - zoneOffset(zone, guess);
  // Around a change the two guesses differ; the earliest that already belongs to the day is its start.
  const candidates = [Math.min(guess, settled), Math.max(guess, settled)];
  return candidates.find((instant) => localDayAt(instant, zone) === day) ?? settled;
}

/**
 * The instant of a wall-clock time. Of a time that the clocks show twice it is the first; one that they skip
 * is carried on by what was skipped.
 *
 * @param ms since midnight by the wall clock, 0 to a day
 */
export function instantOfLocal(day: DayNumber, ms: number, zone: string): Instant {
  const wall = day * DAY_MS + ms;
  // By the offsets of a day earlier and a day later: a change lies between the two, if there is one about.
  const candidates = [zoneOffset(zone, wall - DAY_MS), zoneOffset(zone, wall + DAY_MS)].map(
    (one) => wall - one,
  );
  candidates.sort((a, b) => a - b);
  return candidates.find((instant) => instant + zoneOffset(zone, instant) === wall) ?? candidates[1]!;
}
