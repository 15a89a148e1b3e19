import { DAY_MS, type Instant } from '../basics/index.js';
import type { Expert, Outlook } from './expert.js';
import type { FleetPrior } from './fleet-prior.js';
import { LEAST_WINDOW, levelExpert, type LevelExpert } from './level-expert.js';
import type { LevelStart } from './local-level.js';
import { fitScore, LAST_YEAR_DAYS, recentScore, tried, type Track, type Tried } from './past-score.js';
import { regimeExpert, type Regime, type RegimeExpert } from './regimes.js';
import type { RunHours } from './run-hours.js';
import { earlierFactors, seasonalTime, YEAR_DAYS, type Season, type WorkingTime } from './season.js';
import { trendExpert, type TrendExpert } from './trend-expert.js';
import { relativeScatter, workedDays, type UseIntervals } from './use-intervals.js';

/** What all experts look at. */
interface Seen {
  readonly runHours: RunHours;
  readonly use: UseIntervals;
  readonly typical: number;
  readonly start: LevelStart | null;
  readonly prior: FleetPrior;
}

type Member = LevelExpert | RegimeExpert | TrendExpert;

/** An expert with its past. */
interface View<One extends Member = Member> {
  readonly expert: One;
  readonly past: Tried;
}

/** The experts on one way of counting days. */
export interface Views extends Track {
  readonly time: WorkingTime;
  readonly scatter: number;
  readonly season: Season | null;
  readonly views: readonly [View<LevelExpert>, View<RegimeExpert>, View<TrendExpert>];
}

export interface Panel extends Seen {
  readonly plain: Views;
  readonly seasonal: Views | null;
}

/** A change of use that came to stay. */
export interface UseChange {
  /** About when: the middle of the interval in which it fell. */
  readonly at: Instant;
  /** Hours a day before and since. */
  readonly before: number;
  readonly since: number;
}

/** A season explains what swings within the year: shorter windows would take its ragged edges for wandering. */
const LEAST_SEASON_WINDOW = 160;
/** With a season, a change for good is so many times rarer: what swings is explained. */
const SEASON_RARENESS = 10;
/** A pattern is out by this share of typical use on any day: where there are few working days that is much. */
const PATTERN_OFF = 0.2;
/** A short window that a single jump called for is no reason to be very sure. */
const [SHORT_WINDOW, SHORT_SCALE] = [80, 0.9];

/** Lets every expert look at the readings, in working days. */
export function viewsOf(seen: Seen, time: WorkingTime, worked: Float64Array, season: Season | null): Views {
  const { scatter, experts } = expertsOn(seen, worked, season !== null);
  const track = { use: seen.use, worked, typical: seen.typical };
  const viewOf = <One extends Member>(expert: One, leastScale = 0): View<One> => ({
    expert,
    past: tried(expert, track, Infinity, leastScale),
  });
  const [level, regimes, trend] = experts;
  const leastScale = level.windowDays <= SHORT_WINDOW ? SHORT_SCALE : 0;
  return {
    ...track,
    time,
    scatter,
    season,
    views: [viewOf(level, leastScale), viewOf(regimes), viewOf(trend)],
  };
}

function expertsOn({ use, typical, start, prior }: Seen, worked: Float64Array, isSeasonal: boolean) {
  const { gained, days, count } = use;
  const scatter = relativeScatter(gained, worked, typical, prior.spread ** 2);
  const noise = isSeasonal ? worked.map((span, i) => ((PATTERN_OFF * typical * days[i]!) / span) ** 2) : null;
  const leastWindow = isSeasonal ? LEAST_SEASON_WINDOW : LEAST_WINDOW;
  const scattered = { gained, days: worked, typical, scatter, start, noise };
  const experts: readonly [LevelExpert, RegimeExpert, TrendExpert] = [
    levelExpert({ days: worked, gained, count }, start, typical, prior, leastWindow),
    regimeExpert(scattered, isSeasonal ? SEASON_RARENESS : 1),
    trendExpert(scattered),
  ];
  return { scatter, experts };
}

