/** Looked up once: the right-hand side asks for them millions of times. */
const { abs, cbrt, floor, max, min, sqrt } = Math;

/** Damping of the method: a little of its reach is given for keeping clear of the edge (Sommeijer, Shampine & Verwer 1998). */
const DAMPING = 2 / 13;
/** Most evaluations in one step. */
const MOST_STAGES = 90;

/** Coefficients of a step with so many evaluations. */
interface Scheme {
  readonly first: number;
  readonly mu: Float64Array;
  readonly nu: Float64Array;
  readonly muTilde: Float64Array;
  readonly gammaTilde: Float64Array;
}

const schemes: Scheme[] = [];

/** The scheme by Chebyshev’s polynomials, their first and second derivatives at a point just above 1. */
function schemeOf(stages: number): Scheme {
  const known = schemes[stages];
  if (known) return known;
  const w0 = 1 + DAMPING / stages ** 2;
  const t = new Float64Array(stages + 1);
  const d = new Float64Array(stages + 1);
  const d2 = new Float64Array(stages + 1);
  [t[0], t[1], d[0], d[1]] = [1, w0, 0, 1];
  for (let j = 2; j <= stages; j++) {
    t[j] = 2 * w0 * t[j - 1]! - t[j - 2]!;
    d[j] = 2 * w0 * d[j - 1]! - d[j - 2]! + 2 * t[j - 1]!;
    d2[j] = 2 * w0 * d2[j - 1]! - d2[j - 2]! + 4 * d[j - 1]!;
  }
  const w1 = d[stages]! / d2[stages]!;
  const b = Float64Array.from(t, (_, j) => (j < 2 ? 0 : d2[j]! / d[j]! ** 2));
  b[0] = b[1] = b[2]!;
  const made = () => new Float64Array(stages + 1);
  const scheme = { first: b[1]! * w1, mu: made(), nu: made(), muTilde: made(), gammaTilde: made() };
  for (let j = 2; j <= stages; j++) {
    scheme.mu[j] = (2 * b[j]! * w0) / b[j - 1]!;
    scheme.nu[j] = -b[j]! / b[j - 2]!;
    scheme.muTilde[j] = (2 * b[j]! * w1) / b[j - 1]!;
    scheme.gammaTilde[j] = -(1 - b[j - 1]! * t[j - 1]!) * scheme.muTilde[j]!;
  }
  schemes[stages] = scheme;
  return scheme;
}

/** How fast everything changes: filled from the state, nothing else is touched. */
export type Rates = (state: Float64Array, rates: Float64Array) => void;

export interface StepperOptions {
  readonly rates: Rates;
  /** Upper bound of how fast anything settles by itself, 1/s, at the state that the rates were last asked for. */
  readonly fastest: () => number;
  /** What each entry is small beside. */
  readonly scales: Float64Array;
  readonly tolerance: number;
}

/**
 * Steps a system that settles at very different speeds: the stabilised explicit method of second order by Runge,
 * Kutta and Chebyshev (Sommeijer, Shampine & Verwer, J. Comput. Appl. Math. 88, 1998). Air that flows between spaces
 * settles and does not swing, which is what the method is for; and every sum that the rates keep is kept by it to
 * the last digits, because a step is nothing but a sum of rates. Nothing is allocated in a step.
 */
export class Stepper {
  readonly state: Float64Array;
  /** Where a step that was tried would lead. */
  readonly next: Float64Array;
  /** Rates at `state`; valid once `refresh` was called. */
  readonly rates: Float64Array;
  evaluations = 0;
  /** How fast anything settles at `state`, 1/s. */
  private speed = 0;
  private readonly ratesNext: Float64Array;
  private readonly work: [Float64Array, Float64Array, Float64Array];
  private readonly ratesWork: Float64Array;

  constructor(
    initial: Float64Array,
    private readonly options: StepperOptions,
  ) {
    const made = () => new Float64Array(initial.length);
    this.state = initial;
    [this.next, this.rates, this.ratesNext, this.ratesWork] = [made(), made(), made(), made()];
    this.work = [made(), made(), made()];
    this.refresh();
  }

  /** To be called when something from outside has changed: a valve turned, a motor started. */
  refresh(): void {
    this.evaluate(this.state, this.rates);
    this.speed = this.options.fastest();
  }

  private evaluate(state: Float64Array, rates: Float64Array): void {
    this.evaluations += 1;
    this.options.rates(state, rates);
  }

  /** The longest step that stays stable from here, s. */
  longest(): number {
    return (0.653 * MOST_STAGES ** 2) / max(1e-9, this.speed);
  }

  /**
   * Tries a step: `next` is where it leads.
   *
   * @returns its error beside what is allowed; above 1 it was too long
   */
  attempt(seconds: number): number {
    const stages = min(MOST_STAGES, max(2, 1 + floor(sqrt(1 + 1.54 * seconds * this.speed))));
    const { first, mu, nu, muTilde, gammaTilde } = schemeOf(stages);
    const { state, rates, ratesWork, next } = this;
    let before = this.work[0];
    let last = this.work[1];
    let fresh = this.work[2];
    const size = state.length;
    for (let i = 0; i < size; i++) {
      before[i] = state[i]!;
      last[i] = state[i]! + first * seconds * rates[i]!;
    }
    for (let j = 2; j <= stages; j++) {
      this.evaluate(last, ratesWork);
      const [m, n] = [mu[j]!, nu[j]!];
      const [mt, gt, rest] = [muTilde[j]! * seconds, gammaTilde[j]! * seconds, 1 - m - n];
      for (let i = 0; i < size; i++) {
        fresh[i] = rest * state[i]! + m * last[i]! + n * before[i]! + mt * ratesWork[i]! + gt * rates[i]!;
      }
      const free = before;
      before = last;
      last = fresh;
      fresh = free;
    }
    next.set(last);
    this.evaluate(next, this.ratesNext);
    return this.error(seconds);
  }

  private error(seconds: number): number {
    const { state, next, rates, ratesNext } = this;
    const { scales, tolerance } = this.options;
    let worst = 0;
    for (let i = 0; i < state.length; i++) {
      const estimate = 0.8 * (state[i]! - next[i]!) + 0.4 * seconds * (rates[i]! + ratesNext[i]!);
      const share = abs(estimate) / (tolerance * (scales[i]! + abs(next[i]!)));
      if (Number.isNaN(share)) return Infinity;
      if (share > worst) worst = share;
    }
    return worst;
  }

  /** Takes the step that was tried last. */
  accept(): void {
    this.state.set(this.next);
    this.rates.set(this.ratesNext);
    this.speed = this.options.fastest();
  }
}

/** Share by which the next step is longer, or the same one is tried again shorter. */
export function stepFactor(error: number): number {
  return min(4, max(0.1, 0.8 * cbrt(1 / max(error, 1e-4))));
}
