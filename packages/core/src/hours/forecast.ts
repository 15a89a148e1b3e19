import { DAY_MS, type Instant } from '../basics/index.js';
import { dayReached, hoursReached, layOut, LIKELY, type CrossingSurface } from './crossing.js';
import type { Outlook } from './expert.js';
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

const NO_DATE = { earlyAt: null, likelyAt: null, lateAt: null };

/** One chance in ten, and nine in ten. */
const [EARLY, LATE] = [0.1, 0.9];

/**
 * The likely moment of {@link forecastHours} alone, for what needs no more.
 *
 * @returns null where there is none
 */
export function whenLikely(model: UseModel, runHours: RunHours, hours: number): Instant | null {
  const remaining = hours - model.fromHours;
  if (remaining <= 0) return whenReached(runHours, hours, null);
  if (model.outlooks.length === 0) return null;
  const day = dayReached(model.ahead, remaining, LIKELY);
  return day === null ? null : model.fromAt + day * DAY_MS;
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
  if (model.outlooks.length === 0) return { ...NO_DATE, reason: 'use-unknown' };
  const surface = from.at === model.fromAt ? model.ahead : layOut(model.outlooks, from.at);
  const likely = dayReached(surface, remaining, LIKELY);
  // What is not even likely to come within ten years has no date at all: an early one would mislead.
  if (likely === null) return { ...NO_DATE, reason: model.isIdle ? 'idle' : 'beyond-ten-years' };
  const momentOf = (days: number) => from.at + days * DAY_MS;
  const early = dayReached(surface, remaining, EARLY) ?? likely;
  const late = dayReached(surface, remaining, LATE);
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
  const { outlooks, fromAt, fromHours } = model;
  if (outlooks.length === 0) return null;
  const days = (at - fromAt) / DAY_MS;
  if (!(days > 0)) return { low: fromHours, likely: fromHours, high: fromHours };
  const surface = model.ahead;
  const reached = (chanceOfMore: number) => fromHours + hoursReached(surface, days, chanceOfMore);
  return { low: reached(LATE), likely: reached(LIKELY), high: reached(EARLY) };
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
  const { outlooks, fromAt, fromHours } = model;
  if (outlooks.length === 0 || model.isIdle) return null;
  const since = (at - fromAt) / DAY_MS;
  const now = hoursAhead(model, at)!.likely;
  if (!(since > 0) || hours <= now) return null;
  return {
    spreadDays: halfWidth(model.ahead, hours - fromHours),
    spreadIfReadDays: halfWidth(layOut(readNow(outlooks, fromAt, at), at), hours - now),
  };
}

/** The outlooks as they would be if the meter were read now and said what is likely. */
function readNow(outlooks: readonly Outlook[], fromAt: Instant, at: Instant): Outlook[] {
  return outlooks.map((outlook) => {
    const { level, levelVariance, scatter, wander, time } = outlook;
    const since = time.at(at) - time.at(fromAt);
    if (!(since > 0) || outlook.growth || !(scatter > 0)) return outlook;
    const foreseen = { days: [since], gained: [level * since], count: 1 };
    const start = { level, variance: levelVariance / scatter };
    const { variance } = filterLevel(foreseen, wander / scatter, start);
    return { ...outlook, levelVariance: variance * scatter };
  });
}

function halfWidth(surface: CrossingSurface, remaining: number): number | null {
  const [early, late] = [EARLY, LATE].map((chance) => dayReached(surface, remaining, chance));
  return early === null || late === null ? null : (late! - early!) / 2;
}
