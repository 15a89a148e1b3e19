import { enhancementFactor, GAMMA, R_AIR, R_WATER, saturationBar, ZERO_C } from '../air/index.js';

export { GAMMA, R_AIR, R_WATER, ZERO_C };

/** Looked up once: the right-hand side asks for them millions of times. */
const { abs, exp, floor, log, max, min, sqrt } = Math;

/** Heats of thin air at constant volume and at constant pressure, J/(kg·K). */
export const CV_AIR = R_AIR / (GAMMA - 1);
export const CP_AIR = CV_AIR + R_AIR;
/** Heat that a kilogram of water takes up when it evaporates, J/kg: kept the same at all temperatures. */
export const LATENT = 2.45e6;
export const BAR = 1e5;

/** The polynomial counts density in this, kg/m³, and temperature as this over T, K. */
const [PER_DENSITY, PER_KELVIN] = [100, 300];

/**
 * Z − 1 as a polynomial in density (rows) and in one over temperature (columns), in the units above, fitted to `compressibility` of
 * `core/air` between −39 and 250 °C up to 450 bar, which it follows within 0.1 %. In density, because then pressure
 * and energy come out of the same formula without a search, and agree with each other exactly.
 */
const [A10, A11, A12] = [0.12164865, -0.10583529, -0.043155471];
const [A20, A21, A22] = [0.02941013, -0.02476395, 0.013840212];
const [A30, A31, A32] = [-0.0010117212, 0.0024530227, -0.0019942553];
const [A40, A41, A42] = [0.00014035215, 0.000019301288, 0.00011782219];

/** Real dry air at a density and a temperature. One is kept and set again and again: nothing is allocated. */
export class AirState {
  /** Compressibility factor. */
  z = 1;
  /** Pa */
  pressure = 0;
  /** Internal energy, J/kg. */
  energy = 0;
  /** Enthalpy, J/kg. */
  enthalpy = 0;
  /** J/(kg·K) */
  heatAtVolume = CV_AIR;

  set(density: number, kelvin: number): void {
    const t = PER_KELVIN / kelvin;
    const r = density / PER_DENSITY;
    const excess =
      r *
      (A10 +
        t * (A11 + t * A12) +
        r * (A20 + t * (A21 + t * A22) + r * (A30 + t * (A31 + t * A32) + r * (A40 + t * (A41 + t * A42)))));
    // What the same polynomial says of the energy: −T²·∫(∂Z/∂T) dρ/ρ.
    const departure =
      r *
      (A11 +
        2 * A12 * t +
        r * ((A21 + 2 * A22 * t) / 2 + r * ((A31 + 2 * A32 * t) / 3 + (r * (A41 + 2 * A42 * t)) / 4)));
    const heat = r * (A12 + r * (A22 / 2 + r * (A32 / 3 + (r * A42) / 4)));
    this.z = 1 + excess;
    this.pressure = density * R_AIR * kelvin * this.z;
    this.energy = CV_AIR * kelvin + R_AIR * PER_KELVIN * departure;
    this.enthalpy = this.energy + (density > 0 ? this.pressure / density : R_AIR * kelvin);
    this.heatAtVolume = CV_AIR - 2 * R_AIR * heat * t * t;
  }
}

const scratch = new AirState();

/** Density of dry air, kg/m³, at a pressure, Pa, and a temperature, K. */
export function densityAt(pressure: number, kelvin: number): number {
  let density = pressure / (R_AIR * kelvin);
  for (let round = 0; round < 30; round++) {
    scratch.set(density, kelvin);
    const next = pressure / (scratch.z * R_AIR * kelvin);
    if (abs(next - density) < 1e-12 * next) return next;
    density = next;
  }
  return density;
}

/** Internal energy of dry air, J/kg. */
export function energyAt(density: number, kelvin: number): number {
  scratch.set(density, kelvin);
  return scratch.energy;
}

const [COLDEST_C, HOTTEST_C] = [-40, 200];
/** Points of the table of saturation, one a kelvin. */
const logSaturation: number[] = [];
const [MOST_BAR, BAR_STEP, TEMP_STEP] = [480, 20, 20];
const enhancement: number[][] = [];

function fillTables(): void {
  for (let tempC = COLDEST_C; tempC <= HOTTEST_C; tempC++) {
    const read = saturationBar(tempC);
    logSaturation.push(log((read.ok ? read.value : 0) * BAR));
  }
  for (let tempC = COLDEST_C; tempC <= HOTTEST_C; tempC += TEMP_STEP) {
    const row: number[] = [];
    for (let bar = 0; bar <= MOST_BAR; bar += BAR_STEP) row.push(enhancementFactor(max(bar, 5), tempC));
    enhancement.push(row);
  }
}

/**
 * Most vapour that a cubic metre holds, kg, from the saturation and the enhancement of `core/air`, in tables that
 * are filled when they are first asked.
 *
 * @param kelvin held to −40 … 200 °C
 * @param pressure Pa, held to 480 bar
 */
export function saturatedDensity(kelvin: number, pressure: number): number {
  if (logSaturation.length === 0) fillTables();
  const tempC = min(HOTTEST_C - 1e-9, max(COLDEST_C, kelvin - ZERO_C));
  const place = tempC - COLDEST_C;
  const low = floor(place);
  const log = logSaturation[low]! + (place - low) * (logSaturation[low + 1]! - logSaturation[low]!);
  return (exp(log) * enhancementAt(place, pressure)) / (R_WATER * kelvin);
}

function enhancementAt(place: number, pressure: number): number {
  const bar = min(MOST_BAR - 1e-9, pressure / BAR);
  // A step that was too long asks for what cannot be; it is refused by its error.
  if (!(bar >= 5 && place >= 0)) return 1;
  const row = min(enhancement.length - 2, floor(place / TEMP_STEP));
  const along = place / TEMP_STEP - row;
  const column = floor(bar / BAR_STEP);
  const across = bar / BAR_STEP - column;
  const [above, below] = [enhancement[row]!, enhancement[row + 1]!];
  const first = above[column]! + across * (above[column + 1]! - above[column]!);
  const second = below[column]! + across * (below[column + 1]! - below[column]!);
  return first + along * (second - first);
}

/** Below this ratio of pressures the flow is choked. */
const CRITICAL = (2 / (GAMMA + 1)) ** (GAMMA / (GAMMA - 1));
const CHOKED = sqrt(GAMMA) * (2 / (GAMMA + 1)) ** ((GAMMA + 1) / (2 * (GAMMA - 1)));
/** So near to equal pressures the flow falls off in a straight line: the root has no slope there that a step could take. */
const NEARLY_EQUAL = 0.004;

function subcritical(ratio: number): number {
  const inner = ratio ** (2 / GAMMA) - ratio ** ((GAMMA + 1) / GAMMA);
  return sqrt(((2 * GAMMA) / (GAMMA - 1)) * inner);
}
const AT_NEARLY = subcritical(1 - NEARLY_EQUAL);

/** Flow function of an isentropic nozzle, without unit, by the ratio of the pressure after it to that before it. */
export function nozzle(ratio: number): number {
  if (ratio <= CRITICAL) return CHOKED;
  if (ratio >= 1) return 0;
  return ratio > 1 - NEARLY_EQUAL ? (AT_NEARLY * (1 - ratio)) / NEARLY_EQUAL : subcritical(ratio);
}

/** Steepest fall of the flow function with the ratio at a point, for the choice of a step. */
export function nozzleSlope(flow: number): number {
  return 1 / max(flow, 0.7 * AT_NEARLY);
}
