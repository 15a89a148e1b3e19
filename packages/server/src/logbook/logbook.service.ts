import { Inject, Injectable, type OnApplicationBootstrap } from '@nestjs/common';
import type { LogbookEntryView, LogbookKind, LogbookQuery, Page } from '@entretien/contracts';
import { formatInstant } from '@entretien/core/basics';
import { pageSize, readCursor, toPage } from '../common/page.js';
import { CLOCK, type Clock } from '../common/tokens.js';
import { UnitRegister } from '../compressors/unit-register.js';
import { PeopleService } from '../people/people.js';
import { Database } from '../persistence/database.js';
import { LogbookWriter } from '../persistence/logbook-writer.js';
import { SitesService } from '../sites/sites.service.js';

interface RawEntry {
  id: string;
  kind: LogbookKind;
  compressorId: string | null;
  at: number;
  recordedAt: number;
  by: string;
  said: string;
  note: string | null;
  voided: number;
}

type Cell = string | number;

/** Every fact of the fleet in one list, the latest first. */
@Injectable()
export class LogbookService implements OnApplicationBootstrap {
  constructor(
    private readonly database: Database,
    private readonly writer: LogbookWriter,
    private readonly register: UnitRegister,
    private readonly sites: SitesService,
    private readonly people: PeopleService,
    @Inject(CLOCK) private readonly clock: Clock,
  ) {}

  onApplicationBootstrap(): void {
    this.writer.catchUp();
  }

  page(query: LogbookQuery): Page<LogbookEntryView> {
    const size = pageSize(query.limit);
    const [at, id] =
      query.cursor === undefined
        ? [Number.MAX_SAFE_INTEGER, '~']
        : (readCursor(query.cursor, 2) as [number, string]);
    const rows = this.read(query, at, id, size + 1);
    const view = this.viewer();
    return toPage(rows, size, view, (row) => [row.at, row.id]);
  }

  /** Everything that a query finds, page by page, so that it is never in memory as a whole. */
  *all(query: LogbookQuery): Generator<LogbookEntryView> {
    const view = this.viewer();
    let [at, id]: [number, string] = [Number.MAX_SAFE_INTEGER, '~'];
    for (;;) {
      const rows = this.read(query, at, id, EXPORTED_AT_ONCE);
      yield* rows.map(view);
      const last = rows.at(-1);
      if (rows.length < EXPORTED_AT_ONCE || !last) return;
      [at, id] = [last.at, last.id];
    }
  }

  private read(query: LogbookQuery, at: number, id: string, count: number): RawEntry[] {
    const units = this.unitsOf(query);
    if (units?.length === 0) return [];
    const found: RawEntry[] = [];
    if (query.kind !== 'reading') found.push(...this.readIndexed(query, units, at, id, count));
    if (query.kind === undefined || query.kind === 'reading') {
      found.push(...this.readReadings(query, units, at, id, count));
    }
    return found.sort((a, b) => b.at - a.at || (a.id < b.id ? 1 : -1)).slice(0, count);
  }

  private readIndexed(
    { kind, from, to, q }: LogbookQuery,
    units: readonly string[] | null,
    at: number,
    id: string,
    count: number,
  ): RawEntry[] {
    const { where, cells, add } = conditions(
      '("l"."at" < ? OR ("l"."at" = ? AND "l"."fact_id" < ?))',
      at,
      at,
      id,
    );
    if (kind !== undefined) add('"l"."kind" = ?', kind);
    if (units !== null) add(`"l"."compressor_id" IN (SELECT value FROM json_each(?))`, JSON.stringify(units));
    if (from !== undefined) add('"l"."at" >= ?', Date.parse(from));
    if (to !== undefined) add('"l"."at" <= ?', Date.parse(to));
    const words = wordsOf(q);
    if (q !== undefined && words.length === 0) return [];
    if (words.length > 0) {
      add(
        '"l"."rowid" IN (SELECT "rowid" FROM "logbook_text" WHERE "logbook_text" MATCH ?)',
        words.map((word) => `"${word}"*`).join(' '),
      );
    }
    return this.database.all<RawEntry>(
      `SELECT "l"."fact_id" AS "id", "l"."kind", "l"."compressor_id" AS "compressorId", "l"."at", "l"."recorded_at" AS "recordedAt", "l"."by", "l"."said", "l"."note", "v"."fact_id" IS NOT NULL AS "voided"
       FROM "logbook" "l" LEFT JOIN "voided" "v" ON "v"."fact_id" = "l"."fact_id"
       WHERE ${where.join(' AND ')} ORDER BY "l"."at" DESC, "l"."fact_id" DESC LIMIT ?`,
      ...cells,
      count,
    );
  }

