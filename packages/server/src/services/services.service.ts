import { Inject, Injectable } from '@nestjs/common';
import type { Page, PageQuery, RecordService, ServiceView } from '@entretien/contracts';
import { formatInstant, HOUR_MS } from '@entretien/core/basics';
import { futureProblem, readingProblem } from '@entretien/core/hours';
import { clockHours, planVersionAt, type HourClock, type PlanVersion } from '@entretien/core/plan';
import { LOOKED_AT, resultsOf } from '@entretien/core/visit';
import { impossible } from '../common/problem.js';
import { CLOCK, type Clock } from '../common/tokens.js';
import { CompressorHistories } from '../compressors/compressor-histories.js';
import { CompressorRegister, type CompressorRecord } from '../compressors/compressor-register.js';
import { PeopleService } from '../people/people.js';
import { Database } from '../persistence/database.js';
import { stands } from '../persistence/hour-facts-sql.js';
import { ServiceEntity } from '../persistence/entities/service.entity.js';
import { factView, FactPages } from '../persistence/fact-pages.js';
import { FactStore } from '../persistence/fact-store.js';
import { NeighbouringFigures } from '../readings/neighbours.js';

/** A result belongs to a test that was done about the same day. */
const ABOUT_THAT_DAY = 36 * HOUR_MS;

/** Service work that was done. */
@Injectable()
export class ServicesService {
  constructor(
    private readonly database: Database,
    private readonly facts: FactStore,
    private readonly pages: FactPages,
    private readonly people: PeopleService,
    private readonly register: CompressorRegister,
    private readonly histories: CompressorHistories,
    private readonly neighbours: NeighbouringFigures,
    @Inject(CLOCK) private readonly clock: Clock,
  ) {}

  record(compressorId: string, service: RecordService, by: string): ServiceView {
    const unit = this.register.require(compressorId);
    const content = {
      id: service.id.toLowerCase(),
      compressorId: unit.id,
      doneAt: Date.parse(service.doneAt),
      hours: service.hours ?? null,
      tasks: service.tasks,
      note: service.note ?? null,
      corrects: service.corrects?.toLowerCase() ?? null,
      by: this.people.require(by),
    };
    const { row } = this.facts.record(ServiceEntity, content, (recordedAt) => {
      const inForce = planVersionAt(unit.planVersions, content.doneAt)!;
      this.refuseImpossible(unit, content, inForce, recordedAt);
      return { marks: [...this.withoutResult(unit, content, inForce)], planVersion: inForce.version };
    });
    return toView(row, this.histories.clockOf(unit, this.clock()));
  }

  async list(compressorId: string, query: PageQuery): Promise<Page<ServiceView>> {
    const unit = this.register.require(compressorId);
    const clock = this.histories.clockOf(unit, this.clock());
    return this.pages.page(ServiceEntity, 'doneAt', unit.id, query, (row) => toView(row, clock));
  }

  /**
   * Tests of which no result is on record for about that day: they were looked at, and stay due. A test is done
   * with its result, whoever tells of it.
   */
  private withoutResult(
    unit: CompressorRecord,
    { doneAt, tasks }: Pick<ServiceEntity, 'doneAt' | 'tasks'>,
    { plan }: PlanVersion,
  ): readonly string[] {
    const plate = this.register.plateOf(unit, doneAt);
    return tasks.flatMap((code) => {
      const checks = resultsOf(plan.tasks.find((task) => task.code === code) ?? { code }, plate);
      if (checks.length === 0) return [];
      const [found] = this.database.all(
        `SELECT 1 FROM "measurement" WHERE "compressor_id" = ? AND "check_code" IN (${checks.map(() => '?').join(', ')}) AND "taken_at" BETWEEN ? AND ? AND ${stands('measurement')} LIMIT 1`,
        unit.id,
        ...checks,
        doneAt - ABOUT_THAT_DAY,
        doneAt + ABOUT_THAT_DAY,
      );
      return found ? [] : [`${LOOKED_AT}${code}`];
    });
  }

  private refuseImpossible(
    unit: CompressorRecord,
    { doneAt, hours, tasks }: Pick<ServiceEntity, 'doneAt' | 'hours' | 'tasks'>,
    { plan }: PlanVersion,
    recordedAt: number,
  ): void {
    const timeZone = this.register.timeZoneOf(this.register.plateOf(unit, doneAt));
    const context = { now: recordedAt, timeZone };
    const future = futureProblem(doneAt, 'doneAt', context);
    if (future) throw impossible(future);
    const known = new Set(plan.tasks.flatMap((task) => [task.code, ...(task.covers ?? [])]));
    const strange = tasks.find((code) => !known.has(code));
    if (strange !== undefined) {
      throw impossible({
        code: 'unknown-task',
        field: 'tasks',
        sentence: `“${strange}” is no task of this unit’s plan.`,
      });
    }
    if (hours === null) return;
    const reading = { takenAt: doneAt, hours, counts: 'total', source: 'typed', recordedAt } as const;
    const problem = readingProblem(this.neighbours.around(unit.id, doneAt), reading, context);
    if (problem) throw impossible(problem);
  }
}

function toView(row: ServiceEntity, clock: HourClock): ServiceView {
  const known = clockHours(clock, row.doneAt);
  return {
    ...factView(row),
    doneAt: formatInstant(row.doneAt),
    ...(row.hours === null ? {} : { hours: row.hours }),
    tasks: row.tasks,
    planVersion: row.planVersion,
    runHours: known?.hours ?? null,
    runHoursBasis: known?.basis ?? null,
  };
}
