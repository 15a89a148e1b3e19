import { Inject, Injectable } from '@nestjs/common';
import type { Instant } from '@entretien/core/basics';
import type { EntityTarget } from 'typeorm';
import { requireRight } from '../access/actor.js';
import { conflict, notFound } from '../common/problem.js';
import { CLOCK, type Clock } from '../common/tokens.js';
import { Database } from './database.js';
import type { FactColumns, CompressorFactColumns } from './entities/columns.js';
import { VoidedEntity, WithdrawalEntity } from './entities/correction.entity.js';
import { MeasurementEntity } from './entities/measurement.entity.js';
import { OutOfServiceEntity } from './entities/stop.entity.js';
import { Spine } from './spine.js';
import { StoredKinds, type StoredKind } from './stored-kinds.js';

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
  constructor(
    private readonly database: Database,
    private readonly spine: Spine,
    private readonly kinds: StoredKinds,
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
    complete: (recordedAt: Instant) => Omit<Row, keyof Content | 'recordedAt' | 'seq'>,
  ): { row: Row; isNew: boolean } {
    const stored = this.kinds.ofEntity(entity);
    return this.database.transact(() => {
      const known = this.known<Row>(stored, content);
      if (known) return { row: known, isNew: false };
      const recordedAt = this.clock();
      const { id, corrects, compressorId } = content as Correcting & { id: string };
      if (corrects && compressorId) {
        this.voidFact(entity, { factId: corrects, compressorId, by: id, recordedAt });
      }
      const row = Object.assign(new entity(), content, complete(recordedAt), { recordedAt }) as Row;
      row.seq = this.spine.add(stored.kind, row);
      this.database.insert<Row>(entity, row);
      return { row, isNew: true };
    });
  }

  /** Withdraws a fact, with the reason why it was wrong. */
  withdraw(
    entity: EntityTarget<FactColumns>,
    content: Pick<WithdrawalEntity, 'id' | 'compressorId' | 'factId' | 'reason' | 'by' | 'note'>,
    complete: (recordedAt: Instant, fact: CompressorFactColumns) => readonly string[],
  ): { row: WithdrawalEntity; isNew: boolean } {
    return this.record(WithdrawalEntity, content, (recordedAt) => {
      const { id, compressorId, factId } = content;
      const fact = this.voidFact(entity, { factId, compressorId, by: id, recordedAt, how: 'withdrawn' });
      return { marks: [...complete(recordedAt, fact)] };
    });
  }

  /** A fact of a kind by its id. */
  find<Row extends FactColumns>(entity: EntityTarget<Row>, id: string): Row | undefined {
    const found = this.spine.find(id);
    if (found?.kind !== this.kinds.ofEntity(entity).kind.kind) return undefined;
    return this.database.findFact(entity, found.seq);
  }

  /** A fact no longer stands; refused when there is none of that kind, or it had been put right before. */
  private voidFact(
    entity: EntityTarget<FactColumns>,
    { factId, compressorId, by, recordedAt, how = 'corrected' }: Voiding,
  ): CompressorFactColumns {
    const fact = this.find<FactColumns>(entity, factId) as CompressorFactColumns | undefined;
    if (fact?.compressorId !== compressorId) {
      throw notFound('no-such-fact', 'What is to be corrected is not on record for this unit.');
    }
    // It would be a way back into service that nobody answers for.
    if (isStop(fact)) requireRight('sign', 'What stops a machine is withdrawn by who may sign for it.');
    const before = this.database.all('SELECT "how" FROM "voided" WHERE "fact_id" = ?', factId);
    if (before.length > 0) {
      throw conflict(
        'already-voided',
        'That was corrected before.',
        'It has been withdrawn or corrected already.',
      );
    }
    // Recorded by a clock that was fast, it may lie ahead: it is on record now, and from then on it stands no longer.
    const voidedAt = Math.max(recordedAt, fact.recordedAt);
    this.database.insert(VoidedEntity, { factId, compressorId, voidedAt, byFact: by, how });
    this.database.noteChange({ kind: 'voided', isFact: false, compressorId });
    return fact;
  }

  private known<Row extends FactColumns>(
    { kind, entity }: StoredKind,
    content: Partial<Row> & { id: string },
  ): Row | undefined {
    const known = this.spine.find(content.id);
    if (!known) return undefined;
    if (known.kind === kind.kind) {
      const found = this.database.findFact<FactColumns>(entity, known.seq)!;
      const agrees = [...kind.content, ...sharedContent].every((column) => sameValue(found, content, column));
      if (agrees) return found as Row;
    }
    throw conflict(
      'id-already-used',
      'This id already belongs to another record.',
      'Something else was recorded under the same id. Send it again with a new id.',
    );
  }
}

/** Whether a fact holds a machine out of service. */
function isStop(fact: FactColumns): boolean {
  return fact instanceof OutOfServiceEntity || (fact instanceof MeasurementEntity && fact.verdict === 'stop');
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
