import { randomUUID } from 'node:crypto';
import { join } from 'node:path';
import Sqlite from 'better-sqlite3';
import type { DataPlate } from '@entretien/core/machine';
import { createApp, CompressorsService, Database, SitesService } from '@entretien/server';

export const DAY = 86_400_000;
export const DB_FILE = 'entretien.sqlite';

/** Opens the database of a folder past the application, as durable as the application does. */
export function openDatabase(dataDir: string): Sqlite.Database {
  const database = new Sqlite(join(dataDir, DB_FILE));
  database.pragma('journal_mode = WAL');
  database.pragma('synchronous = FULL');
  return database;
}

/**
 * Fills a data folder with units of all families, each with weekly readings and some services, through the
 * application's own tables.
 */
export async function seed(dataDir: string, units: number, readingsEach: number, now: number): Promise<void> {
  const settings = { host: '127.0.0.1', port: 0, dataDir, timeZone: 'Europe/Zurich' };
  const app = await createApp({ settings, clock: () => now });
  const by = '00000000-0000-4000-8000-000000000001';
  const families: DataPlate['family'][] = ['piston', 'screw', 'high-pressure', 'piston-oil-free'];
  const ids: string[] = [];
  app.get(Database).transact(() => {
    const sites = Array.from({ length: Math.ceil(units / 20) }, (_, index) =>
      app.get(SitesService).add({ id: randomUUID(), name: `Site ${index}`, timeZone: 'Europe/Zurich' }, by),
    );
    for (let index = 0; index < units; index++) {
      const id = randomUUID();
      ids.push(id);
      const family = families[index % families.length]!;
      const siteId = sites[index % sites.length]!.id;
      const commissionedOn = new Date(now - (readingsEach * 7 + 10) * DAY).toISOString().slice(0, 10);
      app.get(CompressorsService).add({ id, siteId, tag: `U-${index}`, family, commissionedOn }, by);
    }
  });
  await app.close();
  fillFacts(dataDir, ids, readingsEach, now, by);
}

function fillFacts(
  dataDir: string,
  ids: readonly string[],
  readingsEach: number,
  now: number,
  by: string,
): void {
  const database = openDatabase(dataDir);
  // A million rows into indexes by chance ids: they stay at hand while they are filled.
  database.pragma('cache_size = -400000');
  const fact = spineOf(database);
  const reading = database.prepare(
    `INSERT INTO "reading" ("seq", "id", "recorded_at", "by", "marks", "compressor_id", "taken_at", "hours", "counts", "source") VALUES (?, ?, ?, ?, '[]', ?, ?, ?, 'total', 'typed')`,
  );
  const service = database.prepare(
    `INSERT INTO "service" ("seq", "id", "recorded_at", "by", "marks", "compressor_id", "done_at", "tasks", "plan_version") VALUES (?, ?, ?, ?, '[]', ?, ?, ?, 1)`,
  );
  const tasks = JSON.stringify(['oil-change', 'intake-replace', 'cooling-clean']);
  database.transaction(() => {
    ids.forEach((id, unit) => {
      let hours = 0;
      for (let week = readingsEach; week > 0; week--) {
        const at = now - week * 7 * DAY;
        hours += ((unit * 7 + week * 13) % 40) + 1;
        const readingId = randomUUID();
        reading.run(fact(readingId, 'reading', id, at), readingId, at, by, id, at, hours);
        if (week % 20 !== unit % 20) continue;
        const serviceId = randomUUID();
        service.run(fact(serviceId, 'service', id, at, 'Service'), serviceId, at, by, id, at, tasks);
      }
    });
  })();
  database.pragma('wal_checkpoint(TRUNCATE)');
  database.close();
}

/** Takes facts into the table of all facts, recorded when they happened; each returns its place. */
export function spineOf(database: Sqlite.Database) {
  const insert = database.prepare(
    `INSERT INTO "fact" ("id", "kind", "compressor_id", "at", "recorded_at", "by", "text") VALUES (?, ?, ?, ?, ?, 'x', ?)`,
  );
  return (id: string, kind: string, unit: string, at: number, text: string | null = null, recordedAt = at) =>
    insert.run(id, kind, unit, at, recordedAt, text).lastInsertRowid;
}

/** The plainest table that holds readings so that those of a unit are found: what it is compared with. */
export const BARE_TABLE = `CREATE TABLE IF NOT EXISTS "bare" ("id" text PRIMARY KEY NOT NULL, "recorded_at" integer NOT NULL, "by" text NOT NULL, "note" text, "marks" text NOT NULL, "compressor_id" text NOT NULL, "taken_at" integer NOT NULL, "hours" real NOT NULL, "counts" text NOT NULL, "source" text NOT NULL, "corrects" text);
  CREATE INDEX IF NOT EXISTS "bare_by_unit" ON "bare" ("compressor_id", "taken_at", "hours", "counts", "source", "recorded_at")`;

/** The last figure on the meter of every unit. */
export function lastFigures(dataDir: string): Map<string, number> {
  const database = openDatabase(dataDir);
  const rows = database
    .prepare('SELECT "compressor_id" AS "id", max("hours") AS "hours" FROM "reading" GROUP BY 1 ORDER BY 1')
    .all();
  database.close();
  return new Map((rows as { id: string; hours: number }[]).map((row) => [row.id, row.hours]));
}
