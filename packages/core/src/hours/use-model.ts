import { DAY_MS, HOUR_MS, type Instant } from '../basics/index.js';
import { correctionOf, type Correction } from './backtest.js';
import { practicePrior, WANDER_WINDOWS, type FleetPrior } from './fleet-prior.js';
import { filterLevel, type FilteredLevel, type Gains, type LevelStart } from './local-level.js';
import { hoursAt, type RunHours } from './run-hours.js';
import { plainTime, seasonalTime, seasonOf, type Season, type WorkingTime } from './season.js';
import { MOST_DAYS } from './crossing.js';

/** What a machine's own readings and its papers say of how it is used, as of its last reading. */
export interface UseModel {
  /** The last reading: forecasts set out from it. */
  readonly fromAt: Instant;
  readonly fromHours: number;
  /** Average use over the readings looked at, hours a day: what the fleet's spread is a share of. */
  readonly typical: number | null;
  /** Present rate m, hours a working day; null when nothing is known of the use. */
  readonly level: number | null;
  /** Variance P of the level, scatter σ² and wander q² (see {@link Growth}), per working day. */
  readonly levelVariance: number;
  readonly scatter: number;
  readonly wander: number;
  /** How many days of readings still speak of today: the window of {@link WANDER_WINDOWS} found likeliest. */
  readonly windowDays: number;
  readonly correction: Correction;
  readonly season: Season | null;
  readonly time: WorkingTime;
  /** Whether the machine has stood still for so long that no date can be told from its hours. */
  readonly isIdle: boolean;
  readonly basedOn: UseGrounds;
}

/** What a forecast rests on. */
export interface UseGrounds {
  /** Intervals between readings that were used. */
  readonly intervals: number;
  /** Days from the first reading used to the last. */
  readonly spanDays: number;
  readonly declaredHoursPerWeek: number | null;
}

export interface UseFacts {
  readonly runHours: RunHours;
  readonly declaredHoursPerWeek?: number | undefined;
  readonly prior?: FleetPrior | undefined;
  /** Days as the declared duty counts them, from a moment on: followed until there are readings to follow. */
  readonly declaredTime?: ((from: Instant) => WorkingTime) | undefined;
}

/**
 * Readings are taken a fortnight apart, or a tenth of the machine's record where that is less, but never less
 * than a day: what swings from week to week does not move a date that lies months ahead, but taken into the
 * likelihood it would pass for a rate that wanders.
 */
const [LEAST_GAP_DAYS, GAP_DAYS, GAPS_AT_LEAST] = [1, 14, 10];
/** Intervals that the filter looks at, the latest ones: about two years and a half. */
const MOST_INTERVALS = 60;
/** Days of reading that the declared duty is worth. */
const DECLARED_WEIGHT_DAYS = 14;
/** Standing still for six weeks is longer than an ordinary closure. */
const IDLE_DAYS = 42;
/** Hours that do not count as running: a meter that ticks over when it is looked at. */
const NEXT_TO_NOTHING_H = 0.1;
/**
 * A season explains what swings within the year. Shorter windows would take the ragged edges of the pattern
 * for a rate that wanders, and forget in the quiet months what the machine does in the others.
 */
const LEAST_SEASON_WINDOW = 160;
/** Share of the chance in a season's pattern that bears on one date: its parts err partly against each other. */
const SEASON_NOISE_SHARE = 0.25;

// Scratch arrays: fitting thousands of machines should not allocate for each of them.
const days = new Float64Array(MOST_INTERVALS);
const gained = new Float64Array(MOST_INTERVALS);

/**
 * Fits the local-level model to a machine's run hours.
 *
 * @returns null without any run hours to set out from
 */
export function fitUse(facts: UseFacts): UseModel | null {
  const { runHours, declaredHoursPerWeek, prior = practicePrior } = facts;
  const last = runHours.at.length - 1;
  if (last < 0) return null;
  const fromAt = runHours.at[last]!;
  const season = seasonOf(runHours, prior.seasonTrust);
  const time = timeOf(facts, season);
  const gains = gainsOf(runHours, time);
  const declared = declaredHoursPerWeek === undefined ? null : Math.min(24, declaredHoursPerWeek / 7);
  const typical = typicalUse(gains, declared);
  const shared = {
    fromAt,
    fromHours: runHours.hours[last]!,
    season,
    time,
    isIdle: isIdle(runHours, time),
    basedOn: {
      intervals: gains.count,
      spanDays: gains.spanDays,
      declaredHoursPerWeek: declaredHoursPerWeek ?? null,
    },
  };
  if (typical === null) return { ...shared, ...NOTHING_KNOWN };
  const priorScatter = (prior.spread * Math.max(typical, LEAST_TYPICAL)) ** 2;
  const start: LevelStart | null =
    declared === null ? null : { level: declared, variance: 1 / DECLARED_WEIGHT_DAYS };
  const { filtered, window } = likeliest(gains, start, prior, priorScatter, season ? LEAST_SEASON_WINDOW : 0);
  const scatter =
    (filtered.squares + prior.spreadWeight * priorScatter) / (filtered.foreseen + prior.spreadWeight);
  const wander = scatter / WANDER_WINDOWS[window]! ** 2;
  return {
    ...shared,
    typical,
    level: Math.min(24, Math.max(0, filtered.level)),
    levelVariance:
      filtered.variance * scatter + (season ? SEASON_NOISE_SHARE * season.noise * filtered.level ** 2 : 0),
    scatter,
    wander,
    windowDays: WANDER_WINDOWS[window]!,
    correction: correctionOf(gains, WANDER_WINDOWS[window]! ** -2, start, scatter),
  };
}

