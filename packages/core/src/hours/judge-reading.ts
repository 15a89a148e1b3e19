import { HOUR_MS, formatMoment, type Instant, type Problem } from '../basics/index.js';
import { formatFigure } from '../quantities/index.js';
import type { HourLog, HourReading, MeterChange } from './hour-log.js';
import { continuousPoints, type HourPoint } from './run-hours.js';

/** Hours that two figures may gain on the clock: meters show whole hours, watches are set by hand. */
export const CLOCK_TOLERANCE_H = 0.5;

/** How far a device's clock may run ahead of ours before a moment counts as the future. */
export const FUTURE_TOLERANCE_MS = 5 * 60_000;

/** What judging needs to know besides the log. */
export interface JudgingContext {
  readonly now: Instant;
  readonly timeZone: string;
}

/** What makes a moment impossible for any fact: it has not come yet. */
export function futureProblem(at: Instant, field: string, { now, timeZone }: JudgingContext): Problem | null {
  if (at <= now + FUTURE_TOLERANCE_MS) return null;
  return {
    code: 'in-the-future',
    field,
    sentence: `${formatMoment(at, timeZone)} has not come yet. Check the date.`,
  };
}

/**
 * Looks for what makes a reading impossible, against both its neighbours in time: in the future, going
 * backwards without a meter change, faster than the clock, loaded above total.
 *
 * @param log what is on record without this reading
 * @returns the problem with its arithmetic, or null when the reading is possible
 */
export function readingProblem(log: HourLog, reading: HourReading, context: JudgingContext): Problem | null {
  const future = futureProblem(reading.takenAt, 'takenAt', context);
  if (future) return future;
  const sameCounter = log.readings.filter((other) => other.counts === reading.counts);
  const changes = reading.counts === 'total' ? log.meterChanges : [];
  const points = continuousPoints([...sameCounter, reading], changes);
  return (
    neighbourProblem(points, reading, 'hours', context) ??
    (reading.counts === 'loaded' ? aboveTotalProblem(log, reading, context) : null)
  );
}

/**
 * The same for a meter change: its last figure must follow from what was read before, and what was read
 * after must follow from its first.
 */
export function meterChangeProblem(
  log: HourLog,
  change: MeterChange,
  context: JudgingContext,
): Problem | null {
  const future = futureProblem(change.changedAt, 'changedAt', context);
  if (future) return future;
  const total = log.readings.filter((reading) => reading.counts === 'total');
  const points = continuousPoints(total, [...log.meterChanges, change]);
  return neighbourProblem(points, change, 'oldFinalHours', context);
}

/**
 * Looks through a whole log for the first step that cannot be: what taking a fact out of it may leave behind.
 */
export function logProblem({ readings, meterChanges }: HourLog, context: JudgingContext): Problem | null {
  const points = continuousPoints(
    readings.filter((reading) => reading.counts === 'total'),
    meterChanges,
  );
  for (let i = 1; i < points.length; i++) {
    const problem = stepProblem(points[i - 1]!, points[i]!, points[i]!, 'meterChanges', context);
    if (problem) return problem;
  }
  return null;
}

function neighbourProblem(
  points: readonly HourPoint[],
  judged: HourReading | MeterChange,
  field: string,
  context: JudgingContext,
): Problem | null {
  const index = points.findIndex((point) => point.origin.fact === judged);
  const [before, here, after] = [points[index - 1], points[index]!, points[index + 1]];
  return (
    (before && stepProblem(before, here, here, field, context)) ??
    (after && stepProblem(here, after, here, field, context)) ??
    null
  );
}

function stepProblem(
  earlier: HourPoint,
  later: HourPoint,
  judged: HourPoint,
  field: string,
  { timeZone }: JudgingContext,
): Problem | null {
  const gained = later.hours - earlier.hours;
  const elapsed = (later.at - earlier.at) / HOUR_MS;
  if (gained >= -1e-6 && gained <= elapsed + CLOCK_TOLERANCE_H) return null;
  const from = formatHoursFigure(leaving(earlier));
  const to = formatHoursFigure(arriving(later));
  if (gained < 0) {
    const sentence =
      judged === later
        ? `${to} is less than the ${from} on ${formatMoment(earlier.at, timeZone)}. Is it a slip, a new meter, or did the meter roll over?`
        : `${from} is more than the ${to} read later, on ${formatMoment(later.at, timeZone)}. Is it a slip, or was the meter changed in between?`;
    return { code: 'goes-backwards', field, sentence };
  }
  return {
    code: 'faster-than-the-clock',
    field,
    sentence:
      `From ${from} on ${formatMoment(earlier.at, timeZone)} to ${to} on ${formatMoment(later.at, timeZone)} ` +
      `is ${formatHoursFigure(gained)} of running in ${formatHoursFigure(elapsed)}. No machine runs more than 24 h a day.`,
  };
}

/** The meter's figure when a point is reached, and the one it goes on from: they differ at a meter change. */
function arriving({ origin }: HourPoint): number {
  return origin.kind === 'reading' ? origin.fact.hours : origin.fact.oldFinalHours;
}

function leaving({ origin }: HourPoint): number {
  return origin.kind === 'reading' ? origin.fact.hours : origin.fact.newStartHours;
}

function formatHoursFigure(hours: number): string {
  return `${formatFigure(hours, { figures: 6, maxDecimals: 1 })} h`;
}

/** Loaded hours can never exceed total hours, whose figure at that moment lies below the next total reading. */
function aboveTotalProblem(log: HourLog, loaded: HourReading, { timeZone }: JudgingContext): Problem | null {
  if (log.meterChanges.length > 0) return null;
  const total = log.readings.filter((reading) => reading.counts === 'total');
  const next = earliest(total.filter((reading) => reading.takenAt >= loaded.takenAt));
  if (!next || loaded.hours <= next.hours + 1e-6) return null;
  return {
    code: 'loaded-above-total',
    field: 'hours',
    sentence: `${formatHoursFigure(loaded.hours)} loaded is more than the ${formatHoursFigure(next.hours)} total on ${formatMoment(next.takenAt, timeZone)}. Are the two counters mixed up?`,
  };
}

function earliest(readings: readonly HourReading[]): HourReading | undefined {
  return readings.reduce<HourReading | undefined>(
    (first, reading) => (!first || reading.takenAt < first.takenAt ? reading : first),
    undefined,
  );
}
