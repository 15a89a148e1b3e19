import { Inject, Injectable } from '@nestjs/common';
import type { ExportQuery } from '@entretien/contracts';
import { formatInstant } from '@entretien/core/basics';
import type { Response } from 'express';
import Papa from 'papaparse';
import { CLOCK, type Clock } from '../common/tokens.js';
import { UnitRegister } from '../compressors/unit-register.js';
import { Database } from '../persistence/database.js';
import { stands } from '../persistence/hour-facts-sql.js';
import { SitesService } from '../sites/sites.service.js';

const COLUMNS = ['Unit', 'Site', 'Date', 'Hours', 'Counter', 'Source', 'Note', 'Id'];
const READINGS = `SELECT "id", "taken_at" AS "takenAt", "hours", "counts", "source", "note" FROM "reading" "r"
  WHERE "compressor_id" = ? AND ${stands('r')} ORDER BY "taken_at", "hours"`;

interface RawReading {
  id: string;
  takenAt: number;
  hours: number;
  counts: string;
  source: string;
  note: string | null;
}

/** Writes readings as a list that spreadsheets, and our own import, can read. */
@Injectable()
export class ExportService {
  constructor(
    private readonly database: Database,
    private readonly register: UnitRegister,
    private readonly sites: SitesService,
    @Inject(CLOCK) private readonly clock: Clock,
  ) {}

  /** Unit by unit, so that a large fleet is never in memory as a whole. */
  async write(query: ExportQuery, response: Response): Promise<void> {
    const now = this.clock();
    const wanted = query.compressorId === undefined ? null : this.register.require(query.compressorId).id;
    response.type('text/csv').attachment('readings.csv');
    response.write(`${csv([COLUMNS])}\r\n`);
    for (const record of this.register.all()) {
      const plate = this.register.plateOf(record, now);
      if (wanted !== null && record.id !== wanted) continue;
      if (query.siteId !== undefined && plate.siteId !== query.siteId.toLowerCase()) continue;
      const site = this.sites.find(plate.siteId)?.name ?? '';
      const rows = this.database
        .all<RawReading>(READINGS, record.id)
        .map(({ id, takenAt, hours, counts, source, note }) => [
          plate.tag,
          site,
          formatInstant(takenAt),
          hours,
          counts,
          source,
          note ?? '',
          id,
        ]);
      if (rows.length === 0) continue;
      if (!response.write(`${csv(rows)}\r\n`))
        await new Promise((resolve) => response.once('drain', resolve));
    }
    response.end();
  }
}

const FORMULA = /^[=+\-@\t\r]/;

/**
 * Rows as RFC 4180 wants them. What a spreadsheet would take for a formula gets an apostrophe before it: a note
 * must not run on the machine of whoever opens the list. The library's own pattern misses notes of several lines.
 */
export function csv(rows: readonly (readonly (string | number)[])[]): string {
  return Papa.unparse(rows as (string | number)[][], { newline: '\r\n', escapeFormulae: FORMULA });
}
