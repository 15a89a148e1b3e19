import { DAY_MS, HOUR_MS, type Instant } from '../basics/index.js';
import { hoursReached, layOut, LIKELY, MOST_DAYS, type CrossingSurface } from './crossing.js';
import type { Outlook } from './expert.js';
import { practicePrior, type FleetPrior } from './fleet-prior.js';
import type { LevelStart } from './local-level.js';
import type { Correction } from './past-score.js';
import { freeRows } from './rows.js';
import { hoursAt, type RunHours } from './run-hours.js';
import { plainTime, seasonalTime, seasonOf, type Season, type OperatingTime } from './season.js';
import { useIntervals, workedDays, type UseIntervals } from './use-intervals.js';
import { viewsOf, type Panel, type Views } from './use-views.js';
import { weighed, type UseChange } from './weigh-views.js';

/** What a machine's own readings and its papers say of how it is used, as of its last reading. */
export interface UseModel {
  /** The last reading: forecasts set out from it. */
  readonly fromAt: Instant;
  readonly fromHours: number;
  /** Average use over the readings looked at, hours a day: what the fleet's spread is a share of. */
  readonly typical: number | null;
  /** How the hours may go on, each with its weight; empty when nothing is known of the use. */
  readonly outlooks: readonly Outlook[];
  /** What they foresee from the last reading on, laid out as it is asked for. */
  readonly ahead: CrossingSurface;
  /** Likely hours a working day now; null when nothing is known of the use. */
  readonly level: number | null;
  /** Scatter σ² of the hours by the wandering rate alone, h²/day, and days of readings that still speak of today. */
  readonly scatter: number;
  readonly windowDays: number;
  readonly correction: Correction;
  /** The season, where the forecast follows one. */
  readonly season: Season | null;
  /** A change of use that came to stay, the last one; null where there was none to be sure of. */
  readonly change: UseChange | null;
  readonly time: OperatingTime;
  /** Whether the machine has stood still for {@link IDLE_DAYS} working days. */
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
  readonly declaredTime?: ((from: Instant) => OperatingTime) | undefined;
}

/** Days of reading that the declared duty is worth. */
const DECLARED_WEIGHT_DAYS = 14;
/** Standing still for six weeks is longer than an ordinary closure. */
const IDLE_DAYS = 42;
/** Hours that do not count as running: a meter that ticks over when it is looked at. */
const NEXT_TO_NOTHING_H = 0.1;
/** A machine that hardly ever ran has still some rate to scale by. */
const LEAST_TYPICAL = 0.02;

/**
 * Fits a weighted mixture of ways of seeing a machine's run hours: a rate that wanders, regimes, a trend; in
 * plain days and, where there is a season, in its working days.
 *
 * @returns null without any run hours to set out from
 */
export function fitUse(facts: UseFacts): UseModel | null {
  const { runHours, declaredHoursPerWeek, prior = practicePrior } = facts;
  const last = runHours.at.length - 1;
  if (last < 0) return null;
  const fromAt = runHours.at[last]!;
  freeRows();
  const use = useIntervals(runHours);
  const declared = declaredHoursPerWeek === undefined ? null : Math.min(24, declaredHoursPerWeek / 7);
  const basedOn = {
    intervals: use.count,
    spanDays: use.spanDays,
    declaredHoursPerWeek: declaredHoursPerWeek ?? null,
  };
  const fromHours = runHours.hours[last]!;
  if (use.count === 0) return { fromAt, fromHours, basedOn, ...unread(facts, declared, prior) };
  const typical = typicalUse(use, declared);
  const start = declared === null ? null : { level: declared, variance: 1 / DECLARED_WEIGHT_DAYS };
  const season = seasonOf(runHours, prior.seasonTrust);
  const scaled = Math.max(typical, LEAST_TYPICAL);
  const panel = panelOf(facts, use, season, scaled, start);
  const { outlooks, ruling, change } = weighed(panel);
  const [{ expert: level, past }] = ruling.views;
  // Field by field here and below: the compiler copies objects slowly, and thousands of machines are fitted in a row.
  return {
    fromAt,
    fromHours,
    basedOn,
    typical,
    outlooks,
    ahead: layOut(outlooks, fromAt),
    level: likelyLevel(outlooks),
    scatter: level.scatter,
    windowDays: level.windowDays,
    correction: past.correction,
    season: ruling.season,
    change,
    time: ruling.time,
    isIdle: isIdle(runHours, (panel.seasonal ?? panel.plain).time),
  };
}

