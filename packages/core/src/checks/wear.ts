/** A measurement of a check on the axis of run hours. */
export interface TrendPoint {
  readonly hours: number;
  readonly value: number;
  /** Standard uncertainty of the measurement. */
  readonly uncertainty: number;
}

/**
 * Wear between one piece of work and the next: v(h) = v₀ + (limit − v₀)·s(h/L), with the hours h since the work, the
 * life L and the shape s: a power (1 wears evenly, more wears late, less wears early) or an exponential.
 */
interface Shape {
  /** How far it has worn by a share of its life. */
  readonly of: (share: number) => number;
  /** How usual it is. */
  readonly prior: number;
  /** Of a power: its exponent, by which the grid is reckoned quickly. */
  readonly exponent?: number;
}

const power = (exponent: number, prior: number): Shape => ({
  of: (share) => share ** exponent,
  prior,
  exponent,
});
const exponential = (rate: number, prior: number): Shape => {
  const whole = Math.exp(rate) - 1;
  return { of: (share) => (Math.exp(rate * share) - 1) / whole, prior };
};
/** Shapes of wear, each with how usual it is (common practice; an even wear is the commonest). */
const SHAPES: readonly Shape[] = [
  power(0.5, 0.07),
  power(0.7, 0.07),
  power(1, 0.14),
  power(1.4, 0.1),
  power(2, 0.12),
  power(2.8, 0.09),
  power(4, 0.08),
  power(5.6, 0.06),
  power(8, 0.05),
  exponential(2, 0.03),
  exponential(3, 0.05),
  exponential(4.5, 0.05),
  exponential(7, 0.03),
  // Nothing to be seen until it ends.
  power(50, 0.06),
];
/** Lives tried: from the present age on, in even steps of the logarithm, to so many times that. */
const [LIFE_STEPS, MOST_LIVES] = [40, 30];
/** Without a life known, long ones are the less believed: density of the logarithm falls with this power. */
const LIFE_POWER = 1.8;
/** Scatter of the lives of one machine, as a logarithm's deviation: after one, and after three cycles. */
const [ONE_CYCLE, THREE_CYCLES] = [0.4, 0.3];
/** A life is so much longer than a cycle that work ended, as a logarithm, with this deviation. */
const [ENDED_LOG, ENDED_DEVIATION] = [0.15, 0.35];
/** What the machine's own past says of shape and life, against what is usual. */
const OWN_SHARE = 0.85;
/** A cycle counts for the shape by this power of its likelihood: cycles of one machine are not quite alike. */
const CYCLE_POWER = 0.5;
/** Weight, in measurements, of what is known of the noise of measuring, and how much larger it is than told. */
const [NOISE_WEIGHT, NOISE_FACTOR] = [6, 1.1];
/** Where it begins is known to this share of the way to the limit, before anything was measured. */
const START_SHARE = 0.3;

/** One cycle: what was measured from one piece of work to the next. */
export interface WearCycle {
  /** Run hours at which it began. */
  readonly from: number;
  /** Run hours of the work that ended it; of one that goes on, the last measurement. */
  readonly until: number;
  readonly points: readonly TrendPoint[];
}

/** What is believed of a wear. */
export interface Wear {
  /** Run hours at which its limit is reached: one chance in ten of sooner, likely, one in ten of later. */
  readonly life: { readonly early: number; readonly likely: number; readonly late: number };
  /** Figure at a figure of run hours, with its deviation. */
  readonly at: (hours: number) => { readonly value: number; readonly deviation: number };
}

/** Every shape with every life: a row for each shape. What is believed of each, and the value that it began at. */
interface Grid {
  readonly lives: Float64Array;
  readonly weights: Float64Array;
  readonly starts: Float64Array;
  readonly startVariances: Float64Array;
}

/**
 * Weighs lives and shapes by what was measured since the last work, and by what this machine's earlier cycles were like
 * (Bayes' rule on a grid; start and noise are integrated out in closed form).
 *
 * @param earlier the cycles before, the oldest first, each measured often enough to say something
 */