  private readReadings(
    { from, to, q }: LogbookQuery,
    units: readonly string[] | null,
    at: number,
    id: string,
    count: number,
  ): RawEntry[] {
    const { where, cells, add } = conditions(
      '("r"."taken_at" < ? OR ("r"."taken_at" = ? AND "r"."id" < ?))',
      at,
      at,
      id,
    );
    if (units !== null) add(`"r"."compressor_id" IN (SELECT value FROM json_each(?))`, JSON.stringify(units));
    if (from !== undefined) add('"r"."taken_at" >= ?', Date.parse(from));
    if (to !== undefined) add('"r"."taken_at" <= ?', Date.parse(to));
    if (q !== undefined) {
      add('"r"."note" IS NOT NULL');
      for (const word of wordsOf(q))
        add(`"r"."note" LIKE ? ESCAPE '!'`, `%${word.replace(/[!%_]/g, '!$&')}%`);
    }
    return this.database.all<RawEntry>(
      `SELECT "r"."id", 'reading' AS "kind", "r"."compressor_id" AS "compressorId", "r"."taken_at" AS "at", "r"."recorded_at" AS "recordedAt", "r"."by", 'Hours read: ' || "r"."hours" || ' h ' || "r"."counts" || CASE "r"."source" WHEN 'typed' THEN '' ELSE ', ' || "r"."source" END AS "said", "r"."note", "v"."fact_id" IS NOT NULL AS "voided"
       FROM "reading" "r" LEFT JOIN "voided" "v" ON "v"."fact_id" = "r"."id"
       WHERE ${where.join(' AND ')} ORDER BY "r"."taken_at" DESC, "r"."id" DESC LIMIT ?`,
      ...cells,
      count,
    );
  }

  /** The units asked about; null for all. */
  private unitsOf({ compressorId, siteId }: LogbookQuery): readonly string[] | null {
    if (compressorId !== undefined) return [this.register.require(compressorId).id];
    if (siteId === undefined) return null;
    const site = this.sites.require(siteId).id;
    const now = this.clock();
    return [...this.register.all()]
      .filter((unit) => this.register.plateOf(unit, now).siteId === site)
      .map(({ id }) => id);
  }

  private viewer(): (row: RawEntry) => LogbookEntryView {
    const now = this.clock();
    const names = new Map(this.people.list().map(({ id, name }) => [id, name]));
    return ({ at, recordedAt, note, voided, ...row }) => {
      const unit = row.compressorId === null ? undefined : this.register.find(row.compressorId);
      const plate = unit && this.register.plateOf(unit, now);
      return {
        ...row,
        tag: plate?.tag ?? '',
        siteName: plate ? (this.sites.find(plate.siteId)?.name ?? '') : '',
        timeZone: plate ? this.register.timeZoneOf(plate) : 'UTC',
        at: formatInstant(at),
        recordedAt: formatInstant(recordedAt),
        byName: names.get(row.by) ?? 'Technician',
        voided: voided === 1,
        ...(note === null ? {} : { note }),
      };
    };
  }
}

const EXPORTED_AT_ONCE = 1000;

/** Conditions of a statement with what stands in their places. */
function conditions(first: string, ...firstCells: Cell[]) {
  const where = [first];
  const cells = [...firstCells];
  const add = (condition: string, ...more: Cell[]) => {
    where.push(condition);
    cells.push(...more);
  };
  return { where, cells, add };
}

/** Words to look for; marks that mean something to the index are no part of them. */
function wordsOf(q: string | undefined): string[] {
  return (q ?? '').split(/[^\p{L}\p{N}]+/u).filter((word) => word !== '');
}
