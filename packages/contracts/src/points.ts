import type { CheckValues, Judgement } from '@entretien/core/checks';
import {
  isolationAnswers,
  MOST_GAUGE_BAR,
  needles,
  type IsolateBody,
  type RestartBody,
} from '@entretien/core/isolation';
import {
  bowlDrains,
  bowlMaterials,
  lineLubricators,
  lineOils,
  pointBounds,
  type BowlDrain,
  type BowlMaterial,
  type LineLubricator,
  type LineOil,
  type PointDoubt,
  type PointPlate,
  type PointState,
  type PointTaskStanding,
} from '@entretien/core/points';
import type { NetworkSet } from '@entretien/core/hours';
import { stepLimits } from '@entretien/core/visit';
import { ArrayMaxSize, ArrayUnique, IsArray, IsBoolean, IsIn, ValidateBy } from 'class-validator';
import { IsCheckCode, IsCheckValues } from './measurements.js';
import { PageQuery } from './queries.js';
import { readStrictly } from './refusals.js';
import {
  all,
  IsFigure,
  IsId,
  IsInstant,
  IsLocalDate,
  IsTaskCode,
  IsText,
  IsWhole,
  Omittable,
  Optional,
  textLimits,
} from './rules.js';

const MOST_FEEDING = 12;
const LONGEST_WORDS = 160;

function AreFeeding(what: string): PropertyDecorator {
  return all(
    IsArray({ message: `${what} are a list.` }),
    ArrayMaxSize(MOST_FEEDING, { message: `No more than ${MOST_FEEDING} feed one network.` }),
    ArrayUnique({ message: 'Name each once.' }),
    IsId({ each: true }),
  );
}

function OneOf(what: string, codes: readonly string[]): PropertyDecorator {
  return IsIn(codes, { message: `${what} is one of ${codes.join(', ')}.` });
}

const IsYesNo = (what: string) => IsBoolean({ message: `${what}: yes or no.` });
const Between = (what: string, { min, max }: { min: number; max: number }) => IsFigure(what, min, max);

const { min: LEAST_MONTHS, max: MOST_MONTHS } = pointBounds.elementMonths;
const IsElementMonths = () =>
  IsWhole(`An element lasts whole months, ${LEAST_MONTHS} to ${MOST_MONTHS}.`, LEAST_MONTHS, MOST_MONTHS);

/** What may be known of a point of use beside what it hangs on. */
export class PointDetails {
  @Optional() @IsText('Where it hangs', textLimits.name) place?: string | null;
  @Optional() @Between('The lowest rating behind it', pointBounds.ratedBar) ratedBar?: number | null;
  @Optional() @Between('The fineness of the filter', pointBounds.micron) filterMicron?: number | null;
  @Optional() @OneOf('The bowl', bowlMaterials) bowl?: BowlMaterial | null;
  @Optional() @IsYesNo('Its guard') hasGuard?: boolean | null;
  @Optional() @OneOf('Its drain', bowlDrains) drain?: BowlDrain | null;
  @Optional() @IsElementMonths() elementEveryMonths?: number | null;
  @Optional() @Between('The setting of the regulator', pointBounds.regulatorBar) regulatorBar?: number | null;
  @Optional() @IsYesNo('Whether it relieves') isRelieving?: boolean | null;
  @Optional() @OneOf('The lubricator', lineLubricators) lubricator?: LineLubricator | null;
  @Optional() @OneOf('Its oil', lineOils) oil?: LineOil | null;
  @Optional() @Between('The drops a minute', pointBounds.drops) dropsPerMinute?: number | null;
  @Optional() @IsText('Which way is more', textLimits.short) moreBy?: string | null;
}

/** A point of use taken into the register. */
export class RegisterPoint extends PointDetails {
  @IsId() id: string;
  @IsId() siteId: string;
  @IsText('The tag', textLimits.tag) tag: string;
  /** The compressors that feed its network: one at least. */
  @AreFeeding('The units that feed it') compressorIds: string[];
  @AreFeeding('The vessels that feed it') vesselIds: string[];
  @IsLocalDate() fittedOn: string;
  @IsText('What moves when the air goes', LONGEST_WORDS) whenAirGoes: string;
  @IsYesNo('Whether somebody breathes from it') isBreathed: boolean;
  @Optional() @IsText('The note', textLimits.note) note?: string;
  @Optional() @IsId() by?: string;
}

/** What became known of a point of use: only the fields that change; null makes one unknown again. */
export class ChangePoint extends PointDetails {
  @IsId() id: string;
  @Omittable() @IsText('The tag', textLimits.tag) tag?: string;
  @Omittable() @AreFeeding('The units that feed it') compressorIds?: string[];
  @Omittable() @AreFeeding('The vessels that feed it') vesselIds?: string[];
  @Omittable() @IsText('What moves when the air goes', LONGEST_WORDS) whenAirGoes?: string;
  @Omittable() @IsYesNo('Whether somebody breathes from it') isBreathed?: boolean;
  @Optional() @IsLocalDate() retiredOn?: string | null;
  @Optional() @IsText('The note', textLimits.note) note?: string;
  @Optional() @IsId() by?: string;
}

/** A task that was done at a point of use, and when. */
class PointTaskSent {
  @IsTaskCode() code: string;
  @IsInstant() at: string;
}

