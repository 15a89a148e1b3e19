import { Injectable } from '@nestjs/common';
import type { StepOutcome } from '@entretien/contracts';
import { formatInstant } from '@entretien/core/basics';
import { planVersionAt, pointByShare, type Trigger } from '@entretien/core/plan';
import {
  countedTasks,
  lookShares,
  resultsOf,
  type LookBody,
  type StepBody,
  type VisitTask,
} from '@entretien/core/visit';
import { outcomeOf } from '@entretien/core/checks';
import { v5 as idFrom } from 'uuid';
import { impossible } from '../common/problem.js';
import { CompressorRegister } from '../compressors/compressor-register.js';
import { MeasurementsService } from '../measurements/measurements.service.js';
import { PartsService } from '../parts/parts.service.js';
import { Database } from '../persistence/database.js';
import { PhotoEntity, type VisitEntity, type VisitStepEntity } from '../persistence/entities/visit.entity.js';
import { ReadingsService } from '../readings/readings.service.js';
import { RepairsService } from '../repairs/repairs.service.js';
import { ServicesService } from '../services/services.service.js';
import { DeferralsService } from '../plans/deferrals.service.js';
import { StandingsService } from '../standings/standings.service.js';
import { VisitRepository } from './visit-repository.js';

interface Followed {
  readonly marks: readonly string[];
  readonly outcome: StepOutcome | null;
}

const NOTHING: Followed = { marks: [], outcome: null };

/** The facts that follow from a step, each under an id that follows from the step's own. */
@Injectable()
export class StepConsequences {
  constructor(
    private readonly database: Database,
    private readonly register: CompressorRegister,
    private readonly measurements: MeasurementsService,
    private readonly readings: ReadingsService,
    private readonly services: ServicesService,
    private readonly repairs: RepairsService,
    private readonly parts: PartsService,
    private readonly standings: StandingsService,
    private readonly waiting: DeferralsService,
    private readonly book: VisitRepository,
  ) {}

  /** Records them within the transaction of the step: refused, the step is refused too. */
  of(
    visit: VisitEntity,
    step: Pick<VisitStepEntity, 'id' | 'compressorId' | 'doneAt' | 'by'>,
    body: StepBody,
  ): Followed {
    const at = formatInstant(step.doneAt);
    switch (body.kind) {
      case 'measure': {
        const { check, values } = body;
        const taken = { id: idFrom('measurement', step.id), check, values, takenAt: at };
        const { judgement } = this.measurements.record(step.compressorId, taken, step.by);
        return { marks: [], outcome: outcomeOf(judgement) };
      }
      case 'hours': {
        const reading = {
          id: idFrom('hours', step.id),
          takenAt: at,
          hours: body.hours,
          counts: 'total',
          source: 'typed',
        } as const;
        const { marks } = this.readings.record(step.compressorId, reading, step.by);
        return { marks, outcome: null };
      }
      case 'part': {
        if (body.part === undefined) return NOTHING;
        this.parts.refuseUnreasoned(
          { part: body.part, reason: body.reason },
          this.book.plateOf(visit, step.compressorId),
          { compressorId: step.compressorId, field: 'details.reason' },
        );
        const used = { count: body.count, usedIn: step.id, usedAt: step.doneAt, by: step.by };
        const marks = this.parts.use(body.part, used);
        // What goes back into the van changed nothing.
        if (body.count > 0)
          this.repairs.recordSubstitute(
            { part: body.part, reason: body.reason },
            { id: step.id, at: step.doneAt, compressorId: step.compressorId, by: step.by },
          );
        return { marks, outcome: null };
      }
      case 'fault': {
        const { found, station } = body;
        const repair = { id: idFrom('repair', step.id), kind: 'fault', foundAt: at, found } as const;
        this.repairs.report(
          step.compressorId,
          station === undefined ? repair : { ...repair, station },
          step.by,
        );
        return NOTHING;
      }
      case 'photo':
        this.requirePhoto(visit, body.photo);
        return NOTHING;
      case 'look':
        this.recordLook(visit, step, body);
        return NOTHING;
      case 'sign':
        this.recordService(visit, step);
        return NOTHING;
      default:
        return NOTHING;
    }
  }

