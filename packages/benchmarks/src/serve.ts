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

function once<One>(make: () => One): () => One {
  let made: One | undefined;
  return () => (made ??= make());
}

/** What the comparison is made with: the same rows read and sent, the same insert made, and nothing else. */
async function bareServer() {
  const database = openDatabase(dataDir);
  database.exec(BARE_TABLE);
  // The tables of a page are made with its rows, after the start: their statements are prepared once, when first asked for.
  const shownRows = once(() => ({
    units: database.prepare('SELECT * FROM "shown_unit" ORDER BY "place"'),
    tasks: database.prepare('SELECT * FROM "shown_task" ORDER BY "place", "rank"'),
    services: database.prepare('SELECT * FROM "shown_service" ORDER BY "place", "rank"'),
  }));
  const insert = database.prepare(
    `INSERT INTO "bare" ("id", "recorded_at", "by", "note", "marks", "compressor_id", "taken_at", "hours", "counts", "source") VALUES (?, ?, ?, NULL, '[]', ?, ?, ?, ?, ?)`,
  );

  @Controller()
  class BareController {
    @Get('shown')
    shown() {
      const rows = shownRows();
      const units = rows.units.all() as Shown[];
      for (const unit of units) Object.assign(unit, { tasks: [], recentServices: [] });
      for (const task of rows.tasks.all() as { place: number }[]) units[task.place]!.tasks.push(task);
      for (const service of rows.services.all() as { place: number }[])
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
