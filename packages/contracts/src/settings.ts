import { Matches } from 'class-validator';
import { all, IsFigure, IsText, Optional, textLimits } from './rules.js';

/** Bounds of the pause after which an isolation is looked at again, min. */
export const pauseLimits = { min: 5, max: 60 } as const;

/** Bounds of what papers are calculated with. */
export const moneyLimits = { taxPercent: 50, labourCentsPerHour: 1_000_000 } as const;

const IsPause = () => IsFigure('The minutes of a pause', pauseLimits.min, pauseLimits.max);

function IsCurrency(): PropertyDecorator {
  return all(Matches(/^[A-Z]{3}$/, { message: 'A currency is named by its three letters, like EUR.' }));
}

/** How this workshop has the guard set, and what stands on its papers. What is left out stays as it is. */
export class SaveSettings {
  /** A pause is one after this long. */
  @Optional() @IsPause() isolationMinutes?: number;
  /** The same above 40 bar. */
  @Optional() @IsPause() isolationMinutesHighPressure?: number;
  /** What the workshop is called on its papers; null takes it off. */
  @Optional() @IsText('The name of the workshop', textLimits.name) workshopName?: string | null;
  @Optional() @IsCurrency() currency?: string;
  /** Added to the total of a report; 0 leaves the line out. */
  @Optional() @IsFigure('The tax in per cent', 0, moneyLimits.taxPercent) taxPercent?: number;
  /** An hour of work; 0 leaves labour off the papers. */
  @Optional()
  @IsFigure('The price of an hour in hundredths', 0, moneyLimits.labourCentsPerHour)
  labourCentsPerHour?: number;
}

/** Everything that is set, or what holds where nothing is. */
export type WorkshopSettings = Readonly<Required<SaveSettings>>;
