import { DAY_MS, type Instant } from '../basics/index.js';
import type { CounterKind, HourLog, ReadingSource } from './hour-log.js';
import { continuousPoints, hoursAt, runHoursOf } from './run-hours.js';

/** A point of continuous run hours with where it comes from. */
export interface SeriesPoint {
  readonly at: Instant;
  readonly hours: number;
  readonly source: ReadingSource | 'meter-change' | 'interpolated';
}

/**
 * The continuous hours of one counter over some time: what was read, where the meter changed, and, where the
 * time begins or ends between two of those, what the hours were just then.
 */
export function hourSeries(log: HourLog, counts: CounterKind, from: Instant, to: Instant): SeriesPoint[] {
  const readings = log.readings.filter((reading) => reading.counts === counts);
  let highest = -Infinity;
  const all = continuousPoints(readings, counts === 'total' ? log.meterChanges : []).map(
    ({ at, hours, origin }): SeriesPoint => ({
      at,
      hours: (highest = Math.max(highest, hours)),
      source: origin.kind === 'reading' ? origin.fact.source : 'meter-change',
    }),
  );
  const inside = all.filter(({ at }) => at >= from && at <= to);
  const runHours = {
    at: all.map(({ at }) => at),
    hours: all.map(({ hours }) => hours),
    counts,
    lastEstimated: false,
  };
  const between = (at: Instant): SeriesPoint[] => {
    const found = hoursAt(runHours, at, null);
    return found?.basis === 'interpolated' ? [{ at, hours: found.hours, source: 'interpolated' }] : [];
  };
  return [...between(from), ...inside, ...(to > from ? between(to) : [])];
}

/** How far back the loaded share looks. */
const SHARE_DAYS = 90;

/**
 * The share of its running that a machine works under load, over the last quarter for which both counters
 * were read.
 *
 * @returns 0 to 1, or null when the two were not both read over at least a week
 */
export function loadedShare(log: HourLog): number | null {
  const total = runHoursOf({ ...log, readings: log.readings.filter(({ counts }) => counts === 'total') });
  const loaded = runHoursOf({
    readings: log.readings.filter(({ counts }) => counts === 'loaded'),
    meterChanges: [],
  });
  if (total.at.length < 2 || loaded.at.length < 2) return null;
  const to = Math.min(total.at.at(-1)!, loaded.at.at(-1)!);
  const from = Math.max(total.at[0]!, loaded.at[0]!, to - SHARE_DAYS * DAY_MS);
  if (to - from < 7 * DAY_MS) return null;
  const gained = (of: typeof total) => hoursAt(of, to, null)!.hours - hoursAt(of, from, null)!.hours;
  const run = gained(total);
  return run > 0 ? Math.min(1, gained(loaded) / run) : null;
}
