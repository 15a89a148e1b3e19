import type { HourReading } from '@entretien/core/hours';
import { openDatabase, seed } from './seed.js';

const QUERY =
  'SELECT "compressor_id", "taken_at", "hours", "counts", "source", "recorded_at" FROM "reading" ORDER BY "compressor_id", "taken_at"';

type Columns = [string[], number[], number[], string[], string[], number[]];

/** A seeded fleet's readings: the query that they are measured against, and the readings as the core wants them. */
export interface FleetReadings {
  readonly query: string;
  readonly plan: string;
  readonly readIntoArrays: () => Columns;
  /** Forms the readings out of the arrays anew. */
  readonly form: () => HourReading[][];
  readonly histories: readonly HourReading[][];
}

export async function readFleet(
  dataDir: string,
  units: number,
  each: number,
  now: number,
): Promise<FleetReadings> {
  await seed(dataDir, units, each, now);
  const database = openDatabase(dataDir);
  const readIntoArrays = () => {
    const columns: Columns = [[], [], [], [], [], []];
    for (const row of database.prepare(QUERY).raw().iterate() as IterableIterator<never[]>) {
      columns.forEach((column, index) => column.push(row[index]!));
    }
    return columns;
  };
  const columns = readIntoArrays();
  const form = () => formed(columns);
  const plan = database.prepare(`EXPLAIN QUERY PLAN ${QUERY}`).all() as { detail: string }[];
  return {
    query: QUERY,
    plan: plan.map((row) => row.detail).join('; '),
    readIntoArrays,
    form,
    histories: form(),
  };
}

function formed([units, takenAt, hours, counts, sources, recordedAt]: Columns): HourReading[][] {
  const histories = new Map<string, HourReading[]>();
  for (let row = 0; row < units.length; row++) {
    const reading = {
      takenAt: takenAt[row]!,
      hours: hours[row]!,
      counts: counts[row]!,
      source: sources[row]!,
      recordedAt: recordedAt[row]!,
    } as HourReading;
    const known = histories.get(units[row]!);
    if (known) known.push(reading);
    else histories.set(units[row]!, [reading]);
  }
  return [...histories.values()];
}
