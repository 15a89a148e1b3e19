import type { CheckValues } from '@entretien/core/checks';
import { MOST_METER_HOURS } from '@entretien/core/hours';
import { isolationAnswers, MOST_GAUGE_BAR, MOST_NOTED_C, needles } from '@entretien/core/isolation';
import { stopLimits } from '@entretien/core/stop';
import {
  measurePhases,
  MOST_PARTS,
  stepLimits,
  lookFindings,
  taskOutcomes,
  type MeasurePhase,
  type StepKind,
} from '@entretien/core/visit';
import { ArrayMaxSize, IsArray, IsBoolean, IsIn, NotEquals } from 'class-validator';
import { IsCheckCode, IsCheckValues } from './measurements.js';
import { all, IsFigure, IsId, IsTaskCode, IsText, Optional } from './rules.js';

function IsFlag(what: string): PropertyDecorator {
  return IsBoolean({ message: `${what} must be true or false.` });
}

function AreCodes(what: string): PropertyDecorator {
  const message = `${what} are named by their codes, ${stepLimits.codes} at most.`;
  return all(IsArray({ message }), ArrayMaxSize(stepLimits.codes, { message }), IsTaskCode({ each: true }));
}

const IsCode = (what: string) => IsText(what, stepLimits.code);
const IsReason = (what = 'The reason') => IsText(what, stepLimits.reason);

/** A step of the isolation. */
export class IsolateDetails {
  @IsCode('The step') step: string;
  @IsFlag('confirmed') confirmed: boolean;
  @Optional() @IsCode('The place') tile?: string;
  @Optional()
  @IsIn(isolationAnswers, { message: `What was seen is one of ${isolationAnswers.join(', ')}.` })
  answer?: string;
  @Optional() @IsIn(needles, { message: `The needle is one of ${needles.join(', ')}.` }) needle?: string;
  @Optional() @IsFigure('The pressure on the gauge', 0, MOST_GAUGE_BAR) pressureBar?: number;
  @Optional() @IsFigure('The temperature', -60, MOST_NOTED_C) tempC?: number;
  @Optional() @IsFlag('Whether it is sure') isSure?: boolean;
  @Optional() @IsReason('How it was proved, or who was told') provedBy?: string;
}

/** Power and air are back. */
export class RestartDetails {
  @AreCodes('What was gone through') steps: string[];
  @Optional()
  @IsIn(['point'], { message: 'Only a point of use is given its air back by itself.' })
  scope?: string;
}

/** The joints were looked at under pressure. */
export class LeakCheckDetails {
  @IsFlag('Whether all is tight') tight: boolean;
  @Optional() @IsReason('What was seen') text?: string;
}

/** What became of a task. */
export class TaskDetails {
  @IsCode('The task') task: string;
  @IsIn(taskOutcomes, { message: `What became of it is one of ${taskOutcomes.join(', ')}.` })
  outcome: (typeof taskOutcomes)[number];
  @Optional() @IsReason() reason?: string;
}

/** A task of unknown history was looked at. */
export class LookDetails {
  @IsCode('The task') task: string;
  @IsIn(lookFindings, { message: `How it was found is one of ${lookFindings.join(', ')}.` })
  found: (typeof lookFindings)[number];
}

/** A station was gone through. */
export class StationDetails {
  @IsCode('The station') station: string;
  @AreCodes('The tasks') tasks: string[];
}

/** A task is taken as done without its proof. */
export class CloseDetails {
  @IsCode('The task') task: string;
  @IsReason() reason: string;
}

/** Tasks join the visit. */
export class PlanDetails {
  @AreCodes('The tasks') tasks: string[];
}

/** Tasks leave the visit again. */
export class TakeOutDetails extends PlanDetails {}

/** A part was used, or taken back. */
export class PartDetails {
  @Optional() @IsId() part?: string;
  @IsText('The name of the part', stepLimits.name) name: string;
  @IsFigure('The number of parts', -MOST_PARTS, MOST_PARTS)
  @NotEquals(0, { message: 'The number of parts must not be nothing.' })
  count: number;
  @Optional() @IsCode('The task') task?: string;
  @Optional() @IsReason() reason?: string;
}

/** Something was measured. */
export class MeasureDetails {
  @IsIn(measurePhases, { message: `When it was measured is one of ${measurePhases.join(', ')}.` })
  phase: MeasurePhase;
  @IsCheckCode() check: string;
  @IsCheckValues() values: CheckValues;
}

/** A reading before the work is left out. */
export class SkipDetails {
  @IsCheckCode() check: string;
  @IsReason() reason: string;
}

/** The meter was read. */
export class HoursDetails {
  @IsFigure('The hours', 0, MOST_METER_HOURS) hours: number;
}

/** A photo that was sent is shown. */
export class PhotoDetails {
  @IsId() photo: string;
  @Optional() @IsText('The caption', stepLimits.name) caption?: string;
  @Optional() @IsCode('The station') station?: string;
}

export class NoteDetails {
  @IsText('The note', stepLimits.note) text: string;
  @Optional() @IsCode('The station') station?: string;
}

/** A fault was found. */
export class FaultDetails {
  @IsReason('What was found') found: string;
  @Optional() @IsCode('The station') station?: string;
}

/** The unit is signed for. */
export class SignDetails {
  @IsText('The name', stepLimits.name) name: string;
  @Optional() @IsText('The signature', stepLimits.strokes) strokes?: string;
  /** Left out of service: who was told. */
  @Optional() @IsText('Who was told', stopLimits.informed) informed?: string;
  /** Whoever took it over again. */
  @Optional() @IsText('The name of the customer', stepLimits.name) customer?: string;
  @Optional() @IsText('The signature of the customer', stepLimits.strokes) customerStrokes?: string;
}

/** The unit is left for another day. */
export class LeaveDetails {
  @IsReason() reason: string;
}

/** A contract by the kind of what it is about. */
export type Contracts<Kind extends string = string> = Readonly<Record<Kind, new () => object>>;

/** What a step of each kind carries. */
export const stepContracts: Contracts<StepKind> = {
  isolate: IsolateDetails,
  restart: RestartDetails,
  tight: LeakCheckDetails,
  task: TaskDetails,
  look: LookDetails,
  station: StationDetails,
  close: CloseDetails,
  plan: PlanDetails,
  'take-out': TakeOutDetails,
  part: PartDetails,
  measure: MeasureDetails,
  skip: SkipDetails,
  hours: HoursDetails,
  photo: PhotoDetails,
  note: NoteDetails,
  fault: FaultDetails,
  sign: SignDetails,
  leave: LeaveDetails,
};

/** What a repair says of the isolation of its unit. */
export const isolationContracts: Contracts = {
  isolate: stepContracts.isolate,
  restart: stepContracts.restart,
};
