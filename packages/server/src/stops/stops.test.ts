import { randomUUID } from 'node:crypto';
import { expectStatus, TestServer, type Answer } from '../testing/test-server.js';
import { VisitAtWork } from '../testing/visit-steps.js';

const MINUTE = 60_000;
let server: TestServer;
beforeEach(async () => {
  server = await TestServer.start();
});
afterEach(() => server.stop());

const relief = {
  stuck: { check: 'relief-valve', values: { opens: 'no', reseats: 'tight' } },
  good: { check: 'relief-valve', values: { opens: 'yes', reseats: 'tight' } },
};

function at(): string {
  server.now += MINUTE;
  return new Date(server.now).toISOString();
}

async function measure(unit: string, measured: object): Promise<Answer> {
  return server.post(`/api/compressors/${unit}/measurements`, {
    id: randomUUID(),
    takenAt: at(),
    ...measured,
  });
}

const stops = async (unit: string) => (await server.read(`/api/compressors/${unit}/stops`)).body;
const bringBack = (unit: string, body: object) =>
  server.post(`/api/compressors/${unit}/return-to-service`, { id: randomUUID(), at: at(), ...body });
const takeOut = (unit: string, body: object = {}) =>
  server.post(`/api/compressors/${unit}/out-of-service`, {
    id: randomUUID(),
    since: at(),
    scope: 'unit',
    ground: 'other',
    why: 'Waits for a part',
    ...body,
  });

test('a stop verdict takes the unit out until it is measured better or withdrawn, and no reason alone ends it', async () => {
  const unit = await server.addCompressor();
  const bad = await measure(unit, relief.stuck);
  expect(bad.body.judgement.verdict).toBe('stop');
  const [stop] = await stops(unit);
  expect(stop).toMatchObject({ id: bad.body.id, scope: 'unit', ground: 'relief', check: 'relief-valve' });
  expect((await server.read('/api/stops')).body).toHaveLength(1);
  const decision = { ends: stop.id, reason: 'It is needed', decidedBy: 'Jon Brask' };
  expect(await bringBack(unit, decision)).toMatchObject({ status: 409, body: { code: 'no-reason-ends-it' } });
  expect((await bringBack(unit, { ends: stop.id, shownBy: bad.body.id })).status).toBe(409);
  const good = await measure(unit, relief.good);
  expect(good.body.judgement.verdict).toBe('good');
  expect(await stops(unit)).toEqual([]);
  // The better one was a slip: the stop stands again, and goes with its own measurement.
  const withdraw = (id: string) =>
    server.post(`/api/compressors/${unit}/measurements/${id}/withdrawal`, {
      id: randomUUID(),
      reason: 'Another machine',
    });
  expectStatus(201, await withdraw(good.body.id));
  expect(await stops(unit)).toHaveLength(1);
  expectStatus(201, await withdraw(bad.body.id));
  expect(await stops(unit)).toEqual([]);
});

test('with a stop that stands nobody signs, unless it is left out of service and told', async () => {
  const unit = await server.addCompressor({ family: 'screw', tag: 'HC-7' });
  const visit = await VisitAtWork.plan(server, unit, ['bearing-check']);
  expectStatus(201, await visit.done('bearing-check'));
  expectStatus(201, await visit.step('measure', { phase: 'work', ...relief.stuck }));
  const refused = await visit.step('sign', { name: 'Mara' });
  expect(refused).toMatchObject({ status: 409, body: { code: 'stop-stands' } });
  expect(refused.body.detail).toMatch(/^It must not run: Relief valve/);
  expectStatus(201, await visit.step('sign', { name: 'Mara', informed: 'Shift leader Orvel' }));
  expect((await visit.view()).units[0].stops).toHaveLength(1);
  const lines = (await server.read(`/api/logbook?compressorId=${unit}`)).body.items.map(
    ({ text }: { text: string }) => text,
  );
  expect(lines).toContain('Signed for by Mara, left out of service, told to Shift leader Orvel');
});

test('taken out by somebody, it comes back by a decision with a name and a reason', async () => {
  const unit = await server.addCompressor();
  expectStatus(201, await takeOut(unit, { informed: 'Night shift', scope: 'side', place: '300 bar' }));
  const [stop] = await stops(unit);
  expect(stop).toMatchObject({ scope: 'side', place: '300 bar', informed: 'Night shift' });
  expect((await bringBack(unit, { ends: stop.id, reason: 'Part is in' })).status).toBe(422);
  expect((await bringBack(unit, { ends: randomUUID(), reason: 'x', decidedBy: 'y' })).status).toBe(404);
  expectStatus(201, await bringBack(unit, { ends: stop.id, reason: 'Part is in', decidedBy: 'Jon Brask' }));
  expect(await stops(unit)).toEqual([]);
  await server.restart();
  expect(await stops(unit)).toEqual([]);
  const lines = (await server.read(`/api/logbook?compressorId=${unit}`)).body.items.map(
    ({ text }: { text: string }) => text,
  );
  expect(lines).toContain('Back in service, decided by Jon Brask: Part is in');
  expect(lines).toContain('Panel side out of service: 300 bar: Waits for a part, told to Night shift');
});

test('a pressure vessel that weeps comes back with an examination that it passed, and with nothing else', async () => {
  const unit = await server.addCompressor();
  expectStatus(201, await takeOut(unit, { ground: 'vessel', why: 'The receiver weeps at a weld' }));
  const [stop] = await stops(unit);
  expect((await bringBack(unit, { ends: stop.id, reason: 'welded', decidedBy: 'Jon Brask' })).body.code).toBe(
    'no-reason-ends-it',
  );
  const good = await measure(unit, relief.good);
  expect((await bringBack(unit, { ends: stop.id, shownBy: good.body.id })).body.code).toBe('another-check');
  const vessel = { id: randomUUID(), kind: 'receiver', tag: 'R-7', compressorIds: [unit] };
  const { siteId } = (await server.read(`/api/compressors/${unit}`)).body;
  expectStatus(201, await server.post('/api/vessels', { ...vessel, siteId }));
  server.now += 3 * 24 * 60 * MINUTE;
  const doneOn = new Date(server.now - 24 * 60 * MINUTE).toISOString().slice(0, 10);
  const examination = { id: randomUUID(), kind: 'test', doneOn, passed: true };
  expectStatus(201, await server.post(`/api/vessels/${vessel.id}/examinations`, examination));
  expectStatus(201, await bringBack(unit, { ends: stop.id, shownBy: examination.id }));
  expect(await stops(unit)).toEqual([]);
});

test.each([
  ['a scope that is none', { scope: 'everything' }, 400],
  ['no reason', { why: ' ' }, 400],
  ['a finding of nobody', { finding: '01890000-0000-7000-8000-000000000000' }, 422],
  ['in the future', { since: '2031-01-01T00:00:00.000Z' }, 422],
])('taking out with %s is refused', async (_name, more, status) => {
  const unit = await server.addCompressor();
  expect((await takeOut(unit, more)).status).toBe(status);
  expect(await stops(unit)).toEqual([]);
});
