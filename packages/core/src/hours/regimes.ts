import { takeRow } from './rows.js';
import { tDensity4, type Expert, type Scattered } from './expert.js';

/** Use that keeps to one rate for a while, then changes for good. */
export interface RegimeExpert extends Expert {
  readonly kind: 'regimes';
  /** What is believed of when the present regime began, the likeliest first. */
  readonly regimes: readonly Regime[];
  /** Changes expected over the record. */
  readonly changes: number;
}

/** One possibility of when the present regime began. */
export interface Regime {
  readonly weight: number;
  /** Index of the interval in which it began; 0 where it always was so. */
  readonly begins: number;
  /** Working days it has lasted, and those that its rate is known from. */
  readonly days: number;
  readonly rate: number;
  readonly rateVariance: number;
  /** h² a day. */
  readonly scatter: number;
}

/** A change every three years, before anything was read. */
const CHANGE_DAYS = 3 * 365;
/** A new rate lies about the usual one by as much as that itself. */
const JUMP = 1;
/** A regime is at least so many intervals long: a burst of work is none. */
const LEAST_INTERVALS = 2;
/** The interval in which a change falls belongs to the new rate only in part: so much of it counts. */
const FIRST_SHARE = 0.07;
/** No regime scatters less than one of this share of the usual rate. */
const LEAST_SHARE = 0.15;
/** Possibilities kept: the likeliest, and none below this weight. */
const [MOST_RUNS, LEAST_WEIGHT] = [8, 2e-3];

// Scratch arrays, a column for each figure of a possibility: thousands of machines are looked at in a row.
const ROOM = MOST_RUNS + 1;
const columns = Array.from({ length: 6 }, () => new Float64Array(ROOM));
// How vaguely a rate is known: 1 over the days that it is known from.
const [weights, begins, rates, vague, lasted, intervals] = columns as [
  Float64Array,
  Float64Array,
  Float64Array,
  Float64Array,
  Float64Array,
  Float64Array,
];

/**
 * Product partition by exact recursion over the intervals (Adams & MacKay 2007; Fearnhead 2006 *(memory)*):
 * within a regime xᵢ ~ N(μ, κμ²/dᵢ), heavy-tailed; what the present regime's beginning and rate are is kept as a
 * list of possibilities, the unlikely dropped.
 *
 * @param rareness how many times rarer a change is than usual: where a season already explains what swings
 */
