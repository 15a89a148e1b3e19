import type { CheckValues, Judgement } from '@entretien/core/checks';
import { facts } from '@entretien/core/facts';
import type { IsolateBody, RestartBody } from '@entretien/core/isolation';
import type { PointPlate } from '@entretien/core/points';
import { Column, Entity, Index } from 'typeorm';
import { FactColumns } from './columns.js';
import { FactTable } from './fact-table.js';

export type PointFields = { -readonly [Field in keyof PointPlate]?: PointPlate[Field] };

/** A point of use as it was registered. */
@FactTable(facts.point)
@Entity('point')
export class PointEntity extends FactColumns {
  @Column({ name: 'site_id', type: 'text' }) siteId: string;
  @Column({ type: 'simple-json' }) details: PointFields;
}

/** What became known of a point of use later: only what changed. */
@FactTable(facts.pointChange)
@Entity('point_change')
@Index('point_change_by_point', ['pointId'])
export class PointChangeEntity extends FactColumns {
  @Column({ name: 'site_id', type: 'text' }) siteId: string;
  @Column({ name: 'point_id', type: 'text' }) pointId: string;
  @Column({ type: 'simple-json' }) changes: PointFields;
}

export interface StoredLook {
  readonly check: string;
  readonly values: CheckValues;
  readonly at: number;
}

/** What was done and found at a point of use, with the isolation behind which it was done. */
@FactTable(facts.pointWork)
@Entity('point_work')
@Index('point_work_by_point', ['pointId', 'doneAt'])
export class PointWorkEntity extends FactColumns {
  @Column({ name: 'site_id', type: 'text' }) siteId: string;
  @Column({ name: 'point_id', type: 'text' }) pointId: string;
  @Column({ name: 'done_at', type: 'integer' }) doneAt: number;
  /** What it was called then. */
  @Column({ type: 'text' }) tag: string;
  @Column({ type: 'simple-json' }) tasks: readonly { readonly code: string; readonly at: number }[];
  /** What was sent of each look: a repeated id must agree on it; the judgement follows. */
  @Column({ type: 'simple-json' }) looks: readonly StoredLook[];
  @Column({ type: 'simple-json' }) judgements: readonly Judgement[];
  @Column({ type: 'simple-json' }) steps: readonly {
    readonly at: number;
    readonly body: IsolateBody | RestartBody;
  }[];
}

/** Work at a point of use no longer stands. */
@FactTable(facts.pointWithdrawal)
@Entity('point_withdrawal')
@Index('point_withdrawal_by_work', ['workId'])
export class PointWithdrawalEntity extends FactColumns {
  @Column({ name: 'site_id', type: 'text' }) siteId: string;
  @Column({ name: 'point_id', type: 'text' }) pointId: string;
  @Column({ name: 'work_id', type: 'text' }) workId: string;
  @Column({ type: 'text' }) reason: string;
}