/** How likely each way of seeing it is beforehand. */
const PRIOR: Readonly<Record<Expert['kind'], number>> = { level: 0.45, regimes: 0.45, trend: 0.1 };
/** A machine that scatters wildly has no trend to speak of, and hardly regimes: log weight for each unit of κ. */
const [WILD_TREND, WILD_TREND_FROM, WILD_REGIME, WILD_REGIME_FROM] = [4, 0.5, 0.3, 4];
/** How much the latest intervals one by one, and the fit to them, count; and how far any of it can go. */
const [RECENT_WEIGHT, FIT_WEIGHT, SEASON_FIT_WEIGHT, MOST_ODDS] = [0.5, 0.8, 0.5, 6];
const SEASON_SCORE_WEIGHT = 2;
const SEASON_ODDS = 0.3;

const bounded = (odds: number) => Math.min(MOST_ODDS, Math.max(-MOST_ODDS, odds));

interface Scores {
  readonly past: number;
  readonly recent: number;
  readonly fit: number;
}

function logWeights(on: Views) {
  const { views, scatter } = on;
  const scores = views.map(({ expert, past }): Scores => {
    const { scale } = past.correction;
    return {
      past: past.score,
      recent: recentScore(expert, on, scale),
      fit: fitScore(expert, on, scale),
    };
  });
  // Measured against the regimes, so that no single one of them runs away.
  const beside = scores[1]!;
  const raw = views.map(({ expert: { kind } }, index) => {
    const own = scores[index]!;
    let log = Math.log(PRIOR[kind]);
    if (kind === 'trend') log -= WILD_TREND * Math.max(0, scatter - WILD_TREND_FROM);
    if (kind === 'regimes') log -= WILD_REGIME * Math.max(0, scatter - WILD_REGIME_FROM);
    return (
      log +
      bounded(own.past - beside.past) +
      RECENT_WEIGHT * bounded(own.recent - beside.recent) +
      FIT_WEIGHT * bounded(own.fit - beside.fit)
    );
  });
  return { weights: softmax(raw), scores };
}

function softmax(logs: readonly number[]): number[] {
  const most = Math.max(...logs);
  const raised = logs.map((log) => Math.exp(log - most));
  const total = raised.reduce((sum, one) => sum + one, 0);
  return raised.map((one) => one / total);
}

/** The mean of a score over the experts, by their weights. */
const meanOf = <One>(weights: readonly number[], scores: readonly One[], of: (one: One) => number) =>
  weights.reduce((sum, weight, index) => sum + weight * of(scores[index]!), 0);

/** Log odds that there is a season, rather than only what the readings did of late. */
function seasonOdds(
  panel: Panel,
  season: Season,
  seasonal: ReturnType<typeof logWeights>,
  plain: typeof seasonal,
): number {
  const trust = Math.min(0.95, Math.max(0.05, season.trust));
  const [ours, theirs] = [seasonal.weights, plain.weights];
  const fit =
    meanOf(ours, seasonal.scores, (one) => one.fit) - meanOf(theirs, plain.scores, (one) => one.fit);
  const believed = Math.log(trust / (1 - trust)) + SEASON_FIT_WEIGHT * bounded(fit);
  const recentPlain = meanOf(theirs, plain.scores, (one) => one.recent);
  const onTrial = trySeason(panel, season);
  if (!onTrial) {
    const recent = meanOf(ours, seasonal.scores, (one) => one.recent) - recentPlain;
    return believed + RECENT_WEIGHT * bounded(recent);
  }
  const lastYear = meanOf(theirs, panel.plain.views, ({ past }) => past.lastYear);
  const past = meanOf(ours, onTrial, (one) => one.past) - lastYear;
  const recent = meanOf(ours, onTrial, (one) => one.recent) - recentPlain;
  return SEASON_ODDS + believed + bounded(SEASON_SCORE_WEIGHT * past) + RECENT_WEIGHT * bounded(recent);
}

