import { once } from 'node:events';
import { parentPort, workerData } from 'node:worker_threads';
import type { DecimalSign } from '@entretien/core/basics';
import Sqlite from 'better-sqlite3';
import { exportShapes, type ExportNames } from './export-rows.js';

/** What the worker is told. */
export interface ExportTask {
  readonly databaseFile: string;
  readonly shape: keyof typeof exportShapes;
  /** Finds the rows, in the order of the list. */
  readonly sql: string;
  readonly cells: readonly (string | number)[];
  readonly names: ExportNames;
  /** The sign of whoever reads the list. */
  readonly decimal: DecimalSign;
}

/** How much is handed over at once; the next only when that was taken. */
const PIECE = 64 * 1024;

/**
 * Writes a list beside the thread that answers requests, on a connection of its own that reads one state of the
 * data: one statement, sorted once, and never in memory as a whole. Ends each piece with waiting for a word.
 */
const { databaseFile, shape, sql, cells, names, decimal } = workerData as ExportTask;
const { head, foot, row: write } = exportShapes[shape];
const database = new Sqlite(databaseFile, { readonly: true });
let piece = head(decimal);
let index = 0;
for (const row of database.prepare(sql).iterate(...cells)) {
  piece += write(row, names, { index, decimal });
  index += 1;
  if (piece.length < PIECE) continue;
  parentPort!.postMessage(piece);
  piece = '';
  await once(parentPort!, 'message');
}
database.close();
parentPort!.postMessage(piece + foot);
parentPort!.close();
