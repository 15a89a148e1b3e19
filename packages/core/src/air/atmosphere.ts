import { outOfRange, ok, type Result } from '../basics/index.js';
import { ATMOSPHERE_BAR } from './constants.js';

/**
 * Pressure of the standard atmosphere at an altitude, ISO 2533: p = p₀(1 − 2.25577·10⁻⁵·h)^5.25588.
 *
 * @param altitudeM metres above sea level, −500 to 6,000
 * @returns bar absolute
 * @example atmosphereAt(1000) // → 0.89875 bar
 */
export function atmosphereAt(altitudeM: number): Result<number> {
  const wrong = outOfRange([
    {
      field: 'altitudeM',
      value: altitudeM,
      min: -500,
      max: 6000,
      sentence: 'The altitude must lie between −500 and 6,000 m.',
    },
  ]);
  return wrong ?? ok(ATMOSPHERE_BAR * (1 - 2.25577e-5 * altitudeM) ** 5.25588);
}

/** The air about a place: by its altitude, or one standard atmosphere where that is not known, bar absolute. */
export function airPressureAt(altitudeM: number | null | undefined): number {
  const pressure = atmosphereAt(altitudeM ?? 0);
  return pressure.ok ? pressure.value : ATMOSPHERE_BAR;
}
