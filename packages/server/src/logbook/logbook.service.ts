import { Inject, Injectable, type OnApplicationBootstrap } from '@nestjs/common';
import type { LogbookEntryView, LogbookQuery, Page } from '@entretien/contracts';
import { pageSize, readCursor, toPage } from '../common/page.js';
import { CLOCK, type Clock } from '../common/tokens.js';
import { UnitRegister } from '../compressors/unit-register.js';
import { toEntryView, type RawEntry } from '../lists/export-rows.js';
import { ExportService } from '../lists/export.service.js';
import { Database } from '../persistence/database.js';
import { LogbookWriter } from '../persistence/logbook-writer.js';
import { SitesService } from '../sites/sites.service.js';

type Cell = string | number;

/** Every fact of the fleet in one list, the latest first. */
@Injectable()
export class LogbookService implements OnApplicationBootstrap {
  constructor(
    private readonly database: Database,
    private readonly writer: LogbookWriter,
    private readonly register: UnitRegister,
    private readonly sites: SitesService,
    private readonly exports: ExportService,
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
    const names = this.exports.names(new Set(rows.map(({ compressorId }) => compressorId)));
    return toPage(
      rows,
      size,
      (row) => toEntryView(row, names),
      (row) => [row.at, row.id],
    );
  }

  /** A statement that finds everything that a query asks for, the latest first. */
  statement(query: LogbookQuery): { readonly sql: string; readonly cells: readonly Cell[] } {
    const units = this.unitsOf(query) ?? null;
    const parts = [
      ...(query.kind === 'reading' ? [] : [indexed(query, units)]),
      ...(query.kind === undefined || query.kind === 'reading' ? [readings(query, units)] : []),
    ].filter((part) => part !== null);
    if (parts.length === 0) return { sql: 'SELECT 1 WHERE 0', cells: [] };
    const sql = `SELECT * FROM (${parts.map((part) => part.sql).join(' UNION ALL ')}) ORDER BY "at" DESC, "id" DESC`;
    return { sql, cells: parts.flatMap((part) => part.cells) };
  }

  private read(query: LogbookQuery, at: number, id: string, count: number): RawEntry[] {
    const units = this.unitsOf(query);
    if (units?.length === 0) return [];
    const before: Before = { at, id };
    const parts = [
      ...(query.kind === 'reading' ? [] : [indexed(query, units, before)]),
      ...(query.kind === undefined || query.kind === 'reading' ? [readings(query, units, before)] : []),
    ];
    return parts
      .flatMap((part) =>
        part === null
          ? []
          : this.database.all<RawEntry>(
              `${part.sql} ORDER BY "at" DESC, "id" DESC LIMIT ?`,
              ...part.cells,
              count,
            ),
      )
      .sort((a, b) => b.at - a.at || (a.id < b.id ? 1 : -1))
      .slice(0, count);
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
}

/** Where a page goes on: after what happened at that moment, and bears that id. */
interface Before {
  readonly at: number;
  readonly id: string;
}

interface Found {
  readonly sql: string;
  readonly cells: readonly Cell[];
}

/** What stands in the index; null where the words looked for are none. */
function indexed(
  { kind, from, to, q }: LogbookQuery,
  units: readonly string[] | null,
  before?: Before,
): Found | null {
  const { where, cells, add } = conditions('"l"."at"', '"l"."fact_id"', before);
  if (kind !== undefined) add('"l"."kind" = ?', kind);
  if (units !== null) add(`"l"."compressor_id" IN (SELECT value FROM json_each(?))`, JSON.stringify(units));
  if (from !== undefined) add('"l"."at" >= ?', Date.parse(from));
  if (to !== undefined) add('"l"."at" <= ?', Date.parse(to));
  const words = wordsOf(q);
  if (q !== undefined && words.length === 0) return null;
  if (words.length > 0) {
    add(
      '"l"."rowid" IN (SELECT "rowid" FROM "logbook_text" WHERE "logbook_text" MATCH ?)',
      words.map((word) => `"${word}"*`).join(' '),
    );
  }
  const sql = `SELECT "l"."fact_id" AS "id", "l"."kind", "l"."compressor_id" AS "compressorId", "l"."at", "l"."recorded_at" AS "recordedAt", "l"."by", "l"."said", "l"."note", "v"."fact_id" IS NOT NULL AS "voided"
       FROM "logbook" "l" LEFT JOIN "voided" "v" ON "v"."fact_id" = "l"."fact_id"
       WHERE ${where.join(' AND ')}`;
  return { sql, cells };
}

/** Readings, which stand in no index. */
function readings({ from, to, q }: LogbookQuery, units: readonly string[] | null, before?: Before): Found {
  const { where, cells, add } = conditions('"r"."taken_at"', '"r"."id"', before);
  if (units !== null) add(`"r"."compressor_id" IN (SELECT value FROM json_each(?))`, JSON.stringify(units));
  if (from !== undefined) add('"r"."taken_at" >= ?', Date.parse(from));
  if (to !== undefined) add('"r"."taken_at" <= ?', Date.parse(to));
  if (q !== undefined) {
    add('"r"."note" IS NOT NULL');
    for (const word of wordsOf(q)) add(`"r"."note" LIKE ? ESCAPE '!'`, `%${word.replace(/[!%_]/g, '!$&')}%`);
  }
  const sql = `SELECT "r"."id", 'reading' AS "kind", "r"."compressor_id" AS "compressorId", "r"."taken_at" AS "at", "r"."recorded_at" AS "recordedAt", "r"."by", 'Hours read: ' || "r"."hours" || ' h ' || "r"."counts" || CASE "r"."source" WHEN 'typed' THEN '' ELSE ', ' || "r"."source" END AS "said", "r"."note", "v"."fact_id" IS NOT NULL AS "voided"
       FROM "reading" "r" LEFT JOIN "voided" "v" ON "v"."fact_id" = "r"."id"
       WHERE ${where.join(' AND ')}`;
  return { sql, cells };
}

/** Conditions of a statement with what stands in their places. */
function conditions(at: string, id: string, before: Before | undefined) {
  const where = ['1'];
  const cells: Cell[] = [];
  const add = (condition: string, ...more: Cell[]) => {
    where.push(condition);
    cells.push(...more);
  };
  if (before) add(`(${at} < ? OR (${at} = ? AND ${id} < ?))`, before.at, before.at, before.id);
  return { where, cells, add };
}

/** Words to look for; marks that mean something to the index are no part of them. */
function wordsOf(q: string | undefined): string[] {
  return (q ?? '').split(/[^\p{L}\p{N}]+/u).filter((word) => word !== '');
}
