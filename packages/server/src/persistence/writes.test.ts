import { randomUUID } from 'node:crypto';
import { DataSource } from 'typeorm';
import { daysAgo, expectStatus, TestServer } from '../testing/test-server.js';
import { Database } from './database.js';
import { PersonEntity } from './entities/person.entity.js';

let server: TestServer;
beforeAll(async () => {
  server = await TestServer.start();
});
afterAll(() => server.stop());

test('the tables that the migrations make have the columns and indexes that the entities describe', () => {
  const database = server.get(Database);
  const { entityMetadatas } = server.get(DataSource);
  expect(entityMetadatas.length).toBeGreaterThan(20);
  for (const { tableName, columns, indices } of entityMetadatas) {
    const made = database.all<{ name: string; type: string; notnull: number; pk: number }>(
      `PRAGMA table_info("${tableName}")`,
    );
    const described = columns.map(({ databaseName, type, isNullable }) => ({
      name: databaseName,
      type: type === 'simple-json' ? 'text' : type,
      isNullable,
    }));
    const found = made.map(({ name, type, notnull, pk }) => ({
      name,
      type: type.toLowerCase(),
      isNullable: notnull === 0 && pk === 0,
    }));
    const byName = (a: { name: string }, b: { name: string }) => (a.name < b.name ? -1 : 1);
    expect([tableName, ...found.sort(byName)]).toEqual([tableName, ...described.sort(byName)]);
    for (const index of indices) {
      const parts = database.all<{ name: string }>(`PRAGMA index_info("${index.name}")`);
      expect([index.name, ...parts.map(({ name }) => name)]).toEqual([
        index.name,
        ...index.columns.map(({ databaseName }) => databaseName),
      ]);
    }
  }
});

test('what makes no sense is refused by the tables too', async () => {
  const database = server.get(Database);
  const unit = await server.addCompressor();
  await server.readHours(unit, daysAgo(3), 10);
  const last = database.all<{ seq: number; id: string }>(
    'SELECT "seq", "id" FROM "fact" ORDER BY "seq" DESC LIMIT 1',
  )[0]!;
  const reading = (seq: number, compressorId: string, hours: number) => () =>
    database.transact(() =>
      database.run(
        `INSERT INTO "reading" ("seq", "id", "recorded_at", "by", "marks", "compressor_id", "taken_at", "hours", "counts", "source") VALUES (?, ?, 1, 'x', '[]', ?, 1, ?, 'total', 'typed')`,
        seq,
        randomUUID(),
        compressorId,
        hours,
      ),
    );
  expect(reading(last.seq + 100, unit, 1)).toThrow(/FOREIGN KEY/);
  expect(reading(last.seq, unit, 1)).toThrow(/UNIQUE/);
  const free = () =>
    Number(
      database.run(
        `INSERT INTO "fact" ("id", "kind", "at", "recorded_at", "by") VALUES (?, 'reading', 1, 1, 'x')`,
        randomUUID(),
      ).lastInsertRowid,
    );
  expect(() => database.transact(() => reading(free(), randomUUID(), 1)())).toThrow(/FOREIGN KEY/);
  expect(() => database.transact(() => reading(free(), unit, -1)())).toThrow(/CHECK/);
  expect(database.all('PRAGMA foreign_key_check')).toEqual([]);
});

test('durability and foreign keys are on', async () => {
  const dataSource = server.get(DataSource);
  expect(await dataSource.query('PRAGMA synchronous')).toEqual([{ synchronous: 2 }]);
  expect(await dataSource.query('PRAGMA journal_mode')).toEqual([{ journal_mode: 'wal' }]);
  expect(await dataSource.query('PRAGMA foreign_keys')).toEqual([{ foreign_keys: 1 }]);
});

test('what fails half way leaves nothing of itself, and everything of the others', () => {
  const database = server.get(Database);
  const person = (name: string) => ({ id: randomUUID(), name, initials: 'X', recordedAt: 1 });
  const kept = person('Kept');
  const lost = person('Lost');
  database.transact(() => database.insert(PersonEntity, kept));
  expect(() =>
    database.transact(() => {
      database.insert(PersonEntity, lost);
      throw new Error('half way');
    }),
  ).toThrow('half way');
  expect(database.find(PersonEntity, kept.id)).toMatchObject({ name: 'Kept' });
  expect(database.find(PersonEntity, lost.id)).toBeUndefined();
});

