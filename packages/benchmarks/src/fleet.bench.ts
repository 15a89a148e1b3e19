import type { FleetStandingView } from '@entretien/contracts';
import { randomUUID } from 'node:crypto';
import { byTurns, report } from './measure.js';
import { DAY, lastFigures, openDatabase, seed } from './seed.js';
import { BenchServer } from './servers.js';

const UNITS = 2000;

/** The first page of a fleet's standing against the same rows read and sent bare. */
export async function fleetBench(dataDir: string, now: number): Promise<void> {
  await seed(dataDir, UNITS, 100, now);
  const app = await BenchServer.start('app', dataDir, now);
  const bare = await BenchServer.start('bare', dataDir, now);
  const ask = async () => {
    const { ms, status } = await app.call('GET', '/api/standings');
    if (status !== 200) throw new Error(`GET /api/standings answered ${status}`);
    return ms;
  };
  const cold = await ask();
  const page = JSON.parse((await app.call('GET', '/api/standings')).text) as FleetStandingView;
  storeBare(dataDir, page);
  for (let warm = 0; warm < 50; warm++) await Promise.all([ask(), bare.call('GET', '/shown')]);
  const {
    first: ours,
    second: theirs,
    ratio,
  } = await byTurns(200, ask, async () => (await bare.call('GET', '/shown')).ms);

  const unit = page.items[0]!.compressorId;
  const figure = lastFigures(dataDir).get(unit)!;
  const afterFact: number[] = [];
  for (let index = 0; index < 20; index++) {
    const takenAt = new Date(now - 3 * DAY + index * 60_000).toISOString();
    const reading = {
      id: randomUUID(),
      takenAt,
      hours: figure + index / 100,
      counts: 'total',
      source: 'typed',
    };
    const { status, text } = await app.call('POST', `/api/compressors/${unit}/readings`, reading);
    if (status !== 201) throw new Error(`${status}: ${text}`);
    afterFact.push(await ask());
  }
  report(
    `GET /api/standings, first page of ${page.items.length} of ${UNITS.toLocaleString('en')} units`,
    ratio,
    ratio <= 3,
    '≤ 3',
    `${ours.toFixed(2)} ms over ${theirs.toFixed(2)} ms for the same units, tasks and services read from tables and sent bare\n` +
      `  (medians of 200 by turns, over HTTP, servers in processes of their own). First request after the start: ${cold.toFixed(0)} ms;\n` +
      `  right after a fact was recorded: ${Math.max(...afterFact).toFixed(1)} ms at most.`,
  );
  await app.stop();
  await bare.stop();
}

/** Lays the very rows of a page into tables, for the bare server to read. */
function storeBare(dataDir: string, page: FleetStandingView): void {
  const database = openDatabase(dataDir);
  // The columns are those of the rows, whatever a standing says by now.
  const put = (table: string, key: string, row: Record<string, unknown>) => {
    const names = Object.keys(row);
    database.exec(
      `CREATE TABLE IF NOT EXISTS "${table}" (${names.map((name) => `"${name}"`).join(', ')}, PRIMARY KEY (${key})) WITHOUT ROWID`,
    );
    const sql = `INSERT INTO "${table}" (${names.map((name) => `"${name}"`).join(', ')}) VALUES (${names.map(() => '?').join(', ')})`;
    database.prepare(sql).run(...Object.values(row).map(toCell));
  };
  page.items.forEach((unit, place) => {
    const { tasks, recentServices, counts: _counts, ...columns } = unit;
    put('shown_unit', '"place"', { place, ...columns });
    tasks.forEach((task, rank) => put('shown_task', '"place", "rank"', { place, rank, ...task }));
    recentServices.forEach((service, rank) =>
      put('shown_service', '"place", "rank"', { place, rank, ...service }),
    );
  });
  database.close();
}

function toCell(value: unknown): unknown {
  if (typeof value === 'boolean') return Number(value);
  return value !== null && typeof value === 'object' ? JSON.stringify(value) : value;
}
