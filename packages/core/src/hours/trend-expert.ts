import {
  dampedDays,
  MOST_LOG_RATE,
  tDensity4,
  type Expert,
  type RateGrowth,
  type Scattered,
} from './expert.js';
import { takeRow } from './rows.js';

/** Use that grows or declines by a share of itself. */
export interface TrendExpert extends Expert {
  readonly kind: 'trend';
  readonly level: number;
  readonly scatter: number;
  readonly growth: RateGrowth;
}

/** What is read is forgotten in so many days: growth holds for a year or two, not for ever. */
const MEMORY_DAYS = 500;
/** Half of itself a year is a usual growth or decline (deviation of the logarithm). */
const USUAL_SLOPE = 0.5 / 365;
/** The slope is never less sure than three times that. */
const MOST_SLOPE_VARIANCE = 9 * USUAL_SLOPE ** 2;
/** Deviation of the first rate from the typical one, as a logarithm's variance. */
const START_VARIANCE = 4;
/** What was declared is never believed closer than this, as a logarithm's variance. */
const LEAST_DECLARED = 0.02;
/** An interval that ran less than this share of what was foreseen counts as this share: its logarithm has no end. */
const LEAST_SHARE = 0.1;
const MOST_SURPRISE = 3;
/** A rate is never taken for less than e to this power below the typical one: a logarithm that runs away is caught. */
const MOST_BELOW = 12;

/**
 * A logarithm of the rate with level and slope, forgetting slowly (discounted regression, West & Harrison,
 * *Bayesian Forecasting and Dynamic Models*): steady growth and steady decline are straight lines in it.
 */
export function trendExpert({ count, gained, days, typical, scatter, start, noise }: Scattered): TrendExpert {
  const levels = takeRow();
  const slopes = takeRow();
  const variances = takeRow();
  const covariances = takeRow();
  const slopeVariances = takeRow();
  const isDeclared = start !== null && start.level > 0;
  const first = isDeclared ? start.level : typical;
  const variance = isDeclared ? Math.max(LEAST_DECLARED, scatter * start.variance) : START_VARIANCE;
  let level = Math.log(first);
  let slope = 0;
  let v = variance;
  let c = 0;
  let w = USUAL_SLOPE ** 2;
  const lowest = Math.log(typical) - MOST_BELOW;
  const highest = MOST_LOG_RATE;
  for (let i = 0; i < count; i++) {
    const span = days[i]!;
    const forgets = Math.exp(Math.min(span, MEMORY_DAYS) / MEMORY_DAYS);
    v *= forgets;
    c *= forgets;
    w *= forgets;
    if (w > MOST_SLOPE_VARIANCE) {
      c *= Math.sqrt(MOST_SLOPE_VARIANCE / w);
      w = MOST_SLOPE_VARIANCE;
    }
    level += slope * span;
    v += 2 * span * c + span * span * w;
    c += span * w;
    // What was gained speaks of the middle of the interval; the level stands at its end.
    const back = -span / 2;
    const foreseen = level + back * slope;
    const x = Math.max(gained[i]! / span, LEAST_SHARE * Math.exp(Math.min(MOST_LOG_RATE, level)));
    const a = v + back * c;
    const b = c + back * w;
    const spread = a + back * b + scatter / span + (noise === null ? 0 : noise[i]!) / typical ** 2;
    const most = MOST_SURPRISE * Math.sqrt(spread);
    const surprise = Math.min(most, Math.max(-most, Math.log(x) - foreseen));
    level = Math.min(highest, Math.max(lowest, level + (a / spread) * surprise));
    slope += (b / spread) * surprise;
    v -= (a * a) / spread;
    c -= (a * b) / spread;
    w -= (b * b) / spread;
    levels[i] = level;
    slopes[i] = slope;
    variances[i] = v;
    covariances[i] = c;
    slopeVariances[i] = w;
  }
  const last = count - 1;
  const rate = Math.exp(levels[last]!);
  return {
    kind: 'trend',
    level: rate,
    scatter,
    growth: {
      perDay: slopes[last]!,
      levelVariance: variances[last]!,
      covariance: covariances[last]!,
      slopeVariance: slopeVariances[last]!,
    },
    foresee: (i, span, foreseen) => {
      const x = dampedDays(span);
      const mean = span * Math.exp(Math.min(MOST_LOG_RATE, levels[i]! + slopes[i]! * x));
      const relative = scatter / span + variances[i]! + x * (2 * covariances[i]! + x * slopeVariances[i]!);
      foreseen.mean = mean;
      foreseen.variance = mean * mean * relative;
    },
    density: (gain, span, floor, scale) =>
      tDensity4((gain - rate * span) ** 2, scale * scale * scatter * rate * rate * span + floor),
  };
}
