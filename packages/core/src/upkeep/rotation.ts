import { DAY_MS, formatInstant, type Instant } from '../basics/index.js';

/** How many backups are kept of each length of time. */
export interface Rotation {
  readonly daily: number;
  readonly weekly: number;
  readonly monthly: number;
}

/** A week day by day, a month week by week, a year month by month. */
export const usualRotation: Rotation = { daily: 7, weekly: 5, monthly: 12 };

/** The first of January 1970 was a Thursday; weeks begin on Monday. */
const MONDAY_SHIFT = 3;

/**
 * Which of several backups are kept: of each of the last days that have any, the latest; likewise of weeks, from
 * Monday, and of months. Days are those of UTC. Days without a backup count for nothing, so that a machine that
 * stood still for a year still has all it had.
 *
 * @param made when they were made, in any order
 */
export function backupsToKeep(
  made: readonly Instant[],
  rotation: Rotation = usualRotation,
): ReadonlySet<Instant> {
  const latestFirst = [...new Set(made)].sort((one, other) => other - one);
  const kept = new Set<Instant>();
  const keepLatestOf = (most: number, spanOf: (at: Instant) => number | string) => {
    const spans = new Set<number | string>();
    for (const at of latestFirst) {
      const span = spanOf(at);
      if (spans.has(span)) continue;
      if (spans.size >= most) return;
      spans.add(span);
      kept.add(at);
    }
  };
  keepLatestOf(rotation.daily, dayOf);
  keepLatestOf(rotation.weekly, (at) => Math.floor((dayOf(at) + MONDAY_SHIFT) / 7));
  keepLatestOf(rotation.monthly, (at) => formatInstant(at).slice(0, 7));
  return kept;
}

/** Whether another backup is due: none was made yet on this day. */
export function isBackupDue(made: readonly Instant[], now: Instant): boolean {
  return !made.some((at) => dayOf(at) === dayOf(now));
}

function dayOf(at: Instant): number {
  return Math.floor(at / DAY_MS);
}
