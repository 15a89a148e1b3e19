import { Inject, Injectable } from '@nestjs/common';
import type { LogbookEntryView, LogbookQuery, Page } from '@entretien/contracts';
import { readingText } from '@entretien/core/facts';
import { counterKinds, readingSources } from '@entretien/core/hours';
import { pageSize, readCursor, toPage } from '../common/page.js';
import { malformed } from '../common/problem.js';
import { CLOCK, type Clock } from '../common/tokens.js';
import { CompressorRegister } from '../compressors/compressor-register.js';
import { toEntryView, type RawEntry } from '../import-export/export-rows.js';
import { ExportService } from '../import-export/export.service.js';
import { Database } from '../persistence/database.js';
import { StoredKinds } from '../persistence/stored-kinds.js';
import { SitesService } from '../sites/sites.service.js';
import { inOneLine } from './in-one-line.js';

type Cell = string | number;

interface Statement {
  readonly sql: string;
  readonly cells: readonly Cell[];
}

/** Every fact of the fleet in one list, the latest first. */
@Injectable()
export class LogbookService {
  constructor(
    private readonly database: Database,
    private readonly kinds: StoredKinds,
    private readonly register: CompressorRegister,
    private readonly sites: SitesService,
    private readonly exports: ExportService,
    @Inject(CLOCK) private readonly clock: Clock,
  ) {}

  page(query: LogbookQuery): Page<LogbookEntryView> {
    const size = pageSize(query.limit);
    const { sql, cells } = this.statement(query, query.cursor);
    const rows = this.database.all<RawEntry>(`${sql} LIMIT ?`, ...cells, size + 1);
    const names = this.exports.names(new Set(rows.map(({ compressorId }) => compressorId)));
    const { items, nextCursor } = toPage(
      rows,
      size,
      (row) => ({ ...toEntryView(row, names), ...this.collectionOf(row), lead: row.lead }),
      (row) => [row.at, row.id],
    );
    return { items: inOneLine(items), nextCursor };
  }

  /** A statement that finds everything that a query asks for, the latest first. */
  statement(query: LogbookQuery, cursor?: string): Statement {
    const { kind, from, to, q } = query;
    const units = this.compressorsOf(query);
    const where = [`("f"."text" IS NOT NULL OR "f"."kind" = 'reading')`];
    const cells: Cell[] = [];
    const add = (condition: string, ...more: Cell[]) => {
      where.push(condition);
      cells.push(...more);
    };
    if (kind !== undefined) {
      this.refuseUnknown(kind);
      // There are so many readings that they stand in no index by kind.
      if (kind !== 'reading') add(`"f"."kind" <> 'reading'`);
      add('"f"."kind" = ?', kind);
    }
    if (units?.length === 1) add('"f"."compressor_id" = ?', units[0]!);
    else if (units) add('"f"."compressor_id" IN (SELECT value FROM json_each(?))', JSON.stringify(units));
    if (from !== undefined) add('"f"."at" >= ?', Date.parse(from));
    if (to !== undefined) add('"f"."at" <= ?', Date.parse(to));
    if (q !== undefined) {
      const text = textOf(q);
      const inText = '"f"."seq" IN (SELECT "rowid" FROM "fact_text" WHERE "fact_text" MATCH ?)';
      // The lines of readings stand in no index: they are looked through where they are those of one unit.
      const readings = units?.length === 1 ? readingsByText(text) : null;
      if (readings) add(`(${inText} OR ${readings.sql})`, matching(text), ...readings.cells);
      else add(inText, matching(text));
    }
    if (cursor !== undefined) {
      const [at, id] = readCursor(cursor, 2) as [number, string];
      add('"f"."at" <= ? AND ("f"."at" < ? OR "f"."id" < ?)', at, at, id);
    }
    return { sql: `${ENTRIES} WHERE ${where.join(' AND ')} ORDER BY "f"."at" DESC, "f"."id" DESC`, cells };
  }

  private collectionOf({ kind }: RawEntry): Pick<LogbookEntryView, 'collection'> {
    const collection = this.kinds.find(kind)?.kind.collection;
    return collection === undefined ? {} : { collection };
  }

  private refuseUnknown(kind: string): void {
    if (this.kinds.find(kind)?.kind.title !== undefined) return;
    const known = this.kinds.all.filter(({ kind: one }) => one.title !== undefined);
    const codes = known.map(({ kind: one }) => one.kind).join(', ');
    throw malformed([{ field: 'kind', message: `kind is one of ${codes}.` }]);
  }

  /** The units asked about; null for all. */
  private compressorsOf({ compressorId, siteId }: LogbookQuery): readonly string[] | null {
    if (compressorId !== undefined) return [this.register.require(compressorId).id];
    if (siteId === undefined) return null;
    const site = this.sites.require(siteId).id;
    const now = this.clock();
    return [...this.register.all()]
      .filter((unit) => this.register.plateOf(unit, now).siteId === site)
      .map(({ id }) => id);
  }
}

const ENTRIES = `SELECT "f"."id", "f"."kind", "f"."compressor_id" AS "compressorId", "f"."at", "f"."recorded_at" AS "recordedAt", "f"."by", "f"."text", "f"."lead", "f"."note", "r"."hours", "r"."counts", "r"."source", "r"."marks", "v"."how" AS "voidedHow"
  FROM "fact" "f" LEFT JOIN "reading" "r" ON "r"."seq" = "f"."seq" LEFT JOIN "voided" "v" ON "v"."fact_id" = "f"."id"`;

/** The words of a question; marks that mean something to the index are no part of them, nor what groups figures. */
function textOf(q: string): readonly string[] {
  return q
    .replaceAll(/(?<=\d)[,.’'\s](?=\d{3}(?!\d))/gu, '')
    .toLowerCase()
    .split(/[^\p{L}\p{N}]+/u)
    .filter((word) => word !== '');
}

/** All of them must stand in a line, each by its beginning; a question without a word finds nothing. */
function matching(text: readonly string[]): string {
  return text.length === 0 ? '""' : text.map((word) => `"${word}"*`).join(' ');
}

/** Readings whose line, as the core words it, says every word: figures by their first digits; null where none does. */
function readingsByText(text: readonly string[]): Statement | null {
  const figures = text.filter((word) => /^\d+$/.test(word));
  const others = text.filter((word) => !figures.includes(word));
  const kinds = counterKinds.flatMap((counts) =>
    readingSources
      .filter((source) => {
        const line = readingText({ hours: 0, counts, source }).toLowerCase().split(/\W+/);
        return others.every((word) => line.some((one) => one.startsWith(word)));
      })
      .map((source) => `${counts} ${source}`),
  );
  if (text.length === 0 || kinds.length === 0) return null;
  const starts = figures.map(() => 'CAST(CAST("r"."hours" AS INTEGER) AS TEXT) LIKE ?');
  const kind = '"r"."counts" || \' \' || "r"."source" IN (SELECT value FROM json_each(?))';
  return {
    sql: `(${['"f"."kind" = \'reading\'', kind, ...starts].join(' AND ')})`,
    cells: [JSON.stringify(kinds), ...figures.map((figure) => `${figure}%`)],
  };
}