export function wearOf(current: WearCycle, earlier: readonly WearCycle[], limit: number): Wear {
  const past = earlier.map((cycle) => learnt(cycle, limit));
  const age = Math.max(current.points.at(-1)!.hours - current.from, 1e-6);
  const usualStart =
    past.length > 0
      ? past.reduce((sum, { start }) => sum + start, 0) / past.length
      : current.points[0]!.value;
  const facts: GridFacts = {
    cycle: current,
    limit,
    age,
    usualStart,
    shapePriors: shapePrior(past),
    lifeDensity: (life) => {
      const usual = (life / age) ** -LIFE_POWER / USUAL_MASS;
      return past.length > 0 ? OWN_SHARE * lifePrior(past, life) + (1 - OWN_SHARE) * usual : usual;
    },
  };
  const found = layGrid(facts, scratch);
  const ends = (share: number) => current.from + lifeAt(found, share);
  // Drawn seldom, judged by often: a grid to draw by is laid out when it is asked for.
  let drawn: Grid | null = null;
  return {
    life: { early: ends(0.1), likely: ends(0.5), late: ends(0.9) },
    at: (hours) => {
      drawn ??= layGrid(facts, emptyGrid());
      return valueAt(drawn, Math.max(0, hours - current.from), limit);
    },
  };
}

/** Integral of the usual density of lives over their logarithm, from 1 to {@link MOST_LIVES}. */
const USUAL_MASS = (1 - MOST_LIVES ** -LIFE_POWER) / LIFE_POWER;

/** What an earlier cycle teaches. */
interface Learnt {
  /** How much likelier it makes each shape. */
  readonly shapes: readonly number[];
  readonly logLife: number;
  readonly start: number;
}

function learnt(cycle: WearCycle, limit: number): Learnt {
  // It may have gone past its limit already when the work was done: that is usually done near the end.
  const ended = Math.max(cycle.until - cycle.from, 1e-6);
  const { weights, starts } = layGrid(
    {
      cycle,
      limit,
      age: ended / 2,
      usualStart: cycle.points[0]!.value,
      shapePriors: USUAL_SHAPES,
      lifeDensity: (life) => Math.exp(-(((Math.log(life / ended) - ENDED_LOG) / ENDED_DEVIATION) ** 2) / 2),
    },
    scratch,
  );
  let start = 0;
  const shapes = SHAPES.map(({ prior }, shape) => {
    let likely = 0;
    for (let at = shape * LIFE_STEPS; at < (shape + 1) * LIFE_STEPS; at++) {
      likely += weights[at]!;
      start += weights[at]! * starts[at]!;
    }
    return Math.max(likely, 1e-9) / prior;
  });
  return { shapes, logLife: Math.log(ended) + ENDED_LOG, start };
}

const USUAL_SHAPES = SHAPES.map(({ prior }) => prior);

function shapePrior(past: readonly Learnt[]): readonly number[] {
  if (past.length === 0) return USUAL_SHAPES;
  const raised = SHAPES.map(
    ({ prior }, index) =>
      prior * past.reduce((product, { shapes }) => product * shapes[index]! ** CYCLE_POWER, 1),
  );
  const total = raised.reduce((sum, one) => sum + one, 0);
  return raised.map((one, index) => (OWN_SHARE * one) / total + (1 - OWN_SHARE) * SHAPES[index]!.prior);
}

/** Density of a life's logarithm by the earlier cycles. */
function lifePrior(past: readonly Learnt[], life: number): number {
  const mean = past.reduce((sum, { logLife }) => sum + logLife, 0) / past.length;
  const scatter = past.length >= 3 ? THREE_CYCLES : ONE_CYCLE;
  const deviation = Math.hypot(scatter, scatter / Math.sqrt(past.length));
  return Math.exp(-(((Math.log(life) - mean) / deviation) ** 2) / 2) / (deviation * Math.sqrt(2 * Math.PI));
}

/** What a grid is laid out by. */
interface GridFacts {
  readonly cycle: WearCycle;
  readonly limit: number;
  /** The least life tried. */
  readonly age: number;
  readonly usualStart: number;
  readonly shapePriors: readonly number[];
  readonly lifeDensity: (life: number) => number;
}

const ROOM = SHAPES.length * LIFE_STEPS;

