import type { DataPlate } from '../machine/index.js';

/** One way of doing it. */
export interface PracticeOption {
  readonly code: string;
  readonly name: string;
  /** What its followers say, in one sentence. */
  readonly sentence: string;
}

/** A question that practice answers in more than one way. */
export interface PracticeChoice {
  readonly code: string;
  /** What is decided. */
  readonly name: string;
  readonly options: readonly PracticeOption[];
  /** For which machines the question arises. */
  readonly applies: (plate: DataPlate) => boolean;
  /** The way taken where nobody chose. */
  readonly usual: (plate: DataPlate) => string;
  /** Why that one. */
  readonly why: string;
}
