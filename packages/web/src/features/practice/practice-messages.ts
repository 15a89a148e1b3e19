import type { DoneAt, PracticeAsk, RoundView } from '@entretien/core/practice';

/** What the page asks of the round that is played beside it. */
export type PracticeRequest =
  | {
      readonly kind: 'begin';
      readonly code: string;
      readonly seed: string;
      /** What was done already, and how far it had come, s. */
      readonly done: readonly DoneAt[];
      readonly seconds: number;
    }
  | { readonly kind: 'ask'; readonly ask: PracticeAsk }
  /** Seconds of the machine in one of the clock; 0 halts it. */
  | { readonly kind: 'pace'; readonly pace: number };

export interface PracticeAnswer {
  readonly view: RoundView;
  readonly done: readonly DoneAt[];
  /** What was asked is done. */
  readonly isAnswer: boolean;
}
