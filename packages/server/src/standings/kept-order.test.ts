import { randomUUID } from 'node:crypto';
import { jest } from '@jest/globals';
import { DAY, daysAgo, expectStatus, NOW, TestServer } from '../testing/test-server.js';
import { StandingsService } from './standings.service.js';

let server: TestServer;
let judged: ReturnType<typeof watched>;
const watched = () => jest.spyOn(StandingsService.prototype, 'judge');
const units: string[] = [];
beforeAll(async () => {
  server = await TestServer.start({}, 'this build');
  judged = watched();
  for (const tag of ['KO-1', 'KO-2', 'KO-3', 'KO-4']) units.push(await server.addCompressor({ tag }));
});
afterAll(async () => {
  judged.mockRestore();
  await server.stop();
});
beforeEach(() => {
  server.now = NOW;
});

/** What Today shows after a start with another build, that believes nothing; and after one with this build. */
async function afterStarts() {
  await server.restart('another build');
  const anew = (await server.read('/api/standings')).body;
  await server.restart('this build');
  await server.read('/api/standings?limit=1');
  await server.restart('this build');
  return anew;
}

async function todayAndJudged() {
  judged.mockClear();
  const { body } = await server.read('/api/standings');
  // Each unit of the page is judged to be shown; beyond that, those whose places were worked out.
  return { body, placed: judged.mock.calls.length - body.items.length };
}

test('after a restart the order is there, without judging every unit again', async () => {
  const anew = await afterStarts();
  const { body, placed } = await todayAndJudged();
  expect(placed).toBe(0);
  expect(body).toEqual(anew);
  expect(body.total).toBe(4);
});

test('another build believes nothing of it', async () => {
  await afterStarts();
  await server.restart('another build');
  expect((await todayAndJudged()).placed).toBe(4);
});

test('what was recorded in between is worked out, also when the server was not told before it ended', async () => {
  await afterStarts();
  await server.read('/api/standings');
  const [row] = server.rows<{ places: string }>('SELECT * FROM "kept_order"');
  await server.readHours(units[2]!, daysAgo(1), 5000);
  const after = (await server.read('/api/standings')).body;
  await server.stopAndKeep(row!);
  const { body, placed } = await todayAndJudged();
  expect(placed).toBe(1);
  expect(body).toEqual(after);
});

test('a site that lies elsewhere moves everything: nothing is believed', async () => {
  await afterStarts();
  await server.read('/api/standings');
  const [row] = server.rows<{ places: string }>('SELECT * FROM "kept_order"');
  const { items } = (await server.read('/api/sites')).body;
  const change = { id: randomUUID(), timeZone: 'Pacific/Auckland' };
  expectStatus(201, await server.post(`/api/sites/${items[0].id}/changes`, change));
  await server.stopAndKeep(row!);
  expect((await todayAndJudged()).placed).toBe(4);
});

test('time that passed while nobody looked, and a clock set back, are noticed', async () => {
  await afterStarts();
  server.now = NOW + 400 * DAY;
  const later = await todayAndJudged();
  expect(later.placed).toBeGreaterThan(0);
  await server.restart('another build');
  expect((await server.read('/api/standings')).body).toEqual(later.body);
  server.now = NOW;
  await server.restart('another build');
  expect((await todayAndJudged()).placed).toBe(4);
});

test('where nothing can be written, Today is shown all the same, and the server ends', async () => {
  await server.restart('another build');
  const full = `BEFORE INSERT ON "kept_order" BEGIN SELECT RAISE(ABORT, 'database or disk is full'); END`;
  await server.forget(`CREATE TRIGGER "full" ${full}`);
  await server.restart('a third build');
  expect((await server.read('/api/standings')).body.total).toBe(4);
  await server.restart();
  await server.forget('DROP TRIGGER "full"');
});
