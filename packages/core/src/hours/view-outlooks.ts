import type { Outlook } from './expert.js';
import type { LevelExpert } from './level-expert.js';
import type { Regime, RegimeExpert } from './regimes.js';
import { YEAR_DAYS } from './season.js';
import type { TrendExpert } from './trend-expert.js';
import type { Panel, Views } from './use-views.js';

/** Outlooks less likely than this are left out. */
const LEAST_WEIGHT = 0.03;
const LEAST_REGIME = 0.02;

export interface OutlookInMaking extends Outlook {
  weight: number;
}

/** With a short record all experts are surer than two or three readings allow: a share of the hours, squared. */
const [START_SHARE, START_DAYS, START_POWER] = [0.35, 20, 4];

/** How each expert that is likely enough sees the hours go on. */
export function addOutlooks(
  outlooks: OutlookInMaking[],
  panel: Panel,
  on: Views,
  weights: readonly number[],
  ofAll: number,
): void {
  const start = START_SHARE ** 2 / (1 + (panel.use.spanDays / START_DAYS) ** START_POWER);
  for (let index = 0; index < weights.length; index++) {
    const weight = ofAll * weights[index]!;
    if (weight < LEAST_WEIGHT) continue;
    const { expert, past } = on.views[index]!;
    const believed = { weight, factor: past.correction.scale ** 2, start };
    if (expert.kind === 'level') outlooks.push(levelOutlook(expert, on, believed));
    else if (expert.kind === 'trend') outlooks.push(trendOutlook(expert, on, believed));
    else {
      const regimes = merged(expert.regimes.filter((regime) => regime.weight >= LEAST_REGIME));
      for (const regime of regimes) outlooks.push(regimeOutlook(expert, regime, panel, on, believed));
    }
  }
}

/** How far an expert is believed. */
interface Believed {
  readonly weight: number;
  /** On its variances. */
  readonly factor: number;
  /** Variance by the start alone, as a share of the rate squared. */
  readonly start: number;
}

const patternNoiseOf = ({ season }: Views, factor: number) => (season ? factor * season.noise : 0);

function levelOutlook(
  expert: LevelExpert,
  views: Views,
  { weight, factor, start }: Believed,
): OutlookInMaking {
  const level = Math.max(0, expert.level);
  return {
    weight,
    time: views.time,
    level,
    levelVariance: factor * expert.levelVariance + start * level * level,
    scatter: factor * expert.scatter,
    wander: factor * expert.wander,
    growth: null,
    patternNoise: patternNoiseOf(views, factor),
    change: null,
  };
}

function trendOutlook(
  expert: TrendExpert,
  views: Views,
  { weight, factor, start }: Believed,
): OutlookInMaking {
  const { perDay, levelVariance, covariance, slopeVariance } = expert.growth;
  return {
    weight,
    time: views.time,
    level: expert.level,
    levelVariance: 0,
    scatter: factor * expert.scatter,
    wander: 0,
    growth: {
      perDay,
      levelVariance: factor * levelVariance + start,
      covariance: factor * covariance,
      slopeVariance: factor * slopeVariance,
    },
    patternNoise: patternNoiseOf(views, factor),
    change: null,
  };
}

function regimeOutlook(
  expert: RegimeExpert,
  regime: Regime,
  panel: Panel,
  views: Views,
  { weight, factor, start }: Believed,
): OutlookInMaking {
  const { rate } = regime;
  return {
    weight: weight * regime.weight,
    time: views.time,
    level: Math.max(0, rate),
    levelVariance: factor * regime.rateVariance * unsettled(regime) + start * rate * rate,
    scatter: factor * regime.scatter,
    wander: 0,
    growth: null,
    patternNoise: patternNoiseOf(views, factor),
    change: nextChange(panel, expert, regime, views.season !== null),
  };
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
