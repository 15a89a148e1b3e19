import type { Exercise } from '../exercise.js';
import { FREE, freeExercise } from './free.js';
import { highPressureExercises } from './high-pressure.js';
import { screwExercises } from './screw.js';
import { smallExercises } from './small.js';

export { FREE, freeExercise };

/** The exercises, from easy to hard. */
export const exercises: readonly Exercise[] = [
  ...smallExercises,
  ...screwExercises,
  ...highPressureExercises,
];

/** An exercise by its code; the free one is drawn with the seed. */
export function exerciseByCode(code: string, seed: string): Exercise | undefined {
  if (code === FREE) return freeExercise(seed);
  return exercises.find((one) => one.code === code);
}
