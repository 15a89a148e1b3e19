import { DAY_MS, type Instant } from '../basics/index.js';

/** A measurement as a pair sees it. */
export interface PairedMeasurement {
  readonly id: string;
  readonly at: Instant;
  readonly value: number;
  readonly uncertainty: number;
}

/** Work as a pair sees it. */
export interface PairedWork {
  readonly at: Instant;
  readonly tasks: readonly string[];
}

/** A measurement before work and one after. */
export interface BeforeAfter<Measurement extends PairedMeasurement = PairedMeasurement> {
  readonly workAt: Instant;
  readonly before: Measurement;
  readonly after: Measurement;
  readonly change: number;
  /** Standard uncertainty of the change. */
  readonly noise: number;
  /** Whether the change is more than measuring itself could make of nothing. */
  readonly isBeyondNoise: boolean;
}

/** A measurement so long before or after belongs to the work. */
const WINDOW_MS = 30 * DAY_MS;
/** Two standard uncertainties: nineteen times out of twenty noise stays within. */
const BEYOND = 2;

/**
 * The pairs of measurements around work: the last before and the first after, each within thirty days, with no
 * other such work between.
 *
 * @param measurements of one check, in order of time
 * @param works that can change it
 */
export function beforeAfter<Measurement extends PairedMeasurement>(
  measurements: readonly Measurement[],
  works: readonly PairedWork[],
): BeforeAfter<Measurement>[] {
  const inOrder = [...works].sort((a, b) => a.at - b.at);
  return inOrder.flatMap(({ at }, index) => {
    const since = Math.max(at - WINDOW_MS, inOrder[index - 1]?.at ?? -Infinity);
    const until = Math.min(at + WINDOW_MS, inOrder[index + 1]?.at ?? Infinity);
    const before = measurements.filter((one) => one.at <= at && one.at >= since).at(-1);
    const after = measurements.find((one) => one.at > at && one.at <= until);
    return before && after ? [compare(at, before, after)] : [];
  });
}

function compare<Measurement extends PairedMeasurement>(
  workAt: Instant,
  before: Measurement,
  after: Measurement,
): BeforeAfter<Measurement> {
  const change = after.value - before.value;
  const noise = Math.hypot(before.uncertainty, after.uncertainty);
  return { workAt, before, after, change, noise, isBeyondNoise: Math.abs(change) > BEYOND * noise };
}
