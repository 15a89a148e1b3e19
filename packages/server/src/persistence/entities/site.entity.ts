import { facts } from '@entretien/core/facts';
import { FactTable } from './fact-table.js';
import { Column, Entity, Index } from 'typeorm';
import { FactColumns } from './columns.js';

/** A site as it was added; what has been learnt of it since are its changes. */
@FactTable(facts.site)
@Entity('site')
export class SiteEntity extends FactColumns {
  @Column({ type: 'text' }) name: string;
  @Column({ name: 'time_zone', type: 'text' }) timeZone: string;
  @Column({ name: 'altitude_m', type: 'real', nullable: true }) altitudeM: number | null;
  @Column({ type: 'text', nullable: true }) address: string | null;
  @Column({ type: 'text', nullable: true }) contact: string | null;
}

/** The details of a site that a change may carry; null makes one unknown again. */
export interface SiteDetails {
  name?: string;
  timeZone?: string;
  altitudeM?: number | null;
  address?: string | null;
  contact?: string | null;
  note?: string | null;
  walk?: string[] | null;
  customerId?: string | null;
}

/** Somebody whose machines are looked after. */
@FactTable(facts.customer)
@Entity('customer')
export class CustomerEntity extends FactColumns {
  @Column({ type: 'text' }) name: string;
}

@FactTable(facts.siteChange)
@Entity('site_change')
@Index('site_change_by_site', ['siteId', 'recordedAt'])
export class SiteChangeEntity extends FactColumns {
  @Column({ name: 'site_id', type: 'text' }) siteId: string;
  @Column({ type: 'simple-json' }) changes: SiteDetails;
}
