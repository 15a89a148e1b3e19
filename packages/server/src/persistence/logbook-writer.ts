import { Injectable } from '@nestjs/common';
import type { LogbookKind } from '@entretien/contracts';
import { checkByCode } from '@entretien/core/checks';
import { sayStep, type StepBody } from '@entretien/core/visit';
import type { EntityTarget } from 'typeorm';
import { Database } from './database.js';
import { PlateChangeEntity } from './entities/compressor.entity.js';
import type { FactColumns } from './entities/columns.js';
import { WithdrawalEntity } from './entities/correction.entity.js';
import { MeterChangeEntity } from './entities/hour-facts.entity.js';
import { MeasurementEntity } from './entities/measurement.entity.js';
import { PutOffEntity, StartingPointEntity } from './entities/plan-facts.entity.js';
import { RepairEntity, RepairEntryEntity } from './entities/repair.entity.js';
import { ServiceEntity } from './entities/service.entity.js';
import { VesselExaminationEntity } from './entities/vessel.entity.js';
import { VisitEntity, VisitStepEntity } from './entities/visit.entity.js';

/** How a kind of fact stands in the logbook: when it happened, and what it says. */
interface LoggedKind<Row extends FactColumns = FactColumns> {
  readonly kind: LogbookKind;
  readonly entity: EntityTarget<Row> & (new () => Row);
  readonly at: (row: Row) => number;
  readonly say: (row: Row) => string;
  /** Those of its own kinds that are facts of their own besides, and stand there as that. */
  readonly leavesOut?: readonly string[];
}

function logged<Row extends FactColumns>(one: LoggedKind<Row>): LoggedKind {
  return one as unknown as LoggedKind;
}

const inWords = (code: string) => code.replaceAll('-', ' ');
const list = (codes: readonly string[]) => codes.map(inWords).join(', ');

/** Every kind of fact that has words of its own. Readings, of which there are far more, are read where they lie. */
const KINDS: readonly LoggedKind[] = [
  logged({
    kind: 'service',
    entity: ServiceEntity,
    at: ({ doneAt }) => doneAt,
    say: ({ tasks, hours }) => `Service: ${list(tasks)}${hours === null ? '' : `, at ${hours} h`}`,
  }),
  logged({
    kind: 'measurement',
    entity: MeasurementEntity,
    at: ({ takenAt }) => takenAt,
    say: ({ check, verdict, judgement }) =>
      `${checkByCode(check)?.name ?? inWords(check)}, ${verdict}: ${judgement.reason}`,
  }),
  logged({
    kind: 'meter-change',
    entity: MeterChangeEntity,
    at: ({ changedAt }) => changedAt,
    say: ({ reason, oldFinalHours, newStartHours }) =>
      `Meter ${inWords(reason)}: from ${oldFinalHours} h, on from ${newStartHours} h`,
  }),
  logged({
    kind: 'plate-change',
    entity: PlateChangeEntity,
    at: ({ changedAt }) => changedAt,
    say: ({ changes }) =>
      `Data plate: ${Object.entries(changes)
        .map(([field, value]) => `${field} ${value === null ? 'unknown' : String(value)}`)
        .join(', ')}`,
  }),
  logged({
    kind: 'put-off',
    entity: PutOffEntity,
    at: ({ putOffAt }) => putOffAt,
    say: ({ task, reason, risk }) =>
      `Put off: ${inWords(task)}. ${reason}${risk === null ? '' : ` Risk: ${risk}`}`,
  }),
  logged({
    kind: 'starting-point',
    entity: StartingPointEntity,
    at: ({ setAt }) => setAt,
    say: ({ basis, points }) => `Counts from an ${basis}: ${list(points.map(({ task }) => task))}`,
  }),
  logged({
    kind: 'withdrawal',
    entity: WithdrawalEntity,
    at: ({ recordedAt }) => recordedAt,
    say: ({ reason }) => `Withdrawn: ${reason}`,
  }),
  logged({
    kind: 'visit',
    entity: VisitEntity,
    at: ({ recordedAt }) => recordedAt,
    say: ({ plannedOn, units }) =>
      `Visit planned for ${plannedOn}, ${units.length} ${units.length === 1 ? 'unit' : 'units'}`,
  }),
  logged({
    kind: 'visit-step',
    entity: VisitStepEntity,
    at: ({ doneAt }) => doneAt,
    say: ({ kind, details, marks }) =>
      [sayStep({ kind, ...details } as StepBody), ...marks.map(inWords)].join(', '),
    leavesOut: ['measure', 'hours', 'fault'],
  }),
  logged({
    kind: 'repair',
    entity: RepairEntity,
    at: ({ foundAt }) => foundAt,
    say: ({ kind, found }) =>
      `${kind === 'fault' ? 'Fault found' : kind === 'modification' ? 'Modified' : 'Improved'}: ${found}`,
  }),
  logged({
    kind: 'repair-entry',
    entity: RepairEntryEntity,
    at: ({ at }) => at,
    say: ({ kind, words, minutes, outcome }) =>
      `Repair, ${kind}: ${words}${minutes === null ? '' : `, ${minutes} min`}${outcome === null ? '' : `, ${outcome.verdict}`}`,
  }),
  logged({
    kind: 'vessel-examination',
    entity: VesselExaminationEntity,
    at: ({ doneOn }) => Date.parse(`${doneOn}T12:00:00Z`),
    say: ({ kind, passed }) => `Vessel ${kind}: ${passed ? 'passed' : 'not passed'}`,
  }),
];

