import { Inject, Injectable } from '@nestjs/common';
import type {
  Page,
  PlanVisit,
  RecordVisitStep,
  VisitBriefView,
  VisitsQuery,
  VisitStepView,
  VisitCompressorView,
  VisitView,
} from '@entretien/contracts';
import { dayNumberOf, formatInstant, localDayAt } from '@entretien/core/basics';
import { describeMachine } from '@entretien/core/machine';
import { admitStep, type StepBody } from '@entretien/core/visit';
import { refuseLongAgo } from '../common/long-ago.js';
import { pageSize, readCursor, toPage } from '../common/page.js';
import { conflict, impossible } from '../common/problem.js';
import { checkedByKind } from '../common/validation.js';
import { CLOCK, type Clock } from '../common/tokens.js';
import { CompressorRegister } from '../compressors/compressor-register.js';
import { MeasurementsService } from '../measurements/measurements.service.js';
import { PeopleService } from '../people/people.js';
import { Database } from '../persistence/database.js';
import { VisitEntity, VisitStepEntity } from '../persistence/entities/visit.entity.js';
import { FactStore } from '../persistence/fact-store.js';
import { SitesService } from '../sites/sites.service.js';
import { StandingsService } from '../standings/standings.service.js';
import { StopsService } from '../stops/stops.service.js';
import { StepConsequences } from './step-consequences.js';
import { StepRegistry } from './step-registry.js';
import { RULES, toStepView, VisitRepository } from './visit-repository.js';

/** Visits, from planned to signed for: a visit is its steps, and everything else is worked out of them. */
@Injectable()
export class VisitsService {
  /** Visits known to be finished: whoever asks for open ones need not look into them again. */
  private readonly finished = new Set<string>();

  constructor(
    private readonly database: Database,
    private readonly facts: FactStore,
    private readonly people: PeopleService,
    private readonly register: CompressorRegister,
    private readonly sites: SitesService,
    private readonly standings: StandingsService,
    private readonly measurements: MeasurementsService,
    private readonly registry: StepRegistry,
    private readonly book: VisitRepository,
    private readonly consequences: StepConsequences,
    private readonly stops: StopsService,
    @Inject(CLOCK) private readonly clock: Clock,
  ) {}

  plan(sent: PlanVisit, by: string): VisitView {
    const content = {
      id: sent.id.toLowerCase(),
      siteId: this.sites.require(sent.siteId).id,
      plannedOn: sent.plannedOn,
      units: sent.units.map(({ compressorId, tasks }) => ({
        compressorId: compressorId.toLowerCase(),
        tasks,
      })),
      note: sent.note ?? null,
      by: this.people.require(by),
    };
    const { row } = this.facts.record(VisitEntity, content, (recordedAt) => {
      this.refuseFarDay(content.plannedOn, recordedAt);
      for (const { compressorId, tasks } of content.units)
        this.refuseStrange(content.siteId, compressorId, tasks, recordedAt);
      return { marks: [] };
    });
    return this.view(row);
  }

  one(id: string): VisitView {
    return this.view(this.book.require(id));
  }

  /**
   * Records a step with everything that follows from it, or nothing at all: a measurement, a reading, a part
   * out of the van, a repair; for a signature the service that moves the schedule.
   */
  record(visitId: string, sent: RecordVisitStep, by: string): VisitStepView {
    const visit = this.book.require(visitId);
    const unit = this.register.require(sent.compressorId);
    const details = checkedByKind(this.registry.contracts, sent, 'details');
    const body = { kind: sent.kind, ...details } as StepBody;
    const content = {
      id: sent.id.toLowerCase(),
      visitId: visit.id,
      compressorId: unit.id,
      kind: sent.kind,
      doneAt: Date.parse(sent.doneAt),
      session: sent.session,
      details,
      note: null,
      by: this.people.require(by),
    };
    const { row } = this.facts.record(VisitStepEntity, content, (recordedAt) => {
      this.register.refuseFuture(unit, content.doneAt, 'doneAt', recordedAt);
      refuseLongAgo(content.doneAt, 'doneAt');
      const marks = this.admit(visit, content, body, recordedAt);
      const followed = this.consequences.of(visit, content, body);
      return { marks: [...marks, ...followed.marks], outcome: followed.outcome, rules: RULES };
    });
    // What is told later may open it again.
    this.finished.delete(visit.id);
    return toStepView(row);
  }

  list({ siteId, compressorId, show, cursor, limit }: VisitsQuery): Page<VisitBriefView> {
    const size = pageSize(limit);
    const [day, last] = cursor === undefined ? ['9999-12-31', '~'] : readCursor(cursor, 2);
    const ids = this.database.all<{ id: string }>(
      'SELECT "id" FROM "visit" WHERE ("planned_on", "id") < (?, ?) ORDER BY "planned_on" DESC, "id" DESC',
      day!,
      last!,
    );
    const found: VisitBriefView[] = [];
    for (const { id } of ids) {
      if (found.length > size) break;
      if (show === 'open' && this.finished.has(id)) continue;
      const visit = this.book.require(id);
      if (siteId !== undefined && visit.siteId !== siteId.toLowerCase()) continue;
      if (compressorId !== undefined && !this.book.compressorsOf(visit).includes(compressorId.toLowerCase()))
        continue;
      const brief = this.brief(visit);
      if (brief.state === 'finished') this.finished.add(id);
      if (show !== 'open' || brief.state !== 'finished') found.push(brief);
    }
    return toPage(
      found,
      size,
      (one) => one,
      (one) => [one.plannedOn, one.id],
    );
  }

