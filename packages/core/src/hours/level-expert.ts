import { tDensity4, type Expert } from './expert.js';
import { WANDER_WINDOWS, type FleetPrior } from './fleet-prior.js';
import { takeRow } from './rows.js';
import { filterLevel, type FilteredLevel, type Gains, type LevelStart } from './local-level.js';

/** A rate that wanders (local level): the most everyday way of seeing it. */
export interface LevelExpert extends Expert {
  readonly kind: 'level';
  /** Present rate, its variance, scatter and wander: see {@link import('./expert.js').Outlook}. */
  readonly level: number;
  readonly levelVariance: number;
  readonly scatter: number;
  readonly wander: number;
  readonly windowDays: number;
}

/** Windows shorter than this would take a jump for a rate that wanders: jumps are the regimes' business. */
export const LEAST_WINDOW = 20;
/** A machine that hardly ever ran still scatters. */
const LEAST_TYPICAL = 0.1;
/** Surprises are forgotten in so many days, and beyond three deviations count as three. */
const [SCATTER_DAYS, MOST_SURPRISE] = [300, 9];
/** Intervals that the fleet's scatter is worth against the machine's own. */
const PRIOR_WEIGHT = 2;
/** Scatter follows the rate: a machine used more scatters more, by the rate to the power of 1.5, from this share up. */
const LEAST_SHARE = 0.4;
const power = (rate: number) => rate * Math.sqrt(rate);

/**
 * Fits the local level: the likeliest window for its wander, the fleet's prior counted in.
 *
 * @param leastWindow shorter windows are not tried
 */
export function levelExpert(
  gains: Gains,
  start: LevelStart | null,
  typical: number,
  prior: FleetPrior,
  leastWindow: number,
): LevelExpert {
  const usual = (prior.spread * Math.max(typical, LEAST_TYPICAL)) ** 2;
  const windowDays = likeliestWindow(gains, start, prior, usual, leastWindow);
  const { days, gained, count } = gains;
  const perWander = windowDays ** -2;
  const trace = { level: takeRow(), variance: takeRow() };
  filterLevel(gains, perWander, start, trace);
  const share = (level: number) => power(Math.max(level, LEAST_SHARE * typical));
  // The scatter after each interval, from how far the filter was surprised, forgetting slowly.
  const scatter = takeRow();
  const wander = takeRow();
  const believed = usual / power(typical);
  let squares = 0;
  let weight = 0;
  let relative = believed;
  scatter[0] = believed * share(trace.level[0]!);
  wander[0] = believed * perWander * share(Math.max(typical, trace.level[0]!));
  for (let i = 1; i < count; i++) {
    const level = trace.level[i - 1]!;
    const variance = trace.variance[i - 1]!;
    const span = days[i]!;
    const expected = span * (1 + span * (variance + (span * perWander) / 3));
    const surprise = (gained[i]! - level * span) ** 2 / expected / share(level);
    const kept = Math.exp(-span / SCATTER_DAYS);
    squares = kept * squares + Math.min(surprise, MOST_SURPRISE * relative);
    weight = kept * weight + 1;
    relative = (squares + PRIOR_WEIGHT * believed) / (weight + PRIOR_WEIGHT);
    scatter[i] = relative * share(trace.level[i]!);
    // In a quiet time a machine scatters less, but where its rate may go to is no nearer.
    wander[i] = relative * perWander * share(Math.max(typical, trace.level[i]!));
  }
  const last = count - 1;
  const level = trace.level[last]!;
  const now = scatter[last]!;
  return {
    kind: 'level',
    windowDays,
    level,
    levelVariance: trace.variance[last]! * now,
    scatter: now,
    wander: wander[last]!,
    foresee: (i, span, foreseen) => {
      foreseen.mean = trace.level[i]! * span;
      foreseen.variance =
        span * (scatter[i]! * (1 + span * trace.variance[i]!) + (span * span * wander[i]!) / 3);
    },
    density: (gain, span, floor, scale) =>
      tDensity4((gain - level * span) ** 2, scale * scale * now * span + floor),
  };
}

/** σ² is integrated out under an inverse gamma prior worth `spreadWeight` intervals. */
function likeliestWindow(
  gains: Gains,
  start: LevelStart | null,
  prior: FleetPrior,
  usual: number,
  leastWindow: number,
): number {
  let best = WANDER_WINDOWS[0] as number;
  let bestScore = -Infinity;
  for (const [index, windowDays] of WANDER_WINDOWS.entries()) {
    if (windowDays < leastWindow) break;
    const { foreseen, squares, logSpread }: FilteredLevel = filterLevel(gains, windowDays ** -2, start);
    const score =
      Math.log(prior.windows[index]!) -
      0.5 * logSpread -
      0.5 * (foreseen + prior.spreadWeight) * Math.log(squares + prior.spreadWeight * usual);
    if (score <= bestScore) continue;
    best = windowDays;
    bestScore = score;
  }
  return best;
}
