import { Inject, Injectable, type OnApplicationBootstrap } from '@nestjs/common';
import { formatDay, localDayAt, type Instant } from '@entretien/core/basics';
import { isRetiredOn, plateAt, type DataPlate, type PlateChange } from '@entretien/core/machine';
import type { PlanVersion, ServicePlan } from '@entretien/core/plan';
import type { Logger } from 'pino';
import { groupBy } from '../common/group-by.js';
import { refuseAhead } from '../common/long-ago.js';
import { notFound } from '../common/problem.js';
import { LOGGER } from '../common/tokens.js';
import { Database, type Change } from '../persistence/database.js';
import type { PlateFields } from '../persistence/entities/compressor.entity.js';
import { SitesService } from '../sites/sites.service.js';

/** What a unit is: its plate through time, and its plans. */
export interface CompressorRecord {
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

/** After these, what a unit is must be read anew: its plate or its plans changed. */
const CHANGES_OF_RECORDS = new Set(['compressor', 'plate-change', 'plan-version']);

/**
 * What every compressor is: its plate and its plans through time, and how many facts concern it. Kept in memory and
 * renewed when something is committed. Nothing here is truth: it can be rebuilt from the tables at any time.
 */
@Injectable()
export class CompressorRegister implements OnApplicationBootstrap {
  private records: Map<string, CompressorRecord> | null = null;
  private readonly plans = new Map<string, ServicePlan>();
  private readonly listeners: ((compressorId: string) => void)[] = [];

  constructor(
    private readonly database: Database,
    private readonly sites: SitesService,
    @Inject(LOGGER) private readonly logger: Logger,
  ) {
    database.onCommit((changes) => this.take(changes));
  }

  /** Before anything can be under way: what is read then holds. */
  onApplicationBootstrap(): void {
    this.loaded();
  }

  all(): IterableIterator<CompressorRecord> {
    return this.loaded().values();
  }

  find(compressorId: string): CompressorRecord | undefined {
    const id = compressorId.toLowerCase();
    const record = this.loaded().get(id);
    // In the midst of its registration, or of a change of what it is: for whoever changes it, it is so already.
    return this.database.isChanging(id, CHANGES_OF_RECORDS)
      ? (this.readRecords(id).get(id) ?? record)
      : record;
  }

  require(compressorId: string): CompressorRecord {
    const record = this.find(compressorId);
    if (!record) throw notFound('no-such-unit', 'This unit is not in the register.');
    return record;
  }

  /** The plate of a unit as it was at a moment, as known at another. */
  plateOf(record: CompressorRecord, at: Instant, knownAt = Number.POSITIVE_INFINITY): DataPlate {
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

  /** Refuses what is said to have happened on a unit after now, in the words of its own clock. */
  refuseFuture(unit: CompressorRecord, at: Instant, field: string, now: Instant): void {
    refuseAhead(at, field, { now, timeZone: this.timeZoneOf(this.plateOf(unit, at)) });
  }

  /**
   * Works something out of a unit, or says what can be said of one about which something on record makes no
   * sense: nobody else is kept from being shown.
   */
  orUnjudged<Result>(unit: CompressorRecord, judge: () => Result, unjudged: () => Result): Result {
    try {
      return judge();
    } catch (error) {
      this.logger.error({ err: error, compressorId: unit.id }, 'a unit cannot be judged');
      return unjudged();
    }
  }

  /** Facts of many units were recorded past this server's connection: so many of each. */
  factsImported(counts: ReadonlyMap<string, number>): void {
    counts.forEach((count, id) => {
      const record = this.records?.get(id);
      if (record) record.revision += count;
      this.touched(id);
    });
  }

  /** Nobody can say what was recorded past this register: everything is read anew when it is asked for. */
  forgetAll(): void {
    this.records = this.readRecords();
    for (const id of this.records.keys()) this.touched(id);
  }

  private take(changes: readonly Change[]): void {
    const ofCompressors = changes.filter(({ compressorId }) => compressorId !== null);
    for (const [id, of] of groupBy(ofCompressors, ({ compressorId }) => compressorId!)) {
      const record = this.records?.get(id);
      if (record) record.revision += of.filter(({ isFact }) => isFact).length;
      if (this.records && of.some(({ kind }) => CHANGES_OF_RECORDS.has(kind))) {
        for (const [one, renewed] of this.readRecords(id)) this.records.set(one, renewed);
      }
      this.touched(id);
    }
  }

  /** What a unit is judged by has changed: by a fact of it, or by something beside its own facts. */
  touched(compressorId: string): void {
    for (const listener of this.listeners) listener(compressorId);
  }

  /** Calls back with the id of each unit of which a fact is recorded. */
  onChange(listener: (compressorId: string) => void): void {
    this.listeners.push(listener);
  }

  private loaded(): Map<string, CompressorRecord> {
    return (this.records ??= this.readRecords());
  }

  /** How many facts each unit has: a revision that need not be written with every one of them. */
  private countFacts(only: string | undefined): Map<string, number> {
    const where = only === undefined ? '"compressor_id" IS NOT NULL' : '"compressor_id" = ?';
    const rows = this.database.all<{ unit: string; facts: number }>(
      `SELECT "compressor_id" AS "unit", count(*) AS "facts" FROM "fact" WHERE ${where} GROUP BY "compressor_id"`,
      ...(only === undefined ? [] : [only]),
    );
    return new Map(rows.map(({ unit, facts }) => [unit, facts]));
  }

  /** Reads one unit, or all of them. */
  private readRecords(only?: string): Map<string, CompressorRecord> {
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
          revision: counts.get(row.id) ?? 1,
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
