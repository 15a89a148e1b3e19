import {
  counterKinds,
  meterChangeReasons,
  MOST_METER_HOURS,
  readingSources,
  type CounterKind,
  type MeterChangeReason,
  type ReadingSource,
} from '@entretien/core/hours';
import { ArrayMaxSize, ArrayMinSize, ArrayUnique, IsArray, IsIn, IsObject } from 'class-validator';
import { IsFigure, IsId, IsInstant, IsTaskCode, IsText, Optional, textLimits } from './rules.js';

/** The meter was read. */
export class RecordReading {
  @IsId() id: string;
  @IsInstant() takenAt: string;
  @IsFigure('The hours', 0, MOST_METER_HOURS) hours: number;
  @IsIn(counterKinds, { message: 'Say which hours it counts: total or loaded.' }) counts: CounterKind;
  @IsIn(readingSources, { message: `The source must be one of ${readingSources.join(', ')}.` })
  source: ReadingSource;
  @Optional() @IsText('The note', textLimits.note) note?: string;
  /** Id of the reading that this one puts right. */
  @Optional() @IsId() corrects?: string;
  @Optional() @IsId() by?: string;
}

/** The meter was replaced, reset, or ran past its last digit. */
export class RecordMeterChange {
  @IsId() id: string;
  @IsInstant() changedAt: string;
  @IsFigure('The last figure of the old meter', 0, MOST_METER_HOURS) oldFinalHours: number;
  @IsFigure('The first figure of the new meter', 0, MOST_METER_HOURS) newStartHours: number;
  @IsIn(meterChangeReasons, { message: `The reason must be one of ${meterChangeReasons.join(', ')}.` })
  reason: MeterChangeReason;
  @Optional() @IsText('The note', textLimits.note) note?: string;
  @Optional() @IsId() corrects?: string;
  @Optional() @IsId() by?: string;
}

/** Work was done. */
export class RecordService {
  @IsId() id: string;
  @IsInstant() doneAt: string;
  /** Figure on the meter then fitted; counts as a reading too. */
  @Optional() @IsFigure('The hours', 0, MOST_METER_HOURS) hours?: number;
  @IsArray({ message: 'Say which tasks were done.' })
  @ArrayMinSize(1, { message: 'Choose at least one task.' })
  @ArrayMaxSize(60, { message: 'No more than 60 tasks at once.' })
  @ArrayUnique({ message: 'Each task can be done once in a service.' })
  @IsTaskCode({ each: true })
  tasks: string[];
  @Optional() @IsText('The note', textLimits.note) note?: string;
  @Optional() @IsId() corrects?: string;
  @Optional() @IsId() by?: string;
}

/** A fact was wrong and has no other in its place. */
export class WithdrawFact {
  @IsId() id: string;
  @IsText('The reason', textLimits.note) reason: string;
  @Optional() @IsId() by?: string;
}

/** Most readings sent at once. */
export const MOST_BATCH_READINGS = 500;

/** One of many readings sent together. */
export class BatchReading extends RecordReading {
  @IsId() compressorId: string;
}

/**
 * Readings sent together. Only the list itself is checked with the request: each row is judged by itself, so
 * that one bad row does not hold up the others.
 */
export class RecordReadings {
  @IsArray({ message: 'Send the readings as a list.' })
  @ArrayMaxSize(MOST_BATCH_READINGS, { message: `No more than ${MOST_BATCH_READINGS} readings at once.` })
  @IsObject({ each: true, message: 'Each reading must be an object.' })
  readings: object[];
}
