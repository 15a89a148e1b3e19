import { bounds, outOfRange, refuse, succeed, type Outcome } from '../basics/index.js';
import { ATMOSPHERE_BAR, R_AIR, ZERO_C } from './constants.js';
import { halve } from './halve.js';
import { massInVolume } from './real-gas.js';

/** A cylinder or bank as it stands. */
export interface GasVessel {
  readonly volumeL: number;
  readonly pressureBarAbs: number;
}

const MOST_VOLUME_L = 10_000;
const LEAST_BAR = 0.3;

function vesselProblem(vessel: GasVessel, tempC: number): Outcome<never> | null {
  return outOfRange([
    bounds.positive('volumeL', vessel.volumeL, MOST_VOLUME_L, 'The volume, litres,'),
    bounds.pressureBarAbs('pressureBarAbs', vessel.pressureBarAbs, 'The pressure'),
    bounds.tempC('tempC', tempC, 'The temperature'),
  ]);
}

/** Free air in a mass of air at the intake, L. */
function freeAirL(massKg: number, tempC: number): number {
  return ((massKg * R_AIR * (tempC + ZERO_C)) / (ATMOSPHERE_BAR * 1e5)) * 1000;
}

/**
 * Free air in a cylinder, real gas: at one atmosphere and the cylinder's own temperature.
 *
 * @returns L of free air
 */
export function freeAirIn(vessel: GasVessel, tempC: number): Outcome<number> {
  const wrong = vesselProblem(vessel, tempC);
  return wrong ?? succeed(freeAirL(massInVolume(vessel.volumeL, vessel.pressureBarAbs, tempC), tempC));
}

/**
 * Free air that a cylinder takes from one pressure to another.
 *
 * @returns L of free air; ÷ free air delivered it is the time to fill
 */
export function freeAirToFill(vessel: GasVessel, toBarAbs: number, tempC: number): Outcome<number> {
  const before = freeAirIn(vessel, tempC);
  if (!before.ok) return before;
  if (toBarAbs < vessel.pressureBarAbs) {
    return refuse('final-below-first', 'It holds more than that already.', 'toBarAbs');
  }
  const after = freeAirIn({ ...vessel, pressureBarAbs: toBarAbs }, tempC);
  return after.ok ? succeed(after.value - before.value) : after;
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
export function settledPressure(filledBarAbs: number, hotC: number, coldC: number): Outcome<number> {
  const wrong =
    vesselProblem({ volumeL: 1, pressureBarAbs: filledBarAbs }, hotC) ??
    vesselProblem({ volumeL: 1, pressureBarAbs: filledBarAbs }, coldC);
  return wrong ?? succeed(pressureOf(1, massInVolume(1, filledBarAbs, hotC), coldC));
}

/** What filling from banks came to. */
export interface CascadeResult {
  readonly cylinderBarAbs: number;
  /** The banks as they are left, in the order they were given in. */
  readonly banks: readonly GasVessel[];
  /** Which bank was opened, in order, and the pressure it brought the cylinder to. */
  readonly steps: readonly { readonly bank: number; readonly toBarAbs: number }[];
}

/**
 * Fills a cylinder from banks one after the other, the lowest that still gives first: what the low one gives
 * the high one keeps. Each is opened until the pressures are even or the cylinder is full, at an even
 * temperature (filled slowly).
 *
 * @param fullBarAbs stops there
 */
export function cascade(
  cylinder: GasVessel,
  banks: readonly GasVessel[],
  fullBarAbs: number,
  tempC: number,
): Outcome<CascadeResult> {
  for (const vessel of [cylinder, ...banks, { volumeL: 1, pressureBarAbs: fullBarAbs }]) {
    const wrong = vesselProblem(vessel, tempC);
    if (wrong) return wrong;
  }
  const left = banks.map((bank) => ({ ...bank }));
  const order = left
    .map((_, index) => index)
    .sort((a, b) => left[a]!.pressureBarAbs - left[b]!.pressureBarAbs);
  const steps: { bank: number; toBarAbs: number }[] = [];
  let pressure = cylinder.pressureBarAbs;
  const massAt = (vessel: GasVessel) => massInVolume(vessel.volumeL, vessel.pressureBarAbs, tempC);
  for (const index of order) {
    const bank = left[index]!;
    if (bank.pressureBarAbs <= pressure || pressure >= fullBarAbs) continue;
    const inCylinder = massAt({ ...cylinder, pressureBarAbs: pressure });
    const together = inCylinder + massAt(bank);
    const even = pressureOf(cylinder.volumeL + bank.volumeL, together, tempC);
    const reached = Math.min(even, fullBarAbs);
    const given = massAt({ ...cylinder, pressureBarAbs: reached }) - inCylinder;
    left[index] = {
      ...bank,
      pressureBarAbs: Math.max(LEAST_BAR, pressureOf(bank.volumeL, massAt(bank) - given, tempC)),
    };
    pressure = reached;
    steps.push({ bank: index, toBarAbs: reached });
  }
  return succeed({ cylinderBarAbs: pressure, banks: left, steps });
}
