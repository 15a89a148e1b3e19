import { randomUUID } from 'node:crypto';
import { expectStatus, TestServer } from '../testing/test-server.js';

let server: TestServer;
beforeAll(async () => {
  server = await TestServer.start();
});
afterAll(() => server.stop());

async function addPart(number: string, more: object = {}): Promise<string> {
  const id = randomUUID();
  const part = {
    id,
    number,
    name: 'Oil filter',
    class: 'element',
    answers: 'oil filter',
    fits: [],
    figures: {},
  };
  expectStatus(201, await server.post('/api/parts', { ...part, ...more }));
  return id;
}

const change = (part: string, changes: object) =>
  server.post(`/api/parts/${part}/changes`, { id: randomUUID(), ...changes });
const listed = async () => (await server.read('/api/parts?limit=200')).body.items as { id: string }[];

test('a part is put right, field by field; the stock stays', async () => {
  const part = await addPart('F-1', { inVan: 2, priceCents: 900, supplier: 'Valley parts' });
  const first = await change(part, { name: ' Oil filter, long ', priceCents: 1250 });
  expect(first).toMatchObject({
    status: 201,
    body: { name: 'Oil filter, long', priceCents: 1250, inVan: 2 },
  });
  const { body } = await change(part, { priceCents: null, supplier: null, figures: { micron: 10 } });
  expect(body).toMatchObject({ number: 'F-1', name: 'Oil filter, long', figures: { micron: 10 } });
  expect([body.priceCents, body.supplier]).toEqual([undefined, undefined]);
  await server.restart();
  expect(await listed()).toContainEqual(expect.objectContaining({ id: part, name: 'Oil filter, long' }));
});

test('what lies in a kit, when it comes and where else it is had; what went into machines in a year', async () => {
  const more = { contents: 'Ring, sleeve, two O-rings', leadDays: 12, secondSource: 'Lower Haldris Tools' };
  const part = await addPart('K-1', { inVan: 5, ...more });
  const shown = async () => (await listed()).find(({ id }) => id === part);
  expect(await shown()).toMatchObject({ ...more, usedPastYear: 0 });
  expect((await change(part, { contents: null, leadDays: 0 })).body).toMatchObject({ leadDays: 0 });
  expect((await change(part, { leadDays: 366 })).status).toBe(400);
  expect((await change(part, { leadDays: 1.5 })).status).toBe(400);
  const unit = await server.addCompressor({ tag: 'K-9', family: 'piston' });
  const repair = randomUUID();
  const found = { id: repair, kind: 'fault', foundAt: '2026-11-20T08:00:00Z', found: 'Worn' };
  expectStatus(201, await server.post(`/api/compressors/${unit}/repairs`, found));
  const entry = { kind: 'part', at: '2026-11-20T09:00:00Z', text: 'Kit', part, count: 2 };
  expectStatus(201, await server.post(`/api/repairs/${repair}/entries`, { id: randomUUID(), ...entry }));
  expect(await shown()).toMatchObject({ usedPastYear: 2, inVan: 3 });
  // A year on it is of the past.
  server.now += 366 * 86_400_000;
  expect(await shown()).toMatchObject({ usedPastYear: 0, inVan: 3 });
  server.now -= 366 * 86_400_000;
});

test('a part leaves the catalogue and comes back; its number stays its own', async () => {
  const part = await addPart('F-2');
  expect((await change(part, { isRetired: true })).body.isRetired).toBe(true);
  expect((await change(part, { isRetired: false })).body.isRetired).toBeUndefined();
  const other = await addPart('F-3');
  expect(await change(other, { number: 'F-2' })).toMatchObject({
    status: 422,
    body: { code: 'number-in-use' },
  });
  expectStatus(201, await change(part, { number: 'F-2', name: 'Same number' }));
  expectStatus(201, await change(part, { number: 'F-20' }));
  // What it was called before is free again.
  expectStatus(201, await change(other, { number: 'F-2' }));
});

test('sent again it is one change; under another content it is a conflict', async () => {
  const part = await addPart('F-4');
  const sent = { id: randomUUID(), name: 'Once' };
  expectStatus(201, await server.post(`/api/parts/${part}/changes`, sent));
  expectStatus(201, await server.post(`/api/parts/${part}/changes`, sent));
  expect((await server.post(`/api/parts/${part}/changes`, { ...sent, name: 'Twice' })).status).toBe(409);
});

test.each<[string, object, number]>([
  ['nothing', {}, 422],
  ['an empty name', { name: ' ' }, 400],
  ['a name of null', { name: null }, 400],
  ['a price below nothing', { priceCents: -1 }, 400],
  ['a unit that is not there', { fits: [randomUUID()] }, 404],
  ['a field nobody knows', { colour: 'blue' }, 400],
  ['a figure of nothing', { figures: { micron: 0 } }, 400],
])('%s is refused', async (_name, changes, status) => {
  const part = await addPart(`F-${randomUUID().slice(0, 8)}`);
  const refused = await change(part, changes);
  expect(refused.status).toBe(status);
  expect(refused.body.detail).toMatch(/\.$/);
});

test('a part that is not there', async () => {
  expect((await change(randomUUID(), { name: 'x' })).status).toBe(404);
});
