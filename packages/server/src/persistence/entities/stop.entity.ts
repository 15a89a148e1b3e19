import { facts } from '@entretien/core/facts';
import type { StopGround, StopScope } from '@entretien/core/stop';
import { Column, Entity, Index, PrimaryColumn } from 'typeorm';
import { CompressorFactColumns } from './columns.js';
import { FactTable } from './fact-table.js';

/** A unit, or a part of its use, was taken out of service. */
@FactTable(facts.outOfService)
@Entity('out_of_service')
@Index('out_of_service_by_unit', ['compressorId', 'since'])
export class OutOfServiceEntity extends CompressorFactColumns {
  @Column({ type: 'integer' }) since: number;
  @Column({ type: 'text' }) scope: StopScope;
  @Column({ type: 'text', nullable: true }) place: string | null;
  @Column({ type: 'text' }) ground: StopGround;
  @Column({ type: 'text' }) why: string;
  @Column({ type: 'text', nullable: true }) finding: string | null;
  @Column({ name: 'to_show', type: 'text', nullable: true }) toShow: string | null;
  @Column({ type: 'text', nullable: true }) informed: string | null;
}

/** It came back. */
@FactTable(facts.returnToService)
@Entity('return_to_service')
@Index('return_to_service_by_unit', ['compressorId', 'at'])
export class ReturnToServiceEntity extends CompressorFactColumns {
  @Column({ name: 'at', type: 'integer' }) at: number;
  @Column({ type: 'text' }) ends: string;
  @Column({ name: 'shown_by', type: 'text', nullable: true }) shownBy: string | null;
  @Column({ name: 'decided_by', type: 'text', nullable: true }) decidedBy: string | null;
  @Column({ type: 'text', nullable: true }) reason: string | null;
}

/** How this workshop has something set. */
@Entity('setting')
export class SettingEntity {
  @PrimaryColumn({ type: 'text' }) name: string;
  @Column({ type: 'simple-json' }) value: unknown;
}
