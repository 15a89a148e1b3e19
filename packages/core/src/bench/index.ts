export { BenchValues, steps, type CurvePoint } from './bench.js';
export { cascadeJob, type TypedCylinder, type TypedJob, type TypedVessel } from './cylinders.js';
export { fillCurve, type FillRun } from './fill-curve.js';
export {
  interstageBench,
  interstageFields,
  interstageStages,
  stageFields,
  type InterstageBench,
} from './interstage.js';
export {
  costByShare,
  costFields,
  holeCoefficients,
  holeFields,
  holeLeak,
  USUAL_COST,
  yearlyCostCents,
  type HoleLeak,
} from './leak-cost.js';
export { waterFields, waterNow, waterYearInput, yearFields, type WaterNow } from './water.js';

/** A bench: its part of the address, its name, and the page that it is. */
export interface BenchEntry {
  readonly code: string;
  readonly name: string;
  /** File and component of the page. */
  readonly page: string;
}

/** Every bench, in the order in which they are offered. */
export const benches: readonly [BenchEntry, ...BenchEntry[]] = [
  { code: 'pump-up', name: 'Pump-up and leak-down', page: 'PumpUp' },
  { code: 'leaks', name: 'Leaks and their cost', page: 'Leaks' },
  { code: 'ladder', name: 'Interstage pressures', page: 'Interstage' },
  { code: 'water', name: 'Condensate and cartridge', page: 'Water' },
  { code: 'cylinders', name: 'Cylinders and banks', page: 'Cylinders' },
  { code: 'convert', name: 'Convert', page: 'Convert' },
];
