import { facts } from '@entretien/core/facts';
import { FactTable } from './fact-table.js';
import { Column, Entity, Index } from 'typeorm';
import { CorrectingFactColumns } from './columns.js';

@FactTable(facts.service)
@Entity('service')
@Index('service_by_unit', ['compressorId', 'doneAt'])
export class ServiceEntity extends CorrectingFactColumns {
  @Column({ name: 'done_at', type: 'integer' }) doneAt: number;
  @Column({ type: 'real', nullable: true }) hours: number | null;
  @Column({ type: 'simple-json' }) tasks: string[];
  /** Version of the plan in force when the work was done. */
  @Column({ name: 'plan_version', type: 'integer' }) planVersion: number;
}
