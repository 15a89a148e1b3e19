import 'reflect-metadata';
import { fileURLToPath } from 'node:url';
import { Body, Controller, Get, Module, Post } from '@nestjs/common';
import { NestFactory } from '@nestjs/core';
import { createApp } from '@entretien/server';
import { BARE_TABLE, openDatabase } from './seed.js';

const [kind, dataDir, now] = process.argv.slice(2) as [string, string, string];

interface Reading {
  id: string;
  takenAt: string;
  hours: number;
  counts: string;
  source: string;
  compressorId: string;
}

interface Shown {
  place: number;
  tasks: object[];
  recentServices: object[];
}

/** The built pages, which the bench of the unit's page opens. */
const WEB = fileURLToPath(new URL('../../web/dist', import.meta.url));

const BY = '00000000-0000-4000-8000-000000000001';

/** What the comparison is made with: the same rows read and sent, the same insert made, and nothing else. */
async function bareServer() {
  const database = openDatabase(dataDir);
  database.exec(
    `CREATE TABLE IF NOT EXISTS "shown_unit" ("place" integer PRIMARY KEY, "compressorId" text, "at" text, "revision" integer, "runHours" real, "runHoursBasis" text, "meter" text, "meterQuestion" real, "hoursPerDay" real, "lastReadingAt" text, "readingNeed" text, "useWarning" text, "retired" integer, "routine" text, "siteId" text, "siteName" text, "tag" text, "family" text, "description" text);
     CREATE TABLE IF NOT EXISTS "shown_task" ("place" integer, "rank" integer, "code" text, "name" text, "station" text, "safety" integer, "state" text, "usedFraction" real, "dueAtHours" real, "remainingHours" real, "dueOn" text, "earlyOn" text, "likelyOn" text, "lateOn" text, "ruledBy" text, "rule" text, "startedBy" text, "coveredBy" text, "putOff" text, "vessel" text, "lastDoneAt" text, "lastDoneHours" real, PRIMARY KEY ("place", "rank")) WITHOUT ROWID;
     CREATE TABLE IF NOT EXISTS "shown_service" ("place" integer, "rank" integer, "doneAt" text, "runHours" real, PRIMARY KEY ("place", "rank")) WITHOUT ROWID;`,
  );
  database.exec(BARE_TABLE);
  const unitRows = database.prepare('SELECT * FROM "shown_unit" ORDER BY "place"');
  const taskRows = database.prepare('SELECT * FROM "shown_task" ORDER BY "place", "rank"');
  const serviceRows = database.prepare('SELECT * FROM "shown_service" ORDER BY "place", "rank"');
  const insert = database.prepare(
    `INSERT INTO "bare" ("id", "recorded_at", "by", "note", "marks", "compressor_id", "taken_at", "hours", "counts", "source") VALUES (?, ?, ?, NULL, '[]', ?, ?, ?, ?, ?)`,
  );

  @Controller()
  class BareController {
    @Get('shown')
    shown() {
      const units = unitRows.all() as Shown[];
      for (const unit of units) Object.assign(unit, { tasks: [], recentServices: [] });
      for (const task of taskRows.all() as { place: number }[]) units[task.place]!.tasks.push(task);
      for (const service of serviceRows.all() as { place: number }[])
        units[service.place]!.recentServices.push(service);
      return units;
    }

    @Post('readings')
    add(@Body() reading: Reading) {
      const { id, compressorId, takenAt, hours, counts, source } = reading;
      const recordedAt = Date.now();
      insert.run(id, recordedAt, BY, compressorId, Date.parse(takenAt), hours, counts, source);
      return { ...reading, recordedAt: new Date(recordedAt).toISOString() };
    }
  }

  @Module({ controllers: [BareController] })
  class BareModule {}

  return NestFactory.create(BareModule, { logger: false });
}

const app =
  kind === 'app'
    ? await createApp({
        settings: { host: '127.0.0.1', port: 0, dataDir, timeZone: 'UTC', webDir: WEB },
        clock: () => Number(now),
        // Within one run it is the same build.
        build: 'benchmark',
      })
    : await bareServer();
app.enableShutdownHooks();
await app.listen(0, '127.0.0.1');
const server = app.getHttpServer() as { address(): { port: number } };
process.send?.(server.address().port);
// Whoever measures may die: then nobody stops this server but itself.
process.on('disconnect', () => process.exit());
