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
  /** Outlet temperatures known from its own baseline, brought to this intake; null where reckoned. */
  readonly ownTempsC: readonly (number | null)[];
}

/** One thing that may be wrong with it. */
export interface LadderFault {
  readonly kind: 'sound' | 'stage' | 'cooler' | 'gauge' | 'intake';
  readonly stage: number;
  /** Share of what it can swallow that is lost; for a cooler K too warm; for a gauge the share it is off. */
  readonly size: number;
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
const SETTLED = 1e-7;

/** What a machine with a fault would show: the flow through all stages is one, each swallows what it can. */
export function predictLadder(design: LadderDesign, fault: LadderFault): PredictedLadder {
  const power = (design.exponent - 1) / design.exponent;
  const at = (stage: number, kind: LadderFault['kind']) =>
    fault.kind === kind && fault.stage === stage ? fault.size : 0;
  const soundIn = (stage: number) => (stage === 1 ? design.intakeTempC : design.cooledTempC) + ZERO_C;
  const entersAt = (stage: number) => soundIn(stage) + at(stage - 1, 'cooler');
  const pressures = settledPressures(design, fault);
  const outletTempsC = design.pressuresBarAbs.map((sound, index) => {
    const stage = index + 1;
    const growth = (pressures[stage]! / pressures[stage - 1]!) ** power;
    const returned = at(stage, 'stage') / growth;
    const outletK = (growth * entersAt(stage) * (1 - returned)) / (1 - at(stage, 'stage'));
    const own = design.ownTempsC[index];
    if (own === null || own === undefined) return outletK - ZERO_C;
    // What its own baseline showed above the reckoned stays above it.
    const soundRatio = sound / (design.pressuresBarAbs[index - 1] ?? design.intakeBarAbs);
    return outletK + own - soundIn(stage) * soundRatio ** power;
  });
  return {
    pressuresBarAbs: pressures.slice(1).map((pressure, index) => pressure * (1 + at(index + 1, 'gauge'))),
    outletTempsC,
  };
}

/** Pressure before the first stage and after each: neither the first nor the last moves. */
function settledPressures(design: LadderDesign, { kind, stage: at, size }: LadderFault): readonly number[] {
  const { pressuresBarAbs: sound, intakeBarAbs, cooledTempC, exponent } = design;
  const pressures = [intakeBarAbs * (kind === 'intake' ? 1 - size : 1), ...sound];
  // A gauge that is out moves nothing but its own figure.
  if (kind === 'sound' || kind === 'gauge') return pressures;
  const swallow = (ratio: number) => 1 - CLEARANCE * (ratio ** (1 / exponent) - 1);
  const soundSwallow = sound.map((pressure, index) => swallow(pressure / (sound[index - 1] ?? intakeBarAbs)));
  const kept = (stage: number) => (kind === 'stage' && at === stage ? 1 - size : 1);
  const warmth = (stage: number) =>
    kind === 'cooler' && at === stage - 1 ? 1 + size / (cooledTempC + ZERO_C) : 1;
  const takes = (stage: number) =>
    (kept(stage) * swallow(pressures[stage]! / pressures[stage - 1]!)) / soundSwallow[stage - 1]!;
  for (let round = 0; round < MOST_ROUNDS; round++) {
    const flow = (takes(1) * pressures[0]!) / intakeBarAbs;
    let furthest = 0;
    for (let stage = 2; stage <= sound.length; stage++) {
      const next = (sound[stage - 2]! * flow * warmth(stage)) / takes(stage);
      // Half the way in the logarithm each round: the stages pull on each other.
      const before = pressures[stage - 1]!;
      pressures[stage - 1] = Math.sqrt(before * next);
      furthest = Math.max(furthest, Math.abs(next / before - 1));
    }
    if (furthest < SETTLED) break;
  }
  return pressures;
}
