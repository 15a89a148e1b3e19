import type { FleetPrior } from '@entretien/core/hours';
import { Column, Entity, PrimaryColumn } from 'typeorm';

/** What was believed of machines at large from a moment on, and how many machines had taught it. */
@Entity('fleet_prior')
export class FleetPriorEntity {
  @PrimaryColumn({ name: 'fixed_at', type: 'integer' }) fixedAt: number;
  @Column({ type: 'integer' }) machines: number;
  @Column({ type: 'simple-json' }) prior: FleetPrior;
}
