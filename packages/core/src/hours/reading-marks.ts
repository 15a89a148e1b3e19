import { DAY_MS } from '../basics/index.js';
import type { HourLog, HourReading } from './hour-log.js';
import { continuousPoints } from './run-hours.js';

/** What is unusual about a reading, though it is possible: it is accepted, and marked. */
export type ReadingMark = 'far-from-habit' | 'long-gap' | 'same-figure';

/** Two months without a reading is long for any machine that is looked after. */
export const LONG_GAP_DAYS = 60;
/** The same figure twice within half a day is one visit read twice. */
const SAME_VISIT_DAYS = 0.5;
/** Intervals before there is a habit to be far from. */
const LEAST_INTERVALS = 4;
/** Deviations from the median that are far: normal habits stray further once in some thousands. */
const FAR = 4;
/** What the median absolute deviation of a normal distribution must be multiplied by to be its deviation. */
const MAD_TO_DEVIATION = 1.4826;
/** A habit this regular still has its busy day: share of the median rate, and hours a day. */
const [LEAST_SHARE, LEAST_RATE] = [0.25, 0.5];

/**
 * Marks a possible reading as unusual.
 *
 * Habit is the median of the hours a day between earlier readings, and their scatter about it the median
 * absolute deviation: one odd reading among them moves neither, so that it does not poison what follows. A
 * short interval scatters more than a long one, by the root of its length.
 *
 * @param log earlier readings, without this one; ten of them are plenty
 */
export function readingMarks(log: HourLog, reading: HourReading): ReadingMark[] {
  const earlier = log.readings.filter(
    (other) => other.counts === reading.counts && other.takenAt <= reading.takenAt,
  );
  const changes = reading.counts === 'total' ? log.meterChanges : [];
  const points = continuousPoints([...earlier, reading], changes);
  const here = points.findIndex(({ origin }) => origin.fact === reading);
  const before = points[here - 1];
  if (!before) return [];
  const marks: ReadingMark[] = [];
  const days = (points[here]!.at - before.at) / DAY_MS;
  const gained = points[here]!.hours - before.hours;
  if (isFarFromHabit(points.slice(0, here), days, gained)) marks.push('far-from-habit');
  if (days > LONG_GAP_DAYS) marks.push('long-gap');
  if (gained === 0 && days > SAME_VISIT_DAYS) marks.push('same-figure');
  return marks;
}

function isFarFromHabit(
  past: readonly { readonly at: number; readonly hours: number }[],
  days: number,
  gained: number,
): boolean {
  const intervals = past.slice(1).map((point, index) => ({
    days: (point.at - past[index]!.at) / DAY_MS,
    gained: point.hours - past[index]!.hours,
  }));
  const usable = intervals.filter((interval) => interval.days > SAME_VISIT_DAYS);
  if (usable.length < LEAST_INTERVALS || days <= SAME_VISIT_DAYS) return false;
  const rates = usable.map((interval) => interval.gained / interval.days);
  const usual = middle(rates);
  const typicalDays = middle(usable.map((interval) => interval.days));
  const deviation = Math.max(
    MAD_TO_DEVIATION * middle(rates.map((rate) => Math.abs(rate - usual))),
    LEAST_SHARE * usual,
    LEAST_RATE,
  );
  const allowed = FAR * deviation * Math.sqrt(Math.max(1, typicalDays / days));
  return Math.abs(gained / days - usual) > allowed;
}

function middle(figures: readonly number[]): number {
  const sorted = [...figures].sort((a, b) => a - b);
  const half = sorted.length >>> 1;
  return sorted.length % 2 === 1 ? sorted[half]! : (sorted[half - 1]! + sorted[half]!) / 2;
}
