import { facts } from '@entretien/core/facts';
import { FactTable } from './fact-table.js';
import type { PlannedCompressor, StepOutcome } from '@entretien/contracts';
import type { StepKind } from '@entretien/core/visit';
import { Column, Entity, Index, PrimaryColumn } from 'typeorm';
import { FactColumns, CompressorFactColumns } from './columns.js';

/** A visit as it was planned. */
@FactTable(facts.visit)
@Entity('visit')
@Index('visit_by_day', ['plannedOn', 'id'])
export class VisitEntity extends FactColumns {
  @Column({ name: 'site_id', type: 'text' }) siteId: string;
  @Column({ name: 'planned_on', type: 'text' }) plannedOn: string;
  @Column({ type: 'simple-json' }) units: PlannedCompressor[];
}

/** Something that happened on one unit of a visit. */
@FactTable(facts.visitStep)
@Entity('visit_step')
@Index('visit_step_by_visit', ['visitId', 'compressorId', 'doneAt'])
@Index('visit_step_of_isolation', ['compressorId', 'doneAt'], { where: `"kind" IN ('isolate', 'restart')` })
export class VisitStepEntity extends CompressorFactColumns {
  @Column({ name: 'visit_id', type: 'text' }) visitId: string;
  @Column({ type: 'text' }) kind: StepKind;
  @Column({ name: 'done_at', type: 'integer' }) doneAt: number;
  @Column({ type: 'text' }) session: string;
  @Column({ type: 'simple-json' }) details: object;
  /** Rules of isolation that it was told under: 1 up to release 0.2, where its marks stand as they were given. */
  @Column({ type: 'integer', default: 1 }) rules: number;
  /** What came out of a measurement, as judged when it was recorded. */
  @Column({ type: 'simple-json', nullable: true }) outcome: StepOutcome | null;
}

/** A photo of a visit, or of a machine; the picture lies beside the database, without whatever else the device wrote into it. */
@Entity('photo')
@Index('photo_by_visit', ['visitId'])
@Index('photo_by_unit', ['compressorId'])
export class PhotoEntity {
  @PrimaryColumn({ type: 'text' }) id: string;
  @Column({ name: 'visit_id', type: 'text', nullable: true }) visitId: string | null;
  @Column({ name: 'compressor_id', type: 'text', nullable: true }) compressorId: string | null;
  /** What it shows; that of a visit stands in its step. */
  @Column({ type: 'text', nullable: true }) caption: string | null;
  @Column({ name: 'recorded_at', type: 'integer' }) recordedAt: number;
  @Column({ name: 'by', type: 'text' }) by: string;
  /** SHA-256 of what was sent: the same id with another picture is a conflict. */
  @Column({ type: 'text' }) sent: string;
  /** SHA-256 of what is stored. */
  @Column({ type: 'text' }) stored: string;
  @Column({ type: 'integer' }) bytes: number;
  @Column({ name: 'width_px', type: 'integer' }) widthPx: number;
  @Column({ name: 'height_px', type: 'integer' }) heightPx: number;
}
