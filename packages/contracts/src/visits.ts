import { repairKinds, type RepairKind } from '@entretien/core/repairs';
import { partClasses, type PartClass, type PartFigures } from '@entretien/core/parts';
import type { StepKind } from '@entretien/core/visit';
import {
  ArrayMaxSize,
  ArrayMinSize,
  ArrayUnique,
  IsArray,
  IsBoolean,
  IsIn,
  IsInt,
  IsObject,
  Matches,
  Max,
  Min,
  ValidateBy,
} from 'class-validator';
import { PageQuery } from './queries.js';
import {
  all,
  IsFigure,
  isId,
  IsId,
  IsInstant,
  IsLocalDate,
  isTaskCode,
  IsText,
  IsWhole,
  Omittable,
  Optional,
  textLimits,
} from './rules.js';

/** A unit of a visit, with the tasks planned for it. */
export interface PlannedCompressor {
  readonly compressorId: string;
  readonly tasks: readonly string[];
}

function isPlannedCompressor(value: unknown): value is PlannedCompressor {
  if (typeof value !== 'object' || value === null) return false;
  const { compressorId, tasks, ...more } = value as Record<string, unknown>;
  return (
    Object.keys(more).length === 0 &&
    isId(compressorId) &&
    Array.isArray(tasks) &&
    tasks.length <= 100 &&
    new Set(tasks).size === tasks.length &&
    tasks.every(isTaskCode)
  );
}

/** Checked by hand: a nested class would need decorators' metadata in the page, too. */
function ArePlannedCompressors(): PropertyDecorator {
  return ValidateBy({
    name: 'arePlannedUnits',
    validator: {
      validate: (value) => Array.isArray(value) && value.every(isPlannedCompressor),
      defaultMessage: () => 'Each is a unit by its id, with its tasks by their codes, each once.',
    },
  });
}

/** A visit is planned, or begun. */
export class PlanVisit {
  @IsId() id: string;
  @IsId() siteId: string;
  @IsLocalDate() plannedOn: string;
  @IsArray({ message: 'Say which units are visited.' })
  @ArrayMinSize(1, { message: 'Choose at least one unit.' })
  @ArrayMaxSize(60, { message: 'No more than 60 units in a visit.' })
  @ArrayUnique((unit: PlannedCompressor | null) => unit?.compressorId, { message: 'Name each unit once.' })
  @ArePlannedCompressors()
  units: PlannedCompressor[];
  @Optional() @IsText('The note', textLimits.note) note?: string;
  @Optional() @IsId() by?: string;
}

/** Something happened on one unit of a visit. */
export class RecordVisitStep {
  @IsId() id: string;
  @IsId() compressorId: string;
  @IsText('The kind of step', textLimits.short) kind: StepKind;
  @IsInstant() doneAt: string;
  /** One opening of the page on one device: a reload begins another. */
  @IsText('The session', textLimits.short) session: string;
  /** What belongs to that kind of step. */
  @IsObject({ message: 'The details are given by their fields.' }) details: object;
  @Optional() @IsId() by?: string;
}

/** The unit is isolated, or started again, for the work of a repair. */
export class RecordRepairStep {
  @IsId() id: string;
  @IsText('The kind of step', textLimits.short) kind: string;
  @IsInstant() doneAt: string;
  @IsText('The session', textLimits.short) session: string;
  @IsObject({ message: 'The details are given by their fields.' }) details: object;
  @Optional() @IsId() by?: string;
}

export class VisitsQuery extends PageQuery {
  @Optional() @IsId() siteId?: string;
  @Optional() @IsId() compressorId?: string;
  @Optional() @Matches(/^(open|all)$/, { message: 'show must be open or all.' }) show?: string;
}

/** A photo of a visit is sent as it is, with its id. */
export class PhotoQuery {
  @IsId() id: string;
}

/** A photo of a unit is sent as it is, with its id and what it shows. */
export class CompressorPhotoQuery extends PhotoQuery {
  @Optional() @IsText('The caption', textLimits.name) caption?: string;
}

/** A fault was found, or something was changed on purpose. */
export class OpenRepair {
  @IsId() id: string;
  @IsIn(repairKinds, { message: `It is one of ${repairKinds.join(', ')}.` }) kind: RepairKind;
  @IsInstant() foundAt: string;
  @IsText('What was found', 500) found: string;
  @Optional()
  @Matches(/^[a-z][a-z0-9-]{1,39}$/, { message: 'A station is named by its code, like stage-1.' })
  station?: string;
  @Optional() @IsText('The note', textLimits.note) note?: string;
  @Optional() @IsId() by?: string;
}

export class RepairsQuery extends PageQuery {
  @Optional() @Matches(/^(open|all)$/, { message: 'show must be open or all.' }) show?: string;
}

const FIGURES: Readonly<Record<keyof PartFigures, readonly [number, number] | 'text'>> = {
  ratedFlowLpm: [1, 1_000_000],
  micron: [0.001, 1000],
  thread: 'text',
  maxTempC: [-50, 500],
  maxBar: [0, 1000],
  dustG: [0, 100_000],
  lengthMm: [1, 10_000],
  widthMm: [1, 10_000],
};

