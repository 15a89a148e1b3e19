import { Column, PrimaryColumn } from 'typeorm';

/** The columns that every fact has. Moments are whole milliseconds, so that they sort and compare as numbers. */
export abstract class FactColumns {
  /** Its place in the table of all facts. */
  @Column({ type: 'integer' }) seq: number;
  @PrimaryColumn({ type: 'text' }) id: string;
  @Column({ name: 'recorded_at', type: 'integer' }) recordedAt: number;
  @Column({ name: 'by', type: 'text' }) by: string;
  @Column({ type: 'text', nullable: true }) note: string | null;
  /** Codes of what was unusual, as judged when it was recorded. */
  @Column({ type: 'simple-json' }) marks: string[];
}

/** A fact of one compressor. */
export abstract class CompressorFactColumns extends FactColumns {
  @Column({ name: 'compressor_id', type: 'text' }) compressorId: string;
}

/** A fact that may stand in the place of another that was wrong. */
export abstract class CorrectingFactColumns extends CompressorFactColumns {
  @Column({ type: 'text', nullable: true }) corrects: string | null;
}
