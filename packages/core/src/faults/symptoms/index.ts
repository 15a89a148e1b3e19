import type { DataPlate, Family } from '../../machine/index.js';
import type { Symptom } from '../symptom.js';
import { highPressureSymptoms } from './high-pressure.js';
import { oilFreeSymptoms } from './oil-free.js';
import { pistonSymptoms } from './piston.js';
import { screwSymptoms } from './screw.js';

const byFamily: Readonly<Record<Family, readonly Symptom[]>> = {
  piston: pistonSymptoms,
  'piston-oil-free': oilFreeSymptoms,
  screw: screwSymptoms,
  'high-pressure': highPressureSymptoms,
};

/** All symptoms of all families. */
export const allSymptoms: readonly Symptom[] = Object.values(byFamily).flat();

/** What can be seen on a machine, by its family. */
export function symptomsOf(plate: DataPlate): readonly Symptom[] {
  return byFamily[plate.family].filter(({ fits }) => fits?.(plate) ?? true);
}

export function symptomByCode(code: string): Symptom | undefined {
  return allSymptoms.find((symptom) => symptom.code === code);
}
