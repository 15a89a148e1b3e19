import { dateOrders, type DateOrder } from '@entretien/core/basics';
import { IsIn, IsString, Matches, MaxLength } from 'class-validator';
import { all, IsId, IsInstant, IsTimeZone, Optional } from './rules.js';

/** Longest page of any list. */
export const LONGEST_PAGE = 200;

/** A page of a list. Query values are texts. */
export class PageQuery {
  @Optional()
  @Matches(/^(?:[1-9]|[1-9]\d|1\d\d|200)$/, {
    message: `limit must be a whole number from 1 to ${LONGEST_PAGE}.`,
  })
  limit?: string;
  @Optional() @MaxLength(400, { message: 'That is no cursor of this list.' }) cursor?: string;
}

/** Which moment is asked about, and what was known when. */
export class MomentQuery {
  @Optional() @IsInstant() at?: string;
  @Optional() @IsInstant() knownAt?: string;
}

/** What is due on a unit; with the reasons where they are asked for. */
export class StandingQuery extends MomentQuery {
  @Optional()
  @Matches(/^(yes|no)$/, { message: 'explain must be yes or no.' })
  explain?: string;
}

/** The continuous run hours over some time. */
export class HoursQuery {
  @Optional() @IsInstant() from?: string;
  @Optional() @IsInstant() to?: string;
  /** Days ahead to forecast, a whole number. */
  @Optional()
  @Matches(/^(?:[1-9]|[1-9]\d|[1-9]\d\d|[12]\d\d\d)$/, {
    message: 'ahead must be a number of days up to 2999.',
  })
  ahead?: string;
}

/** When a figure of continuous run hours is reached. */
export class ForecastQuery extends MomentQuery {
  @Matches(/^\d{1,7}(?:\.\d{1,3})?$/, {
    message: 'hours must be a figure of run hours, like 2500 or 2500.5.',
  })
  hours: string;
}

export class StandingsQuery extends PageQuery {
  @Optional() @IsInstant() at?: string;
}

export class CompressorsQuery extends PageQuery {
  /** Only units that have retired, or all: by default those in service. */
  @Optional()
  @Matches(/^(in-service|retired|all)$/, { message: 'show must be in-service, retired or all.' })
  show?: string;
}

const importModes = ['preview', 'commit'] as const;
const decimals = ['point', 'comma'] as const;
const delimiters = ['auto', 'comma', 'semicolon', 'tab'] as const;

/** The title of a column in the list; empty for none, left out to be guessed. */
function IsColumn(): PropertyDecorator {
  return all(
    IsString({ message: 'Name the column by its title.' }),
    MaxLength(80, { message: 'A title is 80 characters long at most.' }),
  );
}

/** How a list of readings is to be read, and whether it is to be taken in. What is left out is guessed. */
export class ImportQuery {
  @IsIn(importModes, { message: 'mode must be preview or commit.' }) mode: (typeof importModes)[number];
  @Optional() @IsColumn() unitColumn?: string;
  @Optional() @IsColumn() dateColumn?: string;
  @Optional() @IsColumn() timeColumn?: string;
  @Optional() @IsColumn() hoursColumn?: string;
  @Optional() @IsColumn() countsColumn?: string;
  @Optional() @IsColumn() noteColumn?: string;
  @Optional()
  @IsIn(delimiters, { message: 'Columns are parted by comma, semicolon or tab, or auto.' })
  delimiter?: (typeof delimiters)[number];
  @Optional()
  @IsIn(decimals, { message: 'The decimal sign is point or comma.' })
  decimal?: (typeof decimals)[number];
  @Optional() @IsIn(dateOrders, { message: 'Dates are written ymd, dmy or mdy.' }) dateOrder?: DateOrder;
  @Optional() @IsTimeZone() timeZone?: string;
  /** Numbers of rows not to be taken in, the header being 1: `3,7-9`. */
  @Optional()
  @Matches(/^(?:\d{1,7}(?:-\d{1,7})?)(?:,\d{1,7}(?:-\d{1,7})?){0,2000}$/, {
    message: 'leaveOut must be row numbers like 3,7-9.',
  })
  leaveOut?: string;
}

/** Which readings are written as a list: of one unit, of one site, or of all. */
export class ExportQuery {
  @Optional() @IsId() compressorId?: string;
  @Optional() @IsId() siteId?: string;
}
