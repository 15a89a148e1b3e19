import type { LevelStart } from './local-level.js';
import type { OperatingTime } from './season.js';

/** A way of seeing how a machine is used, replayed over its past: what it foresaw after each interval. */
export interface Expert {
  readonly kind: 'level' | 'regimes' | 'trend';
  /** What it foresaw for so many working days after interval `i`, written into `foreseen`. */
  foresee(i: number, days: number, foreseen: Foreseen): void;
  /** How likely the last intervals were, by what it believes now: of a gain in so many days. */
  density(gained: number, days: number, floor: number, scale: number): number;
}

/** What regimes and trend look at. */
export interface Scattered {
  readonly count: number;
  readonly gained: Float64Array;
  readonly days: Float64Array;
  /** Average use, hours a day. */
  readonly typical: number;
  /** κ, see {@link import('./use-intervals.js').relativeScatter}. */
  readonly scatter: number;
  /** What the declared duty says, and its variance in units of the scatter: 1 over the days it is worth. */
  readonly start: LevelStart | null;
  /** Variance of each interval's mean rate by the seasonal pattern alone, (h/day)²; null without one. */
  readonly noise: Float64Array | null;
}

/** Hours foreseen and their variance, h²; asked for so often that it is written into, not made anew. */
export interface Foreseen {
  mean: number;
  variance: number;
}

/** How the hours go on from the last reading, by one way of seeing it. */
export interface Outlook {
  readonly weight: number;
  readonly time: OperatingTime;
  /** Present rate m, hours a working day. */
  readonly level: number;
  /** Variance P of that rate, (h/day)². */
  readonly levelVariance: number;
  /** Scatter σ² of the hours, h²/day. */
  readonly scatter: number;
  /** Variance q² by which the rate wanders, (h/day)²/day. */
  readonly wander: number;
  /** Growth of the rate from now on; null where it stays. */
  readonly growth: RateGrowth | null;
  /** Variance of the seasonal pattern, as a share of the hours squared. */
  readonly patternNoise: number;
  /** The chance a day that the use changes again, and the rate that it may go to. */
  readonly change: { readonly perDay: number; readonly toLevel: number } | null;
}

/** A rate that grows or falls by a share of itself a day, more slowly the further ahead. */
export interface RateGrowth {
  /** Natural logarithm's change a day. */
  readonly perDay: number;
  /** Variances and covariance of the logarithm's level and slope. */
  readonly levelVariance: number;
  readonly covariance: number;
  readonly slopeVariance: number;
}

/** Growth is believed to hold for about so long. */
const DAMPING_DAYS = 1000;

/** Mean over the days ahead of the way that a damped slope leads: X̄ with X(t) = ∫∫ e^(−u/D). */
export function dampedDays(days: number): number {
  if (days < 1e-6) return days / 2;
  return DAMPING_DAYS - (DAMPING_DAYS ** 2 * (1 - Math.exp(-days / DAMPING_DAYS))) / days;
}

/** No rate is more than the clock allows, with room for a season's busy days: its logarithm, and itself, hours a day. */
export const MOST_LOG_RATE = 3.3;
export const MOST_RATE = Math.exp(MOST_LOG_RATE);

/** Student's t with 4 degrees of freedom, but for its constant: a square of the deviation over its variance. */
export function tDensity4(square: number, variance: number): number {
  const root = 1 + square / variance / 4;
  return 1 / (root * root * Math.sqrt(root * variance));
}
