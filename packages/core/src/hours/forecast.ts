import { DAY_MS, type Instant } from '../basics/index.js';
import {
  crossingDay,
  gainVariance,
  MOST_DAYS,
  surfaceOf,
  Z90,
  type CrossingSurface,
  type Growth,
} from './crossing.js';
import { filterLevel } from './local-level.js';
import { whenReached, type RunHours } from './run-hours.js';
import type { UseModel } from './use-model.js';

/** When a figure of run hours is reached: one chance in ten of being earlier than early, or later than late. */
export interface Forecast {
  readonly earlyAt: Instant | null;
  readonly likelyAt: Instant | null;
  readonly lateAt: Instant | null;
  /** Why there is no date, or no late one; null when there are all three. */
  readonly reason: ForecastReason | null;
}

export type ForecastReason =
  /** Nothing is known of its use: no two readings, no declared duty. */
  | 'use-unknown'
  /** It stands still: only the calendar tells. */
  | 'idle'
  /** Not within ten years. */
  | 'beyond-ten-years';

/** How a forecast came about. */
export type ForecastMethod = 'season' | 'readings' | 'declared' | 'idle' | 'none';

export function methodOf(model: UseModel): ForecastMethod {
  if (model.isIdle) return 'idle';
  if (model.level === null) return 'none';
  if (model.basedOn.intervals === 0) return 'declared';
  return model.season ? 'season' : 'readings';
}

/** Hours a day at a moment, the season counted in; 0 for an idle machine, null when nothing is known. */
export function presentRate(model: UseModel, at: Instant): number | null {
  if (model.isIdle) return 0;
  if (model.level === null) return null;
  return Math.min(24, model.level * model.time.factorAt(at));
}

interface Surfaces {
  readonly early: CrossingSurface;
  readonly late: CrossingSurface;
}

const kept = new WeakMap<UseModel, Surfaces>();

/** The surfaces are laid out at the first question and kept with the fit. */
function surfacesOf(model: UseModel): Surfaces {
  let surfaces = kept.get(model);
  if (!surfaces) {
    const growth = growthOf(model);
    surfaces = { early: surfaceOf(growth, -Z90), late: surfaceOf(growth, Z90) };
    kept.set(model, surfaces);
  }
  return surfaces;
}

/** The growth with the machine's own correction of its band counted in. */
function growthOf({ level, levelVariance, scatter, wander, correction }: UseModel): Growth {
  const factor = correction.scale ** 2;
  return {
    level: level ?? 0,
    levelVariance: levelVariance * factor,
    scatter: scatter * factor,
    wander: wander * factor,
  };
}

const NO_DATE = { earlyAt: null, likelyAt: null, lateAt: null };

/** Days of use that hours take at the present rate; Infinity when it stands still. */
function likelyDays(model: UseModel, remaining: number): number {
  return model.isIdle || !model.level ? Infinity : remaining / model.level;
}

/**
 * The likely moment of {@link forecastHours} alone, for what needs no more.
 *
 * @returns null where there is none
 */
export function whenLikely(model: UseModel, runHours: RunHours, hours: number): Instant | null {
  const remaining = hours - model.fromHours;
  if (remaining <= 0) return whenReached(runHours, hours, null);
  const day = likelyDays(model, remaining);
  return day > MOST_DAYS ? null : momentAfter(model, model.fromAt, remaining, day);
}

/** So many working days after a moment, but not before the hours could be run day and night. */
function momentAfter({ time }: UseModel, from: Instant, remaining: number, days: number): Instant {
  return Math.max(from + (remaining / 24) * DAY_MS, time.momentOf(time.at(from) + days));
}

/**
 * Forecasts when a figure of continuous run hours is reached; for one already reached, when that was.
 *
 * Never earlier than the remaining hours run day and night, never further than ten years.
 *
 * @param from where the forecast sets out, by default at the last reading
 */
