import { IsFigure } from './rules.js';

/** Bounds of the pause after which an isolation is looked at again, min. */
export const pauseLimits = { min: 5, max: 60 } as const;

const IsPause = () => IsFigure('The minutes of a pause', pauseLimits.min, pauseLimits.max);

/** How this workshop has the guard set. */
export class WorkshopSettings {
  /** A pause is one after this long. */
  @IsPause() isolationMinutes: number;
  /** The same above 40 bar. */
  @IsPause() isolationMinutesHighPressure: number;
}
