import { DAY_MS, type Instant } from '../basics/index.js';
import { LONG_GAP_DAYS, readingWorth } from '../hours/index.js';
import type { HourClock } from './clock.js';
import type { TaskStanding } from './task-standing.js';

/** Why a machine's hours should be read again: not because it is long ago, but because the date has grown vague. */
export interface ReadingNeed {
  /** Days since the last reading; null when there never was one. */
  readonly daysSince: number | null;
  /** The next date by hours is sure to so many days, earlier or later; null when there is no telling. */
  readonly spreadDays: number | null;
  /** The same, were the hours read now. */
  readonly spreadIfReadDays: number | null;
}

/** A week's reading is fresh enough for any plan. */
const LEAST_DAYS_SINCE = 7;
/** Dates that are sure to this many days need no better. */
const GOOD_ENOUGH_DAYS = 5;
/** A reading is worth a walk when it leaves no more than this share of the doubt. */
const WORTHWHILE_SHARE = 0.8;

/**
 * Whether reading the hours now would make a machine's next date by hours much surer.
 *
 * @param tasks what is due on it, at `at`
 */
export function readingNeed(
  clock: HourClock,
  tasks: readonly TaskStanding[],
  at: Instant,
): ReadingNeed | null {
  const { model, runHours } = clock;
  if (clock.grounds !== 'readings') return { daysSince: null, spreadDays: null, spreadIfReadDays: null };
  const daysSince = (at - runHours.at.at(-1)!) / DAY_MS;
  if (daysSince < LEAST_DAYS_SINCE || !model) return null;
  const ahead = tasks.filter(({ remainingHours }) => remainingHours !== null && remainingHours > 0);
  if (ahead.length === 0) return null;
  const next = Math.min(...ahead.map(({ dueAtHours }) => dueAtHours!));
  const worth = readingWorth(model, next, at);
  // Nothing can be said of its dates, as for a machine that stands still: then age alone must do.
  if (!worth)
    return daysSince > LONG_GAP_DAYS ? { daysSince, spreadDays: null, spreadIfReadDays: null } : null;
  const { spreadDays, spreadIfReadDays } = worth;
  if (spreadDays !== null) {
    if (spreadDays <= GOOD_ENOUGH_DAYS) return null;
    if (spreadIfReadDays === null || spreadIfReadDays > WORTHWHILE_SHARE * spreadDays) return null;
  }
  return { daysSince, spreadDays, spreadIfReadDays };
}
