import { bounds, outOfRange, ok, type Result } from '../basics/index.js';
import { R_AIR, ZERO_C } from './constants.js';
import { halve } from './halve.js';

/** Air as if it were one gas: pseudo-critical temperature, K, and pressure, bar, and acentric factor. */
const [CRITICAL_K, CRITICAL_BAR, ACENTRIC] = [132.6, 37.7, 0.0335];

/** Constants of a fluid in the equation of state of Lee & Kesler. */
interface Fluid {
  readonly b: readonly [number, number, number, number];
  readonly c: readonly [number, number, number, number];
  readonly d: readonly [number, number];
  readonly beta: number;
  readonly gamma: number;
}

/** Their simple fluid, and n-octane, which stands for all that is not simple (AIChE Journal 21, 1975, 510). */
const simple: Fluid = {
  b: [0.1181193, 0.265728, 0.15479, 0.030323],
  c: [0.0236744, 0.0186984, 0, 0.042724],
  d: [0.155488e-4, 0.623689e-4],
  beta: 0.65392,
  gamma: 0.060167,
};
const octane: Fluid = {
  b: [0.2026579, 0.331511, 0.027655, 0.203488],
  c: [0.0313385, 0.0503618, 0.016901, 0.041577],
  d: [0.48736e-4, 0.0740336e-4],
  beta: 1.226,
  gamma: 0.03754,
};
const OCTANE_ACENTRIC = 0.3978;

/**
 * Compressibility factor Z of dry air by the equation of state of Lee & Kesler. Against the tables at 300 K it
 * lies within 0.2 % up to 300 bar and 0.8 % up to 500.
 *
 * @param pressureBarAbs 0.3 to 600 bar absolute
 * @param tempC −40 to 250 °C
 * @returns Z, without unit; `out-of-range` with a sentence
 * @example compressibility(300, 26.85) // → about 1.107
 */
export function compressibility(pressureBarAbs: number, tempC: number): Result<number> {
  const wrong = outOfRange([
    bounds.pressureBarAbs('pressureBarAbs', pressureBarAbs, 'The pressure'),
    bounds.tempC('tempC', tempC, 'The temperature'),
  ]);
  return wrong ?? ok(compressibilityOf(pressureBarAbs, tempC));
}

/** The same for figures known to be within range. */
export function compressibilityOf(pressureBarAbs: number, tempC: number): number {
  const reducedT = (tempC + ZERO_C) / CRITICAL_K;
  const reducedP = pressureBarAbs / CRITICAL_BAR;
  const ofSimple = fluidZ(simple, reducedT, reducedP);
  return ofSimple + (ACENTRIC / OCTANE_ACENTRIC) * (fluidZ(octane, reducedT, reducedP) - ofSimple);
}

function fluidZ({ b, c, d, beta, gamma }: Fluid, t: number, p: number): number {
  const second = b[0] - b[1] / t - b[2] / t ** 2 - b[3] / t ** 3;
  const third = c[0] - c[1] / t + c[2] / t ** 3;
  const sixth = d[0] + d[1] / t;
  const zOf = (density: number) =>
    1 +
    second * density +
    third * density ** 2 +
    sixth * density ** 5 +
    (c[3] / t ** 3) * density ** 2 * (beta + gamma * density ** 2) * Math.exp(-gamma * density ** 2);
  // Above the critical temperature pressure only grows with density.
  return zOf(halve(0, 12, (density) => density * t * zOf(density) < p));
}

/**
 * Mass of air in a volume.
 *
 * @returns kg
 */
export function massInVolume(volumeL: number, pressureBarAbs: number, tempC: number): number {
  const z = compressibilityOf(pressureBarAbs, tempC);
  return (pressureBarAbs * 1e5 * volumeL * 1e-3) / (z * R_AIR * (tempC + ZERO_C));
}
