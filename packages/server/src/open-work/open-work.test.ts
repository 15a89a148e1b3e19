import { randomUUID } from 'node:crypto';
import { daysAgo, expectStatus, TestServer } from '../testing/test-server.js';
import { VisitAtWork } from '../testing/visit-steps.js';

let server: TestServer;
beforeEach(async () => {
  server = await TestServer.start();
});
afterEach(() => server.stop());

const work = async () => (await server.read('/api/open-work')).body;

async function overdueScrew(tag: string, siteId?: string): Promise<string> {
  const more = { family: 'screw', tag, history: 'new', ...(siteId === undefined ? {} : { siteId }) };
  const unit = await server.addCompressor(more);
  await server.readHours(unit, daysAgo(200), 0);
  await server.readHours(unit, daysAgo(0.5), 2600);
  return unit;
}

test('a repair is open until it is proved or closed, and gone with a machine that is retired', async () => {
  const unit = await server.addCompressor({ tag: 'A-1' });
  const repair = randomUUID();
  const fault = { id: repair, kind: 'fault', foundAt: daysAgo(2), found: 'Belt squeals' };
  expectStatus(201, await server.post(`/api/compressors/${unit}/repairs`, fault));
  expect((await work()).repairs).toMatchObject([
    { id: repair, tag: 'A-1', found: 'Belt squeals', siteName: 'Coppel Joinery', state: 'found' },
  ]);
  const close = { id: randomUUID(), kind: 'close', at: daysAgo(1), text: 'It was the fan' };
  expectStatus(201, await server.post(`/api/repairs/${repair}/entries`, close));
  expect((await work()).repairs).toEqual([]);
  const other = { ...fault, id: randomUUID() };
  expectStatus(201, await server.post(`/api/compressors/${unit}/repairs`, other));
  const retired = { id: randomUUID(), changedAt: daysAgo(0.5), retiredOn: '2026-11-20' };
  expectStatus(201, await server.post(`/api/compressors/${unit}/plate`, retired));
  expect((await work()).repairs).toEqual([]);
});

test('a visit is open until its units are signed for or left', async () => {
  const unit = await overdueScrew('B-1');
  const visit = await VisitAtWork.plan(server, unit, []);
  expect((await work()).visits).toMatchObject([{ id: visit.id, units: [{ tag: 'B-1', state: 'open' }] }]);
  expectStatus(201, await visit.step('leave', { reason: 'No time left' }));
  expect((await work()).visits).toEqual([]);
});

test('the van is short of what all that is due asks for together', async () => {
  const first = await overdueScrew('C-1');
  const { siteId } = (await server.read(`/api/compressors/${first}`)).body;
  await overdueScrew('C-2', siteId);
  const filter = { number: 'F-1', name: 'Element', class: 'element', answers: 'intake element', figures: {} };
  const id = randomUUID();
  expectStatus(201, await server.post('/api/parts', { ...filter, id, fits: [], inVan: 1 }));
  const { short } = await work();
  expect(short[0]).toEqual({ partId: id, name: 'Element', needed: 2, inVan: 1, tags: expect.any(Array) });
  expect([...short[0].tags].sort()).toEqual(['C-1', 'C-2']);
  const move = { id: randomUUID(), movedAt: daysAgo(0.1), count: 1 };
  expectStatus(201, await server.post(`/api/parts/${id}/moves`, move));
  expect((await work()).short.map((one: { partId: string | null }) => one.partId)).not.toContain(id);
});

test('an empty register has nothing open', async () => {
  expect(await work()).toEqual({ repairs: [], visits: [], short: [] });
});
