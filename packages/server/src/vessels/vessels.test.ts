import { randomUUID } from 'node:crypto';
import { TestServer } from '../testing/test-server.js';

let server: TestServer;
let siteId: string;
beforeEach(async () => {
  server = await TestServer.start();
  siteId = await server.addSite({ name: 'Skarn Pass Avalanche Centre' });
});
afterEach(() => server.stop());

const unit = (tag: string, more: object = {}) =>
  server.addCompressor({ tag, siteId, family: 'high-pressure', reliefBar: 330, ...more });

async function register(compressorIds: string[], more: object = {}) {
  const id = randomUUID();
  const vessel = {
    id,
    siteId,
    tag: 'B-1',
    kind: 'bank',
    compressorIds,
    ratedBar: 350,
    volumeL: 50,
    testEveryMonths: 60,
    inspectEveryMonths: 30,
    lastTestOn: '2021-12-01',
    ...more,
  };
  return { id, answer: await server.post('/api/vessels', vessel) };
}

const vesselTasks = async (compressorId: string, query = '') =>
  (await server.standing(compressorId, query)).tasks.filter((task: { vessel: unknown }) => task.vessel);

test('its dates are due on every unit that fills it, like tasks', async () => {
  const [one, two] = [await unit('SP-1'), await unit('SP-2')];
  const { id, answer } = await register([one, two]);
  expect(answer.status).toBe(201);
  expect(answer.body).toMatchObject({ tag: 'B-1', kind: 'bank', ratedBar: 350, doubts: [] });
  expect(answer.body.examinations).toMatchObject([{ kind: 'test', doneOn: '2021-12-01', passed: true }]);
  for (const each of [one, two]) {
    expect(await vesselTasks(each)).toMatchObject([
      { name: 'B-1: pressure test', dueOn: '2026-12-01', state: 'nearing', safety: true, vessel: { id } },
      { name: 'B-1: inspection', state: 'unknown' },
    ]);
  }
  const fleet = (await server.read('/api/standings')).body;
  expect(
    fleet.items.flatMap((item: { tasks: { name: string }[] }) => item.tasks.map(({ name }) => name)),
  ).toContain('B-1: pressure test');
});

test('a test that passed moves the date, one that failed is late at once', async () => {
  const one = await unit('SP-1');
  const { id } = await register([one]);
  const examine = (more: object) =>
    server.post(`/api/vessels/${id}/examinations`, { id: randomUUID(), kind: 'test', passed: true, ...more });
  expect((await examine({ doneOn: '2026-11-20' })).status).toBe(201);
  expect((await vesselTasks(one)).find((task: { name: string }) => task.name.includes('test'))).toMatchObject(
    {
      dueOn: '2031-11-20',
      state: 'fresh',
    },
  );
  await examine({ doneOn: '2026-11-23', passed: false, note: 'Pitting at the port.' });
  expect((await vesselTasks(one))[0]).toMatchObject({ state: 'overdue', name: 'B-1: pressure test' });
  // Asked about last year, it was not due.
  expect(await vesselTasks(one, '?at=2026-01-10T12:00:00Z')).toEqual(expect.any(Array));
  await server.restart();
  const listed = (await server.read(`/api/vessels?compressorId=${one}`)).body.items;
  expect(listed[0].examinations.map((one_: { doneOn: string }) => one_.doneOn)).toEqual([
    '2026-11-23',
    '2026-11-20',
    '2021-12-01',
  ]);
});

test('what it is rated for must bear what its units can reach: the weakest part rules', async () => {
  const one = await unit('SP-1');
  const { answer, id } = await register([one], { ratedBar: 300 });
  expect(answer.body.doubts).toMatchObject([{ code: 'rated-below' }]);
  expect(answer.body.doubts[0].sentence).toContain('SP-1 can reach 330 bar');
  const mended = await server.post(`/api/vessels/${id}/changes`, { id: randomUUID(), ratedBar: 350 });
  expect(mended.body).toMatchObject({ ratedBar: 350, doubts: [] });
});

test('moved to another unit, or out of service, its dates go along', async () => {
  const [one, two] = [await unit('SP-1'), await unit('SP-2')];
  const { id } = await register([one]);
  const change = (more: object) => server.post(`/api/vessels/${id}/changes`, { id: randomUUID(), ...more });
  await change({ compressorIds: [two] });
  expect(await vesselTasks(one)).toEqual([]);
  expect(await vesselTasks(two)).toHaveLength(2);
  await change({ retiredOn: '2026-11-24' });
  expect(await vesselTasks(two)).toEqual([]);
  expect((await server.read('/api/vessels')).body.items).toEqual([]);
  expect((await server.read('/api/vessels?show=all')).body.items).toHaveLength(1);
});

test('sent again it is registered once; under a used id with other content it is a conflict', async () => {
  const one = await unit('SP-1');
  const body = {
    id: randomUUID(),
    siteId,
    tag: 'R-1',
    kind: 'receiver',
    compressorIds: [one],
    lastTestOn: '2025-01-01',
  };
  expect((await server.post('/api/vessels', body)).status).toBe(201);
  expect((await server.post('/api/vessels', body)).status).toBe(201);
  expect((await server.read('/api/vessels')).body.items).toHaveLength(1);
  expect((await server.post('/api/vessels', { ...body, tag: 'R-2' })).status).toBe(409);
});

test('of a unit that is not there nothing is told', async () => {
  for (const id of [randomUUID(), 'not-a-unit']) {
    expect((await server.read(`/api/vessels?compressorId=${id}`)).status).toBe(404);
  }
});

test('one tag for two vessels of a site: refused, until the first is out of service', async () => {
  const one = await unit('SP-1');
  const { id } = await register([one]);
  const { answer } = await register([one], { tag: 'b-1' });
  expect(answer.status).toBe(422);
  expect(answer.body).toMatchObject({ errors: [{ field: 'tag' }] });
  const other = await register([one], { tag: 'B-2' });
  const change = (vessel: string, more: object) =>
    server.post(`/api/vessels/${vessel}/changes`, { id: randomUUID(), ...more });
  expect((await change(other.id, { tag: 'B-1' })).status).toBe(422);
  expect((await change(other.id, { ratedBar: 340 })).status).toBe(201);
  await change(id, { retiredOn: '2026-11-24' });
  expect((await change(other.id, { tag: 'B-1' })).body.tag).toBe('B-1');
});

test.each<[string, object, number]>([
  ['a unit nobody knows', { compressorIds: [randomUUID()] }, 422],
  ['a site nobody knows', { siteId: randomUUID() }, 422],
  ['a kind nobody knows', { kind: 'bucket' }, 400],
  ['a test to come', { lastTestOn: '2027-01-01' }, 422],
  ['half a month', { testEveryMonths: 0.5 }, 400],
  ['no pressure', { ratedBar: 0 }, 400],
])('%s: refused, and nothing is kept', async (_name, more, status) => {
  const { answer } = await register([await unit('SP-1')], more);
  expect(answer.status).toBe(status);
  expect(answer.body.detail).toMatch(/\.$/);
  expect((await server.read('/api/vessels')).body.items).toEqual([]);
});