function emptyGrid(): Grid {
  const row = (length: number) => new Float64Array(length);
  return { lives: row(LIFE_STEPS), weights: row(ROOM), starts: row(ROOM), startVariances: row(ROOM) };
}

// Laid out anew for each check of each machine of a fleet: nothing of it is kept.
const scratch = emptyGrid();
const variances = new Float64Array(ROOM);
const precisions = new Float64Array(ROOM);

/** Weighs every shape with every life, into a grid. */
function layGrid(facts: GridFacts, grid: Grid): Grid {
  const { cycle, age, lifeDensity, shapePriors } = facts;
  const { lives, weights } = grid;
  const least = fitEach(facts, grid);
  const densities = STEPS.map((step, index) => lifeDensity((lives[index] = age * step)));
  const shaped = NOISE_WEIGHT + cycle.points.length;
  let total = 0;
  for (let shape = 0, at = 0; shape < SHAPES.length; shape++) {
    const prior = shapePriors[shape]!;
    for (let step = 0; step < LIFE_STEPS; step++, at++) {
      // Student's t, against the best of them: its constant falls out.
      const likely = Math.sqrt(wholePower(least / variances[at]!, shaped) / precisions[at]!);
      const weight = prior * densities[step]! * likely;
      weights[at] = weight;
      total += weight;
    }
  }
  for (let at = 0; at < ROOM; at++) weights[at] = weights[at]! / total;
  return grid;
}

/** A power with a whole exponent above 0: the general one takes so long that a trend would take half as long again. */
function wholePower(base: number, exponent: number): number {
  let result = 1;
  for (let rest = exponent; rest > 0; rest >>= 1) {
    if (rest & 1) result *= base;
    base *= base;
  }
  return result;
}

/** Nothing was measured so many times as far gone as its limit: a life and a shape that say so are wrong. */
const MOST_WORN = 20;

/** Sums over the measurements, of the share worn w and of what was measured above the usual start v. */
interface Sums {
  worn: number;
  wornSquared: number;
  wornValue: number;
}

const sums: Sums = { worn: 0, wornSquared: 0, wornValue: 0 };

function sumUp(worn: readonly number[], values: readonly number[]): void {
  let total = 0;
  let squared = 0;
  let withValue = 0;
  for (let i = 0; i < worn.length; i++) {
    const one = worn[i]!;
    total += one;
    squared += one * one;
    withValue += one * values[i]!;
  }
  sums.worn = total;
  sums.wornSquared = squared;
  sums.wornValue = withValue;
}

/**
 * The start that fits the measurements best with each shape and life, and how far they then lie off: least squares of
 * v = v₀(1 − w) + limit·w, everything measured from the usual start, which counts as one measurement more.
 *
 * @returns the least variance of all
 */
function fitEach({ cycle: { from, points }, limit, age, usualStart }: GridFacts, grid: Grid): number {
  const count = points.length;
  const stated = points.reduce((sum, { uncertainty }) => sum + uncertainty ** 2, 0) / count;
  const noise = Math.max(1e-9, NOISE_FACTOR ** 2 * Math.max(stated, seenNoise(points)));
  const toLimit = limit - usualStart;
  const ratio = noise / Math.max(noise, (START_SHARE * toLimit) ** 2);
  const values = points.map(({ value }) => value - usualStart);
  const ages = points.map(({ hours }) => Math.max(0, hours - from) / age);
  const valueSum = values.reduce((sum, value) => sum + value, 0);
  const squareSum = values.reduce((sum, value) => sum + value * value, 0);
  const shaped = NOISE_WEIGHT + count;
  const worn = new Array<number>(count).fill(0);
  const { starts, startVariances } = grid;
  let least = Infinity;
  /** One life with one shape, the sums of what is worn shrunk by so much. */
  const fitOne = (at: number, shrunk: number) => {
    if (shrunk * worn[count - 1]! > MOST_WORN) {
      starts[at] = usualStart;
      startVariances[at] = 0;
      variances[at] = Infinity;
      return;
    }
    const gone = shrunk * sums.worn;
    const goneSquared = shrunk * shrunk * sums.wornSquared;
    const goneValue = shrunk * sums.wornValue;
    const precision = ratio + count - 2 * gone + goneSquared;
    const weighted = valueSum - goneValue - toLimit * (gone - goneSquared);
    const squares = squareSum - 2 * toLimit * goneValue + toLimit * toLimit * goneSquared;
    const start = weighted / precision;
    const variance = (NOISE_WEIGHT * noise + Math.max(0, squares - weighted * start)) / shaped;
    starts[at] = usualStart + start;
    startVariances[at] = variance / precision;
    variances[at] = variance;
    precisions[at] = precision;
    if (variance < least) least = variance;
  };
  for (let index = 0, at = 0; index < SHAPES.length; index++) {
    const { of: shape, exponent } = SHAPES[index]!;
    if (exponent === undefined) {
      for (let step = 0; step < LIFE_STEPS; step++) {
        const life = STEPS[step]!;
        for (let i = 0; i < count; i++) worn[i] = shape(ages[i]! / life);
        sumUp(worn, values);
        fitOne(at++, 1);
      }
    } else {
      // A power of age over life is that of age over the present age, times one that is the same for all machines:
      // its sums are those at the present age, shrunk.
      for (let i = 0; i < count; i++) worn[i] = ages[i]! ** exponent;
      sumUp(worn, values);
      const shrinks = SHRINKS[index]!;
      let shrunk = Math.sqrt(shrinks);
      for (let step = 0; step < LIFE_STEPS; step++, shrunk *= shrinks) fitOne(at++, shrunk);
    }
  }
  return least;
}

