import { startingBases, taskLimits, type ServicePlan, type StartingBasis } from '@entretien/core/plan';
import { parseLocalDate } from '@entretien/core/basics';
import { MOST_METER_HOURS } from '@entretien/core/hours';
import { families, type Family } from '@entretien/core/machine';
import {
  ArrayMaxSize,
  ArrayMinSize,
  ArrayUnique,
  IsArray,
  IsIn,
  IsObject,
  ValidateBy,
} from 'class-validator';
import {
  all,
  IsFigure,
  IsId,
  IsInstant,
  IsLocalDate,
  isTaskCode,
  IsTaskCode,
  IsText,
  Optional,
  textLimits,
} from './rules.js';

/** The tasks of a plan: what may stand in each is the plan schema's affair. */
function IsTaskList(): PropertyDecorator {
  return all(
    IsArray({ message: 'The tasks of a plan are a list.' }),
    ArrayMinSize(1, { message: 'A plan has at least one task.' }),
    ArrayMaxSize(100, { message: 'A plan has 100 tasks at most.' }),
  );
}

/** A plan as it is sent. */
export class PlanContent {
  @IsTaskList() tasks: ServicePlan['tasks'];
  @Optional()
  @IsArray({ message: 'The packages of a plan are a list.' })
  @ArrayMaxSize(taskLimits.packages, { message: `A plan has ${taskLimits.packages} packages at most.` })
  packages?: ServicePlan['packages'];
  @Optional()
  @IsObject({ message: 'Choices are given by the code of the question.' })
  choices?: ServicePlan['choices'];
  @Optional()
  @IsObject({ message: 'Factors decided by hand are given by task.' })
  overrides?: ServicePlan['overrides'];
}

/** A plan to be followed from a moment on. */
export class SavePlan extends PlanContent {
  @IsId() id: string;
  /** From when it holds; by default from now. */
  @Optional() @IsInstant() effectiveAt?: string;
  @Optional() @IsText('The note', textLimits.note) note?: string;
  @Optional() @IsId() by?: string;
}

/** Defaults and practice choices: for a unit, or for a family. */
export class PlanLibraryQuery {
  @Optional() @IsId() compressorId?: string;
  @Optional() @IsIn(families, { message: `The family is one of ${families.join(', ')}.` }) family?: Family;
}

/** A task is put off. */
export class DeferTask {
  @IsId() id: string;
  @IsTaskCode() task: string;
  @IsInstant() deferredAt: string;
  @IsText('The reason', textLimits.note) reason: string;
  @Optional() @IsFigure('The limit in run hours', 0, MOST_METER_HOURS) untilHours?: number;
  @Optional() @IsLocalDate() untilOn?: string;
  /** The risk of waiting, by name: asked of every safety task. */
  @Optional() @IsText('The risk', textLimits.note) risk?: string;
  @Optional() @IsText('The note', textLimits.note) note?: string;
  @Optional() @IsId() corrects?: string;
  @Optional() @IsId() by?: string;
}

/** Where one task counts from. */
export interface TaskStart {
  readonly task: string;
  /** Hours of its interval that were used; by default as the clock says since `countsFromOn`. */
  readonly hoursUsed?: number | null;
  /** Figure that the meter showed when it was done, as a sticker says; instead of `hoursUsed`. */
  readonly hoursThen?: number | null;
  /** Day that its months count from; by default the day it was looked at. */
  readonly countsFromOn?: string | null;
}

function areHours(value: unknown): boolean {
  if (value === undefined || value === null) return true;
  return typeof value === 'number' && value >= 0 && value <= MOST_METER_HOURS;
}

function isTaskStart(value: unknown): value is TaskStart {
  if (typeof value !== 'object' || value === null) return false;
  const { task, hoursUsed, hoursThen, countsFromOn, ...more } = value as Record<string, unknown>;
  return (
    Object.keys(more).length === 0 &&
    isTaskCode(task) &&
    [hoursUsed, hoursThen].every(areHours) &&
    (countsFromOn === undefined ||
      countsFromOn === null ||
      (typeof countsFromOn === 'string' && parseLocalDate(countsFromOn).ok))
  );
}

/** Checked by hand: a nested class would need decorators' metadata in the page, too. */
function AreTaskStarts(): PropertyDecorator {
  return ValidateBy({
    name: 'areTaskStarts',
    validator: {
      validate: (value) => Array.isArray(value) && value.every(isTaskStart),
      defaultMessage: () =>
        'Each is a task by its code, with the hours used or the figure on the meter then (0 or more), and the day that its months count from.',
    },
  });
}

/** A first inspection, an accepted estimate or the sticker on the machine says where tasks count from. */
export class SetStartingPoints {
  @IsId() id: string;
  @IsInstant() setAt: string;
  @IsIn(startingBases, { message: `Say what it rests on: ${startingBases.join(', ')}.` })
  basis: StartingBasis;
  @IsArray({ message: 'Say for which tasks.' })
  @ArrayMinSize(1, { message: 'Choose at least one task.' })
  @ArrayMaxSize(100, { message: 'No more than 100 tasks at once.' })
  @ArrayUnique((point: TaskStart | null) => point?.task, { message: 'Name each task once.' })
  @AreTaskStarts()
  points: TaskStart[];
  @Optional() @IsText('The note', textLimits.note) note?: string;
  @Optional() @IsId() corrects?: string;
  @Optional() @IsId() by?: string;
}
