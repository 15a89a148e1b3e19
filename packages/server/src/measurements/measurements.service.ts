import { Inject, Injectable } from '@nestjs/common';
import type {
  JudgeValues,
  MeasurementsQuery,
  MeasurementView,
  Page,
  RecordMeasurement,
} from '@entretien/contracts';
import { airPressureAt } from '@entretien/core/air';
import { formatDay, formatInstant, localDayAt, type Instant, type Problem } from '@entretien/core/basics';
import {
  dischargeGasC,
  judgeCheck,
  type CheckBaseline,
  type CheckValues,
  type Judgement,
} from '@entretien/core/checks';
import { clockHours, type HourClock } from '@entretien/core/plan';
import { v5 as idFrom } from 'uuid';
import { impossible } from '../common/problem.js';
import { CLOCK, type Clock } from '../common/tokens.js';
import { CompressorHistories } from '../compressors/compressor-histories.js';
import { CompressorRegister, type CompressorRecord } from '../compressors/compressor-register.js';
import { PeopleService } from '../people/people.js';
import { Database } from '../persistence/database.js';
import { MeasurementEntity } from '../persistence/entities/measurement.entity.js';
import { factView, FactPages } from '../persistence/fact-pages.js';
import { FactStore } from '../persistence/fact-store.js';
import { stands } from '../persistence/hour-facts-sql.js';
import { ReadingsService } from '../readings/readings.service.js';
import { SitesService } from '../sites/sites.service.js';

/** What was measured on units, judged when it was recorded. */
@Injectable()
export class MeasurementsService {
  constructor(
    private readonly database: Database,
    private readonly facts: FactStore,
    private readonly pages: FactPages,
    private readonly people: PeopleService,
    private readonly register: CompressorRegister,
    private readonly histories: CompressorHistories,
    private readonly sites: SitesService,
    private readonly readings: ReadingsService,
    @Inject(CLOCK) private readonly clock: Clock,
  ) {}

  record(compressorId: string, sent: RecordMeasurement, by: string): MeasurementView {
    const unit = this.register.require(compressorId);
    const content = {
      id: sent.id.toLowerCase(),
      compressorId: unit.id,
      check: sent.check,
      takenAt: Date.parse(sent.takenAt),
      values: sent.values,
      hours: sent.hours ?? null,
      baseline: sent.baseline ?? false,
      note: sent.note ?? null,
      corrects: sent.corrects?.toLowerCase() ?? null,
      by: this.people.require(by),
    };
    const { row } = this.database.transact(() => {
      const stored = this.facts.record(MeasurementEntity, content, (recordedAt) => {
        this.register.refuseFuture(unit, content.takenAt, 'takenAt', recordedAt);
        const judgement = this.judgeOn(unit, content);
        const { figure } = judgement;
        return {
          marks: [],
          verdict: judgement.verdict,
          judgement,
          figure: figure?.value ?? null,
          uncertainty: figure?.uncertainty ?? null,
          dischargeC: content.check === 'discharge-temperature' ? dischargeGasC(content.values) : null,
        };
      });
      if (stored.isNew && content.hours !== null) this.noteHours(unit, sent.takenAt, content.hours, content);
      return stored;
    });
    return this.toView(row, this.histories.clockOf(unit, this.clock()));
  }

  /** Judges without recording. */
  judge({ compressorId, check, values }: JudgeValues): Judgement {
    const now = this.clock();
    // Left out or null: judged by itself.
    if (compressorId) {
      const unit = this.register.require(compressorId);
      return this.judgeOn(unit, { check, values, takenAt: now, baseline: false });
    }
    const judged = judgeCheck(check, values, { on: formatDay(localDayAt(now, 'UTC')) });
    if (!judged.ok) throw refused(judged.problem);
    return judged.value;
  }

  list(compressorId: string, query: MeasurementsQuery): Promise<Page<MeasurementView>> {
    const unit = this.register.require(compressorId);
    const clock = this.histories.clockOf(unit, this.clock());
    const { check, from, to } = query;
    return this.pages.page(
      MeasurementEntity,
      'takenAt',
      unit.id,
      query,
      (row) => this.toView(row, clock),
      (rows) => {
        if (check !== undefined) rows.andWhere('fact.check = :check', { check });
        if (from !== undefined) rows.andWhere('fact.takenAt >= :from', { from: Date.parse(from) });
        if (to !== undefined) rows.andWhere('fact.takenAt <= :to', { to: Date.parse(to) });
      },
    );
  }

