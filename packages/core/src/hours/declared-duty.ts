import {
  DAY_MS,
  localDayAt,
  parseLocalDate,
  err,
  startOfLocalDay,
  ok,
  type DayNumber,
  type Instant,
  type LocalDate,
  type Result,
} from '../basics/index.js';
import type { OperatingTime } from './season.js';

/** What its owner says a machine runs. */
export interface DeclaredDuty {
  readonly hoursPerWeek: number;
  /** Weekdays on which it never runs, 1 Monday to 7 Sunday: the week's hours fall on the others. */
  readonly closedWeekdays?: readonly number[] | undefined;
  /** First and last day of each closure, as `2026-07-20/2026-08-02`: those hours are not made up for. */
  readonly closures?: readonly string[] | undefined;
}

/** Days of a closure, the first included and the day after the last. */
export interface Closure {
  readonly from: DayNumber;
  readonly until: DayNumber;
}

/** Reads `2026-07-20/2026-08-02`. */
export function parseClosure(text: string): Result<Closure> {
  const [first, last, ...more] = text.split('/');
  const from = parseLocalDate(first ?? '');
  const to = parseLocalDate(last ?? '');
  if (!from.ok || !to.ok || more.length > 0) {
    return err('not-a-closure', 'Write a closure as its first and last day, like 2026-07-20/2026-08-02.');
  }
  const closure = { from: from.value, until: to.value + 1 };
  if (closure.until <= closure.from) {
    return err('not-a-closure', 'A closure ends on the day it begins, or later.');
  }
  return ok(closure);
}

/** Whether a day lies in one of several closures. */
export function isClosedOn(closures: readonly string[], date: LocalDate): boolean {
  const day = parseLocalDate(date);
  return (
    day.ok &&
    closures.some((text) => {
      const closure = parseClosure(text);
      return closure.ok && closure.value.from <= day.value && day.value < closure.value.until;
    })
  );
}

/** Monday is day 0 of the week; 1970 began on a Thursday. */
const weekdayOf = (day: DayNumber) => (((day + 3) % 7) + 7) % 7;

/**
 * Days as declared duty counts them: a closed day is none, an open one as many as make the week seven.
 *
 * Counted from local midnight on in days of 24 h, so that it is an hour off for half of the year.
 *
 * @param from nothing earlier will be asked
 */
export function declaredTime(
  duty: Omit<DeclaredDuty, 'hoursPerWeek'>,
  timeZone: string,
  from: Instant,
): OperatingTime {
  const closed = new Set((duty.closedWeekdays ?? []).map((weekday) => weekday - 1));
  const open = [0, 1, 2, 3, 4, 5, 6].map((weekday) => (closed.has(weekday) && closed.size < 7 ? 0 : 1));
  const weight = 7 / open.reduce<number>((sum, is) => sum + is, 0);
  const firstDay = localDayAt(from, timeZone);
  const origin = startOfLocalDay(firstDay, timeZone);
  const closures = merged(duty.closures ?? []);

  /** Working days from the first day to a day with its fraction, closures not counted out. */
  const plainUpTo = (day: number) => {
    const whole = Math.floor(day);
    const weeks = Math.floor((whole - firstDay) / 7);
    let days = weeks * 7;
    for (let one = firstDay + weeks * 7; one < whole; one++) days += open[weekdayOf(one)]! * weight;
    return days + (day - whole) * open[weekdayOf(whole)]! * weight;
  };
  const upTo = (day: number) => {
    let days = plainUpTo(day);
    for (const closure of closures) {
      const from = Math.max(firstDay, closure.from);
      const until = Math.min(day, closure.until);
      if (until > from) days -= plainUpTo(until) - plainUpTo(from);
    }
    return days;
  };
  const at = (moment: Instant) => upTo(firstDay + Math.max(0, moment - origin) / DAY_MS);
  return {
    at,
    // Over the week about a moment: by the hour of asking it would be nothing on every Sunday.
    factorAt: (moment) => (at(moment + 3.5 * DAY_MS) - at(moment - 3.5 * DAY_MS)) / 7,
  };
}

/** Closures by time, those that overlap taken together; what cannot be read is left out. */
function merged(texts: readonly string[]): Closure[] {
  const all = texts
    .map((text) => parseClosure(text))
    .flatMap((closure) => (closure.ok ? [closure.value] : []))
    .sort((a, b) => a.from - b.from);
  const apart: Closure[] = [];
  for (const closure of all) {
    const last = apart.at(-1);
    if (last && closure.from <= last.until) {
      apart[apart.length - 1] = { from: last.from, until: Math.max(last.until, closure.until) };
    } else apart.push(closure);
  }
  return apart;
}

/** Hours that a machine is held to have run from one moment to another, by declared duty. */
export function declaredHours(duty: DeclaredDuty, from: Instant, to: Instant, timeZone: string): number {
  const time = declaredTime(duty, timeZone, from);
  return (duty.hoursPerWeek / 7) * (time.at(to) - time.at(from));
}
