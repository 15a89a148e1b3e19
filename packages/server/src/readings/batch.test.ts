import { randomUUID } from 'node:crypto';
import { jest } from '@jest/globals';
import { Database } from '../persistence/database.js';
import { DAY, daysAgo, NOW, TestServer } from '../testing/test-server.js';

let server: TestServer;
beforeAll(async () => {
  server = await TestServer.start();
});
afterAll(() => server.stop());

const reading = (compressorId: string, ago: number, hours: number, more: object = {}) => ({
  compressorId,
  id: randomUUID(),
  takenAt: daysAgo(ago),
  hours,
  counts: 'total',
  source: 'typed',
  ...more,
});
const batch = (readings: unknown) => server.post('/api/readings/batch', { readings } as object);

describe('readings of many units at once', () => {
  test('good rows are kept, bad ones refused each with its reason, known ones known', async () => {
    const [a, b] = [await server.addCompressor(), await server.addCompressor()];
    const first = reading(a, 10, 100);
    const sent = [
      first,
      reading(b, 9, 50),
      reading(a, 8, 90),
      reading(a, 5, 1000),
      reading(randomUUID(), 5, 1),
      { ...reading(b, 4, 60), hours: '60' },
      { ...reading(b, 4, 60), colour: 'red' },
      first,
      reading(a, 1, 160),
    ];
    const { status, body } = await batch(sent);
    expect(status).toBe(200);
    expect(body.results.map((one: { id: string }) => one.id)).toEqual(sent.map(({ id }) => id));
    expect(body.results.map((one: { outcome: string }) => one.outcome)).toEqual([
      'stored',
      'stored',
      'refused',
      'refused',
      'refused',
      'refused',
      'refused',
      'known',
      'stored',
    ]);
    const codes = body.results.map((one: { problem?: { code: string } }) => one.problem?.code);
    expect(codes.slice(2, 7)).toEqual([
      'goes-backwards',
      'faster-than-the-clock',
      'no-such-unit',
      'invalid-input',
      'invalid-input',
    ]);
    expect((await server.read(`/api/compressors/${a}/readings`)).body.items).toHaveLength(2);
    expect((await server.standing(a)).revision).toBe(3);
    // Sent again, as after a lost answer, nothing is doubled.
    const again = await batch(sent);
    expect(again.body.results.map((one: { outcome: string }) => one.outcome)).toEqual(
      body.results.map((one: { outcome: string }) => (one.outcome === 'stored' ? 'known' : one.outcome)),
    );
    expect((await server.read(`/api/compressors/${a}/readings`)).body.items).toHaveLength(2);
  });

  test('the same id with another figure is refused, not taken for known', async () => {
    const unit = await server.addCompressor();
    const one = reading(unit, 5, 10);
    await batch([one]);
    const { body } = await batch([{ ...one, hours: 11 }]);
    expect(body.results[0]).toMatchObject({
      outcome: 'refused',
      problem: { status: 409, code: 'id-already-used' },
    });
  });

  test.each([
    ['no list', undefined],
    ['not a list', 'reading'],
    ['rows that are no objects', [1, null]],
    ['too many', Array.from({ length: 501 }, () => ({}))],
  ])('%s is refused whole', async (_name, readings) => {
    expect((await batch(readings)).status).toBe(400);
  });
});

describe('what is unusual', () => {
  test('is stored, and marked', async () => {
    const unit = await server.addCompressor();
    for (let week = 10; week >= 4; week--) await server.readHours(unit, daysAgo(week * 7), (10 - week) * 30);
    const far = await server.readHours(unit, daysAgo(21), 330);
    expect(far.body.marks).toEqual(['far-from-habit']);
    expect((await server.readHours(unit, daysAgo(14), 360)).body.marks).toEqual([]);
    expect((await server.readHours(unit, daysAgo(7), 360)).body.marks).toEqual(['same-figure']);
    const results = (await batch([reading(unit, 0, 500)])).body.results;
    expect(results[0].marks).toEqual(['far-from-habit']);
    server.now = NOW + 70 * DAY;
    expect((await server.readHours(unit, daysAgo(-70), 800)).body.marks).toContain('long-gap');
    server.now = NOW;
  });
});

