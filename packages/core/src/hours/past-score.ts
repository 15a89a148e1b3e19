import type { Expert } from './expert.js';
import { nthSmallest } from './nth-smallest.js';
import { ROW_LENGTH, takeRow } from './rows.js';
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

/** Stretches of the past, each following one of the readings, for experts to be tried on (rolling origin). */
export interface Stretches {
  readonly count: number;
  /** The interval after whose end each begins. */
  readonly from: Float64Array;
  /** Working days, and hours run in them. */
  readonly span: Float64Array;
  readonly hours: Float64Array;
  /** What is near enough, as a variance, h². */
  readonly floor: Float64Array;
  /** Share of an independent horizon; and the same, the older the less. */
  readonly weight: Float64Array;
  readonly aged: Float64Array;
  /** Days ago that it set out. */
  readonly age: Float64Array;
}

/** Cuts the past into stretches; their rows last as long as the fit. */
export function stretchesOf(track: Track): Stretches {
  const from = takeRow();
  const span = takeRow();
  const hours = takeRow();
  const floor = takeRow();
  const weight = takeRow();
  const aged = takeRow();
  const age = takeRow();
  const { worked, use } = track;
  const { gained, days } = use;
  const fades = takeRow();
  for (let i = WARM_UP; i < use.count; i++) fades[i] = Math.exp(-use.age[i]! / SCORE_DAYS);
  let count = 0;
  for (const horizon of HORIZONS) {
    const least = horizon * LEAST_SHARE;
    let to = WARM_UP;
    let working = 0;
    let calendar = 0;
    let sum = 0;
    for (let first = WARM_UP; first < use.count; first++) {
      while (to < use.count && working < least) {
        working += worked[to]!;
        calendar += days[to]!;
        sum += gained[to]!;
        to += 1;
      }
      if (working < least) break;
      if (working <= horizon * MOST_SHARE) {
        const share = worked[first]! / horizon / HORIZONS.length;
        from[count] = first - 1;
        span[count] = working;
        hours[count] = sum;
        floor[count] = nearEnough(track, calendar);
        weight[count] = share;
        age[count] = use.age[first]!;
        aged[count] = share * fades[first]!;
        count += 1;
      }
      working -= worked[first]!;
      calendar -= days[first]!;
      sum -= gained[first]!;
    }
  }
  return { count, from, span, hours, floor, weight, aged, age };
}

// How far an expert was out in each stretch, squared, and the variance that it believed in.
const squares = new Float64Array(ROW_LENGTH);
const variances = new Float64Array(ROW_LENGTH);
const ratios = new Float64Array(ROW_LENGTH);

function replay(expert: Expert, { count, from, span, hours }: Stretches): void {
  for (let i = 0; i < count; i++) {
    expert.foresee(from[i]!, span[i]!, foreseen);
    const error = hours[i]! - foreseen.mean;
    squares[i] = error * error;
    variances[i] = Math.max(1e-9, foreseen.variance);
  }
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
export function tried(expert: Expert, stretches: Stretches, withinDays: number, leastScale: number): Tried {
  replay(expert, stretches);
  const { scale, horizons } = correctionOf(stretches, withinDays);
  const correction = { scale: Math.max(leastScale, scale), horizons };
  const { score, lastYear } = scoreOf(stretches, correction.scale);
  return { correction, score, lastYear };
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
function correctionOf({ count, age, weight: share }: Stretches, withinDays: number): Correction {
  let found = 0;
  let horizons = 0;
  for (let i = 0; i < count; i++) {
    if (age[i]! > withinDays) continue;
    ratios[found++] = squares[i]! / variances[i]!;
    horizons += share[i]!;
  }
  if (found === 0) return { scale: USUAL_SCALE, horizons: 0 };
  const eighth = Math.sqrt(nthSmallest(ratios, found, Math.min(found - 1, Math.ceil(0.8 * (found + 1)) - 1)));
  const own = Math.min(MOST_SCALE, Math.max(LEAST_SCALE, eighth / Z90));
  const independent = horizons + 1;
  const weight = independent / (independent + PRIOR_HORIZONS);
  return { scale: own ** weight * USUAL_SCALE ** (1 - weight), horizons: independent };
}

function scoreOf({ count, floor, aged, age }: Stretches, scale: number) {
  let score = 0;
  let lastYear = 0;
  const widened = scale * scale;
  for (let i = 0; i < count; i++) {
    const variance = variances[i]! * widened + floor[i]!;
    const tail = 1 + squares[i]! / (variance * HORIZON_FREEDOM);
    // tail⁹ · variance, for 8 degrees of freedom: one logarithm instead of two.
    const fourth = tail * tail * tail * tail;
    const term = aged[i]! * 0.5 * Math.log(fourth * fourth * tail * variance);
    score -= term;
    if (age[i]! <= LAST_YEAR_DAYS) lastYear -= term;
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
