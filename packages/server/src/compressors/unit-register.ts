import { Inject, Injectable } from '@nestjs/common';
import { formatDay, localDayAt, type Instant } from '@entretien/core/basics';
import { isRetiredOn, plateAt, type DataPlate, type PlateChange } from '@entretien/core/machine';
import {
  hourClockOf,
  type HourClock,
  type PlanVersion,
  type ServicePlan,
  type UnitHistory,
} from '@entretien/core/plan';
import type { Logger } from 'pino';
import { groupBy } from '../common/group-by.js';
import { notFound } from '../common/problem.js';
import { LOGGER } from '../common/tokens.js';
import { Database } from '../persistence/database.js';
import type { PlateFields } from '../persistence/entities/compressor.entity.js';
import { SitesService } from '../sites/sites.service.js';
import { FleetPriors } from './fleet-priors.js';
import { VesselBook } from './vessel-book.js';
import { readFacts, type KnownFacts, type UnitFacts } from './unit-facts.js';

/** What a unit is: its plate through time, and its plans. */
export interface UnitRecord {
  readonly id: string;
  readonly registered: DataPlate;
  readonly registeredAt: Instant;
  readonly by: string;
  readonly marks: readonly string[];
  readonly plateChanges: readonly PlateChange[];
  readonly planVersions: readonly (PlanVersion & { readonly recordedAt: Instant })[];
  /** Raised with every fact that concerns the unit. */
  revision: number;
}

/** Every kind of fact that concerns one unit. */
const FACT_TABLES = [
  'reading',
  'service',
  'meter_change',
  'measurement',
  'plate_change',
  'put_off',
  'starting_point',
  'withdrawal',
  'visit_step',
  'repair',
  'repair_entry',
] as const;

/** Histories kept at most; at a hundred readings each they take some 10 kB a unit. */
const MOST_HISTORIES = 12_000;

/**
 * Every unit and its history as the core wants them, kept in memory and thrown away when a fact changes them.
 * Nothing here is truth: it can be rebuilt from the tables at any time.
 */
@Injectable()
export class UnitRegister {
  private records: Map<string, UnitRecord> | null = null;
  private readonly facts = new Map<string, KnownFacts>();
  /** The history made of some facts last: as long as it is the same object, what was worked out for it is kept. */
  private readonly histories = new WeakMap<UnitFacts, UnitHistory>();
  private readonly plans = new Map<string, ServicePlan>();
  private readonly listeners: ((compressorId: string) => void)[] = [];

  constructor(
    private readonly database: Database,
    private readonly sites: SitesService,
    private readonly fleetPriors: FleetPriors,
    private readonly vessels: VesselBook,
    @Inject(LOGGER) private readonly logger: Logger,
  ) {}

  all(): IterableIterator<UnitRecord> {
    return this.loaded().values();
  }

  find(compressorId: string): UnitRecord | undefined {
    return this.loaded().get(compressorId.toLowerCase());
  }

  require(compressorId: string): UnitRecord {
    const record = this.find(compressorId);
    if (!record) throw notFound('no-such-unit', 'This unit is not in the register.');
    return record;
  }

  /** The plate of a unit as it was at a moment, as known at another. */
  plateOf(record: UnitRecord, at: Instant, knownAt = Number.POSITIVE_INFINITY): DataPlate {
    const known = record.plateChanges.filter((change) => change.recordedAt <= knownAt);
    return plateAt(record.registered, known, at);
  }

  /** Whether a unit is out of service at a moment, by the day that it is there. */
  isRetired(plate: DataPlate, at: Instant): boolean {
    return (
      plate.retiredOn !== undefined && isRetiredOn(plate, formatDay(localDayAt(at, this.timeZoneOf(plate))))
    );
  }

  timeZoneOf(plate: DataPlate): string {
    return this.sites.find(plate.siteId)?.timeZone ?? 'UTC';
  }

