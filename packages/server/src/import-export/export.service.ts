import { join } from 'node:path';
import { Worker } from 'node:worker_threads';
import { Inject, Injectable } from '@nestjs/common';
import type { ExportQuery } from '@entretien/contracts';
import { formatsInUse } from '@entretien/core/basics';
import type { Response } from 'express';
import { builtWorker } from '../common/built-worker.js';
import { CLOCK, SETTINGS, type Clock } from '../common/tokens.js';
import { CompressorRegister } from '../compressors/compressor-register.js';
import type { Settings } from '../config.js';
import { PeopleService } from '../people/people.js';
import { stands } from '../persistence/hour-facts-sql.js';
import { SitesService } from '../sites/sites.service.js';
import type { ExportNames } from './export-rows.js';
import type { ExportTask } from './export-worker.js';

const READINGS = `SELECT "r"."id", "r"."compressor_id" AS "compressorId", "r"."taken_at" AS "takenAt", "r"."hours", "r"."counts", "r"."source", "r"."note"
  FROM json_each(?) "unit" JOIN "reading" "r" ON "r"."compressor_id" = "unit"."value"
  WHERE ${stands('r')} ORDER BY "unit"."key", "r"."taken_at", "r"."hours"`;

/** Writes lists that spreadsheets, and our own import, can read: in a worker, so that nobody waits for it. */
@Injectable()
export class ExportService {
  constructor(
    private readonly register: CompressorRegister,
    private readonly sites: SitesService,
    private readonly people: PeopleService,
    @Inject(SETTINGS) private readonly settings: Settings,
    @Inject(CLOCK) private readonly clock: Clock,
  ) {}

  /** The readings of a unit, a site, or of all, unit by unit. */
  async readings(query: ExportQuery, response: Response): Promise<void> {
    const wanted = query.compressorId === undefined ? null : this.register.require(query.compressorId).id;
    const siteId = query.siteId?.toLowerCase();
    const now = this.clock();
    const units = [...this.register.all()].filter(
      (unit) =>
        (wanted === null || unit.id === wanted) &&
        (siteId === undefined || this.register.plateOf(unit, now).siteId === siteId),
    );
    response.type('text/csv').attachment('readings.csv');
    await this.write(response, {
      shape: 'readings-csv',
      sql: READINGS,
      cells: [JSON.stringify(units.map(({ id }) => id))],
    });
  }

  /** Lets a worker find and write the rows, a piece at a time, as fast as they are taken. */
  async write(response: Response, order: Pick<ExportTask, 'shape' | 'sql' | 'cells'>): Promise<void> {
    const databaseFile = join(this.settings.dataDir, 'entretien.sqlite');
    const task: ExportTask = { ...order, databaseFile, names: this.names(), decimal: formatsInUse().decimal };
    const worker = new Worker(builtWorker(import.meta.url, 'export-worker'), { workerData: task });
    // Whoever asked may go away: then nobody needs the rest.
    response.once('close', () => void worker.terminate());
    await new Promise<void>((done, fail) => {
      let isFull = false;
      const goOn = () => worker.postMessage('on');
      // One listener for all pieces: what packs the answer does not let go of one that listens once.
      response.on('drain', () => {
        if (isFull) goOn();
        isFull = false;
      });
      worker.on('message', (piece: string) => {
        isFull = !response.write(piece);
        if (!isFull) goOn();
      });
      worker.once('error', fail);
      worker.once('exit', () => done());
    }).catch((error: unknown) => {
      // What was sent is a part of a list: breaking off tells whoever reads it that it is not whole.
      if (!response.headersSent) throw error;
      response.destroy();
    });
    response.end();
  }

  /** What rows speak of: of all units, or of some. */
  names(some?: ReadonlySet<string | null>): ExportNames {
    const now = this.clock();
    const spokenOf = [...this.register.all()].filter(({ id }) => some === undefined || some.has(id));
    const units = spokenOf.map((unit) => {
      const plate = this.register.plateOf(unit, now);
      const siteName = this.sites.find(plate.siteId)?.name ?? '';
      return [unit.id, { tag: plate.tag, siteName, timeZone: this.register.timeZoneOf(plate) }] as const;
    });
    const people = this.people.list().map(({ id, name }) => [id, name] as const);
    return { units: Object.fromEntries(units), people: Object.fromEntries(people) };
  }
}
