import { connectorBars, cylinderGases, type CylinderGas } from '@entretien/core/filling';
import {
  vesselExaminations,
  vesselKinds,
  type VesselExamination,
  type VesselKind,
} from '@entretien/core/plan';
import { ArrayMaxSize, ArrayUnique, IsArray, IsBoolean, IsIn, Matches } from 'class-validator';
import { PageQuery } from './queries.js';
import {
  all,
  IsFigure,
  IsId,
  IsLocalDate,
  IsText,
  IsWhole,
  Omittable,
  Optional,
  textLimits,
} from './rules.js';

function IsMonths(what: string): PropertyDecorator {
  return IsWhole(`${what} come round every so many whole months, 1 to 600.`, 1, 600);
}

function IsCompressorList(): PropertyDecorator {
  return all(
    IsArray({ message: 'The units that fill it are a list.' }),
    ArrayMaxSize(40, { message: 'No more than 40 units fill one vessel.' }),
    ArrayUnique({ message: 'Name each unit once.' }),
    IsId({ each: true }),
  );
}

/** What may be known of a receiver or cylinder. */
export class VesselDetails {
  @Optional() @IsFigure('The pressure it is rated for', 0.1, 1000) ratedBar?: number | null;
  @Optional() @IsFigure('Its volume', 0.1, 200_000) volumeL?: number | null;
  @Optional() @IsText('The maker', textLimits.short) maker?: string | null;
  @Optional() @IsText('The serial number', textLimits.short) serial?: string | null;
  @Optional() @IsLocalDate() madeOn?: string | null;
  /** As the local law says; nothing is assumed. */
  @Optional() @IsMonths('Pressure tests') testEveryMonths?: number | null;
  @Optional() @IsMonths('Inspections') inspectEveryMonths?: number | null;
  /** What the valve of a cylinder is marked with, bar. */
  @Optional()
  @IsIn(connectorBars, { message: `The valve is marked ${connectorBars.join(' or ')} bar.` })
  connectorBar?: number | null;
  /** What it was cleaned for; air where nothing is said. */
  @Optional()
  @IsIn(cylinderGases, { message: `It is for one of ${cylinderGases.join(', ')}.` })
  gas?: CylinderGas | null;
  /** Of composites: their last day. */
  @Optional() @IsLocalDate() lifeEndsOn?: string | null;
}

/** A receiver, bank or cylinder taken into the register. */
export class RegisterVessel extends VesselDetails {
  @IsId() id: string;
  @IsId() siteId: string;
  @IsText('The tag', textLimits.tag) tag: string;
  @IsIn(vesselKinds, { message: `It is one of ${vesselKinds.join(', ')}.` }) kind: VesselKind;
  /** The compressors that fill it. */
  @IsCompressorList() compressorIds: string[];
  /** The last dates stamped on it or in its papers. */
  @Optional() @IsLocalDate() lastTestOn?: string;
  @Optional() @IsLocalDate() lastInspectionOn?: string;
  @Optional() @IsText('The note', textLimits.note) note?: string;
  @Optional() @IsId() by?: string;
}

/** What became known of a vessel: only the fields that change; null makes one unknown again. */
export class ChangeVessel extends VesselDetails {
  @IsId() id: string;
  @Omittable() @IsId() siteId?: string;
  @Omittable() @IsText('The tag', textLimits.tag) tag?: string;
  @Omittable() @IsCompressorList() compressorIds?: string[];
  @Optional() @IsLocalDate() retiredOn?: string | null;
  @Optional() @IsText('The note', textLimits.note) note?: string;
  @Optional() @IsId() by?: string;
}

/** A vessel was tested or inspected. */
export class RecordExamination {
  @IsId() id: string;
  @IsIn(vesselExaminations, { message: 'It was a test or an inspection.' }) kind: VesselExamination;
  @IsLocalDate() doneOn: string;
  @IsBoolean({ message: 'It passed or it did not.' }) passed: boolean;
  @Optional() @IsText('The note', textLimits.note) note?: string;
  @Optional() @IsId() by?: string;
}

export class VesselsQuery extends PageQuery {
  /** Of a unit that is not in the register there are none to tell of: 404, as of everything else of it. */
  @Optional() @IsText('The unit', textLimits.short) compressorId?: string;
  @Optional() @Matches(/^(in-service|all)$/, { message: 'show must be in-service or all.' }) show?: string;
}
