import { DAY_MS, HOUR_MS } from '../basics/index.js';
import { nthSmallest } from './nth-smallest.js';
import { takeRow } from './rows.js';
import type { RunHours } from './run-hours.js';
import type { OperatingTime } from './season.js';

/**
 * Hours gained between readings far enough apart to speak of use, in the order of time: `count` of them, in rows
 * that last as long as the fit.
 */
export interface UseIntervals {
  readonly count: number;
  /** Which points of the run hours they lie between: one more than there are intervals. */
  readonly bounds: readonly number[];
  readonly gained: Float64Array;
  /** Calendar days of each. */
  readonly days: Float64Array;
  /** Days from the beginning of each to the last reading. */
  readonly age: Float64Array;
  /** Days from the first of them to the last reading. */
  readonly spanDays: number;
}

/**
 * Readings are taken a fortnight apart, or a tenth of the machine's record where that is less, but never less
 * than a day: what swings from week to week does not move a date that lies months ahead, but taken into the
 * likelihood it would pass for a rate that wanders.
 */
const [LEAST_GAP_DAYS, GAP_DAYS, GAPS_AT_LEAST] = [1, 14, 10];
/** Intervals that are looked at, the latest ones: about two years and a half. */
const MOST_INTERVALS = 60;

/** Chooses the readings to go by, from the last one back. */
export function useIntervals({ at, hours }: RunHours): UseIntervals {
  const last = at.length - 1;
  const gap = Math.max(LEAST_GAP_DAYS, Math.min(GAP_DAYS, (at[last]! - at[0]!) / DAY_MS / GAPS_AT_LEAST));
  const bounds = [last];
  let later = last;
  for (let i = last - 1; i >= 0 && bounds.length <= MOST_INTERVALS; i--) {
    if (at[later]! - at[i]! < gap * DAY_MS) continue;
    bounds.push(i);
    later = i;
  }
  // Read twice within the first day: better than nothing, once it is an hour.
  if (later === last && at[last]! - at[0]! >= HOUR_MS) bounds.push(0);
  bounds.reverse();
  const count = bounds.length - 1;
  const gained = takeRow();
  const days = takeRow();
  const age = takeRow();
  for (let i = 0; i < count; i++) {
    const from = bounds[i]!;
    const to = bounds[i + 1]!;
    gained[i] = hours[to]! - hours[from]!;
    days[i] = (at[to]! - at[from]!) / DAY_MS;
    age[i] = (at[last]! - at[from]!) / DAY_MS;
  }
  return { count, bounds, gained, days, age, spanDays: count > 0 ? age[0]! : 0 };
}

/** Share of a calendar day that counts as worked in any case, so that hours run off season belong to some day. */
const LEAST_WORKED = 0.01;

/** The same intervals in the working days of a season, in a row of this fit. */
export function workedDays(
  { bounds, days, count }: UseIntervals,
  { at }: RunHours,
  time: OperatingTime,
): Float64Array {
  const worked = takeRow();
  let before = time.at(at[bounds[0]!]!);
  for (let i = 0; i < count; i++) {
    const after = time.at(at[bounds[i + 1]!]!);
    worked[i] = after - before + LEAST_WORKED * days[i]!;
    before = after;
  }
  return worked;
}

/** Neighbours that differ more than so many of the others count no more than those do. */
const WINSORISED_AT = 0.85;
/** How many intervals the fleet's scatter is worth. */
const USUAL_WEIGHT = 3;
const LEAST_SCATTER = 0.02;

/**
 * Variance of a day's hours about their rate, as a share of that rate squared: from how much neighbouring
 * intervals differ, so that a rate that changes slowly does not pass for scatter, and a single jump hardly.
 *
 * @param days calendar or working days of each
 * @param typical hours a day: less is not believed to scatter less
 * @param usual what is believed of it before anything was read
 */
export function relativeScatter(
  { gained, count }: UseIntervals,
  days: Float64Array,
  typical: number,
  usual: number,
): number {
  const differences = takeRow();
  let before = gained[0]! / days[0]!;
  let daysBefore = days[0]!;
  for (let i = 1; i < count; i++) {
    const span = days[i]!;
    const now = gained[i]! / span;
    const middle = Math.max((now + before) / 2, typical / 4);
    const apart = (now - before) / middle;
    differences[i - 1] = (apart * apart * span * daysBefore) / (span + daysBefore);
    before = now;
    daysBefore = span;
  }
  const found = count - 1;
  let sum = USUAL_WEIGHT * usual;
  if (found > 0) {
    const limit = nthSmallest(differences, found, Math.floor(WINSORISED_AT * (found - 1)));
    for (let i = 0; i < found; i++) sum += Math.min(differences[i]!, limit);
  }
  return Math.max(LEAST_SCATTER, sum / (found + USUAL_WEIGHT));
}
