import { DAY_MS, dayNumberOf, startOfLocalDay, type DayNumber, type Instant } from '../basics/index.js';
import {
  declaredTime,
  fitUse,
  forecastHours,
  modelHoursAt,
  practicePrior,
  presentRate,
  runHoursOf,
  whenLikely,
  type FleetPrior,
  type Forecast,
  type RunHours,
  type UseModel,
} from '../hours/index.js';
import { allReadings, type CompressorHistory } from './history.js';

/** How the present run hours are known. */
export type RunHoursBasis =
  /** read at that very moment */
  | 'read'
  /** between two readings */
  | 'interpolated'
  /** carried on from the last reading at the present rate of use */
  | 'extrapolated'
  /** the last figure was itself an estimate, not read off a meter */
  | 'estimated'
  /** from declared duty, there being no readings */
  | 'declared'
  /** a new machine not read yet: taken as zero */
  | 'assumed';

/** A machine without readings is believed to stand at zero for so long after commissioning. */
const ASSUMED_FOR_MS = 7 * DAY_MS;

/** The run hours of one compressor as the plan counts them: over its whole life, readings or not. */
export interface HourClock {
  readonly runHours: RunHours;
  /** How it is used; null when nothing at all is known. */
  readonly model: UseModel | null;
  readonly commissionedDay: DayNumber;
  readonly commissionedAt: Instant;
  /** Whether the figures come from a meter; if not, where from. */
  readonly grounds: 'readings' | 'declared' | 'assumed' | 'none';
}

/** A clock is worked out once for each history, and again when the fleet's prior changes. */
const kept = new WeakMap<CompressorHistory, { readonly prior: FleetPrior; readonly clock: HourClock }>();

/**
 * Builds the clock from whatever is on record.
 *
 * @param at which of the fleet's priors to believe: the latest fixed by then
 */
export function hourClockOf(history: CompressorHistory, at: Instant): HourClock {
  const prior = priorAt(history, at);
  const known = kept.get(history);
  if (known?.prior === prior) return known.clock;
  const clock = clockOf(history, prior);
  kept.set(history, { prior, clock });
  return clock;
}

function priorAt({ fleetPriors }: CompressorHistory, at: Instant): FleetPrior {
  if (!fleetPriors) return practicePrior;
  return fleetPriors.findLast(({ fixedAt }) => fixedAt <= at)?.prior ?? practicePrior;
}

function clockOf(history: CompressorHistory, prior: FleetPrior): HourClock {
  const { declaredHoursPerWeek, timeZone } = history;
  const commissionedDay = dayNumberOf(history.commissionedOn);
  const commissionedAt = startOfLocalDay(commissionedDay, timeZone);
  const read = runHoursOf({ readings: allReadings(history), meterChanges: history.meterChanges });
  const known = { commissionedDay, commissionedAt };
  const fit = (runHours: RunHours) =>
    fitUse({
      runHours,
      declaredHoursPerWeek,
      prior,
      declaredTime: (from) => declaredTime(history, timeZone, from),
    });
  if (read.at.length > 0) return { ...known, runHours: read, model: fit(read), grounds: 'readings' };
  const fromZero: RunHours = { at: [commissionedAt], hours: [0], counts: null, lastEstimated: true };
  if (declaredHoursPerWeek !== undefined) {
    return { ...known, runHours: fromZero, model: fit(fromZero), grounds: 'declared' };
  }
  if (history.history === 'new')
    return { ...known, runHours: fromZero, model: fit(fromZero), grounds: 'assumed' };
  return { ...known, runHours: read, model: null, grounds: 'none' };
}

/** Run hours at a moment, or null when nothing at all is known of them. */
export function clockHours(
  clock: HourClock,
  at: Instant,
): { readonly hours: number; readonly basis: RunHoursBasis } | null {
  const { model, runHours, grounds } = clock;
  const found = model && modelHoursAt(model, runHours, at);
  if (!found) return null;
  if (grounds === 'declared' || grounds === 'assumed') return { hours: found.hours, basis: grounds };
  const isAfterLast = at >= runHours.at.at(-1)!;
  if (isAfterLast && runHours.lastEstimated) return { hours: found.hours, basis: 'estimated' };
  return { hours: found.hours, basis: found.basis === 'before-first' ? 'extrapolated' : found.basis };
}

/** Whether run hours on such grounds are to be shown as an estimate. */
export function isEstimate(basis: RunHoursBasis | null): boolean {
  return basis === 'estimated' || basis === 'declared' || basis === 'assumed';
}

/** Hours a day at a moment, the season counted in; null when nothing is known of its use. */
export function clockRate({ model }: HourClock, at: Instant): number | null {
  return model && presentRate(model, at);
}

/** When a figure of run hours was or will likely be reached; null when it cannot be said. */
export function clockReaches({ model, runHours }: HourClock, hours: number): Instant | null {
  return model && whenLikely(model, runHours, hours);
}

/**
 * When a figure of run hours was or will be reached, with how sure that is.
 *
 * @param since where the figure was counted from: hours that are themselves only reckoned, not read, are as
 * sure as the time since then, not since commissioning
 */
export function clockForecast(
  { model, runHours, grounds }: HourClock,
  hours: number,
  since: { readonly at: Instant; readonly hours: number } | null = null,
): Forecast | null {
  if (!model) return null;
  const from = grounds === 'declared' && since && since.at > model.fromAt ? since : undefined;
  return forecastHours(model, runHours, hours, from);
}

/** The moment from which assumed hours are no longer believed; null for a machine with better grounds. */
export function assumedUntil(clock: HourClock): Instant | null {
  return clock.grounds === 'assumed' ? clock.commissionedAt + ASSUMED_FOR_MS : null;
}
