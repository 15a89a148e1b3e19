import { DAY_MS, type Instant } from '../basics/index.js';
import { dampedDays, MOST_LOG_RATE, type Outlook } from './expert.js';
import { normalBelow } from './normal.js';

/** Nothing is forecast further ahead than ten years. */
export const MOST_DAYS = 3652.5;

/**
 * Days ahead at which a forecast is laid out, each about 1.6 times the one before: between two of them it is smooth
 * enough to be solved in a few steps.
 */
const NODES = [
  0.05,
  0.5,
  1.25,
  2.5,
  4.5,
  8,
  13,
  20,
  32,
  50,
  80,
  128,
  200,
  320,
  500,
  800,
  1280,
  2000,
  2800,
  MOST_DAYS,
] as const;

/** What one outlook foresees by a day: hours and their deviation, and the same should the use change before. */
interface Gain {
  mean: number;
  deviation: number;
  changeChance: number;
  changedMean: number;
  changedDeviation: number;
}

/** A seasonal pattern errs partly against itself: over a month half of its variance is left. */
const PATTERN_DAYS = 30;
const PATTERN_SHARE = 0.7;
/**
 * Weekdays that are worked and those that are not: readings seldom tell them apart, and within a week they are all
 * there is to know. Deviation in days of running; the less, the nearer to day and night a machine runs.
 */
const WEEKDAY_DAYS = 0.9;
/** Deviation of a rate to come, as a share of it. */
const NEW_RATE_SHARE = 0.6;
const LEAST_CHANCE = 0.005;

/** Works out what an outlook foresees after so many working and calendar days, into `gain`. */
function foresee(outlook: Outlook, worked: number, days: number, gain: Gain): void {
  const { level, levelVariance, scatter, wander, growth, patternNoise, change } = outlook;
  let mean = level * worked;
  let variance: number;
  if (growth) {
    const x = dampedDays(worked);
    mean = worked * Math.exp(Math.min(MOST_LOG_RATE, Math.log(level) + growth.perDay * x));
    const relative =
      scatter / worked + growth.levelVariance + x * (2 * growth.covariance + x * growth.slopeVariance);
    variance = mean * mean * relative;
  } else variance = worked * (scatter + worked * (levelVariance + (worked * wander) / 3));
  mean = Math.min(mean, 24 * days);
  variance += (patternNoise * PATTERN_SHARE * mean * mean) / (1 + days / PATTERN_DAYS);
  variance += (WEEKDAY_DAYS * level * Math.max(0, 1 - level / 24)) ** 2;
  gain.mean = mean;
  gain.deviation = Math.sqrt(Math.max(variance, 1e-12));
  gain.changeChance = 0;
  if (!change) return;
  const expected = change.perDay * days;
  const chance = 1 - Math.exp(-expected);
  if (chance <= LEAST_CHANCE) return;
  // The share of the time that is left after the change, when there is one.
  const left = expected < 0.01 ? 0.5 : (1 - chance / expected) / chance;
  const shift = left * worked * (change.toLevel - level);
  gain.changeChance = chance;
  gain.changedMean = Math.min(mean + shift, 24 * days);
  gain.changedDeviation = Math.sqrt(
    Math.max(variance + (shift * shift) / 12 + 0.67 * (NEW_RATE_SHARE * left * gain.changedMean) ** 2, 1e-12),
  );
}

/** A forecast from a moment on: one serves every task of a machine. */
export interface CrossingSurface {
  readonly outlooks: readonly Outlook[];
  readonly from: Instant;
  /** Working days up to `from`, for each outlook. */
  readonly worked: readonly number[];
  /** What each outlook foresees by each of the days, and the hours reached with a chance: laid out when asked for. */
  readonly laid: (readonly Gain[])[];
  readonly reached: Map<number, number[]>;
}

/** Sets out from a moment with a mixture of outlooks. */
export function layOut(outlooks: readonly Outlook[], from: Instant): CrossingSurface {
  return { outlooks, from, worked: outlooks.map(({ time }) => time.at(from)), laid: [], reached: new Map() };
}

function gainsBy(surface: CrossingSurface, days: number, gains: readonly Gain[]): readonly Gain[] {
  const { outlooks, from, worked } = surface;
  for (let index = 0; index < outlooks.length; index++) {
    const outlook = outlooks[index]!;
    foresee(outlook, outlook.time.at(from + days * DAY_MS) - worked[index]!, days, gains[index]!);
  }
  return gains;
}

const emptyGains = (count: number): Gain[] =>
  Array.from({ length: count }, () => ({
    mean: 0,
    deviation: 0,
    changeChance: 0,
    changedMean: 0,
    changedDeviation: 0,
  }));

// Written into again and again: as many as there are outlooks at most.
const scratch = emptyGains(64);

const DENSITY = 1 / Math.sqrt(2 * Math.PI);
const below = { chance: 0, slope: 0 };

/** The chance that so many hours are run, and its change with each hour more, into {@link below}. */
function measure(outlooks: readonly Outlook[], gains: readonly Gain[], hours: number): void {
  let [chance, slope] = [0, 0];
  for (let index = 0; index < outlooks.length; index++) {
    const { weight } = outlooks[index]!;
    const { mean, deviation, changeChance, changedMean, changedDeviation } = gains[index]!;
    const z = (mean - hours) / deviation;
    const stays = weight * (1 - changeChance);
    chance += stays * normalBelow(z);
    slope -= ((stays * DENSITY) / deviation) * Math.exp((-z * z) / 2);
    if (changeChance === 0) continue;
    const changedZ = (changedMean - hours) / changedDeviation;
    chance += weight * changeChance * normalBelow(changedZ);
    slope -= ((weight * changeChance * DENSITY) / changedDeviation) * Math.exp((-changedZ * changedZ) / 2);
  }
  below.chance = chance;
  below.slope = slope;
}

