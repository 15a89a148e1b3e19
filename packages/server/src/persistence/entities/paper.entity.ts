import type { PaperKind, PaperType } from '@entretien/core/machine';
import { Column, Entity, Index, PrimaryColumn } from 'typeorm';

/** A paper of a machine: its manual, its label, how it sounded; the file lies beside the database. */
@Entity('paper')
@Index('paper_by_unit', ['compressorId'])
export class PaperEntity {
  @PrimaryColumn({ type: 'text' }) id: string;
  @Column({ name: 'compressor_id', type: 'text' }) compressorId: string;
  @Column({ type: 'text' }) kind: PaperKind;
  @Column({ type: 'text' }) title: string;
  /** What the file is by its content, and how its name ends. */
  @Column({ type: 'text' }) type: PaperType;
  @Column({ name: 'recorded_at', type: 'integer' }) recordedAt: number;
  @Column({ name: 'by', type: 'text' }) by: string;
  /** SHA-256 of what was sent, which is what is stored: the same id with another file is a conflict. */
  @Column({ type: 'text' }) stored: string;
  @Column({ type: 'integer' }) bytes: number;
  /** Of a PDF. */
  @Column({ type: 'integer', nullable: true }) pages: number | null;
  /** When it was put aside: it is shown no longer, and stays in backups. */
  @Column({ name: 'aside_at', type: 'integer', nullable: true }) asideAt: number | null;
  @Column({ name: 'aside_by', type: 'text', nullable: true }) asideBy: string | null;
}

/** The name of its file in the album. */
export function paperFile({ id, type }: Pick<PaperEntity, 'id' | 'type'>): string {
  return `${id}.${type}`;
}
