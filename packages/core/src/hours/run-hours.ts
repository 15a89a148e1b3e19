import { DAY_MS, type Instant } from '../basics/index.js';
import type { CounterKind, HourLog, HourReading, MeterChange } from './hour-log.js';

/**
 * Continuous run hours of a compressor: points in the order of time, never falling, counted in the figures
 * of its first meter, so that a replaced, reset or rolled-over meter leaves no step.
 */
export interface RunHours {
  readonly at: readonly Instant[];
  readonly hours: readonly number[];
  /** Which counter it is built from: total where there is any, else loaded; null without readings. */
  readonly counts: CounterKind | null;
  /** Whether the last point was an estimate rather than read off a meter. */
  readonly lastEstimated: boolean;
}

/** How a figure of run hours at a moment came about. */
export type HoursBasis = 'read' | 'interpolated' | 'extrapolated' | 'before-first';

const NO_HOURS: RunHours = { at: [], hours: [], counts: null, lastEstimated: false };

/** Lays readings end to end across meter changes. */
export function runHoursOf(log: HourLog): RunHours {
  const counts = countedBy(log.readings);
  if (counts === null) return NO_HOURS;
  const readings = inOrder(log.readings, counts);
  if (counts === 'loaded' || log.meterChanges.length === 0) return withoutChanges(readings, counts);
  return acrossChanges(readings, log.meterChanges);
}

function countedBy(readings: readonly HourReading[]): CounterKind | null {
  for (let i = 0; i < readings.length; i++) if (readings[i]!.counts === 'total') return 'total';
  return readings.length > 0 ? 'loaded' : null;
}

/** The readings of one counter by time; a log that is already in order is not copied. */
function inOrder(readings: readonly HourReading[], counts: CounterKind): readonly HourReading[] {
  let sorted = true;
  for (let i = 0; i < readings.length; i++) {
    const reading = readings[i]!;
    const before = i > 0 ? readings[i - 1]! : undefined;
    if (reading.counts !== counts || (before && byTime(before, reading) > 0)) {
      sorted = false;
      break;
    }
  }
  return sorted ? readings : readings.filter((reading) => reading.counts === counts).sort(byTime);
}

function byTime(a: HourReading, b: HourReading): number {
  return a.takenAt - b.takenAt || a.hours - b.hours;
}

function withoutChanges(readings: readonly HourReading[], counts: CounterKind): RunHours {
  const count = readings.length;
  const at = new Array<number>(count);
  const hours = new Array<number>(count);
  let highest = -Infinity;
  for (let i = 0; i < count; i++) {
    const reading = readings[i]!;
    if (reading.hours > highest) highest = reading.hours;
    at[i] = reading.takenAt;
    hours[i] = highest;
  }
  return { at, hours, counts, lastEstimated: readings[count - 1]!.source === 'estimated' };
}

function acrossChanges(readings: readonly HourReading[], meterChanges: readonly MeterChange[]): RunHours {
  const points = continuousPoints(readings, meterChanges);
  const lastOrigin = points.at(-1)!.origin;
  let highest = -Infinity;
  return {
    at: points.map((point) => point.at),
    hours: points.map((point) => (highest = Math.max(highest, point.hours))),
    counts: 'total',
    lastEstimated: lastOrigin.kind === 'reading' && lastOrigin.fact.source === 'estimated',
  };
}

/** A point of the continuous hours with the fact it stems from. */
export interface HourPoint {
  readonly at: Instant;
  /** Continuous hours. */
  readonly hours: number;
  readonly origin:
    | { readonly kind: 'reading'; readonly fact: HourReading }
    | { readonly kind: 'meter-change'; readonly fact: MeterChange };
}

/**
 * Readings and meter changes as points of continuous hours by time, exactly as recorded: a figure that falls
 * is left falling, so that it can be judged.
 */