const byEntity = new Map<unknown, LoggedKind>(KINDS.map((one) => [one.entity, one]));

/**
 * Keeps the logbook's index: one row a fact with its moment and words, for lists and full-text search. It is no
 * truth of its own, and can be made anew from the facts at any time.
 */
@Injectable()
export class LogbookWriter {
  constructor(private readonly database: Database) {}

  /** Within the transaction that records the fact. */
  write(entity: unknown, row: FactColumns): void {
    const kind = byEntity.get(entity);
    if (!kind || kind.leavesOut?.includes((row as { kind?: string }).kind ?? '')) return;
    const { id, recordedAt, by, note } = row;
    const { compressorId = null } = row as { compressorId?: string };
    const said = kind.say(row);
    const { lastInsertRowid } = this.database.run(
      'INSERT INTO "logbook" ("fact_id", "kind", "compressor_id", "at", "recorded_at", "by", "said", "note") VALUES (?, ?, ?, ?, ?, ?, ?, ?)',
      id,
      kind.kind,
      compressorId,
      kind.at(row),
      recordedAt,
      by,
      said,
      note,
    );
    this.database.run(
      'INSERT INTO "logbook_text" ("rowid", "words") VALUES (?, ?)',
      lastInsertRowid,
      `${said} ${note ?? ''}`,
    );
  }

  /** Brings in what was recorded without it: by an earlier version, or past the store. */
  catchUp(): number {
    return this.database.transact(() => {
      let count = 0;
      const [any] = this.database.all('SELECT 1 FROM "logbook" LIMIT 1');
      // Rows are numbered from the beginning again: words of the old ones must be gone.
      if (!any) this.database.run(`INSERT INTO "logbook_text" ("logbook_text") VALUES ('delete-all')`);
      for (const { entity, leavesOut = [] } of KINDS) {
        const missing = this.database.all<{ id: string }>(
          `SELECT "f"."id" FROM ${this.database.tableOf(entity)} "f" LEFT JOIN "logbook" "l" ON "l"."fact_id" = "f"."id" WHERE "l"."fact_id" IS NULL${leavesOut.map(() => ' AND "f"."kind" <> ?').join('')}`,
          ...leavesOut,
        );
        for (const { id } of missing) this.write(entity, this.database.find(entity, id)!);
        count += missing.length;
      }
      return count;
    });
  }
}
