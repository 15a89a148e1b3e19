import { Injectable } from '@nestjs/common';
import type { PointPlate, PointWork } from '@entretien/core/points';
import { groupBy } from '../common/group-by.js';
import { Database } from '../persistence/database.js';
import {
  PointChangeEntity,
  PointEntity,
  PointWithdrawalEntity,
  PointWorkEntity,
  type PointFields,
} from '../persistence/entities/point.entity.js';

/** A point of use with everything learnt of it so far. */
export interface KnownPoint {
  readonly id: string;
  readonly siteId: string;
  readonly note: string | null;
  readonly plate: PointPlate;
  /** What was done at it and stands. */
  readonly work: readonly PointWork[];
}

/** The points of use. Few enough to be kept in memory, and read again when one changes. */
@Injectable()
export class PointRegister {
  private points: ReadonlyMap<string, KnownPoint> | null = null;

  constructor(private readonly database: Database) {}

  all(): ReadonlyMap<string, KnownPoint> {
    return (this.points ??= this.read());
  }

  forget(): void {
    this.points = null;
  }

  private read(): ReadonlyMap<string, KnownPoint> {
    const changes = groupBy(
      this.database.findAll(PointChangeEntity, 'ORDER BY "seq"'),
      ({ pointId }) => pointId,
    );
    const withdrawn = new Set(this.database.findAll(PointWithdrawalEntity, '').map(({ workId }) => workId));
    const work = groupBy(
      this.database
        .findAll(PointWorkEntity, 'ORDER BY "done_at", "id"')
        .filter(({ id }) => !withdrawn.has(id)),
      ({ pointId }) => pointId,
    );
    return new Map(
      this.database.findAll(PointEntity, 'ORDER BY "seq"').map(({ id, siteId, details, note }) => {
        const later = (changes.get(id) ?? []).map((one) => one.changes);
        const plate = Object.assign({}, details, ...later) as PointFields as PointPlate;
        return [id, { id, siteId, note, plate, work: (work.get(id) ?? []).map(toWork) }];
      }),
    );
  }
}

function toWork({ id, doneAt, tasks, looks, judgements }: PointWorkEntity): PointWork {
  return {
    id,
    doneAt,
    tasks: tasks.map(({ code }) => code),
    looks: looks.map(({ check, values }, index) => ({ check, values, judgement: judgements[index]! })),
  };
}
