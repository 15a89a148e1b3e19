import { randomUUID } from 'node:crypto';
import { DAY, daysAgo, expectStatus, NOW, TestServer, type Answer } from '../testing/test-server.js';

let server: TestServer;
beforeEach(async () => {
  server = await TestServer.start();
});
afterEach(() => server.stop());

const onDay = (days: number) => new Date(NOW + days * DAY).toISOString().slice(0, 10);

/** A piston set with its oil due: 10 h a day to 600 h, the oil changed at 50 h. */
async function compressorWithDueOil(): Promise<string> {
  const unit = await server.addCompressor({ commissionedOn: '2026-09-20' });
  await server.readHours(unit, daysAgo(60), 0);
  await server.recordService(unit, daysAgo(55), ['oil-change']);
  await server.readHours(unit, daysAgo(0.01), 600);
  return unit;
}

function deferral(unit: string, more: object): Promise<Answer> {
  const body = {
    id: randomUUID(),
    task: 'oil-change',
    deferredAt: daysAgo(0),
    reason: 'No oil aboard',
    ...more,
  };
  return server.post(`/api/compressors/${unit}/deferrals`, body);
}

describe('putting off', () => {
  test('waits with its reason until the limit, and is due again after it', async () => {
    const unit = await compressorWithDueOil();
    expect((await server.task(unit, 'oil-change')).state).toBe('overdue');
    const answer = await deferral(unit, { untilOn: onDay(7) });
    expect(answer).toMatchObject({ status: 201, body: { task: 'oil-change', untilOn: onDay(7), marks: [] } });
    expect(await server.task(unit, 'oil-change')).toMatchObject({
      state: 'put-off',
      dueAtHours: expect.closeTo(550, 1),
      deferral: { reason: 'No oil aboard', untilOn: onDay(7), untilHours: null },
    });
    server.now = NOW + 8 * DAY;
    expect((await server.task(unit, 'oil-change')).state).toBe('overdue');
    expect((await server.read(`/api/compressors/${unit}/deferrals`)).body.items).toHaveLength(1);
  });

  test('withdrawn, it does not hold; and the unit’s revision moves with it', async () => {
    const unit = await compressorWithDueOil();
    const { revision } = await server.standing(unit);
    const { body } = await deferral(unit, { untilOn: onDay(7) });
    expect((await server.standing(unit)).revision).toBe(revision + 1);
    const withdrawal = { id: randomUUID(), reason: 'Oil came.' };
    await server.post(`/api/compressors/${unit}/deferrals/${body.id}/withdrawal`, withdrawal);
    expect((await server.task(unit, 'oil-change')).state).toBe('overdue');
    await server.restart();
    expect((await server.standing(unit)).revision).toBe(revision + 2);
  });

  test('a safety task wants the risk named, and stays in sight', async () => {
    const unit = await server.addCompressor({ family: 'high-pressure', commissionedOn: '2026-09-20' });
    await server.readHours(unit, daysAgo(60), 0);
    await server.readHours(unit, daysAgo(0.01), 60);
    const wish = { task: 'cartridge-replace', untilHours: 80 };
    expect(await deferral(unit, wish)).toMatchObject({ status: 422, body: { code: 'risk-unnamed' } });
    const named = await deferral(unit, { ...wish, risk: 'Water in the cylinders' });
    expect(named).toMatchObject({ status: 201, body: { marks: ['safety-put-off'] } });
    const { tasks } = await server.standing(unit);
    const index = tasks.findIndex((task: { code: string }) => task.code === 'cartridge-replace');
    expect(tasks[index]).toMatchObject({ state: 'put-off', deferral: { risk: 'Water in the cylinders' } });
    const states = tasks.slice(0, index).map((task: { state: string }) => task.state);
    expect(states.every((state: string) => ['due', 'overdue'].includes(state))).toBe(true);
    const fleet = (await server.read('/api/standings')).body;
    expect(fleet.items[0].tasks.map((task: { code: string }) => task.code)).toContain('cartridge-replace');
  });

  test.each<[string, object, number, string]>([
    ['without a limit', {}, 400, 'invalid-input'],
    ['into the past', { untilOn: onDay(-1) }, 422, 'limit'],
    ['for years', { untilOn: onDay(800) }, 422, 'limit'],
    ['to hours it has run', { untilHours: 500 }, 422, 'limit'],
    ['for more hours than a year has', { untilHours: 20_000 }, 422, 'limit'],
    ['what is not due', { task: 'valves-inspect', untilOn: onDay(7) }, 422, 'nothing-to-put-off'],
    ['what is no task', { task: 'moon-dance', untilOn: onDay(7) }, 422, 'unknown-task'],
    ['from tomorrow', { deferredAt: daysAgo(-1), untilOn: onDay(7) }, 422, 'in-the-future'],
    ['without a reason', { reason: ' ', untilOn: onDay(7) }, 400, 'invalid-input'],
  ])('%s: refused in a sentence', async (_name, more, status, code) => {
    const unit = await compressorWithDueOil();
    const answer = await deferral(unit, more);
    expect([answer.status, answer.body.code]).toEqual([status, code]);
    expect(answer.body.detail).toMatch(/\.$/);
    expect((await server.task(unit, 'oil-change')).state).toBe('overdue');
  });
});

