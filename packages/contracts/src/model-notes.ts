import { MODEL_NOTE_LENGTH, modelNoteKinds, type ModelNoteKind } from '@entretien/core/machine';
import { IsIn } from 'class-validator';
import { IsId, IsText, Optional, textLimits } from './rules.js';
import type { FactView } from './views.js';

/** What is known of a model, told at one of its machines. */
export class RecordModelNote {
  @IsId() id: string;
  @IsIn(modelNoteKinds, { message: `A note is about ${modelNoteKinds.join(', ')}.` }) about: ModelNoteKind;
  @IsText('The note', MODEL_NOTE_LENGTH) text: string;
  @Optional() @IsText('The remark', textLimits.note) note?: string;
  @Optional() @IsId() by?: string;
}

/** A note as all sisters show it. */
export interface ModelNoteView extends FactView {
  /** The machine at which it was told. */
  readonly compressorId: string;
  readonly tag: string;
  readonly about: ModelNoteKind;
  readonly text: string;
}
