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
export { ownAir, ownAirFields, USUAL_YEARS, type OwnAir } from './own-air.js';
export { waterFields, waterNow, waterYearInput, yearFields, type WaterNow } from './water.js';

/** A bench: its part of the address, its name, and the page that it is. */
export interface BenchEntry {
  readonly code: string;
  readonly name: string;
  /** File and component of the page. */
  readonly page: string;
  /**
   * Invented figures by the codes of its fields, as somebody would type them, their units with them: what an empty
   * bench shows when an example is asked for. None where an empty one says enough.
   */
  readonly example?: Readonly<Record<string, string>>;
}

/** Every bench, in the order in which they are offered. */
export const benches: readonly [BenchEntry, ...BenchEntry[]] = [
  {
    code: 'pump-up',
    name: 'Pump-up and leak-down',
    page: 'PumpUp',
    example: { volumeL: '270 L', fromBar: '0 bar', toBar: '8 bar', seconds: '400', fadLpm: '330 L/min' },
  },
  {
    code: 'leaks',
    name: 'Leaks and their cost',
    page: 'Leaks',
    example: { onSeconds: '60', offSeconds: '240', fadLpm: '1500 L/min' },
  },
  {
    code: 'ladder',
    name: 'Interstage pressures',
    page: 'Interstage',
    example: { stages: '4', workingBar: '300 bar', intakeTempC: '20 °C' },
  },
  {
    code: 'water',
    name: 'Condensate and cartridge',
    page: 'Water',
    example: {
      intakeTempC: '20 °C',
      humidity: '70',
      fadLpm: '200 L/min',
      finalBar: '225 bar',
      separatorTempC: '30 °C',
      cartridgeG: '150 g',
      warmMonthC: '19 °C',
      coldMonthC: '-2 °C',
      hoursPerWeek: '12',
    },
  },
  {
    code: 'cylinders',
    name: 'Cylinders and banks',
    page: 'Cylinders',
    example: { fillBar: '200 bar', banks: '50*300', cylinders: '12*40*232*2099-12-31' },
  },
  {
    code: 'own-air',
    name: 'Own air or bought',
    page: 'OwnAir',
    example: {
      cylinderL: '6.8 L',
      fromBar: '60 bar',
      toBar: '300 bar',
      fadLpm: '255 L/min',
      powerKw: '5.5',
      cartridgePrice: '90',
      cartridgeHours: '30',
      servicePrice: '600',
      setPrice: '9500',
      fills: '300',
      boughtPrice: '6',
    },
  },
  { code: 'convert', name: 'Convert', page: 'Convert' },
  { code: 'machine', name: 'Simulated machine', page: 'SimulatedMachine' },
];
