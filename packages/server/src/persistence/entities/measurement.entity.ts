import { facts } from '@entretien/core/facts';
import { FactTable } from './fact-table.js';
import type { CheckValues, Judgement, Verdict } from '@entretien/core/checks';
import { Column, Entity, Index } from 'typeorm';
import { CorrectingFactColumns } from './columns.js';

@FactTable(facts.measurement)
@Entity('measurement')
@Index('measurement_by_unit', ['compressorId', 'takenAt'])
@Index('measurement_by_check', ['compressorId', 'check', 'takenAt'])
@Index('measurement_by_verdict', ['verdict', 'takenAt'])
@Index(
  'measurement_figures',
  ['compressorId', 'takenAt', 'check', 'figure', 'uncertainty', 'baseline', 'dischargeC', 'recordedAt', 'id'],
  { where: '"figure" IS NOT NULL' },
)
export class MeasurementEntity extends CorrectingFactColumns {
  @Column({ name: 'check_code', type: 'text' }) check: string;
  @Column({ name: 'taken_at', type: 'integer' }) takenAt: number;
  @Column({ name: 'figures', type: 'simple-json' }) values: CheckValues;
  @Column({ type: 'real', nullable: true }) hours: number | null;
  @Column({ name: 'is_baseline', type: 'boolean' }) baseline: boolean;
  /** The check's figure with its uncertainty, and the temperature of a discharge: what plans go by. */
  @Column({ type: 'real', nullable: true }) figure: number | null;
  @Column({ type: 'real', nullable: true }) uncertainty: number | null;
  @Column({ name: 'discharge_c', type: 'real', nullable: true }) dischargeC: number | null;
  @Column({ type: 'text' }) verdict: Verdict;
  /** As judged when it was recorded, with the limit then used. */
  @Column({ type: 'simple-json' }) judgement: Judgement;
}
