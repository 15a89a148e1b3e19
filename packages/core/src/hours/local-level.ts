/**
 * The local-level model of use (Durbin & Koopman, *Time Series Analysis by State Space Methods*), observed as
 * hours gained between readings and solved exactly in continuous time: the daily rate μ wanders with variance
 * q² a day, and on top of it the hours gained in Δ days scatter with variance σ²Δ.
 *
 * All variances here are in units of σ², so that σ² itself can be found in closed form; `wander` is q²/σ².
 */

/** Where the filter starts: a rate believed beforehand, or nothing at all. */
export interface LevelStart {
  /** Hours a day. */
  readonly level: number;
  /** Its variance, in units of σ². */
  readonly variance: number;
}

/** Hours gained over successive intervals: `count` of them, the rest of the arrays is not looked at. */
export interface Gains {
  readonly days: ArrayLike<number>;
  readonly gained: ArrayLike<number>;
  readonly count: number;
}

/** What the filter knows at the end of the last interval, and how well it foresaw them all. */
export interface FilteredLevel {
  /** Present rate m, hours a day. */
  readonly level: number;
  /** Its variance P, in units of σ². */
  readonly variance: number;
  /** Intervals foreseen: one fewer than given when the first had to set the level. */
  readonly foreseen: number;
  /** Σ e²/S over the foreseen intervals, h²: the errors against their expected variance (in units of σ²). */
  readonly squares: number;
  /** Σ ln S. */
  readonly logSpread: number;
}

/** Room for the level and its variance after each interval, for replaying the past. */
export interface LevelTrace {
  readonly level: Float64Array;
  readonly variance: Float64Array;
}

/**
 * Runs the Kalman filter over all gains.
 *
 * A gain over Δ days has mean mΔ and variance S = PΔ² + q²Δ³/3 + σ²Δ; its covariance with the rate at the
 * end of the interval is PΔ + q²Δ²/2.
 *
 * @param wander q²/σ², per day²
 * @param start null: the first interval sets the level (the exact diffuse start)
 */
export function filterLevel(
  { days, gained, count }: Gains,
  wander: number,
  start: LevelStart | null,
  trace?: LevelTrace,
): FilteredLevel {
  let first = 0;
  let level = 0;
  let variance = 0;
  if (start) {
    level = start.level;
    variance = start.variance;
  } else if (count > 0) {
    level = gained[0]! / days[0]!;
    // The limit of the update below as the variance before it grows without bound.
    variance = 1 / days[0]! + (wander * days[0]!) / 3;
    first = 1;
    if (trace) {
      trace.level[0] = level;
      trace.variance[0] = variance;
    }
  }
  let squares = 0;
  let logSpread = 0;
  // One logarithm of a product instead of many: taken before the product leaves the range of a double.
  let product = 1;
  for (let i = first; i < count; i++) {
    const span = days[i]!;
    const wandered = wander * span;
    const spread = span * (span * (variance + wandered / 3) + 1);
    const error = gained[i]! - level * span;
    const perSpread = 1 / spread;
    const gain = span * (variance + wandered / 2) * perSpread;
    level += gain * error;
    variance += wandered - gain * gain * spread;
    squares += error * error * perSpread;
    product *= spread;
    if (product > 1e200 || product < 1e-200) {
      logSpread += Math.log(product);
      product = 1;
    }
    if (trace) {
      trace.level[i] = level;
      trace.variance[i] = variance;
    }
  }
  return { level, variance, foreseen: count - first, squares, logSpread: logSpread + Math.log(product) };
}

/**
 * Log likelihood of the gains for a given σ², the first interval left out where it set the level.
 *
 * @param sigma2 σ², h²/day
 */
export function logLikelihood({ foreseen, squares, logSpread }: FilteredLevel, sigma2: number): number {
  return -0.5 * (foreseen * Math.log(2 * Math.PI * sigma2) + logSpread + squares / sigma2);
}
