import { compressibilityOf } from './real-gas.js';
import { R_AIR, ZERO_C } from './constants.js';

/** Real air at one temperature, tabulated: for work that asks for it many thousand times. */
export interface Isotherm {
  /** Density at a pressure, kg/m³. */
  densityAt(pressureBarAbs: number): number;
  /** Pressure at a density, bar absolute. */
  pressureAt(density: number): number;
}

const STEP_BAR = 1;
const MOST_BAR = 600;

/**
 * Density over pressure at one temperature, a bar apart and straight between: within 1e-4 of the equation of
 * state.
 *
 * @param tempC −40 to 250 °C
 */
export function isothermAt(tempC: number): Isotherm {
  const densities = Float64Array.from({ length: MOST_BAR / STEP_BAR + 1 }, (_, index) => {
    const pressure = index * STEP_BAR;
    return pressure === 0
      ? 0
      : (pressure * 1e5) / (compressibilityOf(pressure, tempC) * R_AIR * (tempC + ZERO_C));
  });
  const last = densities.length - 2;
  return {
    densityAt(pressureBarAbs) {
      const index = Math.max(0, Math.min(last, Math.floor(pressureBarAbs / STEP_BAR)));
      const share = pressureBarAbs / STEP_BAR - index;
      return densities[index]! + share * (densities[index + 1]! - densities[index]!);
    },
    pressureAt(density) {
      let low = 0;
      let high = last;
      while (low < high) {
        const middle = (low + high + 1) >> 1;
        if (densities[middle]! <= density) low = middle;
        else high = middle - 1;
      }
      const share = (density - densities[low]!) / (densities[low + 1]! - densities[low]!);
      return (low + share) * STEP_BAR;
    },
  };
}