  /**
   * Everything that decides what is due on a unit, under the plate of a moment. Asked about what was known at
   * a moment, facts found to be wrong since then are among it, with the moment they were.
   */
  historyOf(record: UnitRecord, plate: DataPlate, knownAt = Number.POSITIVE_INFINITY): UnitHistory {
    const known = this.factsOf(record.id);
    const facts = knownAt === Number.POSITIVE_INFINITY ? known.standing : known.all;
    const papers = {
      timeZone: this.timeZoneOf(plate),
      commissionedOn: plate.commissionedOn,
      history: plate.history,
      declaredHoursPerWeek: plate.declaredHoursPerWeek,
      closedWeekdays: plate.closedWeekdays,
      closures: plate.closures,
      fleetPriors: this.fleetPriors.all(),
      vessels: this.vessels.filledBy(record.id),
    };
    const { dust, humidity, oilRatedTempC } = plate;
    const place = { dust, humidity, oilRatedTempC };
    const kept = this.histories.get(facts);
    const same = kept && isIn(papers, kept) && isIn(place, kept.place!);
    if (same) return kept;
    const history = { ...papers, place, ...facts };
    this.histories.set(facts, history);
    return history;
  }

  /**
   * Works something out of a unit, or says what can be said of one about which something on record makes no
   * sense: nobody else is kept from being shown.
   */
  orUnjudged<Result>(unit: UnitRecord, judge: () => Result, unjudged: () => Result): Result {
    try {
      return judge();
    } catch (error) {
      this.logger.error({ err: error, compressorId: unit.id }, 'a unit cannot be judged');
      return unjudged();
    }
  }

  /** The run hours of a unit by all that is known at a moment, under the plate of that moment. */
  clockOf(record: UnitRecord, at: Instant): HourClock {
    return hourClockOf(this.historyOf(record, this.plateOf(record, at)), at);
  }

  /** Readings, services, meter changes or withdrawals were recorded. */
  factRecorded(compressorId: string, count = 1): void {
    this.facts.delete(compressorId);
    const record = this.records?.get(compressorId);
    if (record) record.revision += count;
    this.tell(compressorId);
  }

  /** Work that records several facts together: should one be refused, nothing that was read meanwhile is kept. */
  keepOrForget<Result>(compressorId: string, work: () => Result): Result {
    try {
      return work();
    } catch (refused) {
      this.factRecorded(compressorId, 0);
      throw refused;
    }
  }

  /** Facts of many units were recorded past this register. */
  factsImported(counts: ReadonlyMap<string, number>): void {
    counts.forEach((count, id) => this.factRecorded(id, count));
  }

  /** Nobody can say what was recorded past this register: everything is read anew when it is asked for. */
  forgetAll(): void {
    const ids = [...this.all()].map(({ id }) => id);
    this.records = null;
    this.facts.clear();
    ids.forEach((id) => this.tell(id));
  }

  /** The unit came into the register, or its plate changed. */
  recordChanged(compressorId: string): void {
    if (this.records) for (const [id, record] of this.readRecords(compressorId)) this.records.set(id, record);
    this.tell(compressorId);
  }

  private tell(compressorId: string): void {
    for (const listener of this.listeners) listener(compressorId);
  }

  /** Calls back with the id of each unit of which a fact is recorded. */
  onChange(listener: (compressorId: string) => void): void {
    this.listeners.push(listener);
  }

  private loaded(): Map<string, UnitRecord> {
    return (this.records ??= this.readRecords());
  }

  /** How many facts each unit has: a revision that need not be written with every one of them. */
  private countFacts(only: string | undefined): Map<string, number> {
    const counts = new Map<string, number>();
    for (const table of FACT_TABLES) {
      const where = only === undefined ? '' : 'WHERE "compressor_id" = ?';
      const sql = `SELECT "compressor_id" AS "unit", count(*) AS "facts" FROM "${table}" ${where} GROUP BY "compressor_id"`;
      const rows = this.database.all<{ unit: string; facts: number }>(
        sql,
        ...(only === undefined ? [] : [only]),
      );
      for (const { unit, facts } of rows) counts.set(unit, (counts.get(unit) ?? 0) + facts);
    }
    return counts;
  }

