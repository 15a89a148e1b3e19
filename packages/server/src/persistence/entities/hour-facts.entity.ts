import { facts } from '@entretien/core/facts';
import { FactTable } from './fact-table.js';
import type { CounterKind, MeterChangeReason, ReadingSource } from '@entretien/core/hours';
import { Column, Entity, Index } from 'typeorm';
import { CorrectingFactColumns } from './columns.js';

/** The index covers what the run hours are computed from, so that a fleet is read without its table. */
@FactTable(facts.reading)
@Entity('reading')
@Index('reading_by_unit', ['compressorId', 'takenAt', 'hours', 'counts', 'source', 'recordedAt'])
export class ReadingEntity extends CorrectingFactColumns {
  @Column({ name: 'taken_at', type: 'integer' }) takenAt: number;
  @Column({ type: 'real' }) hours: number;
  @Column({ type: 'text' }) counts: CounterKind;
  @Column({ type: 'text' }) source: ReadingSource;
}

@FactTable(facts.meterChange)
@Entity('meter_change')
@Index('meter_change_by_unit', ['compressorId', 'changedAt'])
export class MeterChangeEntity extends CorrectingFactColumns {
  @Column({ name: 'changed_at', type: 'integer' }) changedAt: number;
  @Column({ name: 'old_final_hours', type: 'real' }) oldFinalHours: number;
  @Column({ name: 'new_start_hours', type: 'real' }) newStartHours: number;
  @Column({ type: 'text' }) reason: MeterChangeReason;
}