function timeOf({ runHours: { at }, declaredTime }: UseFacts, season: Season | null): WorkingTime {
  const [first, last] = [at[0]!, at.at(-1)!];
  if (season) return seasonalTime(season, first, last + (MOST_DAYS + 31) * DAY_MS);
  if (declaredTime && last - first < HOUR_MS) return declaredTime(first);
  return plainTime(first);
}

/** A machine that hardly ever ran still scatters. */
const LEAST_TYPICAL = 0.1;

const NOTHING_KNOWN = {
  typical: null,
  level: null,
  levelVariance: 0,
  scatter: 0,
  wander: 0,
  windowDays: WANDER_WINDOWS[0],
  correction: { scale: 1, horizons: 0 },
};

interface SpannedGains extends Gains {
  readonly spanDays: number;
}

/** Hours gained between readings at least a day apart, in working days, the latest readings first to be kept. */
function gainsOf(runHours: RunHours, time: WorkingTime): SpannedGains {
  const { at, hours } = runHours;
  let later = at.length - 1;
  let count = 0;
  const keep = (earlier: number) => {
    days[count] = time.at(at[later]!) - time.at(at[earlier]!);
    gained[count] = hours[later]! - hours[earlier]!;
    count += 1;
    later = earlier;
  };
  const span = (at[later]! - at[0]!) / DAY_MS;
  const gap = Math.max(LEAST_GAP_DAYS, Math.min(GAP_DAYS, span / GAPS_AT_LEAST)) * DAY_MS;
  for (let i = later - 1; i >= 0 && count < MOST_INTERVALS; i--) {
    if (at[later]! - at[i]! >= gap) keep(i);
  }
  // Read twice within the first day: better than nothing, once it is an hour.
  if (count === 0 && at[later]! - at[0]! >= HOUR_MS) keep(0);
  days.subarray(0, count).reverse();
  gained.subarray(0, count).reverse();
  return { days, gained, count, spanDays: (at.at(-1)! - at[later]!) / DAY_MS };
}

/** The scale that scatter is measured by: average use over the readings, leaning on the declared duty. */
function typicalUse({ count }: Gains, declared: number | null): number | null {
  if (count === 0) return declared;
  let [hours, span] = [0, 0];
  for (let i = 0; i < count; i++) {
    hours += gained[i]!;
    span += days[i]!;
  }
  const weight = declared === null ? 0 : DECLARED_WEIGHT_DAYS;
  return (hours + weight * (declared ?? 0)) / (span + weight);
}

/**
 * Tries each window and keeps the likeliest, the fleet's prior counted in; σ² is integrated out under an
 * inverse gamma prior worth `spreadWeight` intervals.
 */
function likeliest(
  gains: Gains,
  start: LevelStart | null,
  prior: FleetPrior,
  priorScatter: number,
  leastWindow: number,
): { readonly filtered: FilteredLevel; readonly window: number } {
  let best: { filtered: FilteredLevel; window: number } | null = null;
  let bestScore = -Infinity;
  for (let window = 0; window < WANDER_WINDOWS.length && WANDER_WINDOWS[window]! >= leastWindow; window++) {
    const filtered = filterLevel(gains, WANDER_WINDOWS[window]! ** -2, start);
    const { foreseen, squares, logSpread } = filtered;
    const score =
      Math.log(prior.windows[window]!) -
      0.5 * logSpread -
      0.5 * (foreseen + prior.spreadWeight) * Math.log(squares + prior.spreadWeight * priorScatter);
    if (score > bestScore) [best, bestScore] = [{ filtered, window }, score];
  }
  return best!;
}

/** Whether the hours have stood still for {@link IDLE_DAYS} working days up to the last reading. */
function isIdle({ at, hours }: RunHours, time: WorkingTime): boolean {
  const last = at.length - 1;
  let since = last;
  while (since > 0 && hours[last]! - hours[since - 1]! <= NEXT_TO_NOTHING_H) since -= 1;
  return since < last && time.at(at[last]!) - time.at(at[since]!) >= IDLE_DAYS;
}

/** Run hours at a moment: read or interpolated, and after the last reading carried on at the present rate. */
export function modelHoursAt(model: UseModel, runHours: RunHours, at: Instant) {
  if (at <= model.fromAt) return hoursAt(runHours, at, null);
  const working = model.time.at(at) - model.time.at(model.fromAt);
  // In a busy season the working day is longer than a day: the machine's own is not.
  const most = (24 * (at - model.fromAt)) / DAY_MS;
  const gain = model.isIdle ? 0 : Math.min(most, (model.level ?? 0) * working);
  return { hours: model.fromHours + gain, basis: 'extrapolated' as const };
}
