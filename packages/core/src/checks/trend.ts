import { wearOf, type TrendPoint, type Wear, type WearCycle } from './wear.js';
import type { CheckFigure } from './check.js';

export type { TrendPoint };

/** Where a check is going. */
export interface CheckTrend {
  /** Measurements that it stands on: those since the last work that begins it anew. */
  readonly count: number;
  readonly fromHours: number;
  readonly toHours: number;
  /** Change for each hour of running, by the straight line through them. */
  readonly perHour: number;
  /** Earlier cycles of this machine that the forecast has learnt from. */
  readonly cycles: number;
  /** The curve at a figure of run hours, and its standard uncertainty. */
  readonly at: (hours: number) => { readonly value: number; readonly deviation: number };
  /** Run hours at which the limit is reached; null where it is not going there. */
  readonly limitHours: LimitHours | null;
  /**
   * Whether it worsens enough to foresee its end: what has not changed so far may yet end suddenly, and then its band
   * stands on nothing but how long it has lasted.
   */
  readonly isForeseeable: boolean;
}

export interface LimitHours {
  /** One chance in ten of sooner. */
  readonly early: number;
  readonly likely: number;
  /** One chance in ten of later; null where that is beyond what is forecast at all. */
  readonly late: number | null;
}

const LEAST_POINTS = 3;
/** No forecast reaches further than this beyond the last measurement, hours. */
const HORIZON_HOURS = 20_000;
/** So many standard errors of its slope away from flat it worsens. */
const WORSENS = 1.5;

/**
 * The trend of a check against run hours: how it wears since the work that began it anew, by what was measured and by
 * how it wore in the cycles before; and when that reaches its limit.
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
  const cycles = cyclesOf(points, resets);
  const current = cycles.at(-1)!;
  const used = current.points;
  if (new Set(used.map(({ hours }) => hours)).size < LEAST_POINTS) return null;
  const line = straightLine(used);
  const straight = {
    count: used.length,
    fromHours: used[0]!.hours,
    toHours: last.hours,
    perHour: line.perHour,
    cycles: 0,
    at: line.at,
    limitHours: null,
    isForeseeable: false,
  };
  if (limit === null || worse === 'either') return straight;
  const sign = worse === 'higher' ? 1 : -1;
  const isPast = sign * (line.at(last.hours).value - limit) >= 0;
  const slope = (sign * line.perHour) / line.slopeError;
  if (isPast) {
    const limitHours = { early: last.hours, likely: last.hours, late: last.hours };
    return { ...straight, limitHours, isForeseeable: true };
  }
  // Going away from its limit, it is not on its way there.
  if (slope < -WORSENS) return straight;
  const earlier = cycles.slice(0, -1).filter((cycle) => cycle.points.length >= LEAST_POINTS);
  // Most checks of most machines do not worsen, and nobody asks for their end.
  let wear: Wear | null = null;
  const known = () => (wear ??= wearOf(current, earlier, limit));
  return {
    ...straight,
    cycles: earlier.length,
    at: (hours) => known().at(hours),
    get limitHours() {
      const { early, likely, late } = known().life;
      const horizon = last.hours + HORIZON_HOURS;
      return likely > horizon ? null : { early, likely, late: late > horizon ? null : late };
    },
    isForeseeable: slope > WORSENS,
  };
}

/** What was measured before work lies at least so much before it, h. */
const A_MOMENT_H = 0.001;

/**
 * Run hours of a measurement on its own side of the work: measured, mended and measured again within one visit, the
 * machine did not run in between, and by its hours alone the old figure would open the new cycle.
 */
export function hoursOnItsSide(
  { at, hours }: { readonly at: number; readonly hours: number },
  works: readonly { readonly at: number; readonly hours: number }[],
): number {
  let side = hours;
  for (const work of works) if (work.at > at && work.hours <= side) side = work.hours - A_MOMENT_H;
  return side;
}

/** The measurements from one piece of work to the next; the last are those that go on. */
function cyclesOf(points: readonly TrendPoint[], resets: readonly number[]): WearCycle[] {
  const last = points.at(-1)!.hours;
  const begins = [...new Set(resets)].filter((hours) => hours <= last).sort((a, b) => a - b);
  const first = points[0]!.hours;
  const starts = begins.length > 0 && begins[0]! <= first ? begins : [first, ...begins];
  return starts.map((from, index) => {
    const until = starts[index + 1] ?? Infinity;
    return {
      from,
      until: Math.min(until, last),
      points: points.filter(({ hours }) => hours >= from && hours < until),
    };
  });
}

/** The straight line by least squares; its spread comes from the scatter about it, no less than the noise of measuring. */
function straightLine(used: readonly TrendPoint[]) {
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
  const variance = Math.max(residual / (count - 2), noise, 1e-12);
  return {
    perHour,
    slopeError: Math.sqrt(variance / spread),
    at: (hours: number) => ({
      value: mean + perHour * (hours - middle),
      deviation: Math.sqrt(variance * (1 / count + (hours - middle) ** 2 / spread)),
    }),
  };
}