  /** Where the task counts from, from now on: by what was seen, and only where nothing better is on record. */
  private recordLook(
    visit: VisitEntity,
    { id, compressorId, doneAt, by }: Pick<VisitStepEntity, 'id' | 'compressorId' | 'doneAt' | 'by'>,
    { task: code, found }: LookBody,
  ): void {
    const unit = this.register.require(compressorId);
    const { plan, plate } = this.book.compressorOf(visit, compressorId);
    const task = plan.find((one) => one.code === code)!;
    const refuse = (problem: string, sentence: string) =>
      impossible({ code: problem, field: 'details.task', sentence });
    if (resultsOf(task, plate).length > 0)
      throw refuse('is-a-test', `${task.name} is a test: it is done, not looked at.`);
    const { judged } = this.standings.judge(unit, doneAt);
    const start = judged.get(code)?.standing.startedBy;
    if (start === 'done' || start === 'commissioned')
      throw refuse('history-known', `When ${task.name} was last done is on record: do it, or leave it.`);
    const timeZone = this.register.timeZoneOf(plate);
    // Of the interval as it holds here: what the place shortens is counted in.
    const triggers = judged.get(code)?.triggers.all.map(({ trigger }) => trigger as Trigger) ?? task.triggers;
    const point = pointByShare({ code, triggers }, lookShares[found], doneAt, timeZone);
    this.waiting.setStartingPoints(
      compressorId,
      { id: idFrom('look', id), setAt: formatInstant(doneAt), basis: 'inspection', points: [point] },
      by,
    );
  }

  private requirePhoto(visit: VisitEntity, photoId: string): void {
    const photo = this.database.find(PhotoEntity, photoId.toLowerCase());
    if (photo?.visitId === visit.id) return;
    throw impossible({
      code: 'no-such-photo',
      field: 'details.photo',
      sentence: 'The photo itself has not arrived: send it first.',
    });
  }

  /**
   * What was done and proved moves the schedule, from the moment of the work and not of the signature; once,
   * however often the unit is signed for.
   */
  private recordService(
    visit: VisitEntity,
    { id, compressorId, doneAt, by }: Pick<VisitStepEntity, 'id' | 'compressorId' | 'doneAt' | 'by'>,
  ): void {
    const rows = this.book.rows(visit.id, compressorId);
    const signedBefore = rows.findLast(({ kind }) => kind === 'sign');
    const progress = this.book.progressOf(visit, compressorId, rows);
    const unit = this.register.require(compressorId);
    const { plan } = planVersionAt(unit.planVersions, doneAt)!;
    const known = new Set(plan.tasks.map(({ code }) => code));
    const counted = countedTasks(progress).filter(
      (task) => known.has(task.code) && (!signedBefore || isNewSince(task, signedBefore)),
    );
    if (counted.length === 0) return;
    const lastDoneAt = Math.max(...counted.map((task) => task.doneAt!));
    const note = progress.notes.map(({ text }) => text).join(' ');
    this.services.record(
      compressorId,
      {
        id: idFrom('service', id),
        doneAt: formatInstant(lastDoneAt),
        tasks: counted.map(({ code }) => code),
        ...(note === '' ? {} : { note: note.slice(0, 2000) }),
      },
      by,
    );
  }
}

/** Done after a signature, or told after it: it was not signed for then. */
function isNewSince(
  { doneAt, knownAt }: VisitTask,
  { doneAt: signedAt, recordedAt }: VisitStepEntity,
): boolean {
  return doneAt! > signedAt || (knownAt !== null && knownAt > recordedAt);
}