function panelOf(
  facts: UseFacts,
  use: UseIntervals,
  season: Season | null,
  typical: number,
  start: LevelStart | null,
): Panel {
  const { runHours, prior = practicePrior } = facts;
  const [first, last] = [runHours.at[0]!, runHours.at.at(-1)!];
  const shared = { runHours, use, typical, start, prior };
  const plain = viewsOf(shared, plainTime(first), use.days, null);
  let seasonal: Views | null = null;
  if (season) {
    const time = seasonalTime(season, first, last + (MOST_DAYS + 31) * DAY_MS);
    seasonal = viewsOf(shared, time, workedDays(use, runHours, time), season);
  }
  return { runHours, use, typical, start, prior, plain, seasonal };
}

/** A machine not read often enough: what its papers say of it, if anything. */
function unread(
  { runHours, declaredTime }: UseFacts,
  declared: number | null,
  prior: FleetPrior,
): Omit<UseModel, 'fromAt' | 'fromHours' | 'basedOn'> {
  const [first, last] = [runHours.at[0]!, runHours.at.at(-1)!];
  const time = declaredTime && last - first < HOUR_MS ? declaredTime(first) : plainTime(first);
  const scatter = (prior.spread * Math.max(declared ?? 0, LEAST_TYPICAL)) ** 2;
  const outlook = {
    weight: 1,
    time,
    level: declared ?? 0,
    levelVariance: scatter / DECLARED_WEIGHT_DAYS,
    scatter,
    wander: 0,
    growth: null,
    patternNoise: 0,
    change: null,
  };
  const outlooks = declared === null ? [] : [outlook];
  return {
    typical: declared,
    outlooks,
    ahead: layOut(outlooks, last),
    level: declared,
    scatter,
    windowDays: 0,
    correction: { scale: 1, horizons: 0 },
    season: null,
    change: null,
    time,
    isIdle: isIdle(runHours, time),
  };
}

/** The scale that scatter is measured by: average use over the readings, leaning on the declared duty. */
function typicalUse({ gained, count, spanDays }: UseIntervals, declared: number | null): number {
  let hours = 0;
  for (let i = 0; i < count; i++) hours += gained[i]!;
  const weight = declared === null ? 0 : DECLARED_WEIGHT_DAYS;
  return (hours + weight * (declared ?? 0)) / (spanDays + weight);
}

/** Whether the hours have stood still for {@link IDLE_DAYS} working days up to the last reading. */
function isIdle({ at, hours }: RunHours, time: OperatingTime): boolean {
  const last = at.length - 1;
  let since = last;
  while (since > 0 && hours[last]! - hours[since - 1]! <= NEXT_TO_NOTHING_H) since -= 1;
  return since < last && time.at(at[last]!) - time.at(at[since]!) >= IDLE_DAYS;
}

/** The middle of the outlooks' rates, by weight: as likely more as less. */
function likelyLevel(outlooks: readonly Outlook[]): number {
  const sorted = [...outlooks].sort((a, b) => a.level - b.level);
  let below = 0;
  for (const { weight, level } of sorted) {
    below += weight;
    if (below >= 0.5) return Math.min(24, level);
  }
  return 0;
}

/** Run hours at a moment: read or interpolated, and after the last reading carried on as is likely. */
export function modelHoursAt(model: UseModel, runHours: RunHours, at: Instant) {
  if (at <= model.fromAt) return hoursAt(runHours, at, null);
  const days = (at - model.fromAt) / DAY_MS;
  const gain = model.isIdle || model.outlooks.length === 0 ? 0 : hoursReached(model.ahead, days, LIKELY);
  return { hours: model.fromHours + gain, basis: 'extrapolated' as const };
}
