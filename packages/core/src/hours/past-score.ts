import type { Expert } from './expert.js';
import { YEAR_DAYS } from './season.js';
import type { UseIntervals } from './use-intervals.js';

/** Stretches of the past that an expert is tried on, days: a month, and four. */
const HORIZONS = [30, 120] as const;
/** So many intervals an expert must have seen before a forecast of its is judged. */
const WARM_UP = 4;
/** A stretch counts as a horizon from this share of it on, and up to this multiple. */
const [LEAST_SHARE, MOST_SHARE] = [0.85, 2];
/** Independent horizons after which the past weighs as much as the usual scale. */
const PRIOR_HORIZONS = 2;
/** Without a past of its own: models are surer of themselves than machines are true to them. */
const USUAL_SCALE = 1.17;
const [LEAST_SCALE, MOST_SCALE] = [0.25, 3];
const Z90 = 1.2815515655446004;
/** Older successes count less: e-folding in days. */
const SCORE_DAYS = 540;
/** The latest intervals are looked at one by one. */
const RECENT_DAYS = 90;
/** What is within a fifth of typical use is near enough: else standing still would be foretold best of all. */
const NEAR_ENOUGH = 0.2;
/** Deviations are heavy-tailed: Student's t. */
const [HORIZON_FREEDOM, STEP_FREEDOM] = [8, 4];

// Scratch arrays for the stretches of one expert's past: thousands of machines are looked at in a row.
const ROOM = 64 * HORIZONS.length;
const errors = new Float64Array(ROOM);
const variances = new Float64Array(ROOM);
const floors = new Float64Array(ROOM);
const weights = new Float64Array(ROOM);
const ages = new Float64Array(ROOM);
const ratios = new Float64Array(ROOM);
const foreseen = { mean: 0, variance: 0 };

/** What experts are tried on: the intervals, in the working days of one way of counting them. */
export interface Track {
  readonly use: UseIntervals;
  readonly worked: Float64Array;
  /** Average use, hours a day. */
  readonly typical: number;
}

/** What is near enough over so many calendar days, as a variance, h². */
function nearEnough({ typical }: Track, days: number): number {
  const near = NEAR_ENOUGH * typical * days;
  return near * near;
}

/**
 * Replays the past of an expert (rolling origin): for each stretch after each reading how far it was out, with what
 * is near enough as a variance, its share of an independent horizon, and how long ago it set out.
 *
 * @returns how many stretches there are
 */
function replay(expert: Expert, track: Track): number {
  const { worked, use } = track;
  const { count, gained, days, age } = use;
  let found = 0;
  for (const horizon of HORIZONS) {
    let [to, span, calendar, hours] = [WARM_UP, 0, 0, 0];
    for (let from = WARM_UP; from < count; from++) {
      // The stretch of intervals (from, to) that follows the reading after interval `from − 1`.
      while (to < count && span < horizon * LEAST_SHARE) {
        span += worked[to]!;
        calendar += days[to]!;
        hours += gained[to]!;
        to += 1;
      }
      if (span < horizon * LEAST_SHARE) break;
      if (span <= horizon * MOST_SHARE) {
        expert.foresee(from - 1, span, foreseen);
        errors[found] = hours - foreseen.mean;
        variances[found] = Math.max(1e-9, foreseen.variance);
        floors[found] = nearEnough(track, calendar);
        weights[found] = worked[from]! / horizon / HORIZONS.length;
        ages[found] = age[from]!;
        found += 1;
      }
      span -= worked[from]!;
      calendar -= days[from]!;
      hours -= gained[from]!;
    }
  }
  return found;
}

/** How well an expert foretold its past. */
export interface Tried {
  readonly correction: Correction;
  /** Log densities of what came, the older the less, in independent horizons; and of the last year alone. */
  readonly score: number;
  readonly lastYear: number;
}

/**
 * Tries an expert on the past.
 *
 * @param withinDays what set out longer ago does not count for its correction
 * @param leastScale it is never believed surer than this
 */
export function tried(expert: Expert, track: Track, withinDays: number, leastScale: number): Tried {
  const found = replay(expert, track);
  const own = correctionOf(found, withinDays);
  const correction = { ...own, scale: Math.max(leastScale, own.scale) };
  return { correction, ...scoreOf(found, correction.scale) };
}

