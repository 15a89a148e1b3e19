import { verdicts, type CheckValues, type Verdict } from '@entretien/core/checks';
import { MOST_METER_HOURS } from '@entretien/core/hours';
import { IsBoolean, IsIn, Matches, ValidateBy } from 'class-validator';
import { PageQuery } from './queries.js';
import { IsFigure, IsId, IsInstant, IsText, Optional, textLimits } from './rules.js';

const MOST_VALUES = 60;
const LONGEST_CODE = 40;
/** A finding is a code or a day; a few words where somebody gives a reason. */
const LONGEST_VALUE = 200;

export function IsCheckCode(): PropertyDecorator {
  return Matches(/^[a-z][a-z0-9-]{1,39}$/, { message: 'A check is named by its code, like pump-up.' });
}

/** Figures and findings by the code of their field; which fields there are is the check's own affair. */
export function IsCheckValues(): PropertyDecorator {
  return ValidateBy({
    name: 'isCheckValues',
    validator: {
      validate: (value: unknown) =>
        typeof value === 'object' &&
        value !== null &&
        !Array.isArray(value) &&
        Object.keys(value).length <= MOST_VALUES &&
        Object.entries(value).every(
          ([code, one]: [string, unknown]) =>
            code.length <= LONGEST_CODE &&
            ((typeof one === 'number' && Number.isFinite(one)) ||
              (typeof one === 'string' && one.length > 0 && one.length <= LONGEST_VALUE)),
        ),
      defaultMessage: () => 'Send the figures by their fields: numbers, or short words.',
    },
  });
}

/** Something was measured or looked at. */
export class RecordMeasurement {
  @IsId() id: string;
  @IsCheckCode() check: string;
  @IsInstant() takenAt: string;
  @IsCheckValues() values: CheckValues;
  /** Figure on the meter then fitted; counts as a reading too. */
  @Optional() @IsFigure('The hours', 0, MOST_METER_HOURS) hours?: number;
  /** Whether later measurements of the check are compared with this one. */
  @Optional() @IsBoolean({ message: 'baseline is true or false.' }) baseline?: boolean;
  @Optional() @IsText('The note', textLimits.note) note?: string;
  /** Id of the measurement that this one puts right. */
  @Optional() @IsId() corrects?: string;
  @Optional() @IsId() by?: string;
}

/** A measurement to be judged, and not recorded. */
export class JudgeValues {
  /** The unit it is of; without one it is judged by itself. */
  @Optional() @IsId() compressorId?: string;
  @IsCheckCode() check: string;
  @IsCheckValues() values: CheckValues;
}

/** Which measurements of a unit. */
export class MeasurementsQuery extends PageQuery {
  @Optional() @IsCheckCode() check?: string;
  @Optional() @IsInstant() from?: string;
  @Optional() @IsInstant() to?: string;
}

/** The library: all of it, or what a unit can have. */
export class CheckLibraryQuery {
  @Optional() @IsId() compressorId?: string;
}

/** What was lately judged; by default everything but good. */
export class FindingsQuery {
  @Optional()
  @IsIn(verdicts.filter((verdict) => verdict !== 'good'), { message: 'verdict is watch, act or stop.' })
  verdict?: Exclude<Verdict, 'good'>;
}
