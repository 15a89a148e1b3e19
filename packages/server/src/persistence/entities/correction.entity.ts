import { facts } from '@entretien/core/facts';
import { FactTable } from './fact-table.js';
import { Column, Entity, Index, PrimaryColumn } from 'typeorm';
import { CompressorFactColumns } from './columns.js';

/** A fact was wrong, and has no other in its place. */
@FactTable(facts.withdrawal)
@Entity('withdrawal')
@Index('withdrawal_by_unit', ['compressorId'])
export class WithdrawalEntity extends CompressorFactColumns {
  @Column({ name: 'fact_id', type: 'text' }) factId: string;
  @Column({ type: 'text' }) reason: string;
}

/**
 * Which facts no longer stand, since when and through what: an index over withdrawals and corrections, written
 * with them and worth nothing without them.
 */
@Entity('voided')
@Index('voided_by_unit', ['compressorId'])
export class VoidedEntity {
  @PrimaryColumn({ name: 'fact_id', type: 'text' }) factId: string;
  @Column({ name: 'compressor_id', type: 'text' }) compressorId: string;
  @Column({ name: 'voided_at', type: 'integer' }) voidedAt: number;
  @Column({ name: 'by_fact', type: 'text' }) byFact: string;
  @Column({ type: 'text' }) how: 'withdrawn' | 'corrected';
}
