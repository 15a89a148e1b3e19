import { Inject, Injectable } from '@nestjs/common';
import type { VisitState, VisitStepView } from '@entretien/contracts';
import { formatInstant } from '@entretien/core/basics';
import type { DataPlate } from '@entretien/core/machine';
import { packagesOf, planVersionAt, type ServicePackage } from '@entretien/core/plan';
import {
  progressOf,
  readRecordedBody,
  type StepBody,
  type CompressorProgress,
  type VisitStep,
  type VisitCompressor,
} from '@entretien/core/visit';
import { notFound } from '../common/problem.js';
import { CLOCK, type Clock } from '../common/tokens.js';
import { CompressorRegister } from '../compressors/compressor-register.js';
import { IsolationService } from '../isolation/isolation.service.js';
import { Database } from '../persistence/database.js';
import { VisitEntity, VisitStepEntity } from '../persistence/entities/visit.entity.js';
import { factView } from '../persistence/fact-pages.js';
import { FactStore } from '../persistence/fact-store.js';
import { StopsService } from '../stops/stops.service.js';
import { StepRegistry } from './step-registry.js';

/** The rules of isolation that steps are told under now. */
export const RULES = 2;

/** Reads visits and brings their steps together. */
@Injectable()
export class VisitRepository {
  constructor(
    private readonly database: Database,
    private readonly register: CompressorRegister,
    private readonly facts: FactStore,
    private readonly registry: StepRegistry,
    private readonly isolation: IsolationService,
    private readonly stops: StopsService,
    @Inject(CLOCK) private readonly clock: Clock,
  ) {}

  require(id: string): VisitEntity {
    const visit = this.facts.find(VisitEntity, id.toLowerCase());
    if (!visit) throw notFound('no-such-visit', 'There is no such visit.');
    return visit;
  }

  /** The steps of one unit of a visit in the order in which they happened. */
  rows(visitId: string, compressorId: string): VisitStepEntity[] {
    return this.database.findAll(
      VisitStepEntity,
      'WHERE "visit_id" = ? AND "compressor_id" = ? ORDER BY "done_at", "id"',
      visitId,
      compressorId,
    );
  }

  /** The plate of a unit when the visit was planned. */
  plateOf(visit: VisitEntity, compressorId: string): DataPlate {
    return this.register.plateOf(this.register.require(compressorId), visit.recordedAt);
  }

  /** A unit as the visit sees it: under the plan that held when the visit was planned. */
  compressorOf(
    visit: VisitEntity,
    compressorId: string,
    rows: readonly VisitStepEntity[] = [],
  ): VisitCompressor {
    const unit = this.register.require(compressorId);
    const { plan } = planVersionAt(unit.planVersions, visit.recordedAt)!;
    const guarded = this.isolation.guardedOf(unit, visit.recordedAt);
    const [first, last] = [rows[0]?.doneAt ?? visit.recordedAt, rows.at(-1)?.doneAt ?? visit.recordedAt];
    return {
      ...guarded,
      elsewhere: this.isolation.besideVisit(unit.id, visit.id, first, Math.max(last, this.clock())),
      stops: this.stops.of(unit.id).map(({ why }) => why),
      plan: plan.tasks,
      planned: visit.units.find((one) => one.compressorId === unit.id)?.tasks ?? [],
      kinds: this.registry.kinds,
    };
  }

  /** What belongs together on a unit, by the plan that held when the visit was planned. */
  packagesOf({ recordedAt }: VisitEntity, compressorId: string): readonly ServicePackage[] {
    const unit = this.register.require(compressorId);
    return packagesOf(
      planVersionAt(unit.planVersions, recordedAt)!.plan,
      this.register.plateOf(unit, recordedAt),
    );
  }

  /** The units of a visit: those planned, and those that joined it. */
  compressorsOf(visit: VisitEntity): readonly string[] {
    const joined = this.database.all<{ unit: string }>(
      'SELECT "compressor_id" AS "unit" FROM "visit_step" WHERE "visit_id" = ? GROUP BY "compressor_id" ORDER BY min("done_at")',
      visit.id,
    );
    return [
      ...new Set([...visit.units.map(({ compressorId }) => compressorId), ...joined.map(({ unit }) => unit)]),
    ];
  }

  /** @param rows its steps, where they were read already */
  progressOf(
    visit: VisitEntity,
    compressorId: string,
    rows = this.rows(visit.id, compressorId),
  ): CompressorProgress {
    return progressOf(this.compressorOf(visit, compressorId, rows), this.stepsOf(rows));
  }

  /** Rows as the core sees them, with what came out of measurements; without what cannot be read at all. */
  stepsOf(rows: readonly VisitStepEntity[]): VisitStep[] {
    return rows.flatMap(({ id, doneAt, by, session, marks, outcome, kind, details, recordedAt, rules }) => {
      const body = readRecordedBody(kind, details, this.registry.kinds);
      if (body === null) return [];
      const { figure: _figure, ...judged } = outcome ?? {};
      const recordedSteps = { id, doneAt, by, session, marks, recordedAt, isBeforeSpaces: rules < RULES };
      return [{ ...recordedSteps, body: { ...body, ...judged } as StepBody }];
    });
  }

  /** How the visit stands by its units. */
  stateOf(visit: VisitEntity, progress: readonly CompressorProgress[]): VisitState {
    if (progress.every(({ signed, left }) => signed !== null || left !== null)) return 'finished';
    const [begun] = this.database.all('SELECT 1 FROM "visit_step" WHERE "visit_id" = ? LIMIT 1', visit.id);
    return begun ? 'under-way' : 'planned';
  }
}

export function toStepView(row: VisitStepEntity): VisitStepView {
  return {
    ...factView(row),
    visitId: row.visitId,
    compressorId: row.compressorId,
    kind: row.kind,
    doneAt: formatInstant(row.doneAt),
    session: row.session,
    details: row.details,
    ...(row.outcome === null ? {} : { outcome: row.outcome }),
    ...(row.rules < RULES ? { isBeforeSpaces: true as const } : {}),
  };
}
