import type { DataPlate } from '../machine/index.js';

const MINUTE = 60_000;

/**
 * The rules of the guard by name, so that a proof can take each away and show what it is there for. Every rule
 * holds in the application.
 */
export const guardRules = [
  /** Whoever works has their own lock on. */
  'own-lock',
  /** A proof counts only if every source of its space was shut when it was given. */
  'sources-first',
  /** A lock that comes off takes every proof with it. */
  'lock-off-erases',
  /** A valve that is opened takes the proofs with it that rest on it. */
  'valve-open-erases',
  /** A vent that is shut is no proof any more. */
  'vent-shut-erases',
  /** Power and air back end it for everybody. */
  'restart-erases',
  /** A space is empty by two signs that do not hang on each other. */
  'two-signs',
  /** A needle that stood at zero beforehand is no sign. */
  'needle-seen-to-fall',
  /** What keeps coming, or is fed, speaks against everything before it. */
  'against',
  /** The second look, with everything open. */
  'second-look',
  /** It comes some minutes after the last silence. */
  'look-waits',
  /** After a pause it is asked again whether it holds. */
  'pause',
  /** What somebody else proved is looked at by oneself. */
  'see-for-yourself',
  /** Another day begins anew. */
  'another-day',
  /** Silence that comes too soon is asked about. */
  'least-time',
  /** One person opens a vent and hears it fall silent. */
  'one-pair-of-ears',
  /** What is told without its answer, by an older page, counts for nothing. */
  'answer-needed',
] as const;

export type GuardRule = (typeof guardRules)[number];

const ALL_RULES: ReadonlySet<GuardRule> = new Set(guardRules);

/** A machine, and how its guard is set. */
export interface Guarded {
  readonly plate: DataPlate;
  /** Minutes after which a pause is one. */
  readonly pauseMinutes?: number | undefined;
  readonly timeZone?: string | undefined;
  /** Default: all. */
  readonly rules?: ReadonlySet<GuardRule> | undefined;
}

/** A pause is one after this long; sooner above 40 bar. */
export const PAUSE_MINUTES = { usual: 20, highPressure: 10 } as const;

const HIGH_PRESSURE_BAR = 40;

/** Minutes of a pause at a machine. */
export function pauseMinutesOf(
  plate: DataPlate,
  minutes: { readonly usual: number; readonly highPressure: number } = PAUSE_MINUTES,
): number {
  const bar = plate.maximumPressureBar ?? plate.workingPressureBar ?? plate.cutOutBar ?? 0;
  return plate.family === 'high-pressure' || bar > HIGH_PRESSURE_BAR ? minutes.highPressure : minutes.usual;
}

export function rulesOf({ rules = ALL_RULES }: Guarded): ReadonlySet<GuardRule> {
  return rules;
}

export function pauseMs({ plate, pauseMinutes = pauseMinutesOf(plate) }: Guarded): number {
  return pauseMinutes * MINUTE;
}
