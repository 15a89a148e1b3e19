/** What is known of how often things come in twos, and of how plain they are. */
export interface BeliefOptions {
  /** Share of machines with two causes at once. */
  readonly pairs: number;
  /** Share of causes that are slight, and answer half as plainly. */
  readonly slight: number;
}

/** As workshops find it (common practice). */
export const USUAL_BELIEF: BeliefOptions = { pairs: 0.1, slight: 0.25 };

/** Chances of a test’s answers under each cause, in full and slight: by answer, then by cause; the last answer is the usual one. */
export interface AnswerTable {
  readonly full: readonly (readonly number[])[];
  readonly slight: readonly (readonly number[])[];
  /** Chances where none of the causes is there. */
  readonly others: readonly number[];
}

/**
 * Chance of an answer where two causes are there at once. As usual is what both leave so; whatever else there may be
 * is in each, and counted once.
 *
 * @param answer index of it; the usual one is the last
 */
export function chanceOfBoth(
  a: readonly number[],
  b: readonly number[],
  others: readonly number[],
  answer: number,
): number {
  const last = others.length - 1;
  const usual = Math.min(1, (a[last]! * b[last]!) / others[last]!);
  if (answer === last) return usual;
  return ((1 - usual) * (a[answer]! + b[answer]!)) / (2 - a[last]! - b[last]!);
}

/**
 * What can be behind a symptom, kept exactly: each cause alone, in full or slight, and each two of them at once.
 * Answers are taken to be independent once the cause is given.
 */
export class Belief {
  private readonly full: Float64Array;
  private readonly slight: Float64Array;
  /** By the first cause and the second, the first lower: row by row. */
  private readonly both: Float64Array;
  private readonly size: number;

  /**
   * @param rates how often each cause is behind it, of any sum
   * @param alone index of a cause that never comes with another: none of the rest
   */
  constructor(rates: readonly number[], options: BeliefOptions = USUAL_BELIEF, alone = -1) {
    const size = rates.length;
    const sum = rates.reduce((total, rate) => total + rate, 0);
    const single = (1 - options.pairs) / sum;
    this.size = size;
    this.full = Float64Array.from(rates, (rate) => rate * single * (1 - options.slight));
    this.slight = Float64Array.from(rates, (rate) => rate * single * options.slight);
    this.both = new Float64Array(size * size);
    let all = 0;
    for (let a = 0; a < size; a++) {
      for (let b = a + 1; b < size; b++) {
        if (a === alone || b === alone) continue;
        const weight = rates[a]! * rates[b]!;
        this.both[a * size + b] = weight;
        all += weight;
      }
    }
    const share = all === 0 ? 0 : options.pairs / all;
    for (let at = 0; at < this.both.length; at++) this.both[at] = this.both[at]! * share;
    this.normalise();
  }

  /** An answer was given. */
  answer({ full, slight, others }: AnswerTable, answer: number): void {
    const { size, both } = this;
    const last = others.length - 1;
    const [usually, answered] = [full[last]!, full[answer]!];
    const [usual, slightly] = [others[last]!, slight[answer]!];
    for (let a = 0; a < size; a++) {
      this.full[a] = this.full[a]! * answered[a]!;
      this.slight[a] = this.slight[a]! * slightly[a]!;
      for (let b = a + 1; b < size; b++) {
        // `chanceOfBoth`, without its lists: it is asked for every two.
        const neither = Math.min(1, (usually[a]! * usually[b]!) / usual);
        const chance =
          answer === last
            ? neither
            : ((1 - neither) * (answered[a]! + answered[b]!)) / (2 - usually[a]! - usually[b]!);
        both[a * size + b] = both[a * size + b]! * chance;
      }
    }
    this.normalise();
  }

  /** A cause was put right and the machine is not mended: what is left is the rest, or the other of two. */
  mended(cause: number): void {
    const { size, both } = this;
    this.full[cause] = 0;
    this.slight[cause] = 0;
    for (let other = 0; other < size; other++) {
      if (other === cause) continue;
      const at = Math.min(cause, other) * size + Math.max(cause, other);
      this.full[other] = this.full[other]! + both[at]!;
      both[at] = 0;
    }
    this.normalise();
  }

  /** Chance that each cause is there; more than 1 in sum where two may be. */
  odds(): Float64Array {
    const { size, both } = this;
    const odds = new Float64Array(size);
    for (let a = 0; a < size; a++) {
      odds[a] = odds[a]! + this.full[a]! + this.slight[a]!;
      for (let b = a + 1; b < size; b++) {
        const chance = both[a * size + b]!;
        odds[a] = odds[a]! + chance;
        odds[b] = odds[b]! + chance;
      }
    }
    return odds;
  }

  /** Chance that two are there at once. */
  chanceOfTwo(): number {
    return this.both.reduce((sum, one) => sum + one, 0);
  }

  private normalise(): void {
    let sum = 0;
    for (const one of this.full) sum += one;
    for (const one of this.slight) sum += one;
    for (const one of this.both) sum += one;
    if (sum <= 0) return;
    for (const part of [this.full, this.slight, this.both]) {
      for (let at = 0; at < part.length; at++) part[at] = part[at]! / sum;
    }
  }
}
