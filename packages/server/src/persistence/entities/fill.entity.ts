import { facts } from '@entretien/core/facts';
import { Column, Entity, Index } from 'typeorm';
import { Fills1764979200000 } from '../migrations/1764979200000-fills.js';
import { CompressorFactColumns } from './columns.js';
import { FactTable } from './fact-table.js';

/** A cylinder was filled from a set. */
@FactTable(facts.fill, Fills1764979200000)
@Entity('fill')
@Index('fill_by_unit', ['compressorId', 'endedAt'])
@Index('fill_by_vessel', ['vesselId', 'endedAt'])
export class FillEntity extends CompressorFactColumns {
  @Column({ name: 'vessel_id', type: 'text' }) vesselId: string;
  @Column({ name: 'started_at', type: 'integer' }) startedAt: number;
  @Column({ name: 'ended_at', type: 'integer' }) endedAt: number;
  @Column({ name: 'from_bar', type: 'real' }) fromBar: number;
  @Column({ name: 'to_bar', type: 'real' }) toBar: number;
  @Column({ name: 'connector_bar', type: 'integer' }) connectorBar: number;
  @Column({ name: 'ambient_c', type: 'real' }) ambientC: number;
  @Column({ name: 'wall_c', type: 'real', nullable: true }) wallC: number | null;
  /** What the CO monitor showed before air flowed. */
  @Column({ name: 'co_ppm', type: 'real', nullable: true }) coPpm: number | null;
  @Column({ type: 'text' }) outcome: 'full' | 'stopped';
  @Column({ type: 'text' }) tag: string;
  @Column({ name: 'volume_l', type: 'real' }) volumeL: number;
  @Column({ name: 'settled_bar', type: 'real' }) settledBar: number;
  /** Free air that went in. */
  @Column({ name: 'air_l', type: 'real' }) airL: number;
}
