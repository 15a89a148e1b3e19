import { facts } from '@entretien/core/facts';
import { FactTable } from './fact-table.js';
import type { PartClass, PartFigures } from '@entretien/core/parts';
import { Column, Entity, Index } from 'typeorm';
import { FactColumns } from './columns.js';

/** A part of the catalogue. */
@FactTable(facts.part)
@Entity('part')
export class PartEntity extends FactColumns {
  @Column({ type: 'text' }) number: string;
  @Column({ type: 'text' }) name: string;
  @Column({ name: 'part_class', type: 'text' }) class: PartClass;
  @Column({ type: 'text' }) answers: string;
  @Column({ type: 'simple-json' }) fits: string[];
  @Column({ type: 'simple-json' }) figures: PartFigures;
  @Column({ name: 'price_cents', type: 'integer', nullable: true }) priceCents: number | null;
  @Column({ type: 'text', nullable: true }) supplier: string | null;
  /** What lies in a kit. */
  @Column({ type: 'text', nullable: true }) contents: string | null;
  /** Days until it comes. */
  @Column({ name: 'lead_days', type: 'integer', nullable: true }) leadDays: number | null;
  @Column({ name: 'second_source', type: 'text', nullable: true }) secondSource: string | null;
}

/** Parts went into the van or out of it. Counts are thousandths, so that sums stay whole. */
@FactTable(facts.partMove)
@Entity('part_move')
@Index('part_move_by_part', ['partId', 'movedAt'])
export class PartMoveEntity extends FactColumns {
  @Column({ name: 'part_id', type: 'text' }) partId: string;
  @Column({ name: 'moved_at', type: 'integer' }) movedAt: number;
  @Column({ type: 'integer' }) thousandths: number;
  /** Id of the step or entry that it was used in. */
  @Column({ name: 'used_in', type: 'text', nullable: true }) usedIn: string | null;
}

/** What of a part is different from now on. */
export type PartChanges = Partial<
  Pick<
    PartEntity,
    | 'number'
    | 'name'
    | 'class'
    | 'answers'
    | 'fits'
    | 'figures'
    | 'priceCents'
    | 'supplier'
    | 'contents'
    | 'leadDays'
    | 'secondSource'
    | 'note'
  >
> & { readonly isRetired?: boolean };

/** A part of the catalogue was put right, taken out of it, or taken back into it. */
@FactTable(facts.partChange)
@Entity('part_change')
@Index('part_change_by_part', ['partId'])
export class PartChangeEntity extends FactColumns {
  @Column({ name: 'part_id', type: 'text' }) partId: string;
  @Column({ type: 'simple-json' }) changes: PartChanges;
}
