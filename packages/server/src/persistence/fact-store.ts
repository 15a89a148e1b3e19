import { Inject, Injectable } from '@nestjs/common';
import type { Instant } from '@entretien/core/basics';
import type { EntityTarget } from 'typeorm';
import { conflict, notFound } from '../common/problem.js';
import { CLOCK, type Clock } from '../common/tokens.js';
import { Database } from './database.js';
import { LogbookWriter } from './logbook-writer.js';
import { CompressorEntity, PlateChangeEntity } from './entities/compressor.entity.js';
import type { FactColumns, UnitFactColumns } from './entities/columns.js';
import { VoidedEntity, WithdrawalEntity } from './entities/correction.entity.js';
import { MeterChangeEntity, ReadingEntity } from './entities/hour-facts.entity.js';
import { MeasurementEntity } from './entities/measurement.entity.js';
import { PutOffEntity, StartingPointEntity } from './entities/plan-facts.entity.js';
import { PartEntity, PartMoveEntity } from './entities/part.entity.js';
import { RepairEntity, RepairEntryEntity } from './entities/repair.entity.js';
import { ServiceEntity } from './entities/service.entity.js';
import { SiteChangeEntity, SiteEntity } from './entities/site.entity.js';
import { VesselChangeEntity, VesselEntity, VesselExaminationEntity } from './entities/vessel.entity.js';
import { VisitEntity, VisitStepEntity } from './entities/visit.entity.js';

/** Every kind of fact, with the columns that make up its content: what a repeated id must agree on. */
const factKinds: readonly { entity: EntityTarget<FactColumns>; content: readonly string[] }[] = [
  { entity: ReadingEntity, content: ['compressorId', 'takenAt', 'hours', 'counts', 'source', 'corrects'] },
  { entity: ServiceEntity, content: ['compressorId', 'doneAt', 'hours', 'tasks', 'corrects'] },
  {
    entity: MeasurementEntity,
    content: ['compressorId', 'check', 'takenAt', 'values', 'hours', 'baseline', 'corrects'],
  },
  {
    entity: MeterChangeEntity,
    content: ['compressorId', 'changedAt', 'oldFinalHours', 'newStartHours', 'reason', 'corrects'],
  },
  { entity: PlateChangeEntity, content: ['compressorId', 'changedAt', 'changes'] },
  {
    entity: PutOffEntity,
    content: ['compressorId', 'task', 'putOffAt', 'reason', 'untilHours', 'untilOn', 'risk', 'corrects'],
  },
  { entity: StartingPointEntity, content: ['compressorId', 'setAt', 'basis', 'points', 'corrects'] },
  { entity: VesselEntity, content: ['kind', 'details'] },
  { entity: VesselChangeEntity, content: ['vesselId', 'changes'] },
  { entity: VesselExaminationEntity, content: ['vesselId', 'kind', 'doneOn', 'passed'] },
  { entity: VisitEntity, content: ['siteId', 'plannedOn', 'units'] },
  {
    entity: VisitStepEntity,
    content: ['visitId', 'compressorId', 'kind', 'doneAt', 'session', 'details'],
  },
  { entity: RepairEntity, content: ['compressorId', 'kind', 'foundAt', 'found', 'station'] },
  {
    entity: RepairEntryEntity,
    content: ['repairId', 'kind', 'at', 'words', 'minutes', 'count', 'part', 'check', 'values'],
  },
  {
    entity: PartEntity,
    content: ['number', 'name', 'class', 'answers', 'fits', 'figures', 'priceCents', 'supplier'],
  },
  { entity: PartMoveEntity, content: ['partId', 'movedAt', 'thousandths', 'usedIn'] },
  { entity: CompressorEntity, content: ['plate'] },
  { entity: SiteEntity, content: ['name', 'timeZone', 'altitudeM', 'address', 'contact'] },
  { entity: WithdrawalEntity, content: ['compressorId', 'factId', 'reason'] },
  { entity: SiteChangeEntity, content: ['siteId', 'changes'] },
];

const sharedContent = ['by', 'note'];

interface Correcting {
  readonly corrects?: string | null;
  readonly compressorId?: string;
}

interface Voiding {
  readonly factId: string;
  readonly compressorId: string;
  /** Id of the withdrawal, or of the fact in its place. */
  readonly by: string;
  readonly recordedAt: Instant;
  readonly how?: VoidedEntity['how'];
}

/** Appends facts, each id once. */
@Injectable()
export class FactStore {
  private lookup: string | undefined;

  constructor(
    private readonly database: Database,
    private readonly logbook: LogbookWriter,
    @Inject(CLOCK) private readonly clock: Clock,
  ) {}