/** The chance that so many hours are run within so many days. */
export function chanceReached(surface: CrossingSurface, hours: number, days: number): number {
  measure(surface.outlooks, gainsBy(surface, days, scratch), hours);
  return below.chance;
}

/** Hours are solved for to this share of them, days too; hours are told no finer than this part of one. */
const [NEAR_ENOUGH, FINEST] = [1e-9, 1e6];

/**
 * The hours run with a given chance of more: Newton's steps inside a bracket that halves when they would leave it.
 *
 * @param most no more than day and night allow
 */
function hoursOf(
  outlooks: readonly Outlook[],
  gains: readonly Gain[],
  chance: number,
  most: number,
  guess: number,
): number {
  let [low, high] = [0, most];
  let hours = guess > 0 && guess < most ? guess : most / 2;
  for (let step = 0; step < 60; step++) {
    measure(outlooks, gains, hours);
    const excess = below.chance - chance;
    if (excess >= 0) low = hours;
    else high = hours;
    let next = hours - excess / below.slope;
    if (Math.abs(next - hours) <= NEAR_ENOUGH * (1 + hours)) return Math.min(most, Math.max(0, next));
    if (!(next > low && next < high)) next = (low + high) / 2;
    if (high - low <= NEAR_ENOUGH * (1 + hours)) return next;
    hours = next;
  }
  return hours;
}

/** Hours reached by a node with a chance, no less than by the nodes before: far out a rate may have gone anywhere. */
function reachedBy(surface: CrossingSurface, node: number, chance: number): number {
  const { outlooks, laid } = surface;
  let reached = surface.reached.get(chance);
  if (!reached) surface.reached.set(chance, (reached = []));
  for (let next = reached.length; next <= node; next++) {
    const days = NODES[next]!;
    const gains = (laid[next] ??= gainsBy(surface, days, emptyGains(outlooks.length)));
    const before = next === 0 ? 0 : reached[next - 1]!;
    const guess = next === 0 ? 0 : (before * days) / NODES[next - 1]!;
    reached.push(Math.max(before, hoursOf(outlooks, gains, chance, 24 * days, guess)));
  }
  return reached[node]!;
}

/**
 * The day by which so many hours are run with a given chance: the first such day. With one outlook whose rate is
 * known and fixed this is a quantile of the Birnbaum–Saunders law with scale β = d/m and shape α = σ/√(dm).
 *
 * @param hours above 0
 * @returns days ahead, never fewer than the hours take day and night; null when it is not within ten years
 */
export function dayReached(surface: CrossingSurface, hours: number, chance: number): number | null {
  const least = hours / 24;
  for (let node = 0; node < NODES.length; node++) {
    const high = NODES[node]!;
    if (high <= least) continue;
    const reached = reachedBy(surface, node, chance);
    if (reached < hours) continue;
    const before = node === 0 ? 0 : reachedBy(surface, node - 1, chance);
    const low = node === 0 ? 0 : NODES[node - 1]!;
    const perDay = (reached - before) / (high - low);
    const guess = low + (hours - before) / perDay;
    return Math.max(least, solveBetween(surface, hours, chance, { low, high, guess, perDay }));
  }
  return null;
}

interface Bracket {
  readonly low: number;
  readonly high: number;
  readonly guess: number;
  /** Hours a day between the two. */
  readonly perDay: number;
}

/** Newton's steps for the day, the slope by the hours of a day more; halving where they would leave the bracket. */
function solveBetween(surface: CrossingSurface, hours: number, chance: number, bracket: Bracket): number {
  const { outlooks } = surface;
  let { low, high, perDay } = bracket;
  let [day, lastDay, lastOff] = [bracket.guess, NaN, NaN];
  for (let step = 0; step < 60; step++) {
    measure(outlooks, gainsBy(surface, day, scratch), hours);
    const excess = below.chance - chance;
    if (excess >= 0) high = day;
    else low = day;
    // How many hours more, or fewer, are reached by that day than were asked for.
    const off = -excess / below.slope;
    const seen = (off - lastOff) / (day - lastDay);
    if (seen > 0 && Number.isFinite(seen)) perDay = seen;
    [lastDay, lastOff] = [day, off];
    let next = day - off / perDay;
    if (Math.abs(next - day) <= NEAR_ENOUGH * (1 + day)) return next;
    if (!(next > low && next < high) || (step > 8 && step % 2 === 0)) next = (low + high) / 2;
    if (high - low <= NEAR_ENOUGH * (1 + day)) return next;
    day = next;
  }
  return high;
}

/** The hours that are run within so many days with a given chance of more: the other way to ask. */
export function hoursReached(surface: CrossingSurface, days: number, chanceOfMore: number): number {
  const { outlooks } = surface;
  const guess = outlooks.reduce((sum, { weight, level }) => sum + weight * level, 0) * days;
  const gains = gainsBy(surface, days, emptyGains(outlooks.length));
  const hours = hoursOf(outlooks, gains, chanceOfMore, 24 * days, guess);
  // To the thousandth of a second: what is due at 500 h is due when 500 h are reached.
  return Math.round(hours * FINEST) / FINEST;
}
