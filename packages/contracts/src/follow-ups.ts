import {
  followUpFindings,
  followUpKinds,
  type BringBackStep,
  type FollowUp,
  type FollowUpFinding,
  type FollowUpKind,
} from '@entretien/core/follow-ups';
import { ArrayMaxSize, IsArray, IsIn } from 'class-validator';
import { all, IsId, IsInstant, IsTaskCode, IsText, Optional, textLimits } from './rules.js';
import type { FactView } from './views.js';

function AreSteps(): PropertyDecorator {
  return all(
    IsArray({ message: 'What was seen to is a list.' }),
    ArrayMaxSize(30, { message: 'What was seen to is a list of 30 at most.' }),
    IsTaskCode({ each: true }),
  );
}

/** A second look at what was opened, or at a new belt. */
export class RecordFollowUp {
  @IsId() id: string;
  @IsInstant() lookedAt: string;
  @IsIn(followUpKinds, { message: `What was looked at is ${followUpKinds.join(' or ')}.` }) of: FollowUpKind;
  @IsIn(followUpFindings, { message: `It was found ${followUpFindings.join(' or ')}.` })
  found: FollowUpFinding;
  @Optional() @IsText('The note', textLimits.note) note?: string;
  @Optional() @IsId() by?: string;
}

/** Of the fleet, or of one unit. */
export class FollowUpsQuery {
  @Optional() @IsText('The unit', textLimits.short) compressorId?: string;
}

/** Something to look at again on a unit. */
export interface FollowUpView extends Omit<FollowUp, 'since' | 'dueFrom'> {
  readonly compressorId: string;
  readonly tag: string;
  readonly siteName: string;
  readonly timeZone: string;
  /** What is asked, in a sentence. */
  readonly text: string;
  readonly since: string;
  readonly dueFrom: string | null;
}

/** A machine that stood for months was brought back: everything on its list was seen to. */
export class RecordBroughtBack {
  @IsId() id: string;
  @IsInstant() doneAt: string;
  /** Codes of the points that were seen to: all of its list. */
  @AreSteps() steps: string[];
  @Optional() @IsText('The note', textLimits.note) note?: string;
  @Optional() @IsId() by?: string;
}

/** What a machine that stood is brought back by. */
export interface BringBackView {
  readonly compressorId: string;
  /** Since when its meter has stood; null where it runs, or nobody knows. */
  readonly stoodSince: string | null;
  readonly steps: readonly BringBackStep[];
}

/** A second look as it is on record. */
export interface FollowUpLookView extends FactView {
  readonly lookedAt: string;
  readonly of: FollowUpKind;
  readonly found: FollowUpFinding;
}