function ArePartFigures(): PropertyDecorator {
  return ValidateBy({
    name: 'arePartFigures',
    validator: {
      validate: (value) =>
        typeof value === 'object' &&
        value !== null &&
        Object.entries(value).every(([field, figure]) => {
          const rule = Object.hasOwn(FIGURES, field) ? FIGURES[field as keyof PartFigures] : undefined;
          if (rule === undefined) return false;
          if (rule === 'text') return typeof figure === 'string' && figure.length > 0 && figure.length <= 24;
          return typeof figure === 'number' && figure >= rule[0] && figure <= rule[1];
        }),
      defaultMessage: () =>
        `The figures of a part are ${Object.keys(FIGURES).join(', ')}, each within its bounds.`,
    },
  });
}

function IsCents(): PropertyDecorator {
  return all(
    IsInt({ message: 'The price is a whole number of cents.' }),
    Min(0, { message: 'A price is not below nothing.' }),
    Max(100_000_000, { message: 'A price is a million at most.' }),
  );
}

function AreFitting(): PropertyDecorator {
  return all(
    IsArray({ message: 'The units that it fits are a list.' }),
    ArrayMaxSize(500, { message: 'No more than 500 units.' }),
    ArrayUnique({ message: 'Name each unit once.' }),
    IsId({ each: true }),
  );
}

const CONTENTS_LENGTH = 500;

const IsLeadDays = () => IsWhole('It comes within whole days, 0 to 365.', 0, 365);

/** A part taken into the catalogue. */
export class AddPart {
  @IsId() id: string;
  @IsText('The number', 40) number: string;
  @IsText('The name', textLimits.name) name: string;
  @IsIn(partClasses, { message: `It is one of ${partClasses.join(', ')}.` }) class: PartClass;
  /** The line of a kit that it answers, like “oil filter”. */
  @IsText('What it answers', textLimits.name) answers: string;
  @AreFitting() fits: string[];
  @ArePartFigures() figures: PartFigures;
  @Optional() @IsCents() priceCents?: number;
  @Optional() @IsText('The supplier', textLimits.short) supplier?: string;
  /** What lies in a kit. */
  @Optional() @IsText('The contents', CONTENTS_LENGTH) contents?: string;
  /** Days until it comes. */
  @Optional() @IsLeadDays() leadDays?: number;
  /** Where else it is to be had. */
  @Optional() @IsText('The second source', textLimits.short) secondSource?: string;
  /** What lies in the van now. */
  @Optional() @IsFigure('The stock', 0, 100_000) inVan?: number;
  @Optional() @IsText('The note', textLimits.note) note?: string;
  @Optional() @IsId() by?: string;
}

/** A part is put right, taken out of the catalogue, or taken back into it. What is left out stays as it is. */
export class ChangePart {
  @IsId() id: string;
  @Omittable() @IsText('The number', 40) number?: string;
  @Omittable() @IsText('The name', textLimits.name) name?: string;
  @Omittable()
  @IsIn(partClasses, { message: `It is one of ${partClasses.join(', ')}.` })
  class?: PartClass;
  @Omittable() @IsText('What it answers', textLimits.name) answers?: string;
  @Omittable() @AreFitting() fits?: string[];
  @Omittable() @ArePartFigures() figures?: PartFigures;
  @Optional() @IsCents() priceCents?: number | null;
  @Optional() @IsText('The supplier', textLimits.short) supplier?: string | null;
  /** What lies in a kit. */
  @Optional() @IsText('The contents', CONTENTS_LENGTH) contents?: string | null;
  /** Days until it comes. */
  @Optional() @IsLeadDays() leadDays?: number | null;
  /** Where else it is to be had. */
  @Optional() @IsText('The second source', textLimits.short) secondSource?: string | null;
  @Omittable() @IsBoolean({ message: 'isRetired is true or false.' }) isRetired?: boolean;
  @Optional() @IsText('The note', textLimits.note) note?: string;
  @Optional() @IsId() by?: string;
}

/** Parts were put into the van, or counted. */
export class MovePart {
  @IsId() id: string;
  @IsInstant() movedAt: string;
  /** More, or fewer where it is below nothing. */
  @IsFigure('The change', -100_000, 100_000) count: number;
  @Optional() @IsText('The note', textLimits.note) note?: string;
  @Optional() @IsId() by?: string;
}

/** May a part take the place of another on a unit? */
export class CompareParts {
  @IsId() compressorId: string;
  @IsId() original: string;
  @IsId() offered: string;
  @Optional() @IsBoolean({ message: 'hasAdapter is true or false.' }) hasAdapter?: boolean;
}

/** Which facts of the fleet, and how they are wanted. */
export class LogbookQuery extends PageQuery {
  @Optional()
  @IsText('kind', 40)
  kind?: string;
  @Optional() @IsId() compressorId?: string;
  @Optional() @IsId() siteId?: string;
  @Optional() @IsInstant() from?: string;
  @Optional() @IsInstant() to?: string;
  /** Words that all must stand in it. */
  @Optional() @IsText('What is looked for', textLimits.name) q?: string;
}

export class LogbookExportQuery extends LogbookQuery {
  @IsIn(['csv', 'json'], { message: 'format must be csv or json.' }) format: 'csv' | 'json';
}
