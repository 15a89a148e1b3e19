/** Normal quantile of 0.9: one in ten lies beyond it. */
export const Z90 = 1.2815515655446004;

/** Nothing is forecast further ahead than ten years. */
export const MOST_DAYS = 3652.5;

/** How hours grow from a known figure on. */
export interface Growth {
  /** Present rate m, hours a day. */
  readonly level: number;
  /** Variance P of that rate, (h/day)². */
  readonly levelVariance: number;
  /** Scatter σ² of the hours, h²/day. */
  readonly scatter: number;
  /** Variance q² by which the rate wanders, (h/day)²/day. */
  readonly wander: number;
}

/** Variance of the hours gained in the next `days`, σ²t + Pt² + q²t³/3, h². */
export function gainVariance({ levelVariance, scatter, wander }: Growth, days: number): number {
  return days * (scatter + days * (levelVariance + (days * wander) / 3));
}

/**
 * Days ahead at which the surface of {@link surfaceOf} is laid out: close together near now, a third further
 * each time later, so that between two of them it is smooth enough to be solved in a few steps.
 */
const NODES = [
  0,
  0.05,
  0.2,
  0.5,
  1,
  1.75,
  3,
  5,
  7,
  10,
  14,
  20,
  28,
  38,
  52,
  70,
  95,
  130,
  175,
  235,
  315,
  420,
  560,
  750,
  1000,
  1350,
  1800,
  2400,
  3000,
  MOST_DAYS,
];

/**
 * The hours D(t) = mt − z√v(t) that are used up by day t with the probability that z stands for, laid out
 * over the days. Whatever the hours that remain, the day is where D first reaches them: one surface serves
 * every task of a machine.
 */
export interface CrossingSurface {
  readonly growth: Growth;
  readonly z: number;
  readonly days: ArrayLike<number>;
  /** Running maximum of D over the days: with a wandering rate D falls back again far out. */
  readonly reached: Float64Array;
}

function hoursBy(growth: Growth, z: number, days: number): number {
  return growth.level * days - z * Math.sqrt(gainVariance(growth, days));
}

/** @param z positive for a late day, negative for an early one */
export function surfaceOf(growth: Growth, z: number): CrossingSurface {
  const days = z > 0 && growth.wander > 0 ? withPeak(growth, z) : NODES;
  const reached = new Float64Array(days.length);
  let highest = 0;
  for (let i = 1; i < days.length; i++) {
    const hours = hoursBy(growth, z, days[i]!);
    if (hours > highest) highest = hours;
    reached[i] = highest;
  }
  return { growth, z, days, reached };
}

/** The nodes and, between them, the day on which D stands highest, where it falls back within ten years. */
function withPeak(growth: Growth, z: number): number[] {
  let best = 0;
  let highest = -Infinity;
  for (let i = 1; i < NODES.length; i++) {
    const hours = hoursBy(growth, z, NODES[i]!);
    if (hours >= highest) [best, highest] = [i, hours];
  }
  if (best === NODES.length - 1) return NODES;
  let [low, high] = [NODES[best - 1] ?? 0, NODES[best + 1]!];
  for (let step = 0; step < 40; step++) {
    const [left, right] = [low + (high - low) * 0.382, low + (high - low) * 0.618];
    if (hoursBy(growth, z, left) < hoursBy(growth, z, right)) low = left;
    else high = right;
  }
  return [...NODES, (low + high) / 2].sort((a, b) => a - b);
}

/**
 * The day on which so many hours are used up with the probability of a surface.
 *
 * With the rate known and fixed (P = q = 0) this is a quantile of the Birnbaum–Saunders law with scale
 * β = d/m and shape α = σ/√(dm).
 *
 * @param remaining hours, above 0
 * @returns days ahead; null when the hours are not used up within ten years with that probability
 */
export function crossingDay({ growth, z, days, reached }: CrossingSurface, remaining: number): number | null {
  const last = reached.length - 1;
  if (!(reached[last]! >= remaining)) return null;
  let low = 1;
  let high = last;
  while (low < high) {
    const middle = (low + high) >>> 1;
    if (reached[middle]! >= remaining) high = middle;
    else low = middle + 1;
  }
  return solveBetween(growth, z, remaining, days[low - 1]!, days[low]!);
}

/** Newton's steps for D(t) = remaining, kept inside a bracket that halves when they would leave it. */
function solveBetween(growth: Growth, z: number, remaining: number, from: number, to: number): number {
  let [low, high] = [from, to];
  let day = low + (high - low) / 2;
  for (let step = 0; step < 60; step++) {
    const root = Math.sqrt(gainVariance(growth, day));
    const excess = growth.level * day - z * root - remaining;
    if (excess < 0) low = day;
    else high = day;
    const slope =
      growth.level -
      (z * (growth.scatter + day * (2 * growth.levelVariance + day * growth.wander))) / (2 * root);
    let next = day - excess / slope;
    if (!(next > low && next < high)) next = low + (high - low) / 2;
    if (Math.abs(next - day) <= 1e-9 * (1 + day)) return next;
    day = next;
  }
  return day;
}
