import { ZERO_C } from './constants.js';

/** A machine as it should be. */
export interface LadderDesign {
  readonly intakeBarAbs: number;
  readonly intakeTempC: number;
  readonly cooledTempC: number;
  readonly exponent: number;
  readonly designBarAbs: number;
  /** Pressure after each stage of the sound machine; the last is what it fills against. */
  readonly pressuresBarAbs: readonly number[];
  /** Outlet temperatures known from its own baseline, above what they are reckoned at, K; 0 where there is none. */
  readonly warmerK: readonly number[];
}

export const ladderFaultKinds = ['valves', 'ring', 'cooler', 'gauge', 'intake'] as const;
export type LadderFaultKind = (typeof ladderFaultKinds)[number];

/** One thing that may be wrong with it. */
export interface LadderFault {
  readonly kind: LadderFaultKind;
  /** The stage, or the one whose cooler or gauge it is; 0 for the intake. */
  readonly stage: number;
  /** Share of what it takes in that is let back or lost; for a cooler K too warm; for a gauge the share it is off. */
  readonly size: number;
}

/** Something that would explain the figures: nothing wrong, one fault, or two at once. */
export interface LadderSuspect {
  /** The greater one first; none where nothing is wrong. */
  readonly faults: readonly LadderFault[];
  /** How sure: 0 to 1, all suspects together make 1. */
  readonly probability: number;
}

/** What gauges and thermometers would show. */
export interface PredictedLadder {
  readonly pressuresBarAbs: readonly number[];
  readonly outletTempsC: readonly number[];
}

/** Clearance of a stage as a share of its stroke (common practice). */
const CLEARANCE = 0.05;
const MOST_ROUNDS = 60;
/** Settled when no pressure moves by more than this share. */
const SETTLED = 1e-6;

const sizeOf = (faults: readonly LadderFault[], kind: LadderFaultKind, stage: number): number => {
  let size = 0;
  for (const fault of faults) if (fault.kind === kind && fault.stage === stage) size += fault.size;
  return size;
};

/**
 * What a machine with faults would show: each stage takes in what it can, and passes on what does not leak.
 *
 * - Valves let gas back within the stage: it takes in less, so the pressure before it rises; what comes back is hot
 *   and is compressed again, so its outlet is hotter.
 * - A ring of a single-acting stage lets gas past into the crankcase: it takes in as much and passes on less. The
 *   pressure before it hardly moves, its own and all after it fall, its outlet is no hotter.
 */
export function predictLadder(design: LadderDesign, faults: readonly LadderFault[]): PredictedLadder {
  const power = (design.exponent - 1) / design.exponent;
  const soundIn = (stage: number) => (stage === 1 ? design.intakeTempC : design.cooledTempC) + ZERO_C;
  const pressures = settledPressures(design, faults);
  const outletTempsC = design.pressuresBarAbs.map((_, index) => {
    const stage = index + 1;
    const growth = (pressures[stage]! / pressures[stage - 1]!) ** power;
    const back = sizeOf(faults, 'valves', stage);
    const returned = back / growth;
    const entersAt = soundIn(stage) + sizeOf(faults, 'cooler', stage - 1);
    const outletK = (growth * entersAt * (1 - returned)) / (1 - back);
    // What its own baseline showed above the reckoned stays above it.
    return outletK - ZERO_C + design.warmerK[index]!;
  });
  return {
    pressuresBarAbs: pressures
      .slice(1)
      .map((pressure, index) => pressure * (1 + sizeOf(faults, 'gauge', index + 1))),
    outletTempsC,
  };
}

/** Pressure before the first stage and after each: neither the first nor the last moves. */
function settledPressures(design: LadderDesign, faults: readonly LadderFault[]): readonly number[] {
  const { pressuresBarAbs: sound, intakeBarAbs, cooledTempC, exponent } = design;
  const pressures = [intakeBarAbs * (1 - sizeOf(faults, 'intake', 0)), ...sound];
  // A gauge that is out moves nothing but its own figure.
  if (faults.every(({ kind }) => kind === 'gauge')) return pressures;
  const swallow = (ratio: number) => 1 - CLEARANCE * (ratio ** (1 / exponent) - 1);
  const stages = sound.map((pressure, index) => {
    const stage = index + 1;
    return {
      soundSwallow: swallow(pressure / (sound[index - 1] ?? intakeBarAbs)),
      kept: 1 - sizeOf(faults, 'valves', stage),
      passed: 1 - sizeOf(faults, 'ring', stage),
      warmth: 1 + sizeOf(faults, 'cooler', stage - 1) / (cooledTempC + ZERO_C),
    };
  });
  const takes = (stage: number) => {
    const { kept, soundSwallow } = stages[stage - 1]!;
    return (kept * swallow(pressures[stage]! / pressures[stage - 1]!)) / soundSwallow;
  };
  for (let round = 0; round < MOST_ROUNDS; round++) {
    let flow = ((takes(1) * pressures[0]!) / intakeBarAbs) * stages[0]!.passed;
    let furthest = 0;
    for (let stage = 2; stage <= sound.length; stage++) {
      const next = (sound[stage - 2]! * flow * stages[stage - 1]!.warmth) / takes(stage);
      // Half the way in the logarithm each round: the stages pull on each other.
      const before = pressures[stage - 1]!;
      pressures[stage - 1] = Math.sqrt(before * next);
      furthest = Math.max(furthest, Math.abs(next / before - 1));
      flow *= stages[stage - 1]!.passed;
    }
    if (furthest < SETTLED) break;
  }
  return pressures;
}
