import { interstagePressures } from '../air/index.js';
import { DISCHARGE } from './elements.js';
import { BAR, R_AIR, densityAt, nozzle } from './gas.js';
import type { StageSpec } from './stage.js';

/** What a set of stages is made for. */
export interface StagesDesign {
  /** Pressures after each stage of the sound set, bar absolute; the last is what it is made to reach. */
  readonly pressuresBarAbs: readonly number[];
  readonly intakeBarAbs: number;
  readonly intakeK: number;
  /** What the first stage sweeps, m³/s. */
  readonly sweptM3S: number;
  readonly exponents: readonly number[];
  readonly clearances: readonly number[];
  /** Of the cooler after each stage: share of the way to the coolant's temperature. */
  readonly coolings: readonly number[];
  readonly sound?: StageSpec['sound'];
}

/** What sound valves and rings let through: some tenths of a per cent of delivery. */
const SOUND = { valve: 0.0004, ring: 0.006 };
/** Air goes through a valve at about so much, m/s (common practice). */
const VALVE_SPEED = 35;

/**
 * Sizes stages so that a sound set, without leaks, stands at just these pressures: every stage takes the mass that
 * the one before it sends.
 *
 * @returns the stages, and the mass that goes through them, kg/s
 */
export function sizeStages(design: StagesDesign): {
  readonly specs: readonly StageSpec[];
  readonly flow: number;
} {
  const { pressuresBarAbs, intakeBarAbs, intakeK, exponents, clearances, coolings, sound = SOUND } = design;
  const specs: StageSpec[] = [];
  let flow = 0;
  let [before, entersK] = [intakeBarAbs * BAR, intakeK];
  pressuresBarAbs.forEach((barAbs, index) => {
    const after = barAbs * BAR;
    const [exponent, clearance] = [exponents[index]!, clearances[index]!];
    const ratio = after / before;
    const growth = ratio ** ((exponent - 1) / exponent);
    const volumetric = 0.98 - clearance * (ratio ** (1 / exponent) - 1);
    const density = densityAt(before, entersK);
    const sweptM3S = index === 0 ? design.sweptM3S : flow / (density * volumetric);
    flow = sweptM3S * density * volumetric;
    const middle = before * Math.sqrt(ratio);
    const root = Math.sqrt((before / density) * Math.sqrt(growth));
    // Wide enough that nothing is delivered: half the stroke through this hole takes all of it.
    const totalArea =
      (1.4 * flow * root) / (0.5 * DISCHARGE * middle * nozzle(before / middle) * Math.sqrt(growth));
    specs.push({
      sweptM3S,
      clearance,
      exponent,
      cooling: coolings[index]!,
      totalArea,
      valveArea: sweptM3S / VALVE_SPEED,
      sound,
    });
    const hotK = entersK * growth;
    entersK = hotK - coolings[index]! * (hotK - intakeK);
    before = after;
  });
  return { specs, flow };
}

/** Power that ideal stages of a design take, W: for the size of a motor. */
export function designPower(design: StagesDesign, flow: number): number {
  let [power, before, entersK] = [0, design.intakeBarAbs, design.intakeK];
  design.pressuresBarAbs.forEach((after, index) => {
    const exponent = design.exponents[index]!;
    const growth = (after / before) ** ((exponent - 1) / exponent);
    power += flow * R_AIR * entersK * (exponent / (exponent - 1)) * (growth - 1);
    const hotK = entersK * growth;
    entersK = hotK - design.coolings[index]! * (hotK - design.intakeK);
    before = after;
  });
  return power;
}

/** Equal ratios from the room to a final pressure, bar absolute: the ladder of `core/air`. */
export function equalRatios(stages: number, intakeBarAbs: number, finalBarAbs: number): readonly number[] {
  const ladder = interstagePressures({ stages, intakeBarAbs, finalBarAbs, intakeTempC: 20 });
  if (!ladder.ok) throw new Error(ladder.problem.sentence);
  return ladder.value.states.map(({ toBarAbs }) => toBarAbs);
}
