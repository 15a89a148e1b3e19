import { PAPER_TITLE_LENGTH, paperKinds, type PaperKind, type PaperType } from '@entretien/core/machine';
import { IsIn } from 'class-validator';
import { IsId, IsText } from './rules.js';

/** What is said of a paper beside its file. */
export class PaperQuery {
  @IsId() id: string;
  @IsIn(paperKinds, { message: `A paper is one of ${paperKinds.join(', ')}.` }) kind: PaperKind;
  @IsText('The title', PAPER_TITLE_LENGTH) title: string;
}

/** A paper of a unit. */
export interface PaperView {
  readonly id: string;
  readonly compressorId: string;
  readonly kind: PaperKind;
  readonly title: string;
  readonly type: PaperType;
  readonly bytes: number;
  /** Of a PDF. */
  readonly pages: number | null;
  readonly recordedAt: string;
  readonly by: string;
}
