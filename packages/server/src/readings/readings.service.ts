import { Injectable } from '@nestjs/common';
import {
  BatchReading,
  type BatchResultsView,
  type BatchResultView,
  type MeterChangeView,
  type Page,
  type PageQuery,
  type ReadingView,
  type RecordMeterChange,
  type RecordReading,
} from '@entretien/contracts';
import { formatInstant, localDayAt, dayNumberOf, type Instant } from '@entretien/core/basics';
import { meterChangeProblem, readingMarks, readingProblem } from '@entretien/core/hours';
import { impossible, ProblemError } from '../common/problem.js';
import { checked } from '../common/validation.js';
import { CompressorRegister, type CompressorRecord } from '../compressors/compressor-register.js';
import { PeopleService } from '../people/people.js';
import { Database } from '../persistence/database.js';
import { MeterChangeEntity, ReadingEntity } from '../persistence/entities/hour-facts.entity.js';
import { factView, FactPages } from '../persistence/fact-pages.js';
import { FactStore } from '../persistence/fact-store.js';
import { NeighbouringFigures } from './neighbours.js';

/** Readings of the hour meter, and the moments at which the meter jumped. */
@Injectable()
export class ReadingsService {
  constructor(
    private readonly database: Database,
    private readonly facts: FactStore,
    private readonly pages: FactPages,
    private readonly people: PeopleService,
    private readonly register: CompressorRegister,
    private readonly neighbours: NeighbouringFigures,
  ) {}

  record(compressorId: string, reading: RecordReading, by: string): ReadingView {
    const { row } = this.store(this.register.require(compressorId), reading, this.people.require(by));
    return toReadingView(row);
  }

  /** Each row by itself: what is refused holds up nothing, what is known already is said to be. */
  recordBatch(rows: readonly object[], by: string): BatchResultsView {
    return { results: this.database.transact(() => rows.map((row) => this.recordOne(row, by))) };
  }

  private recordOne(sent: object, by: string): BatchResultView {
    const id = 'id' in sent && typeof sent.id === 'string' ? sent.id.slice(0, 36) : '';
    try {
      const reading = checked(BatchReading, sent);
      const unit = this.register.require(reading.compressorId);
      const { row, isNew } = this.store(unit, reading, this.people.require(reading.by?.toLowerCase() ?? by));
      return { id, outcome: isNew ? 'stored' : 'known', marks: row.marks };
    } catch (problem) {
      if (!(problem instanceof ProblemError)) throw problem;
      return { id, outcome: 'refused', marks: [], problem: problem.toDetails() };
    }
  }

  private store(unit: CompressorRecord, reading: RecordReading, by: string) {
    const { hours, counts, source } = reading;
    const content = {
      id: reading.id.toLowerCase(),
      compressorId: unit.id,
      takenAt: Date.parse(reading.takenAt),
      hours,
      counts,
      source,
      note: reading.note ?? null,
      corrects: reading.corrects?.toLowerCase() ?? null,
      by,
    };
    return this.facts.record(ReadingEntity, content, (recordedAt) => {
      const log = this.neighbours.around(unit.id, content.takenAt, counts);
      const judged = { ...content, recordedAt };
      const problem = readingProblem(log, judged, this.contextOf(unit, recordedAt));
      if (problem) throw impossible(problem);
      return { marks: [...this.marksAt(unit, content.takenAt), ...readingMarks(log, judged)] };
    });
  }

  recordMeterChange(compressorId: string, change: RecordMeterChange, by: string): MeterChangeView {
    const unit = this.register.require(compressorId);
    const { oldFinalHours, newStartHours, reason } = change;
    const content = {
      id: change.id.toLowerCase(),
      compressorId: unit.id,
      changedAt: Date.parse(change.changedAt),
      oldFinalHours,
      newStartHours,
      reason,
      note: change.note ?? null,
      corrects: change.corrects?.toLowerCase() ?? null,
      by: this.people.require(by),
    };
    const { row } = this.facts.record(MeterChangeEntity, content, (recordedAt) => {
      const log = this.neighbours.around(unit.id, content.changedAt);
      const problem = meterChangeProblem(log, { ...content, recordedAt }, this.contextOf(unit, recordedAt));
      if (problem) throw impossible(problem);
      return { marks: this.marksAt(unit, content.changedAt) };
    });
    return toMeterChangeView(row);
  }

  list(compressorId: string, query: PageQuery): Promise<Page<ReadingView>> {
    const { id } = this.register.require(compressorId);
    return this.pages.page(ReadingEntity, 'takenAt', id, query, toReadingView);
  }

  listMeterChanges(compressorId: string, query: PageQuery): Promise<Page<MeterChangeView>> {
    const { id } = this.register.require(compressorId);
    return this.pages.page(MeterChangeEntity, 'changedAt', id, query, toMeterChangeView);
  }

  private contextOf(unit: CompressorRecord, now: Instant) {
    return { now, timeZone: this.register.timeZoneOf(this.register.plateOf(unit, now)) };
  }

  /** Unusual, but the technician may be right: a machine can have run before its papers say so. */
  private marksAt(unit: CompressorRecord, at: Instant): string[] {
    const plate = this.register.plateOf(unit, at);
    const day = localDayAt(at, this.register.timeZoneOf(plate));
    return day < dayNumberOf(plate.commissionedOn) ? ['before-commissioning'] : [];
  }
}

function toReadingView(row: ReadingEntity): ReadingView {
  const { takenAt, hours, counts, source } = row;
  return { ...factView(row), takenAt: formatInstant(takenAt), hours, counts, source };
}

function toMeterChangeView(row: MeterChangeEntity): MeterChangeView {
  const { changedAt, oldFinalHours, newStartHours, reason } = row;
  return { ...factView(row), changedAt: formatInstant(changedAt), oldFinalHours, newStartHours, reason };
}
