import { createReadStream } from 'node:fs';
import { parentPort, workerData } from 'node:worker_threads';
import Sqlite from 'better-sqlite3';
import Papa from 'papaparse';
import { ImportRun, type ImportOrder } from './import-run.js';

/** What the worker is told. */
export interface ImportTask {
  readonly file: string;
  readonly databaseFile: string;
  readonly delimiter: string;
  readonly order: ImportOrder;
}

/**
 * Runs an import beside the thread that answers requests, on a connection of its own: each chunk is one short
 * transaction, between which others write, and the file is never in memory as a whole.
 */
const { file, databaseFile, delimiter, order } = workerData as ImportTask;
const database = new Sqlite(databaseFile, { timeout: 20_000 });
database.pragma('synchronous = FULL');
database.pragma('foreign_keys = ON');
// Rows of many units go into the same few indexes: 64 MB of them stay at hand.
database.pragma('cache_size = -64000');
const run = new ImportRun(database, order);
let isHeader = true;

Papa.parse<string[]>(createReadStream(file, 'utf8'), {
  delimiter,
  skipEmptyLines: 'greedy',
  step: ({ data }, parser) => {
    if (!isHeader) run.take(data);
    isHeader = false;
    if (run.isFull) parser.abort();
  },
  complete: () => {
    const result = run.finish();
    database.close();
    parentPort!.postMessage(result);
  },
  error: (error) => {
    throw error;
  },
});
