import type { CauseCode } from '../faults/index.js';
import type { DataPlate } from '../machine/index.js';
import type { Handling, Simulation } from '../simulator/index.js';

/** What is drawn with the seed: at the least and at the most. */
export type Drawn = readonly [least: number, most: number];

/** An end that somebody was hurt at, and the step that would have kept them whole. */
export interface Accident {
  readonly happened: string;
  readonly leftOut: string;
}

/** A fault that is to be found, with what it is in the simulator. */
export interface HiddenFault {
  readonly cause: CauseCode;
  /** Faults of the simulator, by size. */
  readonly faults: Readonly<Record<string, Drawn>>;
  /** Minutes to put it right, where that is other than usual. */
  readonly minutes?: number;
  /** Put right by hand, without a lock and without a part. */
  readonly isByHand?: true;
  /** Codes of what is opened for it, where that is other than usual. */
  readonly opens?: readonly string[];
}

/** What an exercise sees of the round that is played, and does to its machine. */
export interface Hands {
  readonly simulation: Simulation;
  /** The own lock is on. */
  readonly isLocked: boolean;
  /** Since the beginning, s. */
  readonly seconds: number;
  /** Whether an act of this exercise was done. */
  did(act: string): boolean;
  hasMended(cause: CauseCode): boolean;
  /** Codes of everything that was opened. */
  readonly opened: ReadonlySet<string>;
  /** Lets time pass, whole seconds. */
  pass(seconds: number): void;
}

/** What is about to be done. */
export interface About {
  readonly test?: string;
  readonly repair?: CauseCode;
}

/** Something that can be done in one exercise alone: a trap, or the care that it asks for. */
export interface PracticeAct {
  readonly code: string;
  readonly name: string;
  readonly minutes: number;
  /** Offered only then; default always, once. */
  readonly isOffered?: (hands: Hands) => boolean;
  /** What comes of it, in a sentence, or who is hurt. */
  readonly does: (hands: Hands) => string | Accident;
  /** Codes of what is opened for it. */
  readonly opens?: readonly string[];
  /** What is risked by it, counted in minutes. */
  readonly risk?: Risk;
}

export interface Risk {
  readonly text: string;
  readonly minutes: number;
}

/** What the machine must do at the end, tried on it. */
export interface Tried {
  readonly isMet: boolean;
  readonly text: string;
}

/** A machine with something wrong in it, a goal, and the trap that would hurt. */
export interface Exercise {
  readonly code: string;
  /** From easy to hard; 0 is drawn by lot. */
  readonly number: number;
  readonly name: string;
  /** What is told at the beginning. */
  readonly story: string;
  readonly goal: string;
  readonly goalMinutes: number;
  readonly plate: DataPlate;
  readonly handling: Handling;
  /** Code of what is seen first, as the fault finder knows it. */
  readonly symptom: string;
  readonly hidden: readonly HiddenFault[];
  /** What else is wrong and only deceives, by fault of the simulator. */
  readonly deceives: Readonly<Record<string, Drawn>>;
  /** What stands in its spaces, bar. */
  readonly holds: Readonly<Record<string, Drawn>>;
  /** Run for so long before anybody comes, s. */
  readonly runsBefore: number;
  /** What is set up beside: consumers, another set. */
  readonly sets?: Readonly<Record<string, number>>;
  readonly supplyBar?: number;
  /** Answers that are plain at this machine; the rest are drawn. */
  readonly shows?: Readonly<Record<string, string>>;
  /** What is told of a test in place of its usual words. */
  readonly says?: Readonly<Record<string, string>>;
  /** Set by hand before it begins: a needle that stands somewhere. */
  readonly prepares?: (simulation: Simulation) => void;
  /** Who is hurt by a test or a repair as things stand, beside what holds pressure. */
  readonly hurts?: (hands: Hands, about: About) => Accident | null;
  readonly acts: readonly PracticeAct[];
  /** Somebody is called away, and what others do meanwhile. */
  readonly interruption?: {
    readonly comes: (hands: Hands) => boolean;
    readonly minutes: number;
    readonly text: string;
    readonly does: (hands: Hands) => void;
  };
  /** Tries the goal on the machine. */
  readonly proves: (hands: Hands) => Tried;
  /** What a safe end asks for beside the mended machine. */
  readonly ends: readonly {
    readonly text: string;
    readonly isMet: (hands: Hands) => boolean;
  }[];
  /** What would have hurt, told at the end. */
  readonly trap: string;
}