/** Scores over the last year of experts whose season was found from before it; null where there is no before. */
function trySeason(panel: Panel, season: Season): readonly Omit<Scores, 'fit'>[] | null {
  const { runHours, use, typical, prior } = panel;
  const factors = earlierFactors(runHours, season, prior.seasonTrust);
  if (!factors) return null;
  const time = seasonalTime({ factors }, runHours.at[0]!, runHours.at.at(-1)! + 31 * DAY_MS);
  const track = { use, worked: workedDays(use, runHours, time), typical };
  return expertsOn(panel, track.worked, true).experts.map((expert) => {
    const { correction, lastYear } = tried(expert, track, LAST_YEAR_DAYS, 0);
    return { past: lastYear, recent: recentScore(expert, track, correction.scale) };
  });
}

/** Outlooks less likely than this are left out. */
const LEAST_WEIGHT = 0.03;
const LEAST_REGIME = 0.02;

export interface Weighed {
  readonly outlooks: readonly Outlook[];
  /** The way of counting days that has more than half of the weight. */
  readonly ruling: Views;
  readonly change: UseChange | null;
}

/** Weighs the experts by their past and lets each go on from the last reading. */
export function weighed(panel: Panel): Weighed {
  const { plain, seasonal } = panel;
  const inPlain = logWeights(plain);
  const inSeason = seasonal && logWeights(seasonal);
  const share = inSeason ? 1 / (1 + Math.exp(-seasonOdds(panel, seasonal.season!, inSeason, inPlain))) : 0;
  const outlooksOn = (on: Views, weights: readonly number[], ofAll: number) =>
    on.views.flatMap((view, index) => {
      const weight = ofAll * weights[index]!;
      return weight < LEAST_WEIGHT ? [] : outlooksOf(panel, on, view, weight);
    });
  const outlooks = [
    ...outlooksOn(plain, inPlain.weights, 1 - share),
    ...(inSeason ? outlooksOn(seasonal, inSeason.weights, share) : []),
  ];
  const total = outlooks.reduce((sum, { weight }) => sum + weight, 0);
  const ruling = seasonal && share > 0.5 ? seasonal : plain;
  return {
    outlooks: outlooks.map((outlook) => ({ ...outlook, weight: outlook.weight / total })),
    ruling,
    change: changeOf(panel, ruling),
  };
}

/** With a short record all experts are surer than two or three readings allow: a share of the hours, squared. */
const [START_SHARE, START_DAYS, START_POWER] = [0.35, 20, 4];

function outlooksOf(
  panel: Panel,
  views: Views,
  { expert, past: { correction } }: View,
  weight: number,
): Outlook[] {
  const { time, season } = views;
  const factor = correction.scale ** 2;
  const start = START_SHARE ** 2 / (1 + (panel.use.spanDays / START_DAYS) ** START_POWER);
  const shared = {
    weight,
    time,
    patternNoise: season ? factor * season.noise : 0,
    growth: null,
    change: null,
    wander: 0,
  };
  if (expert.kind === 'level') {
    const level = Math.max(0, expert.level);
    return [
      {
        ...shared,
        level,
        levelVariance: factor * expert.levelVariance + start * level ** 2,
        scatter: factor * expert.scatter,
        wander: factor * expert.wander,
      },
    ];
  }
  if (expert.kind === 'trend') {
    const { perDay, levelVariance, covariance, slopeVariance } = expert.growth;
    const growth = {
      perDay,
      levelVariance: factor * levelVariance + start,
      covariance: factor * covariance,
      slopeVariance: factor * slopeVariance,
    };
    return [{ ...shared, level: expert.level, levelVariance: 0, scatter: factor * expert.scatter, growth }];
  }
  return merged(expert.regimes.filter((regime) => regime.weight >= LEAST_REGIME)).map((regime) => ({
    ...shared,
    weight: weight * regime.weight,
    level: Math.max(0, regime.rate),
    levelVariance: factor * regime.rateVariance * unsettled(regime) + start * regime.rate ** 2,
    scatter: factor * regime.scatter,
    change: nextChange(panel, expert, regime, season !== null),
  }));
}