// The hottest loop of all, over rows that are kept for it: it stays in one piece.
// eslint-disable-next-line max-lines-per-function
export function regimeExpert(
  { count, gained, days, typical, scatter, start, noise: patternNoise }: Scattered,
  rareness: number,
): RegimeExpert {
  const mean = takeRow();
  const variance = takeRow();
  const spread = takeRow();
  const believed = scatter / JUMP ** 2;
  const floored = (rate: number) => Math.max(rate, LEAST_SHARE * typical);
  let runs = 0;
  let changes = 0;
  for (let i = 0; i < count; i++) {
    const span = days[i]!;
    const perSpan = 1 / span;
    const x = gained[i]! * perSpan;
    const noise = patternNoise === null ? 0 : patternNoise[i]!;
    const chance = 1 - Math.exp(-span / (CHANGE_DAYS * rareness));
    let total = 0;
    let mayEnd = 0;
    for (let run = 0; run < runs; run++) {
      const rate = rates[run]!;
      const ago = vague[run]!;
      const off = x - rate;
      const floor = floored(rate);
      const width = scatter * floor * floor * (perSpan + ago) + noise;
      const isLong = intervals[run]! >= LEAST_INTERVALS;
      if (isLong) mayEnd += weights[run]!;
      const weight = weights[run]! * (isLong ? 1 - chance : 1) * tDensity6(off * off, width);
      weights[run] = weight;
      // The rate moves by the share of the days known that are new.
      const share = (ago * span) / (1 + ago * span);
      rates[run] = rate + share * off;
      vague[run] = share * perSpan;
      lasted[run] = lasted[run]! + span;
      intervals[run] = intervals[run]! + 1;
      total += weight;
    }
    const width = typical ** 2 * (JUMP ** 2 + scatter / span) + noise;
    const counted = i === 0 ? span : span * FIRST_SHARE;
    weights[runs] = (i === 0 ? 1 : chance * mayEnd) * tDensity3((x - typical) ** 2, width);
    begins[runs] = i;
    // The first regime leans on what was declared, the others on what is usual.
    const isDeclared = i === 0 && start !== null;
    const worth = isDeclared ? 1 / start.variance : believed;
    rates[runs] = ((isDeclared ? start.level : typical) * worth + x * counted) / (worth + counted);
    vague[runs] = 1 / (worth + counted);
    lasted[runs] = span;
    intervals[runs] = 1;
    total += weights[runs]!;
    runs = keptOf(runs + 1, total);
    let rate = 0;
    let own = 0;
    let apart = 0;
    for (let run = 0; run < runs; run++) {
      const weight = weights[run]!;
      const one = rates[run]!;
      if (i > 1 && intervals[run] === LEAST_INTERVALS) changes += weight;
      const floor = floored(one);
      const scattered = scatter * floor * floor;
      rate += weight * one;
      own += weight * scattered;
      apart += weight * (one * one + scattered * vague[run]!);
    }
    mean[i] = rate;
    spread[i] = own;
    // The mean of the squares less the square of the mean.
    variance[i] = Math.max(0, apart - rate * rate);
  }
  const regimes = Array.from({ length: runs }, (_, run): Regime => {
    const own = scatter * floored(rates[run]!) ** 2;
    return {
      weight: weights[run]!,
      begins: begins[run]!,
      days: lasted[run]!,
      rate: rates[run]!,
      rateVariance: own * vague[run]!,
      scatter: own,
    };
  }).sort((a, b) => b.weight - a.weight);
  return {
    kind: 'regimes',
    regimes,
    changes,
    foresee: (i, span, foreseen) => {
      foreseen.mean = mean[i]! * span;
      foreseen.variance = span * (spread[i]! + span * variance[i]!);
    },
    density: (gain, span, floor, scale) => {
      let sum = 0;
      for (const { weight, rate, scatter: own } of regimes) {
        sum += weight * tDensity4((gain - rate * span) ** 2, scale * scale * own * span + floor);
      }
      return sum;
    },
  };
}

/** Weights that sum to 1, the unlikely left out; alike where all are beyond what a figure can hold. */
function keptOf(runs: number, total: number): number {
  if (!(total > 1e-200)) {
    runs = Math.min(runs, MOST_RUNS);
    weights.fill(1, 0, runs);
    total = runs;
  }
  let least = LEAST_WEIGHT * total;
  if (runs > MOST_RUNS) {
    let lightest = Infinity;
    for (let run = 0; run < runs; run++) lightest = Math.min(lightest, weights[run]!);
    least = Math.max(least, lightest);
  }
  let kept = 0;
  let sum = 0;
  for (let run = 0; run < runs; run++) {
    const weight = weights[run]!;
    if (weight <= least) continue;
    if (kept < run) for (const column of columns) column[kept] = column[run]!;
    sum += weight;
    kept += 1;
  }
  const perSum = 1 / sum;
  for (let run = 0; run < kept; run++) weights[run] = weights[run]! * perSum;
  return kept;
}

/** Student's t with 6 and with 3 degrees of freedom, of a deviation squared and its variance. */
function tDensity6(square: number, variance: number): number {
  // 0.3827 / (r³√(r·variance)) with r = 1 + square / 6·variance, in one division.
  const wide = variance + square / 6;
  return (0.3827 * variance * variance * variance) / (wide * wide * wide * Math.sqrt(wide));
}

function tDensity3(square: number, variance: number): number {
  const root = 1 + square / variance / 3;
  return 0.3675 / (root * root * Math.sqrt(variance));
}
