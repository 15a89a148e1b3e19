import { randomUUID } from 'node:crypto';
import { openPdf } from '../testing/open-pdf.js';
import { DAY, daysAgo, expectStatus, TestServer } from '../testing/test-server.js';

let server: TestServer;
beforeEach(async () => {
  server = await TestServer.start();
});
afterEach(() => server.stop());

const all = async () => (await server.read('/api/follow-ups')).body;
const of = async (unit: string) => (await server.read(`/api/follow-ups?compressorId=${unit}`)).body;
const look = (unit: string, ago: number, more: object = {}) =>
  server.post(`/api/compressors/${unit}/follow-ups`, {
    id: randomUUID(),
    lookedAt: daysAgo(ago),
    of: 'joint',
    found: 'sound',
    ...more,
  });

async function repairOn(unit: string, entry: object): Promise<string> {
  const id = randomUUID();
  const found = { id, kind: 'fault', foundAt: daysAgo(9), found: 'Slow to fill' };
  expectStatus(201, await server.post(`/api/compressors/${unit}/repairs`, found));
  expectStatus(
    201,
    await server.post(`/api/repairs/${id}/entries`, { id: randomUUID(), at: daysAgo(8), ...entry }),
  );
  return id;
}

test('an oil change is looked at again after three days, once, and then no more', async () => {
  const unit = await server.addCompressor({ tag: 'KV-1' });
  expectStatus(201, await server.recordService(unit, daysAgo(2), ['oil-change']));
  // Too early to be asked anywhere but on its tag.
  expect(await of(unit)).toMatchObject([{ tag: 'KV-1', kind: 'joint', state: 'coming' }]);
  expect(await all()).toEqual([]);
  server.now += 2 * DAY;
  const [one] = await all();
  expect(one).toMatchObject({
    compressorId: unit,
    state: 'due',
    since: daysAgo(2),
    dueFrom: daysAgo(-1),
    hoursSince: null,
    text: expect.stringMatching(/^Oil.*: dry and tight\?$/),
  });
  // What took nothing apart asks for nothing.
  const other = await server.addCompressor({ tag: 'KV-2' });
  expectStatus(201, await server.recordService(other, daysAgo(2), ['cooling-clean']));
  expect(await all()).toHaveLength(1);
  const first = await look(unit, -2, { note: 'Wiped, dry' });
  expect(first).toMatchObject({ status: 201, body: { of: 'joint', found: 'sound', note: 'Wiped, dry' } });
  expect(await all()).toEqual([]);
  expect((await server.read(`/api/compressors/${unit}/follow-ups`)).body.items).toHaveLength(1);
  const { body: logbook } = await server.read(`/api/logbook?compressorId=${unit}`);
  expect(JSON.stringify(logbook)).toContain('What was opened, looked at again: dry and tight');
  // Withdrawn, it waits again.
  const away = { id: randomUUID(), reason: 'Another machine' };
  const path = `/api/compressors/${unit}/follow-ups/${first.body.id}/withdrawal`;
  expectStatus(201, await server.post(path, away));
  expect(await all()).toHaveLength(1);
});

test('a look that comes too soon, of nothing, of a belt that was never new, or to come is refused with a sentence', async () => {
  const unit = await server.addCompressor();
  const code = async (ago: number, more: object = {}) => {
    const { status, body } = await look(unit, ago, more);
    return [status, body.code];
  };
  expect(await code(1)).toEqual([422, 'nothing-opened']);
  expectStatus(201, await server.recordService(unit, daysAgo(2), ['oil-change']));
  expect(await code(1.9)).toEqual([422, 'too-soon']);
  expect(await code(3)).toEqual([422, 'nothing-opened']);
  expect(await code(1, { of: 'belt' })).toEqual([422, 'nothing-opened']);
  expect((await code(-1))[0]).toBe(422);
  expect((await code(1, { of: 'bolt' }))[0]).toBe(400);
  expect((await code(1, { found: 'maybe' }))[0]).toBe(400);
  expect((await code(1, { note: 'x'.repeat(5000) }))[0]).toBe(400);
  expect(await code(1)).toEqual([201, undefined]);
});

test('a new belt goes by the run hours; measured, it was looked at', async () => {
  const unit = await server.addCompressor({ drive: 'belt' });
  await repairOn(unit, { kind: 'part', text: 'V-belt', count: 1 });
  expectStatus(201, await server.readHours(unit, daysAgo(8), 100));
  expectStatus(201, await server.readHours(unit, daysAgo(4), 120));
  expectStatus(201, await server.readHours(unit, daysAgo(0), 130));
  expect(await all()).toMatchObject([{ kind: 'belt', state: 'due', what: ['the belt'], dueFrom: null }]);
  expect((await all())[0].hoursSince).toBeCloseTo(30, 0);
  const values = {
    method: 'gauge',
    look: 'sound',
    spanMm: 480,
    deflectionMm: 7.5,
    forceN: 20,
    leastForceN: 18,
  };
  const measured = { id: randomUUID(), check: 'belt-deflection', takenAt: daysAgo(0), values };
  expectStatus(201, await server.post(`/api/compressors/${unit}/measurements`, measured));
  expect(await all()).toEqual([]);
});

