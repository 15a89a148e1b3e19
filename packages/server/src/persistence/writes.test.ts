import { randomUUID } from 'node:crypto';
import { DataSource } from 'typeorm';
import { daysAgo, TestServer } from '../testing/test-server.js';
import { Database } from './database.js';
import { PersonEntity } from './entities/person.entity.js';

let server: TestServer;
beforeAll(async () => {
  server = await TestServer.start();
});
afterAll(() => server.stop());

test('the tables that the migrations make are those that the entities describe', async () => {
  const dataSource = server.get(DataSource);
  const differences = await dataSource.driver.createSchemaBuilder().log();
  expect(differences.upQueries.map((query) => query.query)).toEqual([]);
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
  const unit = await server.addUnit();
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
