import { isBetter, type DoneAt, type EndView, type Result } from '@entretien/core/practice';
import { create } from 'zustand';
import { persist } from 'zustand/middleware';
import { currentInstant } from '../../data/clock.js';

/** A round under way, as it stands on this device. */
export interface KeptRound {
  readonly code: string;
  readonly seed: string;
  readonly done: readonly DoneAt[];
  readonly seconds: number;
}

/** A round that is over. */
export interface KeptResult extends Result {
  readonly code: string;
  readonly seed: string;
  readonly minutes: number;
  readonly at: number;
}

interface Practice {
  readonly rounds: readonly KeptRound[];
  readonly results: readonly KeptResult[];
  /** Keeps a round; once it is over, its result. */
  keep(round: KeptRound, end: EndView | null): void;
  /** Begins it again: what was done is forgotten, its results are not. */
  forget(code: string, seed: string): void;
}

/** So many are kept; the oldest go. */
const [MOST_ROUNDS, MOST_RESULTS] = [12, 200];

/** Practice on this device: nothing of it goes to the server. */
export const usePractice = create<Practice>()(
  persist(
    (set) => ({
      rounds: [],
      results: [],
      keep: (round, end) =>
        set(({ rounds, results }) => {
          const { code, seed } = round;
          const others = rounds.filter((one) => one.code !== code || one.seed !== seed);
          const wasOver = results.some((one) => one.code === code && one.seed === seed && isSame(one, end));
          return {
            rounds: [round, ...others].slice(0, MOST_ROUNDS),
            results:
              end === null || wasOver ? results : [resultOf(round, end), ...results].slice(0, MOST_RESULTS),
          };
        }),
      forget: (code, seed) =>
        set(({ rounds }) => ({ rounds: rounds.filter((one) => one.code !== code || one.seed !== seed) })),
    }),
    { name: 'entretien-practice', version: 1 },
  ),
);

/** A round that is looked at again after its end is not counted twice. */
const isSame = (one: KeptResult, end: EndView | null) =>
  end !== null &&
  one.end === end.end.kind &&
  one.minutes === end.score.minutes &&
  one.total === end.score.total;

const resultOf = ({ code, seed }: KeptRound, { end, score }: EndView): KeptResult => ({
  code,
  seed,
  end: end.kind,
  total: score.total,
  minutes: score.minutes,
  at: currentInstant(),
});

/** The best that an exercise was played on this device. */
export function bestOf(results: readonly KeptResult[], code: string): KeptResult | undefined {
  return results
    .filter((one) => one.code === code)
    .reduce<KeptResult | undefined>((best, one) => (best && !isBetter(one, best) ? best : one), undefined);
}
