import { DAY_MS, type Instant } from '../basics/index.js';
import { dampedDays, MOST_RATE, type Outlook } from './expert.js';
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

/**
 * What one outlook foresees by a day, a row of figures: hours and their deviation, the chance that the use changes
 * before, and hours and deviation should it.
 */
const [MEAN, DEVIATION, CHANGE_CHANCE, CHANGED_MEAN, CHANGED_DEVIATION, ROW] = [0, 1, 2, 3, 4, 5];

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

/** Works out what an outlook foresees after so many working and calendar days, into a row. */
function foresee(outlook: Outlook, worked: number, days: number, gains: number[], row: number): void {
  const { level, levelVariance, scatter, wander, growth, patternNoise, change } = outlook;
  let mean = level * worked;
  let variance: number;
  if (growth) {
    const x = dampedDays(worked);
    mean = worked * Math.min(MOST_RATE, level * Math.exp(growth.perDay * x));
    const relative =
      scatter / worked + growth.levelVariance + x * (2 * growth.covariance + x * growth.slopeVariance);
    variance = mean * mean * relative;
  } else variance = worked * (scatter + worked * (levelVariance + (worked * wander) / 3));
  mean = Math.min(mean, 24 * days);
  variance += (patternNoise * PATTERN_SHARE * mean * mean) / (1 + days / PATTERN_DAYS);
  const weekdays = WEEKDAY_DAYS * level * Math.max(0, 1 - level / 24);
  variance += weekdays * weekdays;
  gains[row + MEAN] = mean;
  gains[row + DEVIATION] = Math.sqrt(Math.max(variance, 1e-12));
  gains[row + CHANGE_CHANCE] = 0;
  if (!change) return;
  const expected = change.perDay * days;
  const chance = 1 - Math.exp(-expected);
  if (chance <= LEAST_CHANCE) return;
  // The share of the time that is left after the change, when there is one.
  const left = expected < 0.01 ? 0.5 : (1 - chance / expected) / chance;
  const shift = left * worked * (change.toLevel - level);
  const changed = Math.min(mean + shift, 24 * days);
  const rate = NEW_RATE_SHARE * left * changed;
  gains[row + CHANGE_CHANCE] = chance;
  gains[row + CHANGED_MEAN] = changed;
  gains[row + CHANGED_DEVIATION] = Math.sqrt(
    Math.max(variance + (shift * shift) / 12 + 0.67 * rate * rate, 1e-12),
  );
}

/** A forecast from a moment on: one serves every task of a machine. */
export interface CrossingSurface {
  readonly outlooks: readonly Outlook[];
  readonly from: Instant;
  /** Working days up to `from`, for each outlook. */
  readonly worked: readonly number[];
  /** What each outlook foresees by each of the days, row by row: laid out when asked for. */
  laid: number[] | null;
  /** What was found with each chance. */
  readonly found: Map<number, Found>;
}

/** Figures of hours whose days are kept: more than any plan has. */
const MOST_KEPT = 500;

interface Found {
  /** Hours reached by each of the days; NaN until asked for. */
  readonly reached: number[];
  /** Days by figures of hours: many tasks of a machine fall due at the same one. */
  readonly days: Map<number, number | null>;
}

/** Sets out from a moment with a mixture of outlooks. */
export function layOut(outlooks: readonly Outlook[], from: Instant): CrossingSurface {
  return { outlooks, from, worked: outlooks.map(({ time }) => time.at(from)), laid: null, found: new Map() };
}

/** Lays out what the outlooks foresee by a day, in rows from `first` on. */
function layGains(surface: CrossingSurface, days: number, gains: number[], first: number): void {
  const { outlooks, from, worked } = surface;
  const at = from + days * DAY_MS;
  for (let index = 0; index < outlooks.length; index++) {
    const outlook = outlooks[index]!;
    foresee(outlook, outlook.time.at(at) - worked[index]!, days, gains, first + index * ROW);
  }
}

// Written into again and again: as many as there are outlooks at most.
const scratch = new Array<number>(64 * ROW).fill(NaN);

const DENSITY = 1 / Math.sqrt(2 * Math.PI);
const below = { chance: 0, slope: 0 };

/** The chance that so many hours are run, and its change with each hour more, into {@link below}. */
function measure(outlooks: readonly Outlook[], gains: number[], first: number, hours: number): void {
  let chance = 0;
  let slope = 0;
  let row = first;
  for (let index = 0; index < outlooks.length; index++, row += ROW) {
    const { weight } = outlooks[index]!;
    const deviation = gains[row + DEVIATION]!;
    const changes = gains[row + CHANGE_CHANCE]!;
    const z = (gains[row + MEAN]! - hours) / deviation;
    const tail = Math.exp(-0.5 * z * z);
    const stays = weight * (1 - changes);
    chance += stays * normalBelow(z, tail);
    slope -= (stays * tail) / deviation;
    if (changes === 0) continue;
    const changedDeviation = gains[row + CHANGED_DEVIATION]!;
    const changedZ = (gains[row + CHANGED_MEAN]! - hours) / changedDeviation;
    const changedTail = Math.exp(-0.5 * changedZ * changedZ);
    chance += weight * changes * normalBelow(changedZ, changedTail);
    slope -= (weight * changes * changedTail) / changedDeviation;
  }
  below.chance = chance;
  below.slope = slope * DENSITY;
}

/** The chance that so many hours are run within so many days. */
export function chanceReached(surface: CrossingSurface, hours: number, days: number): number {
  layGains(surface, days, scratch, 0);
  measure(surface.outlooks, scratch, 0, hours);
  return below.chance;
}