/** Regimes whose rates lie within one deviation of each other are as good as one: mean and variance of both. */
function merged(regimes: readonly Regime[]): Regime[] {
  const apart: Regime[] = [];
  for (const regime of regimes) {
    const near = apart.findIndex(
      ({ rate, rateVariance }) => (rate - regime.rate) ** 2 < Math.max(rateVariance, regime.rateVariance),
    );
    if (near < 0) apart.push(regime);
    else apart[near] = both(apart[near]!, regime);
  }
  return apart;
}

function both(a: Regime, b: Regime): Regime {
  const weight = a.weight + b.weight;
  const share = b.weight / weight;
  const mixed = (x: number, y: number) => x + share * (y - x);
  return {
    weight,
    begins: a.begins,
    days: mixed(a.days, b.days),
    rate: mixed(a.rate, b.rate),
    rateVariance: mixed(a.rateVariance, b.rateVariance) + share * (1 - share) * (a.rate - b.rate) ** 2,
    scatter: mixed(a.scatter, b.scatter),
  };
}

/** A use that has only begun has not settled: its rate is less sure than its readings make it. */
const [UNSETTLED, UNSETTLED_DAYS] = [1.8, 120];

function unsettled({ begins, days }: Regime): number {
  return begins === 0 ? 1 : 1 + UNSETTLED * Math.exp(-days / UNSETTLED_DAYS);
}

/** One change is no habit: so many are expected in a year's record beforehand. */
const USUAL_CHANGES = 0.3;
/** A machine that stands still starts again, the sooner the shorter it has stood. */
const [IDLE_SHARE, IDLE_CHANGES, IDLE_DAYS] = [0.2, 0.6, 14];
const SEASON_SHARE = 0.3;

function nextChange(
  { use, typical }: Panel,
  { changes }: RegimeExpert,
  { rate, days }: Regime,
  isSeasonal: boolean,
) {
  const habit = (USUAL_CHANGES + Math.max(0, changes - 1)) / (YEAR_DAYS + use.spanDays);
  const restart = rate < IDLE_SHARE * typical ? IDLE_CHANGES / (days + IDLE_DAYS) : 0;
  return { perDay: habit * (isSeasonal ? SEASON_SHARE : 1) + restart, toLevel: typical };
}

/** A change is told when it is this sure, and at least so large either way. */
const [SURE_CHANGE, LARGE_CHANGE] = [0.8, 1.5];

/** The last change of use, where it is sure enough and large enough to be told. */
function changeOf({ runHours, use }: Panel, { views, worked }: Views): UseChange | null {
  const { regimes } = views[1].expert;
  const begun = regimes.filter(({ begins }) => begins > 0);
  const sure = begun.reduce((sum, { weight }) => sum + weight, 0);
  const likeliest = begun[0];
  if (!likeliest || sure < SURE_CHANGE) return null;
  const began = likeliest.begins;
  let [hours, span] = [0, 0];
  for (let i = 0; i < began; i++) {
    hours += use.gained[i]!;
    span += worked[i]!;
  }
  const [before, since] = [hours / span, likeliest.rate];
  const ratio = since / Math.max(before, 1e-9);
  if (ratio < LARGE_CHANGE && ratio > 1 / LARGE_CHANGE) return null;
  const [from, to] = [runHours.at[use.bounds[began]!]!, runHours.at[use.bounds[began + 1]!]!];
  return { at: (from + to) / 2, before, since };
}