/** What a power shrinks by from one life to the next. */
const SHRINKS = SHAPES.map(({ exponent = 0 }) => MOST_LIVES ** (-exponent / LIFE_STEPS));

/** So many triples of measurements count half. */
const TRIPLES_WEIGHT = 2;

/** Noise as the measurements themselves show it: how far each lies off the line between its neighbours. */
function seenNoise(points: readonly TrendPoint[]): number {
  let [sum, triples] = [0, 0];
  for (let i = 1; i + 1 < points.length; i++) {
    const [before, here, after] = [points[i - 1]!, points[i]!, points[i + 1]!];
    if (!(after.hours > before.hours)) continue;
    const share = (here.hours - before.hours) / (after.hours - before.hours);
    const off = here.value - before.value - share * (after.value - before.value);
    sum += off ** 2 / (1 + share ** 2 + (1 - share) ** 2);
    triples += 1;
  }
  return triples === 0 ? 0 : sum / (triples + TRIPLES_WEIGHT);
}

/** Lives tried, as multiples of the age. */
const STEPS = Array.from({ length: LIFE_STEPS }, (_, step) => MOST_LIVES ** ((step + 0.5) / LIFE_STEPS));

/** The life that is not outlived with a given chance, over all shapes. */
function lifeAt({ lives, weights }: Grid, share: number): number {
  const half = MOST_LIVES ** (0.5 / LIFE_STEPS);
  let below = 0;
  for (let step = 0; step < LIFE_STEPS; step++) {
    let mass = 0;
    for (let shape = 0; shape < SHAPES.length; shape++) mass += weights[shape * LIFE_STEPS + step]!;
    // Within the step, evenly in the logarithm.
    if (below + mass >= share) return (lives[step]! / half) * half ** ((2 * (share - below)) / mass);
    below += mass;
  }
  return lives[LIFE_STEPS - 1]! * half;
}

/** Lives and shapes less likely than this have no say in a drawn line. */
const LEAST_DRAWN = 1e-4;

function valueAt({ lives, weights, starts, startVariances }: Grid, age: number, limit: number) {
  let [value, square, total] = [0, 0, 0];
  for (let at = 0; at < weights.length; at++) {
    const weight = weights[at]!;
    if (weight < LEAST_DRAWN) continue;
    const gone = SHAPES[Math.floor(at / LIFE_STEPS)]!.of(age / lives[at % LIFE_STEPS]!);
    const one = starts[at]! + (limit - starts[at]!) * gone;
    total += weight;
    value += weight * one;
    square += weight * (one * one + (1 - gone) ** 2 * startVariances[at]!);
  }
  const mean = value / total;
  return { value: mean, deviation: Math.sqrt(Math.max(0, square / total - mean ** 2)) };
}