/** What set out within the last year, a day more for the hour of reading. */
export const LAST_YEAR_DAYS = YEAR_DAYS + 1;

/** How much wider, or narrower, an expert's band must be than it says, by its own past. */
export interface Correction {
  /** Factor on the standard deviation of hours to come. */
  readonly scale: number;
  /** Independent horizons that it rests on. */
  readonly horizons: number;
}

/**
 * The scale that takes in eight in ten of the past errors (conformal), drawn toward the usual the more, the fewer
 * stretches there are that do not overlap.
 */
function correctionOf(stretches: number, withinDays: number): Correction {
  let [found, horizons] = [0, 0];
  for (let i = 0; i < stretches; i++) {
    if (ages[i]! > withinDays) continue;
    ratios[found++] = (errors[i]! * errors[i]!) / variances[i]!;
    horizons += weights[i]!;
  }
  if (found === 0) return { scale: USUAL_SCALE, horizons: 0 };
  const eighth = Math.sqrt(nthSmallest(ratios, found, Math.min(found - 1, Math.ceil(0.8 * (found + 1)) - 1)));
  const own = Math.min(MOST_SCALE, Math.max(LEAST_SCALE, eighth / Z90));
  const independent = horizons + 1;
  const weight = independent / (independent + PRIOR_HORIZONS);
  return { scale: own ** weight * USUAL_SCALE ** (1 - weight), horizons: independent };
}

/** The n-th smallest of the first figures, from 0 on; the figures are put about (Hoare 1961). */
function nthSmallest(figures: Float64Array, count: number, n: number): number {
  let [low, high] = [0, count - 1];
  while (low < high) {
    const pivot = figures[(low + high) >>> 1]!;
    let [left, right] = [low, high];
    while (left <= right) {
      while (figures[left]! < pivot) left += 1;
      while (figures[right]! > pivot) right -= 1;
      if (left > right) break;
      const held = figures[left]!;
      figures[left++] = figures[right]!;
      figures[right--] = held;
    }
    if (n <= right) high = right;
    else if (n >= left) low = left;
    else break;
  }
  return figures[n]!;
}

function scoreOf(stretches: number, scale: number): { score: number; lastYear: number } {
  let [score, lastYear] = [0, 0];
  const widened = scale * scale;
  for (let i = 0; i < stretches; i++) {
    const variance = variances[i]! * widened + floors[i]!;
    const tail = 1 + (errors[i]! * errors[i]!) / variance / HORIZON_FREEDOM;
    // tail⁹ · variance, for 8 degrees of freedom: one logarithm instead of two.
    const fourth = tail * tail * tail * tail;
    const term =
      weights[i]! * Math.exp(-ages[i]! / SCORE_DAYS) * 0.5 * Math.log(fourth * fourth * tail * variance);
    score -= term;
    if (ages[i]! <= LAST_YEAR_DAYS) lastYear -= term;
  }
  return { score, lastYear };
}

/** How well it foretold each of the latest intervals, one by one. */
export function recentScore(expert: Expert, track: Track, scale: number): number {
  const { worked, use } = track;
  const { count, gained, days, age } = use;
  let score = 0;
  for (let i = count - 1; i >= 1 && age[i]! <= RECENT_DAYS; i--) {
    expert.foresee(i - 1, worked[i]!, foreseen);
    const variance = Math.max(1e-9, foreseen.variance) * scale * scale + nearEnough(track, days[i]!);
    const error = gained[i]! - foreseen.mean;
    const tail = 1 + (error * error) / variance / STEP_FREEDOM;
    score -= 0.5 * (STEP_FREEDOM + 1) * Math.log(tail) + 0.5 * Math.log(variance);
  }
  return score;
}

/** The last month at least. */
const FIT_DAYS = 32;
const LEAST_DENSITY = 1e-12;

/** How well what it believes now fits the last readings: an expert that lags behind a change does not. */
export function fitScore(expert: Expert, track: Track, scale: number): number {
  const { worked, use } = track;
  const { count, gained, days, age } = use;
  let score = 0;
  for (let i = count - 1; i >= 0 && (i === count - 1 || age[i]! <= FIT_DAYS); i--) {
    const density = expert.density(gained[i]!, worked[i]!, nearEnough(track, days[i]!), scale);
    score += Math.log(Math.max(LEAST_DENSITY, density));
  }
  return score;
}