export function continuousPoints(
  readings: readonly HourReading[],
  meterChanges: readonly MeterChange[],
): HourPoint[] {
  const changes = [...meterChanges].sort(
    (a, b) => a.changedAt - b.changedAt || a.oldFinalHours - b.oldFinalHours,
  );
  const points: HourPoint[] = readings.map((fact) => ({
    at: fact.takenAt,
    hours: continuousFigure(fact, changes),
    origin: { kind: 'reading', fact },
  }));
  let offset = 0;
  for (const fact of changes) {
    const hours = fact.oldFinalHours + offset;
    points.push({ at: fact.changedAt, hours, origin: { kind: 'meter-change', fact } });
    offset += fact.oldFinalHours - fact.newStartHours;
  }
  return points.sort((a, b) => a.at - b.at || a.hours - b.hours);
}

/**
 * A meter figure in continuous hours.
 *
 * @param sortedChanges meter changes by time
 */
function continuousFigure(reading: HourReading, sortedChanges: readonly MeterChange[]): number {
  let offset = 0;
  for (const change of sortedChanges) {
    if (change.changedAt > reading.takenAt) break;
    // Noted at the very moment of the change, the figure itself tells which meter was read.
    const readOffOldMeter =
      change.changedAt === reading.takenAt &&
      Math.abs(reading.hours - change.oldFinalHours) < Math.abs(reading.hours - change.newStartHours);
    if (readOffOldMeter) break;
    offset += change.oldFinalHours - change.newStartHours;
  }
  return reading.hours + offset;
}

/** Index of the last point at or before a moment, −1 when the moment lies before all. */
function lastIndexUpTo(sorted: readonly number[], value: number): number {
  let low = 0;
  let high = sorted.length;
  while (low < high) {
    const middle = (low + high) >>> 1;
    if (sorted[middle]! <= value) low = middle + 1;
    else high = middle;
  }
  return low - 1;
}

/**
 * Run hours at a moment: read, or interpolated between its neighbours; after the last point carried on at
 * `hoursPerDay`; before the first point the first figure, since nothing is known before it.
 *
 * @returns null without any readings
 */
export function hoursAt(
  runHours: RunHours,
  at: Instant,
  hoursPerDay: number | null,
): { readonly hours: number; readonly basis: HoursBasis } | null {
  const { at: times, hours } = runHours;
  if (times.length === 0) return null;
  const index = lastIndexUpTo(times, at);
  if (index < 0) return { hours: hours[0]!, basis: 'before-first' };
  const here = hours[index]!;
  if (times[index] === at) return { hours: here, basis: 'read' };
  if (index === times.length - 1) {
    return { hours: here + ((hoursPerDay ?? 0) * (at - times[index]!)) / DAY_MS, basis: 'extrapolated' };
  }
  const share = (at - times[index]!) / (times[index + 1]! - times[index]!);
  return { hours: here + (hours[index + 1]! - here) * share, basis: 'interpolated' };
}

/**
 * The moment at which a figure of continuous hours was, or is likely to be, reached.
 *
 * @returns null when it lies ahead and the machine is idle, or when there are no readings
 */
export function whenReached(runHours: RunHours, target: number, hoursPerDay: number | null): Instant | null {
  const { at: times, hours } = runHours;
  const last = times.length - 1;
  if (last < 0) return null;
  if (target > hours[last]!) {
    if (!hoursPerDay) return null;
    return times[last]! + ((target - hours[last]!) / hoursPerDay) * DAY_MS;
  }
  if (target <= hours[0]!) return times[0]!;
  // First point that is at or above the target: its left neighbour is below it.
  let low = 0;
  let high = last;
  while (low < high) {
    const middle = (low + high) >>> 1;
    if (hours[middle]! < target) low = middle + 1;
    else high = middle;
  }
  const h0 = hours[low - 1]!;
  const h1 = hours[low]!;
  const t0 = times[low - 1]!;
  const t1 = times[low]!;
  return t0 + ((target - h0) / (h1 - h0)) * (t1 - t0);
}
