import { bounds, outOfRange, err, ok, type LocalDate, type Result, type Problem } from '../basics/index.js';
import { ATMOSPHERE_BAR, GAMMA, R_AIR, ZERO_C } from './constants.js';
import { halve } from './halve.js';
import { massInVolume } from './real-gas.js';

/** A cylinder or bank as it stands. */
export interface GasVessel {
  readonly volumeL: number;
  readonly pressureBarAbs: number;
}

const MOST_VOLUME_L = 10_000;

function vesselProblem(vessel: GasVessel, tempC: number): Result<never> | null {
  return outOfRange([
    bounds.positive('volumeL', vessel.volumeL, MOST_VOLUME_L, 'The volume, litres,'),
    bounds.pressureBarAbs('pressureBarAbs', vessel.pressureBarAbs, 'The pressure'),
    bounds.tempC('tempC', tempC, 'The temperature'),
  ]);
}

/** Free air in a mass of air at the intake, L. */
export function freeAirL(massKg: number, tempC: number): number {
  return ((massKg * R_AIR * (tempC + ZERO_C)) / (ATMOSPHERE_BAR * 1e5)) * 1000;
}

/**
 * Free air in a cylinder, real gas: at one atmosphere and the cylinder's own temperature.
 *
 * @returns L of free air
 */
export function freeAirIn(vessel: GasVessel, tempC: number): Result<number> {
  const wrong = vesselProblem(vessel, tempC);
  return wrong ?? ok(freeAirL(massInVolume(vessel.volumeL, vessel.pressureBarAbs, tempC), tempC));
}

/**
 * Free air that a cylinder takes from one pressure to another.
 *
 * @returns L of free air; ÷ free air delivered it is the time to fill
 */
export function freeAirToFill(vessel: GasVessel, toBarAbs: number, tempC: number): Result<number> {
  const before = freeAirIn(vessel, tempC);
  if (!before.ok) return before;
  if (toBarAbs < vessel.pressureBarAbs) {
    return err('final-below-first', 'It holds more than that already.', 'toBarAbs');
  }
  const after = freeAirIn({ ...vessel, pressureBarAbs: toBarAbs }, tempC);
  return after.ok ? ok(after.value - before.value) : after;
}

/** The pressure at which a volume holds so much air. */
function pressureOf(volumeL: number, massKg: number, tempC: number): number {
  return halve(0.01, 700, (pressure) => massInVolume(volumeL, pressure, tempC) < massKg);
}

/**
 * The pressure that a cylinder filled hot settles at when it has cooled: the same mass, real gas.
 *
 * @returns bar absolute
 */
export function settledPressure(filledBarAbs: number, hotC: number, coldC: number): Result<number> {
  const wrong =
    vesselProblem({ volumeL: 1, pressureBarAbs: filledBarAbs }, hotC) ??
    vesselProblem({ volumeL: 1, pressureBarAbs: filledBarAbs }, coldC);
  return wrong ?? ok(pressureOf(1, massInVolume(1, filledBarAbs, hotC), coldC));
}

/**
 * The pressure to fill a hot cylinder to, so that it settles at a pressure when it has cooled: the way back of
 * `settledPressure`.
 *
 * @returns bar absolute
 */
export function fillPressureFor(settledBarAbs: number, hotC: number, coldC: number): Result<number> {
  return settledPressure(settledBarAbs, coldC, hotC);
}

/** A cylinder filled faster than it can lose its heat. */
export interface HotFill {
  readonly volumeL: number;
  readonly fromBarAbs: number;
  readonly toBarAbs: number;
  /** Cylinder, its gas and the air that flows in, before the fill. */
  readonly tempC: number;
  /** Mass of the cylinder wall that warms with the gas, kg; 0 leaves all heat in the gas. */
  readonly wallKg: number;
  /** Specific heat of the wall, J/(kg·K): about 470 for steel, 900 for aluminium. */
  readonly wallHeat?: number;
}

/** Specific heat of air at constant pressure and volume, J/(kg·K). */
const [CP, CV] = [(GAMMA * R_AIR) / (GAMMA - 1), R_AIR / (GAMMA - 1)];
const STEEL_HEAT = 470;

/**
 * How hot a fast fill leaves gas and wall, by the balance of energy with no heat lost to the outside:
 * (m₂·c_v + C_wall)·T₂ = (m₁·c_v + C_wall)·T₀ + (m₂ − m₁)·c_p·T₀, where m₂ is the real gas at p₂ and T₂. Heats
 * are those of the ideal gas; a slow fill in a water bath stays cooler.
 *
 * @returns °C at the end of the fill
 */
export function hotFillTemp(fill: HotFill): Result<number> {
  const { volumeL, fromBarAbs, toBarAbs, tempC, wallKg, wallHeat = STEEL_HEAT } = fill;
  const wrong =
    vesselProblem({ volumeL, pressureBarAbs: fromBarAbs }, tempC) ??
    vesselProblem({ volumeL, pressureBarAbs: toBarAbs }, tempC) ??
    outOfRange([
      {
        field: 'wallKg',
        value: wallKg,
        min: 0,
        max: 10_000,
        sentence: 'The wall lies between 0 and 10,000 kg.',
      },
      bounds.positive('wallHeat', wallHeat, 5000, 'The specific heat of the wall'),
    ]);
  if (wrong) return wrong;
  if (toBarAbs < fromBarAbs) {
    return err('final-below-first', 'It holds more than that already.', 'toBarAbs');
  }
  const startK = tempC + ZERO_C;
  const before = massInVolume(volumeL, fromBarAbs, tempC);
  const wall = wallKg * wallHeat;
  return ok(
    halve(tempC, 249, (hotC) => {
      const after = massInVolume(volumeL, toBarAbs, hotC);
      const stored = (after * CV + wall) * (hotC + ZERO_C);
      return stored < (before * CV + wall) * startK + (after - before) * CP * startK;
    }),
  );
}

/** What stands on a cylinder, and what is meant to go into it. */
export interface CylinderStamp {
  /** Working pressure stamped on it, bar by gauge. */
  readonly ratedBar: number;
  /** Last day on which it may be filled without a new test. */
  readonly testedUntil: LocalDate;
}

/**
 * Whether a cylinder may be filled at all. Local rules on cylinders may ask for more.
 *
 * @returns null when it may; `cylinder-out-of-date` or `cylinder-under-rated` with the sentence
 */
export function cylinderRefusal(stamp: CylinderStamp, fillBar: number, today: LocalDate): Problem | null {
  if (stamp.testedUntil < today) {
    return {
      code: 'cylinder-out-of-date',
      field: 'testedUntil',
      sentence: `Its test ran out on ${stamp.testedUntil}. Do not fill it.`,
    };
  }
  if (stamp.ratedBar < fillBar) {
    return {
      code: 'cylinder-under-rated',
      field: 'ratedBar',
      sentence: `It is rated for ${stamp.ratedBar} bar, the fill is ${fillBar} bar. Do not fill it.`,
    };
  }
  return null;
}
