import { facts } from '@entretien/core/facts';
import { FactTable } from './fact-table.js';
import type { DataPlate } from '@entretien/core/machine';
import { Column, Entity, Index, PrimaryColumn } from 'typeorm';
import { FactColumns, CompressorFactColumns } from './columns.js';

/** A compressor as it was registered; its plate of any later day follows from its changes. */
@FactTable(facts.compressor)
@Entity('compressor')
export class CompressorEntity extends FactColumns {
  @Column({ type: 'simple-json' }) plate: DataPlate;
}

export type PlateFields = { [Field in keyof DataPlate]?: DataPlate[Field] | null };

@FactTable(facts.plateChange)
@Entity('plate_change')
@Index('plate_change_by_unit', ['compressorId', 'changedAt'])
export class PlateChangeEntity extends CompressorFactColumns {
  @Column({ name: 'changed_at', type: 'integer' }) changedAt: number;
  @Column({ type: 'simple-json' }) changes: PlateFields;
}

/** The plan of a unit as it holds from a moment on. */
@Entity('plan_version')
@Index('plan_version_id', ['id'], { unique: true, where: '"id" IS NOT NULL' })
export class PlanVersionEntity {
  @PrimaryColumn({ name: 'compressor_id', type: 'text' }) compressorId: string;
  @PrimaryColumn({ type: 'integer' }) version: number;
  @Column({ name: 'effective_at', type: 'integer' }) effectiveAt: number;
  @Column({ name: 'recorded_at', type: 'integer' }) recordedAt: number;
  @Column({ name: 'by', type: 'text' }) by: string;
  @Column({ name: 'content_id', type: 'text' }) contentId: string;
  /** Of the request that saved it; the plan that a unit begins with has none. */
  @Column({ type: 'text', nullable: true }) id: string | null;
  @Column({ type: 'text', nullable: true }) note: string | null;
}

/** What stands in a plan, kept once however many units follow it; its id is the hash of the text. */
@Entity('plan_content')
export class PlanContentEntity {
  @PrimaryColumn({ type: 'text' }) id: string;
  @Column({ type: 'text' }) plan: string;
}
