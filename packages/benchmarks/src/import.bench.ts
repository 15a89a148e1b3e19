import { randomUUID } from 'node:crypto';
import { createReadStream, createWriteStream, mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { once } from 'node:events';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { ImportResultView } from '@entretien/contracts';
import { median, report } from './measure.js';
import { BARE_TABLE, DAY, openDatabase, seed } from './seed.js';
import { BenchServer } from './servers.js';

const UNITS = 10_000;
const EACH = 100;
const ROWS = UNITS * EACH;
const CHUNK = 5000;
const ROUNDS = 2;

/** A million readings out of a list against a bare loop of prepared inserts of the same rows. */
export async function importBench(dataDir: string, now: number): Promise<void> {
  const rounds: { ours: number; bare: number; grown: number; waits: number[] }[] = [];
  for (let round = 0; round < ROUNDS; round++) {
    const folder = mkdtempSync(join(tmpdir(), 'entretien-bench-import-'));
    try {
      await seed(folder, UNITS, 0, now);
      const file = join(dataDir, 'readings.csv');
      await writeList(folder, file, now);
      const bare = bareInserts(folder, now);
      rounds.push({ bare, ...(await throughTheApplication(folder, file, now)) });
    } finally {
      rmSync(folder, { recursive: true, force: true });
    }
  }
  const ratios = rounds.map(({ ours, bare }) => ours / bare);
  const waits = rounds.flatMap((round) => round.waits);
  report(
    `A list of ${ROWS.toLocaleString('en')} readings of ${UNITS.toLocaleString('en')} units imported`,
    median(ratios),
    median(ratios) <= 3,
    '≤ 3',
    `${(rounds[0]!.ours / 1000).toFixed(1)} s, read, judged against both neighbours and stored, over ${(rounds[0]!.bare / 1000).toFixed(1)} s for a bare loop of prepared\n` +
      `  inserts of the same rows in chunks of ${CHUNK} into the same table and index, synchronous=FULL (ratios of ${ROUNDS} rounds: ${ratios.map((one) => one.toFixed(2)).join(', ')}).\n` +
      `  Memory of the server grew by ${Math.max(...rounds.map(({ grown }) => grown)).toFixed(0)} MB at most (resident; the list is ${listMb} MB).\n` +
      `  Meanwhile it answered ${waits.length} other requests, in ${median(waits).toFixed(1)} ms by the median and ${Math.max(...waits).toFixed(0)} ms at most.`,
  );
}

let listMb = 0;

/** Weekly readings, unit by unit, as an export writes them. */
async function writeList(folder: string, file: string, now: number): Promise<void> {
  const database = openDatabase(folder);
  const units = database.prepare(`SELECT "plate" ->> 'tag' AS "tag" FROM "compressor" ORDER BY "id"`).all();
  database.close();
  const out = createWriteStream(file);
  out.write('Unit,Date,Hours,Counter\r\n');
  for (const [unit, { tag }] of (units as { tag: string }[]).entries()) {
    let text = '';
    let hours = 0;
    for (let week = EACH; week > 0; week--) {
      hours += ((unit * 7 + week * 13) % 40) + 1;
      text += `${tag},${new Date(now - week * 7 * DAY).toISOString()},${hours},total\r\n`;
    }
    if (!out.write(text)) await once(out, 'drain');
  }
  out.end();
  await once(out, 'finish');
  listMb = Math.round(out.bytesWritten / 2 ** 20);
}

/** The same rows into a table of the same shape, with the same index, and nothing else. */
function bareInserts(folder: string, now: number): number {
  const database = openDatabase(folder);
  database.exec(BARE_TABLE);
  const ids = database.prepare('SELECT "id" FROM "compressor" ORDER BY "id"').pluck().all() as string[];
  const rows: [string, string, number, number][] = [];
  for (const [unit, id] of ids.entries()) {
    let hours = 0;
    for (let week = EACH; week > 0; week--) {
      hours += ((unit * 7 + week * 13) % 40) + 1;
      rows.push([randomUUID(), id, now - week * 7 * DAY, hours]);
    }
  }
  const insert = database.prepare(
    `INSERT INTO "bare" ("id", "recorded_at", "by", "note", "marks", "compressor_id", "taken_at", "hours", "counts", "source") VALUES (?, ?, '00000000-0000-4000-8000-000000000001', NULL, '[]', ?, ?, ?, 'total', 'imported')`,
  );
  const start = performance.now();
  for (let from = 0; from < rows.length; from += CHUNK) {
    database.transaction(() => {
      for (const [id, unit, at, hours] of rows.slice(from, from + CHUNK))
        insert.run(id, now, unit, at, hours);
    })();
  }
  const time = performance.now() - start;
  database.exec('DROP TABLE "bare"');
  database.pragma('wal_checkpoint(TRUNCATE)');
  database.close();
  return time;
}

async function throughTheApplication(folder: string, file: string, now: number) {
  const app = await BenchServer.start('app', folder, now);
  const waits: number[] = [];
  await app.call('GET', '/api/standings');
  const before = residentMb(app.pid);
  let most = before;
  let isDone = false;
  const asking = (async () => {
    while (!isDone) {
      const { ms, status } = await app.call('GET', '/api/health');
      if (status !== 200) throw new Error(`health answered ${status}`);
      waits.push(ms);
      most = Math.max(most, residentMb(app.pid));
      await new Promise((resolve) => setTimeout(resolve, 100));
    }
  })();
  const start = performance.now();
  const answer = await fetch(`${app.address}/api/readings/import?mode=commit`, {
    method: 'POST',
    headers: { 'Content-Type': 'text/csv' },
    body: createReadStream(file),
    duplex: 'half',
  } as unknown as RequestInit);
  const ours = performance.now() - start;
  isDone = true;
  await asking;
  const result = (await answer.json()) as ImportResultView;
  if (result.stored !== ROWS)
    throw new Error(`stored ${JSON.stringify({ ...result, rows: result.rows?.slice(0, 3) })}`);
  await app.stop();
  return { ours, grown: most - before, waits };
}

function residentMb(pid: number): number {
  const pages = Number(readFileSync(`/proc/${pid}/statm`, 'utf8').split(' ')[1]);
  return (pages * 4096) / 2 ** 20;
}
