import { Z90 } from './crossing.js';
import { filterLevel, type Gains, type LevelStart } from './local-level.js';

/** How much wider, or narrower, a machine's band must be than its model says, by its own past. */
export interface Correction {
  /** Factor on the standard deviation of hours to come. */
  readonly scale: number;
  /** Independent horizons that it rests on. */
  readonly horizons: number;
}

/** Horizons replayed, days: a month, a quarter, and half a year, as the dates that matter lie. */
const HORIZONS = [30, 75, 150] as const;
/** So many intervals the filter must have seen before a forecast of its is judged. */
const WARM_UP = 4;
/** Independent horizons after which the past weighs as much as the model. */
const PRIOR_HORIZONS = 2;
/** A machine without a past of its own: models are surer of themselves than machines are true to them. */
const PRIOR_SCALE = 1.15;
const [LEAST_SCALE, MOST_SCALE] = [0.35, 3];

const ROOM = 512;
const trace = { level: new Float64Array(ROOM), variance: new Float64Array(ROOM) };
const errors = new Float64Array(ROOM * HORIZONS.length);

/**
 * Replays the past of a machine (rolling-origin backtest): after each reading, what would have been forecast
 * over like horizons, against what came. The scale is the one that takes in eight in ten of those errors,
 * drawn toward the usual the more, the fewer horizons there are that do not overlap.
 */
export function correctionOf(
  gains: Gains,
  wander: number,
  start: LevelStart | null,
  scatter: number,
): Correction {
  const { days, gained, count } = gains;
  filterLevel(gains, wander, start, trace);
  let found = 0;
  let independent = 0;
  for (const horizon of HORIZONS) {
    let covered = 0;
    let judged = 0;
    let to = WARM_UP;
    let span = 0;
    let hours = 0;
    for (let from = WARM_UP; from < count; from++) {
      // The window of intervals (from, to) that follows the reading after interval `from − 1`.
      while (to < count && span < horizon * 0.85) {
        span += days[to]!;
        hours += gained[to]!;
        to += 1;
      }
      if (span < horizon * 0.85) break;
      if (span <= horizon * 2) {
        const level = trace.level[from - 1]!;
        const variance = span * (1 + span * (trace.variance[from - 1]! + (span * wander) / 3));
        errors[found] = Math.abs(hours - level * span) / Math.sqrt(variance * scatter);
        found += 1;
        judged += 1;
        covered += days[from]!;
      }
      span -= days[from]!;
      hours -= gained[from]!;
    }
    if (judged > 0) independent += (covered + horizon) / horizon / HORIZONS.length;
  }
  if (found === 0) return { scale: PRIOR_SCALE, horizons: 0 };
  const seen = errors.subarray(0, found).sort();
  const eighth = seen[Math.min(found - 1, Math.ceil(0.8 * (found + 1)) - 1)]!;
  const own = Math.min(MOST_SCALE, Math.max(LEAST_SCALE, eighth / Z90));
  const weight = independent / (independent + PRIOR_HORIZONS);
  return { scale: own ** weight * PRIOR_SCALE ** (1 - weight), horizons: independent };
}
