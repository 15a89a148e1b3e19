import { ArrayMaxSize, ArrayUnique, IsArray } from 'class-validator';
import { all, IsFigure, IsId, IsText, IsTimeZone, Omittable, Optional, textLimits } from './rules.js';

/** A place with compressors. */
export class AddSite {
  @IsId() id: string;
  @IsText('The name', textLimits.name) name: string;
  @Optional() @IsTimeZone() timeZone?: string;
  /** Metres above sea level. */
  @Optional() @IsFigure('Altitude', -500, 6000) altitudeM?: number;
  @Optional() @IsText('The address', 200) address?: string;
  @Optional() @IsText('The contact', textLimits.name) contact?: string;
  @Optional() @IsText('The note', textLimits.note) note?: string;
  @Optional() @IsId() by?: string;
}

/** The units of a site in the order in which one walks by them. */
function IsWalk(): PropertyDecorator {
  return all(
    IsArray({ message: 'The walk is a list of units.' }),
    ArrayMaxSize(500, { message: 'No more than 500 units on one walk.' }),
    ArrayUnique({ message: 'One walks by each unit once.' }),
    IsId({ each: true }),
  );
}

/** What is now known of a site: only the fields that change; null makes one unknown again. */
export class ChangeSite {
  @IsId() id: string;
  @Omittable() @IsText('The name', textLimits.name) name?: string;
  @Omittable() @IsTimeZone() timeZone?: string;
  @Optional() @IsFigure('Altitude', -500, 6000) altitudeM?: number | null;
  @Optional() @IsText('The address', 200) address?: string | null;
  @Optional() @IsText('The contact', textLimits.name) contact?: string | null;
  @Optional() @IsText('The note', textLimits.note) note?: string | null;
  /** Ids of its units in walking order; units left out come last. */
  @Optional() @IsWalk() walk?: string[] | null;
  @Optional() @IsId() by?: string;
}

export class SiteView {
  @IsId() id: string;
  @Optional() @IsWalk() walk?: string[];
  @IsText('The name', textLimits.name) name: string;
  @IsTimeZone() timeZone: string;
  @Optional() @IsFigure('Altitude', -500, 6000) altitudeM?: number;
  @Optional() @IsText('The address', 200) address?: string;
  @Optional() @IsText('The contact', textLimits.name) contact?: string;
  @Optional() @IsText('The note', textLimits.note) note?: string;
  /** Whose site it is. */
  @Optional() @IsId() customerId?: string;
}