/** Something that was looked at or measured at a point of use, and when. */
class PointLookSent {
  @IsCheckCode() check: string;
  @IsCheckValues() values: CheckValues;
  @IsInstant() at: string;
}

/** A step of its isolation, or its air back. */
class PointStepSent {
  @IsInstant() at: string;
  @OneOf('A step', ['isolate', 'restart']) kind: 'isolate' | 'restart';
  @Optional() @IsText('The step', stepLimits.code) step?: string;
  @Optional() @IsYesNo('confirmed') confirmed?: boolean;
  @Optional() @OneOf('What was seen', isolationAnswers) answer?: string;
  @Optional() @OneOf('The needle', needles) needle?: string;
  @Optional() @IsFigure('The pressure on the gauge', 0, MOST_GAUGE_BAR) pressureBar?: number;
  @Optional() @IsYesNo('Whether it is sure') isSure?: boolean;
  @Optional()
  @IsArray({ message: 'What was gone through is a list.' })
  @ArrayMaxSize(10, { message: 'What was gone through is a short list.' })
  @IsTaskCode({ each: true })
  steps?: string[];
  @Optional() @OneOf('Its scope', ['point']) scope?: 'point';
}

/** Each is read as its class has it: a nested class would need decorators’ metadata in the page, too. */
function AreEach(what: string, contract: new () => object, most: number): PropertyDecorator {
  const problemOf = (value: unknown): string | null => {
    if (!Array.isArray(value) || value.length > most) return `${what} are a list of ${most} at most.`;
    for (const one of value as unknown[]) {
      if (typeof one !== 'object' || one === null || Array.isArray(one))
        return `${what} are a list of objects.`;
      const [first] = readStrictly(contract, one).errors;
      if (first) return `${what}: ${first.message}`;
    }
    return null;
  };
  return ValidateBy({
    name: 'areEach',
    validator: {
      validate: (value: unknown) => problemOf(value) === null,
      defaultMessage: (args) => problemOf(args?.value) ?? '',
    },
  });
}

/** Work at a point of use: what was done and found, with the isolation that it was done behind. */
export class RecordPointWork {
  @IsId() id: string;
  /** When the last of it was done. */
  @IsInstant() doneAt: string;
  @AreEach('The tasks', PointTaskSent, 20) tasks: PointTaskSent[];
  @AreEach('What was looked at', PointLookSent, 20) looks: PointLookSent[];
  @AreEach('The steps', PointStepSent, 80) steps: PointStepSent[];
  @Optional() @IsText('The note', textLimits.note) note?: string;
  @Optional() @IsId() by?: string;
}

/** Work at a point of use that was put down wrongly. */
export class WithdrawPointWork {
  @IsId() id: string;
  @IsId() workId: string;
  @IsText('The reason', textLimits.note) reason: string;
  @Optional() @IsId() by?: string;
}

export class PointsQuery extends PageQuery {
  @Optional() @IsText('The unit', textLimits.short) compressorId?: string;
  @Optional() @IsText('The site', textLimits.short) siteId?: string;
  /** Only those with something due, or stopped. */
  @Optional() @OneOf('show', ['in-service', 'all', 'due']) show?: 'in-service' | 'all' | 'due';
}

export interface PointFeedView {
  readonly id: string;
  readonly tag: string;
}

export interface PointTaskView extends Omit<PointTaskStanding, 'lastDoneAt'> {
  readonly lastDoneAt: string | null;
}

/** A point of use as a list shows it: how it stands, and what it hangs on. */
export interface PointBriefView {
  readonly id: string;
  readonly siteId: string;
  readonly siteName: string;
  readonly tag: string;
  readonly place?: string | null | undefined;
  readonly units: readonly PointFeedView[];
  readonly state: PointState;
  readonly stops: PointView['stops'];
  readonly tasks: readonly Pick<PointTaskStanding, 'code' | 'name' | 'state' | 'used' | 'dueOn'>[];
}

/** A point of use as it stands. */
export interface PointView extends PointPlate {
  readonly id: string;
  readonly siteName: string;
  readonly timeZone: string;
  readonly note?: string;
  readonly units: readonly PointFeedView[];
  readonly vessels: readonly PointFeedView[];
  readonly state: PointState;
  readonly stops: readonly {
    readonly workId: string;
    readonly check: string;
    readonly since: string;
    readonly why: string;
  }[];
  readonly tasks: readonly PointTaskView[];
  readonly doubts: readonly PointDoubt[];
}

/** The sets of a unit’s network, and which of them should run first. */
export interface TurnsView {
  readonly network: string | null;
  readonly sets: readonly NetworkSet[];
  readonly next: string | null;
  /** Null for a network of one. */
  readonly sentence: string | null;
}

/** What was done at a point of use. */
export interface PointWorkView {
  readonly id: string;
  readonly doneAt: string;
  readonly recordedAt: string;
  readonly by: string;
  readonly note?: string;
  readonly tasks: readonly { readonly code: string; readonly at: string }[];
  readonly looks: readonly {
    readonly check: string;
    readonly values: CheckValues;
    readonly at: string;
    readonly judgement: Judgement;
  }[];
  readonly steps: readonly ({ readonly at: string } & (IsolateBody | RestartBody))[];
  /** Why it no longer stands. */
  readonly withdrawn?: { readonly at: string; readonly by: string; readonly reason: string };
}