test('interleaved writers, half of which fail, lose nothing of one another', async () => {
  const unit = await server.addCompressor();
  // Readings a day and a quarter of an hour apart; every second writer sends one that runs backwards.
  await server.readHours(unit, daysAgo(100), 50);
  const writers = Array.from({ length: 40 }, (_, index) =>
    index % 2 === 0
      ? server.readHours(unit, daysAgo(90 - index), 50 + index)
      : server.readHours(unit, daysAgo(90 - index), 3),
  );
  const answers = await Promise.all(writers);
  expect(answers.map((answer) => answer.status)).toEqual(
    answers.map((_, index) => (index % 2 === 0 ? 201 : 422)),
  );
  const { body } = await server.read(`/api/compressors/${unit}/readings?limit=200`);
  const stored = body.items.map((one: { id: string }) => one.id).sort();
  const acknowledged = answers.filter((answer) => answer.status === 201).map((answer) => answer.body.id);
  expect(stored).toEqual(expect.arrayContaining(acknowledged));
  expect(stored).toHaveLength(21);
  expect((await server.standing(unit)).revision).toBe(22);
});

test('a migration that was ended before it was written down as done is not done twice', async () => {
  await server.forget(`DELETE FROM "migrations" WHERE "name" LIKE 'Spine%'`);
  const before = server.rows('SELECT * FROM "fact" ORDER BY "seq"');
  expect(before.length).toBeGreaterThan(0);
  await server.restart();
  expect(server.rows('SELECT * FROM "fact" ORDER BY "seq"')).toEqual(before);
});

test('of two equal readings of one moment the one that is withdrawn is gone, and the other stands', async () => {
  const unit = await server.addCompressor();
  const takenAt = daysAgo(2);
  const [estimated, read] = [randomUUID(), randomUUID()];
  await server.readHours(unit, takenAt, 50, { id: estimated, source: 'estimated' });
  await server.readHours(unit, takenAt, 50, { id: read });
  expect((await server.standing(unit)).runHoursBasis).toBe('extrapolated');
  const withdrawal = { id: randomUUID(), reason: 'Typed twice' };
  const path = `/api/compressors/${unit}/readings/${read}/withdrawal`;
  expectStatus(201, await server.post(path, withdrawal));
  // What is left is the estimate.
  expect((await server.standing(unit)).runHoursBasis).toBe('estimated');
  await server.restart();
  expect((await server.standing(unit)).runHoursBasis).toBe('estimated');
});

test('what is undone leaves no revision behind, nor anything read in the midst of it', async () => {
  const unit = await server.addCompressor({ family: 'screw' });
  await server.readHours(unit, daysAgo(2), 50);
  const { revision, runHours } = await server.standing(unit);
  const repair = randomUUID();
  const fault = { id: repair, kind: 'fault', foundAt: daysAgo(1), found: 'Runs hot' };
  expectStatus(201, await server.post(`/api/compressors/${unit}/repairs`, fault));
  const work = { id: randomUUID(), kind: 'work', at: daysAgo(0.5), text: 'Cooler cleaned' };
  expectStatus(201, await server.post(`/api/repairs/${repair}/entries`, work));
  expect((await server.standing(unit)).revision).toBe(revision + 2);
  // A proof is a measurement, which is recorded first: here the entry behind it is refused.
  const proof = {
    id: randomUUID(),
    kind: 'proof',
    at: daysAgo(0.4),
    text: 'Hot',
    check: 'no-such-check',
    values: {},
  };
  expect((await server.post(`/api/repairs/${repair}/entries`, proof)).status).toBe(422);
  const values = { tempC: 78, ambientC: 20, mostRiseK: 70 };
  const late = { ...proof, id: randomUUID(), check: 'discharge-temperature', values };
  expectStatus(201, await server.post(`/api/repairs/${repair}/entries`, late));
  const again = await server.post(`/api/repairs/${repair}/entries`, { ...late, id: randomUUID() });
  expect(again.status).toBe(409);
  const after = await server.standing(unit);
  // The proof and its measurement; of what was refused, nothing.
  expect([after.revision, after.runHours]).toEqual([revision + 4, runHours]);
  await server.restart();
  expect((await server.standing(unit)).revision).toBe(revision + 4);
});

test('an undone inner piece takes its own changes with it, and those of the others are told once', () => {
  const database = server.get(Database);
  const informed: string[][] = [];
  database.onCommit((changes) => informed.push(changes.map(({ kind }) => kind)));
  const change = (kind: string) => database.noteChange({ kind, isFact: false, compressorId: null });
  database.transact(() => {
    change('first');
    expect(() =>
      database.transact(() => {
        change('second');
        throw new Error('no');
      }),
    ).toThrow('no');
    database.transact(() => change('third'));
    expect(informed).toEqual([]);
  });
  expect(informed).toEqual([['first', 'third']]);
  expect(() =>
    database.transact(() => {
      change('fourth');
      throw new Error('no');
    }),
  ).toThrow('no');
  expect(informed).toHaveLength(1);
});
