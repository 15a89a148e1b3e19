import type { StartingBasis } from '@entretien/core/plan';
import { facts } from '@entretien/core/facts';
import { FactTable } from './fact-table.js';
import { Column, Entity, Index } from 'typeorm';
import { CorrectingFactColumns } from './columns.js';

/** A task was put off, with the reason, until a limit. */
@FactTable(facts.deferral)
@Entity('put_off')
@Index('put_off_by_unit', ['compressorId', 'deferredAt'])
export class DeferralEntity extends CorrectingFactColumns {
  @Column({ type: 'text' }) task: string;
  @Column({ name: 'put_off_at', type: 'integer' }) deferredAt: number;
  @Column({ type: 'text' }) reason: string;
  @Column({ name: 'until_hours', type: 'real', nullable: true }) untilHours: number | null;
  @Column({ name: 'until_on', type: 'text', nullable: true }) untilOn: string | null;
  @Column({ type: 'text', nullable: true }) risk: string | null;
}

/** Where a task counts from. */
export interface StartingPointColumns {
  readonly task: string;
  readonly hoursUsed?: number;
  readonly hoursThen?: number;
  readonly countsFromOn?: string;
}

/** A first inspection, an accepted estimate or a sticker said where tasks count from. */
@FactTable(facts.startingPoint)
@Entity('starting_point')
@Index('starting_point_by_unit', ['compressorId', 'setAt'])
export class StartingPointEntity extends CorrectingFactColumns {
  @Column({ name: 'set_at', type: 'integer' }) setAt: number;
  @Column({ type: 'text' }) basis: StartingBasis;
  @Column({ type: 'simple-json' }) points: StartingPointColumns[];
}