  /** Reads one unit, or all of them. */
  private readRecords(only?: string): Map<string, UnitRecord> {
    const read = <Row>(sql: string, idColumn: string, order = '') =>
      only === undefined
        ? this.database.all<Row>(`${sql} ${order}`)
        : this.database.all<Row>(`${sql} WHERE "${idColumn}" = ? ${order}`, only);
    const changes = groupBy(read<RawPlateChange>(PLATE_CHANGES, 'compressor_id'), (row) => row.unit);
    const versions = groupBy(
      read<RawPlanVersion>(PLAN_VERSIONS, 'compressor_id', 'ORDER BY "compressor_id", "version"'),
      (row) => row.unit,
    );
    const counts = this.countFacts(only);
    return new Map(
      read<RawCompressor>('SELECT * FROM "compressor"', 'id').map((row) => [
        row.id,
        {
          id: row.id,
          registered: JSON.parse(row.plate) as DataPlate,
          registeredAt: row.recorded_at,
          by: row.by,
          marks: JSON.parse(row.marks) as string[],
          // The registration itself is the first.
          revision: 1 + (counts.get(row.id) ?? 0) + ((versions.get(row.id)?.length ?? 1) - 1),
          plateChanges: (changes.get(row.id) ?? []).map(({ changedAt, recordedAt, changes: fields }) => ({
            changedAt,
            recordedAt,
            changes: JSON.parse(fields) as PlateFields,
          })),
          planVersions: (versions.get(row.id) ?? []).map(
            ({ version, effectiveAt, recordedAt, contentId }) => ({
              version,
              effectiveAt,
              recordedAt,
              plan: this.planOf(contentId),
            }),
          ),
        },
      ]),
    );
  }

  /** Plans of the same content are one object, however many units follow them. */
  private planOf(contentId: string): ServicePlan {
    let plan = this.plans.get(contentId);
    if (!plan) {
      const sql = 'SELECT "plan" FROM "plan_content" WHERE "id" = ?';
      const [row] = this.database.all<{ plan: string }>(sql, contentId);
      this.plans.set(contentId, (plan = JSON.parse(row!.plan) as ServicePlan));
    }
    return plan;
  }

  private factsOf(id: string): KnownFacts {
    let facts = this.facts.get(id);
    if (!facts) this.remember(id, (facts = readFacts(this.database, id)));
    return facts;
  }

  private remember(id: string, facts: KnownFacts): void {
    if (this.facts.size >= MOST_HISTORIES) this.facts.delete(this.facts.keys().next().value!);
    this.facts.set(id, facts);
  }
}

/** Whether every field of one stands in the other as the very same value. */
function isIn(fields: object, other: object): boolean {
  return Object.entries(fields).every(([field, value]) => other[field as keyof typeof other] === value);
}

interface RawCompressor {
  id: string;
  plate: string;
  recorded_at: number;
  by: string;
  marks: string;
}

interface RawPlateChange {
  unit: string;
  changedAt: number;
  recordedAt: number;
  changes: string;
}

interface RawPlanVersion {
  unit: string;
  version: number;
  effectiveAt: number;
  recordedAt: number;
  contentId: string;
}

const PLATE_CHANGES =
  'SELECT "compressor_id" AS "unit", "changed_at" AS "changedAt", "recorded_at" AS "recordedAt", "changes" FROM "plate_change"';
const PLAN_VERSIONS =
  'SELECT "compressor_id" AS "unit", "version", "effective_at" AS "effectiveAt", "recorded_at" AS "recordedAt", "content_id" AS "contentId" FROM "plan_version"';
