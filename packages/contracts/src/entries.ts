import type { CheckValues } from '@entretien/core/checks';
import type { EntryKind, FaultSearch } from '@entretien/core/repairs';
import { taskLimits } from '@entretien/core/plan';
import { ArrayMaxSize, IsArray } from 'class-validator';
import { IsCause, IsFaultSearch } from './faults.js';
import { IsCheckCode, IsCheckValues } from './measurements.js';
import { IsFigure, IsId, IsInstant, IsTaskCode, IsText, Optional, textLimits } from './rules.js';
import type { Contracts } from './steps.js';

/** Longest work, and most parts, of one entry. */
export const entryLimits = { minutes: 10_000, parts: 1000 } as const;

/** Something was learnt of a repair, or done about it. */
export class RepairEntryBody {
  @IsId() id: string;
  @IsText('The kind of entry', textLimits.short) kind: string;
  @IsInstant() at: string;
  @IsText('What is said', textLimits.note) text: string;
  @Optional() @IsFigure('The minutes of work', 0, entryLimits.minutes) minutes?: number;
  /** The page that it is told on. */
  @Optional() @IsText('The page', textLimits.short) session?: string;
  /** The entry whose words it puts right. */
  @Optional() @IsId() corrects?: string;
  @Optional() @IsId() by?: string;
}

/** Work was done, and it opened something or nothing. */
export class WorkEntry extends RepairEntryBody {
  @Optional()
  @IsArray({ message: 'What was opened is a list of codes.' })
  @ArrayMaxSize(taskLimits.opens, { message: `No more than ${taskLimits.opens} openings at once.` })
  @IsTaskCode({ each: true })
  opens?: string[];
}

/** A part was used; of the catalogue, or by its name alone. */
export class PartEntry extends RepairEntryBody {
  @Optional() @IsFigure('The number of parts', 0.01, entryLimits.parts) count?: number;
  @Optional() @IsId() part?: string;
  /** Why this one, where a part for breathing air is not named for the machine. */
  @Optional() @IsText('The reason', textLimits.note) reason?: string;
}

/** The check that proves it, with what was measured. */
export class VerificationEntry extends RepairEntryBody {
  @Optional() @IsCheckCode() check?: string;
  @Optional() @IsCheckValues() values?: CheckValues;
}

/** The cause, in words, and by its code where the fault finder named it. */
export class CauseEntry extends RepairEntryBody {
  @Optional() @IsCause() cause?: string;
}

/** What the fault finder was told: a symptom, and what was answered. */
export class SearchEntry extends RepairEntryBody {
  @IsFaultSearch() search: FaultSearch;
}

/** Which cause it was, after it was mended or on the way: workshops learn from it. */
export class ConfirmedEntry extends RepairEntryBody {
  @IsCause() cause: string;
}

/** What an entry of each kind carries. */
export const entryContracts: Contracts<EntryKind> = {
  cause: CauseEntry,
  work: WorkEntry,
  part: PartEntry,
  step: RepairEntryBody,
  proof: VerificationEntry,
  close: RepairEntryBody,
  note: RepairEntryBody,
  search: SearchEntry,
  confirmed: ConfirmedEntry,
};

/** What is sent of an entry, whatever its kind. */
export type AddRepairEntry = Omit<RepairEntryBody, 'kind'> &
  Partial<
    Omit<WorkEntry & PartEntry & VerificationEntry & CauseEntry & SearchEntry, keyof RepairEntryBody>
  > & { kind: EntryKind };