  /**
   * Records a fact. The id is looked up before anything is judged, so that a retry is answered as the first
   * time even when meanwhile the fact itself would make it impossible; the same id with other content is a
   * conflict.
   *
   * @param content what the sender said, as columns of the entity
   * A fact that corrects another voids that one first, so that it is judged without it.
   *
   * @param complete judges the fact and adds what the server knows; throws a problem to refuse it
   * @returns the stored row
   */
  record<Row extends FactColumns, Content extends Partial<Row> & { id: string }>(
    entity: EntityTarget<Row> & (new () => Row),
    content: Content,
    complete: (recordedAt: Instant) => Omit<Row, keyof Content | 'recordedAt'>,
  ): { row: Row; isNew: boolean } {
    return this.database.transact(() => {
      const known = this.known<Row>(entity, content);
      if (known) return { row: known, isNew: false };
      const recordedAt = this.clock();
      const { id, corrects, compressorId } = content as Correcting & { id: string };
      if (corrects && compressorId) {
        this.voidFact(entity, { factId: corrects, compressorId, by: id, recordedAt });
      }
      const row = Object.assign(new entity(), content, complete(recordedAt), { recordedAt }) as Row;
      this.database.insert<Row>(entity, row);
      this.logbook.write(entity, row);
      return { row, isNew: true };
    });
  }

  /** Withdraws a fact, with the reason why it was wrong. */
  withdraw(
    entity: EntityTarget<UnitFactColumns>,
    content: Pick<WithdrawalEntity, 'id' | 'compressorId' | 'factId' | 'reason' | 'by' | 'note'>,
    complete: (recordedAt: Instant, fact: UnitFactColumns) => readonly string[],
  ): { row: WithdrawalEntity; isNew: boolean } {
    return this.record(WithdrawalEntity, content, (recordedAt) => {
      const { id, compressorId, factId } = content;
      const fact = this.voidFact(entity, { factId, compressorId, by: id, recordedAt, how: 'withdrawn' });
      return { marks: [...complete(recordedAt, fact)] };
    });
  }

  /** A fact no longer stands; refused when there is none of that kind, or it had been put right before. */
  private voidFact(
    entity: EntityTarget<FactColumns>,
    { factId, compressorId, by, recordedAt, how = 'corrected' }: Voiding,
  ): UnitFactColumns {
    const fact = this.database.find<FactColumns>(entity, factId) as UnitFactColumns | undefined;
    if (fact?.compressorId !== compressorId) {
      throw notFound('no-such-fact', 'What is to be put right is not on record for this unit.');
    }
    const before = this.database.all('SELECT "how" FROM "voided" WHERE "fact_id" = ?', factId);
    if (before.length > 0) {
      throw conflict(
        'already-voided',
        'That was put right before.',
        'It has been withdrawn or corrected already.',
      );
    }
    // Recorded by a clock that was fast, it may lie ahead: it is on record now, and from then on it stands no longer.
    const voidedAt = Math.max(recordedAt, fact.recordedAt);
    this.database.insert(VoidedEntity, { factId, compressorId, voidedAt, byFact: by, how });
    return fact;
  }

  private known<Row extends FactColumns>(
    entity: EntityTarget<Row>,
    content: Partial<Row> & { id: string },
  ): Row | undefined {
    const kind = this.kindOf(content.id);
    if (!kind) return undefined;
    const found = this.database.find<FactColumns>(kind.entity, content.id)!;
    const same =
      kind.entity === entity &&
      [...kind.content, ...sharedContent].every((column) => sameValue(found, content, column));
    if (same) return found as Row;
    throw conflict(
      'id-already-used',
      'This id already belongs to another record.',
      'Something else was recorded under the same id. Send it again with a new id.',
    );
  }

  /** Which kind of fact an id belongs to: every table is asked in one statement. */
  private kindOf(id: string): (typeof factKinds)[number] | undefined {
    this.lookup ??= factKinds
      .map(
        ({ entity }, index) =>
          `SELECT ${index} AS "kind" FROM ${this.database.tableOf(entity)} WHERE "id" = ?`,
      )
      .join(' UNION ALL ');
    const [row] = this.database.all<{ kind: number }>(this.lookup, ...factKinds.map(() => id));
    return row && factKinds[row.kind];
  }
}

function sameValue(stored: object, sent: object, column: string): boolean {
  return canonical(stored[column as never]) === canonical(sent[column as never]);
}

/** A text that is equal for equal content, whatever the order of its fields. */
function canonical(value: unknown): string {
  return JSON.stringify(value ?? null, (_key, part: unknown) =>
    part !== null && typeof part === 'object' && !Array.isArray(part)
      ? Object.fromEntries(Object.entries(part).sort(([a], [b]) => (a < b ? -1 : 1)))
      : part,
  );
}