  private admit(
    visit: VisitEntity,
    {
      id,
      compressorId,
      doneAt,
      by,
      session,
    }: Pick<VisitStepEntity, 'id' | 'compressorId' | 'doneAt' | 'by' | 'session'>,
    body: StepBody,
    recordedAt: number,
  ): readonly string[] {
    if (!this.book.compressorsOf(visit).includes(compressorId)) {
      if (body.kind !== 'plan') {
        throw impossible({
          code: 'not-in-visit',
          field: 'compressorId',
          sentence: 'This unit is not part of the visit: plan a task for it first.',
        });
      }
      this.refuseStrange(visit.siteId, compressorId, body.tasks, recordedAt);
    }
    const rows = this.book.rows(visit.id, compressorId);
    const steps = this.book.stepsOf(rows);
    const step = { id, doneAt, by, session, body };
    const admitted = admitStep(this.book.compressorOf(visit, compressorId, rows), steps, step, recordedAt);
    if (admitted.ok) return admitted.value;
    const { problem } = admitted;
    if (CONFLICTS.has(problem.code)) throw conflict(problem.code, 'Not as it stands.', problem.sentence);
    throw impossible(problem);
  }

  /** A visit is of these years: what lies further off is a slip of the pen. */
  private refuseFarDay(day: string, now: number): void {
    const away = dayNumberOf(day) - localDayAt(now, 'UTC');
    if (away >= -MOST_DAYS_BACK && away <= MOST_DAYS_AHEAD) return;
    const sentence =
      away < 0
        ? 'That day lies more than ten years back. Is the year a slip?'
        : 'That day lies more than three years ahead. Is the year a slip?';
    throw impossible({ code: 'far-day', field: 'plannedOn', sentence });
  }

  private refuseStrange(siteId: string, compressorId: string, tasks: readonly string[], at: number): void {
    const unit = this.register.require(compressorId);
    if (this.register.plateOf(unit, at).siteId !== siteId) {
      throw impossible({
        code: 'another-site',
        field: 'units',
        sentence: 'A visit is to the units of one site.',
      });
    }
    const known = new Set(this.standings.judge(unit, at).plan.tasks.map(({ code }) => code));
    const strange = tasks.find((code) => !known.has(code));
    if (strange === undefined) return;
    throw impossible({
      code: 'unknown-task',
      field: 'units',
      sentence: `“${strange}” is no task of this unit’s plan.`,
    });
  }

  private view(visit: VisitEntity): VisitView {
    const site = this.sites.require(visit.siteId);
    const read = this.book
      .compressorsOf(visit)
      .map((unit) => ({ unit, rows: this.book.rows(visit.id, unit) }));
    const units = read.map(({ unit, rows }) => this.compressorView(visit, unit, rows));
    const progress = read.map(({ unit, rows }) => this.book.progressOf(visit, unit, rows));
    const { id, by, recordedAt, marks, note } = visit;
    return {
      id,
      by,
      recordedAt: formatInstant(recordedAt),
      marks,
      ...(note === null ? {} : { note }),
      siteId: visit.siteId,
      siteName: site.name,
      timeZone: site.timeZone,
      altitudeM: site.altitudeM ?? null,
      plannedOn: visit.plannedOn,
      state: this.book.stateOf(visit, progress),
      units,
    };
  }

  private compressorView(
    visit: VisitEntity,
    compressorId: string,
    rows: readonly VisitStepEntity[],
  ): VisitCompressorView {
    const { plate, plan, planned, elsewhere, pauseMinutes } = this.book.compressorOf(
      visit,
      compressorId,
      rows,
    );
    return {
      compressorId,
      tag: plate.tag,
      description: describeMachine(plate),
      plate,
      plan,
      planned,
      packages: this.book.packagesOf(visit, compressorId),
      standing: this.standings.of(compressorId, this.clock()),
      baselines: this.measurements.baselines(compressorId),
      lastValues: this.measurements.lastValues(compressorId),
      steps: rows.map(toStepView),
      elsewhere: elsewhere ?? [],
      pauseMinutes: pauseMinutes!,
      stops: this.stops.views(compressorId),
    };
  }

  private brief(visit: VisitEntity): VisitBriefView {
    const progress = this.book.compressorsOf(visit).map((compressorId) => ({
      compressorId,
      ...this.book.progressOf(visit, compressorId),
    }));
    const [last] = this.database.all<{ at: number | null }>(
      'SELECT max("done_at") AS "at" FROM "visit_step" WHERE "visit_id" = ?',
      visit.id,
    );
    return {
      id: visit.id,
      siteId: visit.siteId,
      siteName: this.sites.find(visit.siteId)?.name ?? '',
      plannedOn: visit.plannedOn,
      state: this.book.stateOf(visit, progress),
      by: visit.by,
      units: progress.map(({ compressorId, tasks, signed, left }) => ({
        compressorId,
        tag: this.book.plateOf(visit, compressorId).tag,
        state: signed ? 'signed' : left ? 'left' : 'open',
        unproved: tasks.filter(({ verification }) => verification === 'missing' || verification === 'failed')
          .length,
      })),
      lastStepAt: last?.at ? formatInstant(last.at) : null,
    };
  }
}

const [MOST_DAYS_BACK, MOST_DAYS_AHEAD] = [3653, 1096];

/** What the machine or the visit is not ready for, and might be later. */
const CONFLICTS = new Set([
  'not-isolated',
  'already-signed',
  'already-answered',
  'unanswered',
  'nothing-done',
  'no-reason',
  'not-restarted',
  'proof-failed',
  'unproved',
  'stop-stands',
  'is-isolated',
  'unknown-point',
  'not-in-order',
  'not-opened',
  'another-opened',
  'too-fast',
  'too-soon',
  'contradicts',
  'missing-figure',
  'too-hot',
  'not-here',
  'anothers-lock',
]);