  /** What the measurement is, with the run hours of its moment. */
  toView(row: MeasurementEntity, clock: HourClock): MeasurementView {
    const known = clockHours(clock, row.takenAt);
    return {
      ...factView(row),
      check: row.check,
      takenAt: formatInstant(row.takenAt),
      values: row.values,
      ...(row.hours === null ? {} : { hours: row.hours }),
      baseline: row.baseline,
      judgement: row.judgement,
      runHours: known?.hours ?? null,
      runHoursBasis: known?.basis ?? null,
    };
  }

  private judgeOn(
    unit: CompressorRecord,
    measured: Pick<MeasurementEntity, 'check' | 'values' | 'takenAt' | 'baseline'>,
  ): Judgement {
    const { check, values, takenAt } = measured;
    const plate = this.register.plateOf(unit, takenAt);
    const judged = judgeCheck(check, values, {
      plate,
      baseline: this.baselineOf(unit.id, check, takenAt),
      isBaseline: measured.baseline,
      on: formatDay(localDayAt(takenAt, this.register.timeZoneOf(plate))),
      atmosphereBarAbs: airPressureAt(this.sites.find(plate.siteId)?.altitudeM),
    });
    if (!judged.ok) throw refused(judged.problem);
    return judged.value;
  }

  /** What was last measured by check: what stays the same begins from there. */
  lastValues(compressorId: string): Readonly<Record<string, CheckValues>> {
    const rows = this.database.all<{ check: string; figures: string }>(LAST_VALUES, compressorId);
    return Object.fromEntries(rows.map(({ check, figures }) => [check, JSON.parse(figures) as CheckValues]));
  }

  /** The baselines of a unit by check, as they hold now. */
  baselines(compressorId: string): Readonly<Record<string, CheckBaseline>> {
    const rows = this.database.all<RawBaseline>(BASELINES, compressorId, this.clock());
    return Object.fromEntries(rows.map((row) => [row.check, toBaseline(row)]));
  }

  /** The baseline that held at a moment: one that is being put right stands no longer by then. */
  private baselineOf(compressorId: string, check: string, at: Instant): CheckBaseline | undefined {
    const [row] = this.database.all<RawBaseline>(
      `${BASELINES} AND "check_code" = ?`,
      compressorId,
      at,
      check,
    );
    return row && toBaseline(row);
  }

  /** The figure on the meter is a reading of its own, under an id that follows from the measurement's. */
  private noteHours(
    unit: CompressorRecord,
    takenAt: string,
    hours: number,
    { id, by }: Pick<MeasurementEntity, 'id' | 'by'>,
  ): void {
    const reading = { id: idFrom('hours', id), takenAt, hours, counts: 'total', source: 'typed' } as const;
    this.readings.record(unit.id, reading, by);
  }
}

const LAST_VALUES = `SELECT "check_code" AS "check", "figures", max("taken_at") FROM "measurement" WHERE "compressor_id" = ? AND ${stands('measurement')} GROUP BY "check_code"`;
/** The latest baseline of each check, by a moment. */
const BASELINES = `SELECT "check_code" AS "check", "figures", "judgement" FROM (SELECT *, row_number() OVER (PARTITION BY "check_code" ORDER BY "taken_at" DESC, "recorded_at" DESC) AS "place" FROM "measurement" WHERE "compressor_id" = ? AND "taken_at" <= ? AND "is_baseline" = 1 AND ${stands('measurement')}) WHERE "place" = 1`;

interface RawBaseline {
  check: string;
  figures: string;
  judgement: string;
}

function toBaseline({ figures, judgement }: RawBaseline): CheckBaseline {
  const { figure } = JSON.parse(judgement) as Judgement;
  return { values: JSON.parse(figures) as CheckValues, figure: figure?.value ?? null };
}

/** A figure that the check refuses is told beside its field. */
function refused(problem: Problem) {
  const { field } = problem;
  return impossible(
    field === undefined || field === 'check' ? problem : { ...problem, field: `values.${field}` },
  );
}
