import jstat from 'jstat';
import type { CheckFigure } from './check.js';

/** A measurement of a check on the axis of run hours. */
export interface TrendPoint {
  readonly hours: number;
  readonly value: number;
  /** Standard uncertainty of the measurement. */
  readonly uncertainty: number;
}

/** Where a check is going. */
export interface CheckTrend {
  /** Measurements that it stands on: those since the last work that begins it anew. */
  readonly count: number;
  readonly fromHours: number;
  readonly toHours: number;
  /** Change for each hour of running. */
  readonly perHour: number;
  /** The line at a figure of run hours, and its standard uncertainty. */
  readonly at: (hours: number) => { readonly value: number; readonly deviation: number };
  /** Run hours at which the limit is reached; null where it is not going there. */
  readonly limitHours: LimitHours | null;
}

export interface LimitHours {
  /** One chance in ten of sooner. */
  readonly early: number;
  readonly likely: number;
  /** One chance in ten of later; null where it may never come. */
  readonly late: number | null;
}

const LEAST_POINTS = 3;
/** No forecast reaches further than this beyond the last measurement, hours. */
const HORIZON_HOURS = 20_000;
const STEPS = 50;

/**
 * The trend of a check against run hours: a straight line by least squares through the measurements since it
 * began anew, and when that line reaches its limit. The spread comes from the scatter about the line, no less
 * than the noise of measuring, by Student's t: two measurements say nothing of themselves.
 *
 * @param points in order of run hours
 * @param resets run hours at which work was done that begins it anew
 * @returns null with fewer than three measurements at different hours
 */
export function trendOf(
  points: readonly TrendPoint[],
  resets: readonly number[],
  limit: number | null,
  worse: CheckFigure['worse'],
): CheckTrend | null {
  const last = points.at(-1);
  if (!last) return null;
  const reset = Math.max(-Infinity, ...resets.filter((hours) => hours <= last.hours));
  const used = points.filter(({ hours }) => hours >= reset);
  if (new Set(used.map(({ hours }) => hours)).size < LEAST_POINTS) return null;
  const count = used.length;
  // Centred, so that large hours do not swallow small changes.
  const middle = used.reduce((sum, { hours }) => sum + hours, 0) / count;
  const mean = used.reduce((sum, { value }) => sum + value, 0) / count;
  const spread = used.reduce((sum, { hours }) => sum + (hours - middle) ** 2, 0);
  const perHour = used.reduce((sum, { hours, value }) => sum + (hours - middle) * (value - mean), 0) / spread;
  const residual = used.reduce(
    (sum, { hours, value }) => sum + (value - mean - perHour * (hours - middle)) ** 2,
    0,
  );
  const noise = used.reduce((sum, { uncertainty }) => sum + uncertainty ** 2, 0) / count;
  const variance = Math.max(residual / (count - 2), noise);
  const at = (hours: number) => ({
    value: mean + perHour * (hours - middle),
    deviation: Math.sqrt(variance * (1 / count + (hours - middle) ** 2 / spread)),
  });
  return {
    count,
    fromHours: used[0]!.hours,
    toHours: last.hours,
    perHour,
    at,
    limitHours:
      limit === null || worse === 'either' ? null : crossing(at, last.hours, limit, worse, count - 2),
  };
}

function crossing(
  at: CheckTrend['at'],
  from: number,
  limit: number,
  worse: 'higher' | 'lower',
  freedom: number,
): LimitHours | null {
  const sign = worse === 'higher' ? 1 : -1;
  const wide = jstat.jStat.studentt.inv(0.9, freedom);
  /** First hours at which the line, moved by so many deviations, is past the limit. */
  const reached = (deviations: number): number | null => {
    const past = (hours: number) => {
      const { value, deviation } = at(hours);
      return sign * (value - limit) + deviations * deviation >= 0;
    };
    if (past(from)) return from;
    const horizon = from + HORIZON_HOURS;
    if (!past(horizon)) return null;
    let [low, high] = [from, horizon];
    for (let step = 0; step < STEPS; step++) {
      const half = (low + high) / 2;
      if (past(half)) high = half;
      else low = half;
    }
    return high;
  };
  const likely = reached(0);
  if (likely === null) return null;
  return { early: reached(wide) ?? likely, likely, late: reached(-wide) };
}
