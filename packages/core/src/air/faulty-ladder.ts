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
const ROUNDS = 40;

/** What a machine with a fault would show: the flow through all stages is one, each swallows what it can. */
export function predictLadder(design: LadderDesign, fault: LadderFault): PredictedLadder {
  const { exponent } = design;
  const count = design.pressuresBarAbs.length;
  const power = (exponent - 1) / exponent;
  const swallow = (ratio: number) => 1 - CLEARANCE * (ratio ** (1 / exponent) - 1);
  const at = (stage: number, kind: LadderFault['kind']) =>
    fault.kind === kind && fault.stage === stage ? fault.size : 0;
  const kept = (stage: number) => 1 - at(stage, 'stage');
  const soundIn = (stage: number) => (stage === 1 ? design.intakeTempC : design.cooledTempC) + ZERO_C;
  const entersAt = (stage: number) => soundIn(stage) + at(stage - 1, 'cooler');
  const intakeBar = design.intakeBarAbs * (fault.kind === 'intake' ? 1 - fault.size : 1);
  const soundRatio = (stage: number) =>
    design.pressuresBarAbs[stage - 1]! / (design.pressuresBarAbs[stage - 2] ?? design.intakeBarAbs);

  // pressures[k] stands after stage k; the first and the last do not move.
  const pressures = [intakeBar, ...design.pressuresBarAbs];
  const ratio = (stage: number) => pressures[stage]! / pressures[stage - 1]!;
  for (let round = 0; round < ROUNDS; round++) {
    const flow = ((kept(1) * intakeBar) / design.intakeBarAbs) * (swallow(ratio(1)) / swallow(soundRatio(1)));
    for (let stage = 2; stage <= count; stage++) {
      const takes =
        (kept(stage) * swallow(ratio(stage)) * soundIn(stage)) /
        (swallow(soundRatio(stage)) * entersAt(stage));
      const next = (design.pressuresBarAbs[stage - 2]! * flow) / takes;
      // Half the way in the logarithm each round: the stages pull on each other.
      pressures[stage - 1] = Math.sqrt(pressures[stage - 1]! * next);
    }
  }
  const outletTempsC = design.pressuresBarAbs.map((_, index) => {
    const stage = index + 1;
    const growth = ratio(stage) ** power;
    const returned = at(stage, 'stage') / growth;
    const outletK = (growth * entersAt(stage) * (1 - returned)) / kept(stage);
    const reckonedK = soundIn(stage) * soundRatio(stage) ** power;
    // What its own baseline showed above the reckoned stays above it.
    const own = design.ownTempsC[index];
    return outletK - ZERO_C + (own === null || own === undefined ? 0 : own + ZERO_C - reckonedK);
  });
  return {
    pressuresBarAbs: pressures.slice(1).map((pressure, index) => pressure * (1 + at(index + 1, 'gauge'))),
    outletTempsC,
  };
}
