import { DAY_MS, type Instant } from '../basics/index.js';
import type { Expert, Outlook } from './expert.js';
import { fitScore, LAST_YEAR_DAYS, recentScore, stretchesOf, tried } from './past-score.js';
import { earlierFactors, seasonalTime, type Season } from './season.js';
import { workedDays } from './use-intervals.js';
import { expertsOn, type Panel, type Views } from './use-views.js';
import { addOutlooks, type OutlookInMaking } from './view-outlooks.js';

/** A change of use that came to stay. */
export interface UseChange {
  /** About when: the middle of the interval in which it fell. */
  readonly at: Instant;
  /** Hours a day before and since. */
  readonly before: number;
  readonly since: number;
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
  const stretches = stretchesOf(track);
  return expertsOn(panel, track.worked, true).experts.map((expert) => {
    const { correction, lastYear } = tried(expert, stretches, LAST_YEAR_DAYS, 0);
    return { past: lastYear, recent: recentScore(expert, track, correction.scale) };
  });
}

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
  const outlooks: OutlookInMaking[] = [];
  addOutlooks(outlooks, panel, plain, inPlain.weights, 1 - share);
  if (inSeason) addOutlooks(outlooks, panel, seasonal, inSeason.weights, share);
  let total = 0;
  for (const { weight } of outlooks) total += weight;
  for (const outlook of outlooks) outlook.weight /= total;
  const ruling = seasonal && share > 0.5 ? seasonal : plain;
  return { outlooks, ruling, change: changeOf(panel, ruling) };
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
