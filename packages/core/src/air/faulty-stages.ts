import { ZERO_C } from './constants.js';

/** A machine as it should be. */
export interface StagesDesign {
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

export const stageFaultKinds = ['valves', 'ring', 'cooler', 'gauge', 'intake'] as const;
export type StageFaultKind = (typeof stageFaultKinds)[number];

/** One thing that may be wrong with it. */
export interface StageFault {
  readonly kind: StageFaultKind;
  /** The stage, or the one whose cooler or gauge it is; 0 for the intake. */
  readonly stage: number;
  /** Share of what it takes in that is let back or lost; for a cooler K too warm; for a gauge the share it is off. */
  readonly size: number;
}

/** Something that would explain the figures: nothing wrong, one fault, or two at once. */
export interface StageSuspect {
  /** The greater one first; none where nothing is wrong. */
  readonly faults: readonly StageFault[];
  /** How sure: 0 to 1, all suspects together make 1. */
  readonly probability: number;
}

/** What gauges and thermometers would show. */
export interface PredictedStages {
  readonly pressuresBarAbs: readonly number[];
  readonly outletTempsC: readonly number[];
}

/** Clearance of a stage as a share of its stroke (common practice). */
const CLEARANCE = 0.05;
const MOST_ROUNDS = 60;
/** Settled when no pressure moved by more than this share (it is then far nearer than that); none moves further than this in one step, as a logarithm. */
const [SETTLED, MOST_STEP] = [1e-4, 0.7];
/** A stage with so high a ratio that nothing would fit in is taken to fill by this share. */
const LEAST_FILLING = 0.02;

const sizeOf = (faults: readonly StageFault[], kind: StageFaultKind, stage: number): number => {
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
 *
 * @param shown what the gauges are about to show, where that is known: it is found the sooner from there
 */
export function predictStages(
  design: StagesDesign,
  faults: readonly StageFault[],
  shown?: readonly number[],
): PredictedStages {
  const pressures = settledPressures(design, faults, shown);
  return {
    pressuresBarAbs: onGauges(pressures, faults),
    outletTempsC: outletTemps(design, faults, pressures),
  };
}

/** What the gauges alone would show: see {@link predictLadder}. */
export function predictGauges(design: StagesDesign, faults: readonly StageFault[]): readonly number[] {
  return onGauges(settledPressures(design, faults, undefined), faults);
}

function onGauges(pressures: readonly number[], faults: readonly StageFault[]): readonly number[] {
  return pressures.slice(1).map((pressure, index) => pressure * (1 + sizeOf(faults, 'gauge', index + 1)));
}

function outletTemps(
  design: StagesDesign,
  faults: readonly StageFault[],
  pressures: readonly number[],
): readonly number[] {
  const power = (design.exponent - 1) / design.exponent;
  return design.pressuresBarAbs.map((_, index) => {
    const stage = index + 1;
    const growth = (pressures[stage]! / pressures[stage - 1]!) ** power;
    const back = sizeOf(faults, 'valves', stage);
    const returned = back / growth;
    const soundIn = stage === 1 ? design.intakeTempC : design.cooledTempC;
    const entersAt = soundIn + ZERO_C + sizeOf(faults, 'cooler', stage - 1);
    const outletK = (growth * entersAt * (1 - returned)) / (1 - back);
    // What its own baseline showed above the reckoned stays above it.
    return outletK - ZERO_C + design.warmerK[index]!;
  });
}

/**
 * Pressure before the first stage and after each: neither the first nor the last moves. Between them each stage must
 * take in what the one before passes on; solved by Newton's steps in the logarithms, each stage pulling on its
 * neighbours alone (a tridiagonal system, Thomas 1949 *(memory)*).
 */
function settledPressures(
  design: StagesDesign,
  faults: readonly StageFault[],
  shown: readonly number[] | undefined,
): readonly number[] {
  const { pressuresBarAbs: sound, intakeBarAbs, cooledTempC, exponent } = design;
  const first = intakeBarAbs * (1 - sizeOf(faults, 'intake', 0));
  // A gauge that is out moves nothing but its own figure.
  if (faults.every(({ kind }) => kind === 'gauge')) return [first, ...sound];
  const count = sound.length;
  const logs = [Math.log(first)];
  for (let stage = 1; stage <= count; stage++) {
    const isKnown = shown !== undefined && stage < count;
    const from = isKnown ? shown[stage - 1]! / (1 + sizeOf(faults, 'gauge', stage)) : sound[stage - 1]!;
    logs.push(Math.log(from));
  }
  // What each stage takes in against the sound one and what is left by then, its pressures left out, as a logarithm.
  let passed = 1;
  const constants = soundFlows(design).map((flow, index) => {
    const kept = 1 - sizeOf(faults, 'valves', index + 1);
    const warmth = 1 + sizeOf(faults, 'cooler', index) / (cooledTempC + ZERO_C);
    passed *= 1 - sizeOf(faults, 'ring', index);
    return Math.log(kept / (warmth * passed)) - flow;
  });
  const upper = new Array<number>(count).fill(0);
  const step = new Array<number>(count).fill(0);
  for (let round = 0; round < MOST_ROUNDS; round++) {
    let flowBefore = 0;
    let pullBefore = 0;
    // Forward: what stage by stage is left over, and what it moves.
    for (let stage = 1; stage <= count; stage++) {
      const before = logs[stage - 1]!;
      const filled = filling(logs[stage]! - before, exponent);
      const flow = Math.log(filled) + before + constants[stage - 1]!;
      // How the filling falls with the ratio, both as logarithms.
      const pull = (1 - filled + CLEARANCE) / exponent / filled;
      if (stage > 1) {
        const place = stage - 2;
        const lower = place === 0 ? 0 : 1 + pullBefore;
        const pivot = 1 + pull + pullBefore - lower * (place === 0 ? 0 : upper[place - 1]!);
        upper[place] = pull / pivot;
        step[place] = (flowBefore - flow + lower * (place === 0 ? 0 : step[place - 1]!)) / pivot;
      }
      flowBefore = flow;
      pullBefore = pull;
    }
    let furthest = 0;
    for (let place = count - 2; place >= 0; place--) {
      if (place < count - 2) step[place] = step[place]! + upper[place]! * step[place + 1]!;
      const moved = Math.max(-MOST_STEP, Math.min(MOST_STEP, step[place]!));
      logs[place + 1] = logs[place + 1]! + moved;
      furthest = Math.max(furthest, Math.abs(moved));
    }
    if (!(furthest >= SETTLED)) break;
  }
  return logs.map((log, index) => (index === count ? sound[count - 1]! : Math.exp(log)));
}

/** How far a stage fills at a ratio of pressures, its logarithm given: the rest is what expands out of its clearance. */
function filling(logRatio: number, exponent: number): number {
  return Math.max(LEAST_FILLING, 1 - CLEARANCE * (Math.exp(logRatio / exponent) - 1));
}

/** What each stage of the sound machine takes in, as a logarithm. */
function soundFlows({ pressuresBarAbs: sound, intakeBarAbs, exponent }: StagesDesign): readonly number[] {
  return sound.map((pressure, index) => {
    const before = sound[index - 1] ?? intakeBarAbs;
    return Math.log(filling(Math.log(pressure / before), exponent) * before);
  });
}