export function forecastHours(
  model: UseModel,
  runHours: RunHours,
  hours: number,
  from: { readonly at: Instant; readonly hours: number } = { at: model.fromAt, hours: model.fromHours },
): Forecast {
  const remaining = hours - from.hours;
  if (remaining <= 0) {
    const at = whenReached(runHours, hours, null);
    return { earlyAt: at, likelyAt: at, lateAt: at, reason: null };
  }
  if (model.isIdle) return { ...NO_DATE, reason: 'idle' };
  if (model.level === null) return { ...NO_DATE, reason: 'use-unknown' };
  const likely = likelyDays(model, remaining);
  // What is not even likely to come within ten years has no date at all: an early one would mislead.
  if (likely > MOST_DAYS) return { ...NO_DATE, reason: 'beyond-ten-years' };
  const surfaces = surfacesOf(model);
  const momentOf = (days: number) => momentAfter(model, from.at, remaining, days);
  const early = crossingDay(surfaces.early, remaining) ?? likely;
  const late = crossingDay(surfaces.late, remaining);
  return {
    earlyAt: momentOf(Math.min(early, likely)),
    likelyAt: momentOf(likely),
    lateAt: late === null ? null : momentOf(Math.max(late, likely)),
    reason: late === null ? 'beyond-ten-years' : null,
  };
}

/** How the hours are likely to stand at a moment after the last reading. */
export interface HoursAhead {
  /** One chance in ten that they stand lower. */
  readonly low: number;
  readonly likely: number;
  /** One chance in ten that they stand higher. */
  readonly high: number;
}

/**
 * Forecasts the run hours at a moment: the other face of {@link forecastHours}, for drawing.
 *
 * @returns null when nothing is known of the use
 */
export function hoursAhead(model: UseModel, at: Instant): HoursAhead | null {
  const { level, time, fromAt, fromHours } = model;
  if (level === null) return null;
  const days = Math.max(0, time.at(at) - time.at(fromAt));
  if (model.isIdle || days === 0) return { low: fromHours, likely: fromHours, high: fromHours };
  const spread = Z90 * Math.sqrt(gainVariance(growthOf(model), days));
  const most = (24 * (at - fromAt)) / DAY_MS;
  const likely = Math.min(most, level * days);
  return {
    low: fromHours + Math.max(0, likely - spread),
    likely: fromHours + likely,
    high: fromHours + Math.min(most, likely + spread),
  };
}

/** How wide a forecast is, and how wide it would be if the meter were read now. */
export interface ReadingWorth {
  /** Half of the days from early to late; null when there is no late date. */
  readonly spreadDays: number | null;
  readonly spreadIfReadDays: number | null;
}

/**
 * What a reading now would be worth: by the filter's own arithmetic the variance of the rate after a reading
 * depends on when it is taken, not on what it says.
 *
 * @param hours the figure whose date matters
 */
export function readingWorth(model: UseModel, hours: number, at: Instant): ReadingWorth | null {
  const { level, time, fromAt, fromHours } = model;
  if (level === null || model.isIdle) return null;
  const since = time.at(at) - time.at(fromAt);
  const now = hoursAhead(model, at)!.likely;
  if (!(since > 0) || hours <= now) return null;
  const growth = growthOf(model);
  const foreseen = { days: [since], gained: [level * since], count: 1 };
  const start = { level, variance: growth.levelVariance / growth.scatter };
  const updated = filterLevel(foreseen, growth.wander / growth.scatter, start).variance * growth.scatter;
  return {
    spreadDays: halfWidth(growth, hours - fromHours, time, fromAt),
    spreadIfReadDays: halfWidth({ ...growth, levelVariance: updated }, hours - now, time, at),
  };
}

function halfWidth(growth: Growth, remaining: number, time: UseModel['time'], from: Instant): number | null {
  const early = crossingDay(surfaceOf(growth, -Z90), remaining);
  const late = crossingDay(surfaceOf(growth, Z90), remaining);
  if (early === null || late === null) return null;
  const start = time.at(from);
  return (time.momentOf(start + late) - time.momentOf(start + early)) / DAY_MS / 2;
}
