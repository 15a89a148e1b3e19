import type { VentedSpace } from './point.js';

/** Gas constant of dry air, J/(kg K), and 20 °C. */
const RT = 287.05 * 293.15;
const GAMMA = 1.4;
const ATMOSPHERE_BAR = 1.01325;
/** A drain is no rounded nozzle (practice). */
const DISCHARGE = 0.8;
/** Where nothing is heard any more. */
const SILENT_BAR = 0.05;
const STEPS = 400;

/** The same space is asked about at every hold. */
const reckoned = new WeakMap<VentedSpace, number>();

/**
 * Least time that a space takes to fall silent through an open vent, s: choked flow, then below it, at 20 °C
 * throughout, which is how slow venting goes. Isentropic nozzle flow as in any text on gas dynamics.
 */
export function leastVentSeconds(space: VentedSpace): number {
  const known = reckoned.get(space);
  if (known !== undefined) return known;
  const seconds = reckon(space);
  reckoned.set(space, seconds);
  return seconds;
}

function reckon({ litres, fromBar, boreMm }: VentedSpace): number {
  const areaM2 = (Math.PI * (boreMm / 1000) ** 2) / 4;
  const scale = litres / 1000 / (DISCHARGE * areaM2 * Math.sqrt(RT));
  const from = fromBar + ATMOSPHERE_BAR;
  const to = SILENT_BAR + ATMOSPHERE_BAR;
  if (from <= to) return 0;
  // d ln p / dt = − flow function / scale; the midpoint rule over the logarithm of the pressure.
  const width = Math.log(from / to) / STEPS;
  let sum = 0;
  for (let index = 0; index < STEPS; index += 1) {
    sum += width / flowFunction(to * Math.exp((index + 0.5) * width));
  }
  return scale * sum;
}

function flowFunction(barAbs: number): number {
  const critical = (2 / (GAMMA + 1)) ** (GAMMA / (GAMMA - 1));
  const ratio = Math.max(ATMOSPHERE_BAR / barAbs, critical);
  const root = ratio ** (2 / GAMMA) - ratio ** ((GAMMA + 1) / GAMMA);
  return Math.sqrt(((2 * GAMMA) / (GAMMA - 1)) * root);
}

/** Bore of the usual drain of a receiver, mm (practice). */
export function usualDrainMm(litres: number): number {
  if (litres <= 10) return 3;
  if (litres <= 50) return 4;
  if (litres <= 300) return 6;
  return litres <= 600 ? 8 : 10;
}