/**
 * The last step that hours or days are solved by, as a share of them; the error is far less than that step. What is
 * likely is solved closely, since work falls due by it; days that are one chance in ten are not as sure as that.
 */
const [CLOSELY, NEARLY] = [1e-9, 1e-5];
/** An even chance. */
export const LIKELY = 0.5;
/** Hours are told no finer than this part of one. */
const FINEST = 1e6;

/** What is solved for. */
interface Wanted {
  readonly chance: number;
  readonly nearEnough: number;
}

/**
 * The hours run with a given chance of more: Newton's steps inside a bracket that halves when they would leave it.
 *
 * @param most no more than day and night allow
 */
function hoursOf(
  outlooks: readonly Outlook[],
  gains: number[],
  first: number,
  { chance, nearEnough }: Wanted,
  most: number,
  guess: number,
): number {
  let low = 0;
  let high = most;
  let hours = guess > 0 && guess < most ? guess : most / 2;
  for (let step = 0; step < 60; step++) {
    measure(outlooks, gains, first, hours);
    const excess = below.chance - chance;
    if (excess >= 0) low = hours;
    else high = hours;
    let next = hours - excess / below.slope;
    if (Math.abs(next - hours) <= nearEnough * (1 + hours)) return Math.min(most, Math.max(0, next));
    if (!(next > low && next < high)) next = (low + high) / 2;
    if (high - low <= nearEnough * (1 + hours)) return next;
    hours = next;
  }
  return hours;
}

const meanRate = (outlooks: readonly Outlook[]) =>
  outlooks.reduce((sum, { weight, level }) => sum + weight * level, 0);

/** The hours reached by a node with a chance, worked out once, into `reached`. */
function reachedBy(surface: CrossingSurface, reached: number[], chance: number, node: number): number {
  const known = reached[node]!;
  if (!Number.isNaN(known)) return known;
  const { outlooks } = surface;
  const size = outlooks.length * ROW;
  surface.laid ??= new Array<number>(NODES.length * size).fill(NaN);
  const days = NODES[node]!;
  const first = node * size;
  if (Number.isNaN(surface.laid[first]!)) layGains(surface, days, surface.laid, first);
  const before = node === 0 ? NaN : reached[node - 1]!;
  const guess = before > 0 ? (before * days) / NODES[node - 1]! : meanRate(outlooks) * days;
  const wanted = { chance, nearEnough: NEARLY };
  return (reached[node] = hoursOf(outlooks, surface.laid, first, wanted, 24 * days, guess));
}

function foundWith({ found }: CrossingSurface, chance: number): Found {
  let known = found.get(chance);
  if (!known) {
    known = { reached: new Array<number>(NODES.length).fill(NaN), days: new Map() };
    found.set(chance, known);
  }
  return known;
}

/**
 * The day by which so many hours are run with a given chance: the first such day. With one outlook whose rate is
 * known and fixed this is a quantile of the Birnbaum–Saunders law with scale β = d/m and shape α = σ/√(dm).
 *
 * @param hours above 0
 * @returns days ahead, never fewer than the hours take day and night; null when it is not within ten years
 */
export function dayReached(surface: CrossingSurface, hours: number, chance: number): number | null {
  const { reached, days } = foundWith(surface, chance);
  const known = days.get(hours);
  if (known !== undefined) return known;
  if (days.size >= MOST_KEPT) days.clear();
  const day = firstDay(surface, reached, hours, chance);
  days.set(hours, day);
  return day;
}

function firstDay(surface: CrossingSurface, reached: number[], hours: number, chance: number): number | null {
  const least = hours / 24;
  for (let node = 0; node < NODES.length; node++) {
    const high = NODES[node]!;
    if (high <= least) continue;
    const after = reachedBy(surface, reached, chance, node);
    if (after < hours) continue;
    const low = node === 0 ? 0 : NODES[node - 1]!;
    const before = node === 0 ? 0 : Math.min(hours, reachedBy(surface, reached, chance, node - 1));
    const perDay = (after - before) / (high - low);
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
  const nearEnough = chance === LIKELY ? CLOSELY : NEARLY;
  let { low, high, perDay } = bracket;
  let day = bracket.guess;
  let lastDay = NaN;
  let lastOff = NaN;
  for (let step = 0; step < 60; step++) {
    layGains(surface, day, scratch, 0);
    measure(outlooks, scratch, 0, hours);
    const excess = below.chance - chance;
    if (excess >= 0) high = day;
    else low = day;
    // How many hours more, or fewer, are reached by that day than were asked for.
    const off = -excess / below.slope;
    const seen = (off - lastOff) / (day - lastDay);
    if (seen > 0 && Number.isFinite(seen)) perDay = seen;
    lastDay = day;
    lastOff = off;
    let next = day - off / perDay;
    if (Math.abs(next - day) <= nearEnough * (1 + day)) return next;
    if (!(next > low && next < high) || (step > 8 && step % 2 === 0)) next = (low + high) / 2;
    if (high - low <= nearEnough * (1 + day)) return next;
    day = next;
  }
  return high;
}

/** The hours that are run within so many days with a given chance of more: the other way to ask. */
export function hoursReached(surface: CrossingSurface, days: number, chanceOfMore: number): number {
  const { outlooks } = surface;
  layGains(surface, days, scratch, 0);
  const wanted = { chance: chanceOfMore, nearEnough: CLOSELY };
  const hours = hoursOf(outlooks, scratch, 0, wanted, 24 * days, meanRate(outlooks) * days);
  // To the thousandth of a second: what is due at 500 h is due when 500 h are reached.
  return Math.round(hours * FINEST) / FINEST;
}
