import { facts } from '@entretien/core/facts';
import type { FollowUpFinding, FollowUpKind } from '@entretien/core/follow-ups';
import { Column, Entity, Index } from 'typeorm';
import { CompressorFactColumns } from './columns.js';
import { FactTable } from './fact-table.js';

/** What was opened or fitted was looked at again. */
@FactTable(facts.followUp)
@Entity('follow_up')
@Index('follow_up_by_unit', ['compressorId', 'lookedAt'])
export class FollowUpEntity extends CompressorFactColumns {
  @Column({ name: 'looked_at', type: 'integer' }) lookedAt: number;
  @Column({ type: 'text' }) of: FollowUpKind;
  @Column({ type: 'text' }) found: FollowUpFinding;
}

/** A machine that had stood for months was brought back by its list. */
@FactTable(facts.broughtBack)
@Entity('brought_back')
@Index('brought_back_by_unit', ['compressorId', 'doneAt'])
export class BroughtBackEntity extends CompressorFactColumns {
  @Column({ name: 'done_at', type: 'integer' }) doneAt: number;
  @Column({ type: 'simple-json' }) steps: string[];
}
