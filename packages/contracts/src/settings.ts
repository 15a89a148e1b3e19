import { ArrayMaxSize, IsArray, Matches, ValidateBy } from 'class-validator';
import { formatsCode, formatsOf } from '@entretien/core/basics';
import { isUnitOf, quantityKinds, type QuantityKind } from '@entretien/core/quantities';
import { all, IsClosure, IsFigure, IsText, Optional, textLimits } from './rules.js';

/** Bounds of the pause after which an isolation is looked at again, min. */
export const pauseLimits = { min: 5, max: 60 } as const;

/** Bounds of what papers are calculated with. */
export const moneyLimits = { taxPercent: 50, labourCentsPerHour: 1_000_000 } as const;

const IsPause = () => IsFigure('The minutes of a pause', pauseLimits.min, pauseLimits.max);

function IsCurrency(): PropertyDecorator {
  return all(Matches(/^[A-Z]{3}$/, { message: 'A currency is named by its three letters, like EUR.' }));
}

/** Most days or spans of days on which a workshop is closed: two years ahead. */
export const MOST_HOLIDAYS = 60;

/** The largest picture that is taken for a logo. */
export const LARGEST_LOGO_MB = 5;

/** Units of measure by quantity. */
export type UnitChoice = Partial<Record<QuantityKind, string>>;

function isUnitChoice(value: unknown): value is UnitChoice {
  return (
    typeof value === 'object' &&
    value !== null &&
    !Array.isArray(value) &&
    Object.entries(value).every(
      ([kind, code]) =>
        quantityKinds.includes(kind as QuantityKind) && isUnitOf(kind as QuantityKind, code as string),
    )
  );
}

function IsUnitChoice(): PropertyDecorator {
  return ValidateBy({
    name: 'isUnitChoice',
    validator: {
      validate: isUnitChoice,
      defaultMessage: () => 'Units are named by quantity, each by one of its codes, like pressure in psi.',
    },
  });
}

function IsFormats(): PropertyDecorator {
  return ValidateBy({
    name: 'isFormats',
    validator: {
      validate: (value) => typeof value === 'string' && formatsCode(formatsOf(value)) === value,
      defaultMessage: () => 'Formats are an order of days and a decimal sign, like day-month.comma.',
    },
  });
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
  /** What is read and written in where a device has not chosen otherwise; a quantity left out is in its stored unit. */
  @Optional() @IsUnitChoice() units?: UnitChoice;
  /** How days and figures are written where a device has not chosen otherwise. */
  @Optional() @IsFormats() formats?: string;
  /** When nobody of the workshop works: each by its first and last day, like `2026-12-24/2027-01-03`. */
  @Optional()
  @IsArray({ message: 'Holidays are a list.' })
  @ArrayMaxSize(MOST_HOLIDAYS, { message: `No more than ${MOST_HOLIDAYS} holidays.` })
  @IsClosure()
  holidays?: string[];
}

/** Everything that is set, or what holds where nothing is. */
export interface WorkshopSettings extends Readonly<Required<SaveSettings>> {
  /** The logo on papers; it has an address of its own. */
  readonly logo: { readonly widthPx: number; readonly heightPx: number } | null;
}