test('what a repair opened is asked for too; a guard is no belt; nobody asks of a retired unit', async () => {
  const unit = await server.addCompressor();
  const repair = await repairOn(unit, { kind: 'work', text: 'Head off', minutes: 90, opens: ['stages'] });
  const guard = { id: randomUUID(), at: daysAgo(7), kind: 'part', text: 'Belt guard', count: 1 };
  expectStatus(201, await server.post(`/api/repairs/${repair}/entries`, guard));
  expect(await all()).toMatchObject([
    { kind: 'joint', state: 'due', what: ['Head, valves, coolers, unloader'] },
  ]);
  const gone = { id: randomUUID(), changedAt: daysAgo(1), retiredOn: daysAgo(1).slice(0, 10) };
  expectStatus(201, await server.post(`/api/compressors/${unit}/plate`, gone));
  expect(await all()).toEqual([]);
});

test('of a fleet what waits the longest comes first, and of thousands so many as anybody reads', async () => {
  const units = [];
  for (const [index, days] of [5, 40, 20].entries()) {
    const unit = await server.addCompressor({ tag: `Q-${index}` });
    expectStatus(201, await server.recordService(unit, daysAgo(days), ['oil-change']));
    units.push(unit);
  }
  expect((await all()).map(({ tag, state }: { tag: string; state: string }) => [tag, state])).toEqual([
    ['Q-1', 'late'],
    ['Q-2', 'late'],
    ['Q-0', 'due'],
  ]);
  expect((await server.read('/api/follow-ups?compressorId=not-a-unit')).status).toBe(404);
  expect((await server.read(`/api/follow-ups?compressorId=${'x'.repeat(5000)}`)).status).toBe(400);
  expect((await server.read(`/api/follow-ups?compressorId=${randomUUID()}`)).status).toBe(404);
});

test('the service tag says what is to be looked at again, before what is due', async () => {
  const unit = await server.addCompressor();
  expectStatus(201, await server.recordService(unit, daysAgo(1), ['oil-change']));
  const { bytes } = await server.readBytes(`/api/compressors/${unit}/tag.pdf`);
  const { text } = await openPdf(bytes);
  expect(text).toMatch(/Joints opened: look again/);
});

describe('a machine that stood for months', () => {
  const list = async (unit: string) => (await server.read(`/api/compressors/${unit}/bring-back`)).body;
  const back = (unit: string, steps: readonly string[], doneAt = daysAgo(0)) =>
    server.post(`/api/compressors/${unit}/brought-back`, { id: randomUUID(), doneAt, steps });

  test('is brought back by the whole of its list, and then stands no more', async () => {
    const unit = await server.addCompressor({ family: 'screw', motor: 'diesel' });
    expect((await list(unit)).stoodSince).toBeNull();
    for (const [days, hours] of [
      [300, 2000],
      [180, 2140],
      [1, 2140.4],
    ] as const)
      expectStatus(201, await server.readHours(unit, daysAgo(days), hours));
    const { stoodSince, steps } = await list(unit);
    expect(stoodSince).toBe(daysAgo(180));
    const codes = (steps as { code: string }[]).map(({ code }) => code);
    expect(codes).toEqual(
      expect.arrayContaining(['locked', 'fuel', 'running-gear', 'by-hand', 'first-minutes']),
    );
    const short = await back(unit, codes.slice(0, -1));
    expect(short).toMatchObject({ status: 422, body: { code: 'not-all-seen-to' } });
    expect(JSON.stringify(short.body)).toContain('First minutes watched');
    expect((await back(unit, ['Not a code'])).status).toBe(400);
    expect((await back(unit, codes, daysAgo(-1))).status).toBe(422);
    expect(await back(unit, codes)).toMatchObject({ status: 201, body: { stoodSince: null } });
    expect((await list(unit)).stoodSince).toBeNull();
    const { body: logbook } = await server.read(`/api/logbook?compressorId=${unit}`);
    expect(JSON.stringify(logbook)).toContain('Brought back after standing');
  });

  test('is not asked for where it ran, where it is read too seldom to know, and where it is retired', async () => {
    const unit = await server.addCompressor();
    expectStatus(201, await server.readHours(unit, daysAgo(180), 100));
    expect((await list(unit)).stoodSince).toBeNull();
    expectStatus(201, await server.readHours(unit, daysAgo(1), 400));
    expect((await list(unit)).stoodSince).toBeNull();
    expect((await server.read(`/api/compressors/${randomUUID()}/bring-back`)).status).toBe(404);
  });
});