describe('a machine whose history is not known', () => {
  const set = (unit: string, more: object) =>
    server.post(`/api/compressors/${unit}/starting-points`, {
      id: randomUUID(),
      setAt: daysAgo(0),
      basis: 'inspection',
      ...more,
    });

  async function unknownCompressor(): Promise<string> {
    const unit = await server.addCompressor({ history: 'unknown' });
    await server.readHours(unit, daysAgo(50), 4000);
    await server.readHours(unit, daysAgo(0.01), 4400);
    return unit;
  }

  test('stays unknown until an inspection or an estimate says where it counts from', async () => {
    const unit = await unknownCompressor();
    expect((await server.task(unit, 'oil-change')).state).toBe('unknown');
    const answer = await set(unit, {
      points: [
        { task: 'oil-change', hoursUsed: 300, countsFromOn: onDay(-20) },
        { task: 'belt-check', hoursUsed: 0 },
      ],
    });
    expect(answer.status).toBe(201);
    const oil = await server.task(unit, 'oil-change');
    expect(oil).toMatchObject({ startedBy: 'inspection', lastDoneAt: null });
    expect(oil.dueAtHours).toBeCloseTo(4600, 0);
    expect(oil.dueOn).toBe('2027-02-04');
    expect((await server.task(unit, 'valves-inspect')).state).toBe('unknown');
    await server.restart();
    expect((await server.task(unit, 'oil-change')).dueAtHours).toBeCloseTo(4600, 0);
    expect((await server.read(`/api/compressors/${unit}/starting-points`)).body.items[0].points).toHaveLength(
      2,
    );
  });

  test('withdrawn, it is unknown again', async () => {
    const unit = await unknownCompressor();
    const { body } = await set(unit, { basis: 'estimate', points: [{ task: 'oil-change' }] });
    expect((await server.task(unit, 'oil-change')).startedBy).toBe('estimate');
    const withdrawal = { id: randomUUID(), reason: 'Wrong machine.' };
    await server.post(`/api/compressors/${unit}/starting-points/${body.id}/withdrawal`, withdrawal);
    expect((await server.task(unit, 'oil-change')).state).toBe('unknown');
  });

  test.each<[string, object, number]>([
    ['no task', { points: [] }, 400],
    ['the same task twice', { points: [{ task: 'oil-change' }, { task: 'oil-change' }] }, 400],
    ['less than nothing used', { points: [{ task: 'oil-change', hoursUsed: -1 }] }, 400],
    ['a day to come', { points: [{ task: 'oil-change', countsFromOn: onDay(3) }] }, 422],
    ['a task nobody knows', { points: [{ task: 'moon-dance' }] }, 422],
    ['by hearsay', { basis: 'hearsay', points: [{ task: 'oil-change' }] }, 400],
    ['looked at tomorrow', { setAt: daysAgo(-1), points: [{ task: 'oil-change' }] }, 422],
  ])('%s: refused', async (_name, more, status) => {
    const unit = await unknownCompressor();
    const answer = await set(unit, more);
    expect(answer.status).toBe(status);
    expect(answer.body.detail).toMatch(/\.$/);
  });
});

describe('a sticker', () => {
  const stick = (unit: string, points: object[], more: object = {}) =>
    server.post(`/api/compressors/${unit}/starting-points`, {
      id: randomUUID(),
      setAt: daysAgo(0),
      basis: 'sticker',
      points,
      ...more,
    });

  test('says where tasks count from, by its day and its hours', async () => {
    const unit = await server.addCompressor({ family: 'screw', history: 'unknown' });
    await server.readHours(unit, daysAgo(0.5), 6120);
    const done = { task: 'oil-filter', countsFromOn: '2026-05-02', hoursThen: 5100 };
    expectStatus(201, await stick(unit, [done, { task: 'relief-test', countsFromOn: '2026-05-02' }]));
    expect(await server.task(unit, 'oil-filter')).toMatchObject({
      startedBy: 'sticker',
      dueAtHours: 7100,
      dueOn: '2027-05-02',
    });
    expect(await server.task(unit, 'relief-test')).toMatchObject({ startedBy: 'sticker' });
    const { items } = (await server.read(`/api/logbook?q=sticker&compressorId=${unit}`)).body;
    expect(items[0].text).toMatch(/^By the sticker: New oil filter/);
  });

  test.each<[string, object, string, number]>([
    ['hours that the meter has not run', { task: 'oil-filter', hoursThen: 7100 }, 'ahead-of-meter', 422],
    ['hours alone for what keeps somebody safe', { task: 'relief-test', hoursThen: 10 }, 'needs-day', 422],
    ['nothing said', { task: 'oil-filter' }, 'nothing-said', 422],
    ['hours used and a figure', { task: 'oil-filter', hoursThen: 10, hoursUsed: 5 }, 'invalid-input', 400],
    ['a figure below nothing', { task: 'oil-filter', hoursThen: -1 }, 'invalid-input', 400],
    ['a day to come', { task: 'oil-filter', countsFromOn: '2030-01-01' }, 'in-the-future', 422],
  ])('%s is refused in a sentence', async (_name, point, code, status) => {
    const unit = await server.addCompressor({ family: 'screw', history: 'unknown' });
    await server.readHours(unit, daysAgo(0.5), 6120);
    const refused = await stick(unit, [point]);
    expect(refused).toMatchObject({ status, body: { code } });
    expect(refused.body.detail).toMatch(/[.?]$/);
  });

  test('a figure on the meter is only said of a sticker', async () => {
    const unit = await server.addCompressor({ family: 'screw', history: 'unknown' });
    const point = { task: 'oil-filter', hoursThen: 10 };
    expect(await stick(unit, [point], { basis: 'inspection' })).toMatchObject({
      status: 422,
      body: { code: 'not-a-sticker' },
    });
  });
});