describe('corrections and withdrawals', () => {
  test('a mistyped reading is put right by another that names it, and judged without it', async () => {
    const unit = await server.addCompressor();
    await server.readHours(unit, daysAgo(20), 100);
    const slip = (await server.readHours(unit, daysAgo(10), 261)).body;
    server.now = NOW + 1000;
    // 216 h could not stand beside 261 h ten minutes before; in its place it can.
    expect((await server.readHours(unit, daysAgo(10 - 1 / 144), 216)).body.code).toBe('goes-backwards');
    const right = await server.readHours(unit, daysAgo(10), 216, { corrects: slip.id });
    expect(right).toMatchObject({ status: 201, body: { hours: 216, corrects: slip.id } });
    server.now = NOW + 2000;
    expect(await server.standing(unit, `?at=${daysAgo(10)}`)).toMatchObject({ runHours: 216, revision: 4 });
    // As it was known before, the slip still stood.
    expect((await server.standing(unit, `?at=${daysAgo(10)}&knownAt=${daysAgo(0)}`)).runHours).toBe(261);
    const { items } = (await server.read(`/api/compressors/${unit}/readings`)).body;
    const shown = items.find((one: { id: string }) => one.id === slip.id);
    expect(shown.voided).toEqual({
      at: new Date(NOW + 1000).toISOString(),
      how: 'corrected',
      byFact: right.body.id,
    });
    server.now = NOW;
  });

  test('a reading is withdrawn with a reason, once', async () => {
    const unit = await server.addCompressor();
    await server.readHours(unit, daysAgo(20), 100);
    const wrong = (await server.readHours(unit, daysAgo(10), 300)).body;
    const withdrawal = { id: randomUUID(), reason: 'Read off the machine beside it.' };
    const path = `/api/compressors/${unit}/readings/${wrong.id}/withdrawal`;
    const answer = await server.post(path, withdrawal);
    expect(answer).toMatchObject({ status: 201, body: { factId: wrong.id, reason: withdrawal.reason } });
    expect((await server.standing(unit)).runHours).toBe(100);
    expect((await server.post(path, withdrawal)).status).toBe(201);
    expect((await server.post(path, { ...withdrawal, id: randomUUID() })).body.code).toBe('already-voided');
    // Its figure binds nobody any more, not even after a restart.
    await server.restart();
    expect((await server.readHours(unit, daysAgo(9), 120)).status).toBe(201);
    const { items } = (await server.read(`/api/compressors/${unit}/readings`)).body;
    expect(items.find((one: { id: string }) => one.id === wrong.id).voided.reason).toBe(withdrawal.reason);
  });

  test('a service that was not done is withdrawn, and its task is due again', async () => {
    const unit = await server.addCompressor();
    await server.readHours(unit, daysAgo(20), 100);
    const before = await server.task(unit, 'oil-change');
    const service = (await server.recordService(unit, daysAgo(5), ['oil-change'], { hours: 130 })).body;
    expect((await server.task(unit, 'oil-change')).dueAtHours).toBe(630);
    const withdrawal = { id: randomUUID(), reason: 'It was the other machine.' };
    const path = `/api/compressors/${unit}/services/${service.id}/withdrawal`;
    expect((await server.post(path, withdrawal)).status).toBe(201);
    expect((await server.task(unit, 'oil-change')).dueAtHours).toBe(before.dueAtHours);
    expect((await server.standing(unit)).runHours).toBe(100);
  });

  test('a meter change that the readings need cannot be withdrawn, one that they do not need can', async () => {
    const unit = await server.addCompressor();
    await server.readHours(unit, daysAgo(30), 9400);
    const change = (ago: number, oldFinalHours: number, newStartHours: number) =>
      server.post(`/api/compressors/${unit}/meter-changes`, {
        id: randomUUID(),
        changedAt: daysAgo(ago),
        oldFinalHours,
        newStartHours,
        reason: 'replaced',
      });
    const needed = (await change(20, 9480, 0)).body;
    await server.readHours(unit, daysAgo(10), 80);
    const spare = (await change(5, 100, 100)).body;
    const withdraw = (id: string) =>
      server.post(`/api/compressors/${unit}/meter-changes/${id}/withdrawal`, {
        id: randomUUID(),
        reason: 'No.',
      });
    expect(await withdraw(needed.id)).toMatchObject({ status: 422, body: { code: 'goes-backwards' } });
    expect((await withdraw(spare.id)).body).toMatchObject({ factId: spare.id });
    expect((await server.standing(unit, `?at=${daysAgo(10)}`)).runHours).toBe(9560);
  });

  test.each([
    [
      'another unit’s fact',
      async (unit: string) => (await server.readHours(await server.addCompressor(), daysAgo(9), 1), unit),
    ],
    ['nothing at all', async (unit: string) => unit],
  ])('%s cannot be withdrawn', async (_name, make) => {
    const unit = await make(await server.addCompressor());
    const path = `/api/compressors/${unit}/readings/${randomUUID()}/withdrawal`;
    expect((await server.post(path, { id: randomUUID(), reason: 'x' })).body.code).toBe('no-such-fact');
    expect((await server.post(path, { id: randomUUID(), reason: '  ' })).status).toBe(400);
  });

  test('a refused correction leaves what it would have put right', async () => {
    const unit = await server.addCompressor();
    await server.readHours(unit, daysAgo(20), 100);
    const kept = (await server.readHours(unit, daysAgo(10), 200)).body;
    const bad = await server.readHours(unit, daysAgo(10), 5000, { corrects: kept.id });
    expect(bad.body.code).toBe('faster-than-the-clock');
    expect((await server.standing(unit, `?at=${daysAgo(10)}`)).runHours).toBe(200);
    expect((await server.readHours(unit, daysAgo(5), 210, { corrects: randomUUID() })).body.code).toBe(
      'no-such-fact',
    );
  });
});

test('the first thing that a server is sent may be a long batch: the register is not read anew for each row', async () => {
  const unit = await server.addCompressor();
  await server.restart();
  const read = jest.spyOn(Database.prototype, 'all');
  const rows = Array.from({ length: 60 }, (_, index) => reading(unit, 90 - index, 10 * index));
  const { results } = (await batch(rows)).body as { results: { outcome: string }[] };
  expect(results.every(({ outcome }) => outcome === 'stored')).toBe(true);
  const registers = read.mock.calls.filter(([sql]) => /FROM "compressor"/.test(sql));
  read.mockRestore();
  expect(registers.length).toBeLessThan(5);
});
