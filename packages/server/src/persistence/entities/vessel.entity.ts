import { facts } from '@entretien/core/facts';
import type { CylinderGas } from '@entretien/core/filling';
import { FactTable } from './fact-table.js';
import type { VesselExamination, VesselKind } from '@entretien/core/plan';
import { Column, Entity, Index } from 'typeorm';
import { FactColumns } from './columns.js';

/** What may be known of a vessel. */
export interface VesselFields {
  siteId?: string;
  tag?: string;
  compressorIds?: string[];
  ratedBar?: number | null;
  volumeL?: number | null;
  maker?: string | null;
  serial?: string | null;
  madeOn?: string | null;
  testEveryMonths?: number | null;
  inspectEveryMonths?: number | null;
  connectorBar?: number | null;
  gas?: CylinderGas | null;
  lifeEndsOn?: string | null;
  retiredOn?: string | null;
}

/** A receiver, bank or cylinder as it was registered. */
@FactTable(facts.vessel)
@Entity('vessel')
export class VesselEntity extends FactColumns {
  @Column({ type: 'text' }) kind: VesselKind;
  @Column({ type: 'simple-json' }) details: VesselFields;
}

/** What became known of a vessel later: only what changed. */
@FactTable(facts.vesselChange)
@Entity('vessel_change')
@Index('vessel_change_by_vessel', ['vesselId'])
export class VesselChangeEntity extends FactColumns {
  @Column({ name: 'vessel_id', type: 'text' }) vesselId: string;
  @Column({ type: 'simple-json' }) changes: VesselFields;
}

/** A vessel was tested or inspected. */
@FactTable(facts.vesselExamination)
@Entity('vessel_examination')
@Index('vessel_examination_by_vessel', ['vesselId', 'doneOn'])
export class VesselExaminationEntity extends FactColumns {
  @Column({ name: 'vessel_id', type: 'text' }) vesselId: string;
  @Column({ type: 'text' }) kind: VesselExamination;
  @Column({ name: 'done_on', type: 'text' }) doneOn: string;
  @Column({ type: 'boolean' }) passed: boolean;
}
