import { randomUUID } from 'node:crypto';
import { DAY, daysAgo, expectStatus, NOW, TestServer } from '../testing/test-server.js';

let server: TestServer;
beforeEach(async () => {
  server = await TestServer.start();
});
afterEach(() => server.stop());

const tags = async (query = '') =>
  (await server.read(`/api/standings${query}`)).body.items.map((unit: { tag: string }) => unit.tag);

/** A screw whose 2,000 h tasks are so many hours away at 10 h a day, commissioned lately. */
async function screw(tag: string, hours: number, siteId: string): Promise<string> {
  const unit = await server.addCompressor({
    siteId,
    tag,
    family: 'screw',
    commissionedOn: '2026-10-20',
  } as object);
  await server.readHours(unit, daysAgo(30), 0);
  await server.recordService(unit, daysAgo(29.9), ['first-service']);
  await server.recordService(unit, daysAgo(0.01), ['fasteners-check']);
  await server.readHours(unit, daysAgo(0.001), hours);
  return unit;
}

test('the fleet comes most urgent first, with each unit’s most pressing tasks', async () => {
  const siteId = await server.addSite({ name: 'Hessel Tunnel' });
  await screw('B-fresh', 100, siteId);
  const late = await server.addCompressor({
    siteId,
    tag: 'C-late',
    family: 'high-pressure',
    commissionedOn: '2026-10-20',
  } as object);
  await server.readHours(late, daysAgo(30), 0);
  await server.readHours(late, daysAgo(0.001), 60);
  await server.addCompressor({ siteId, tag: 'A-unknown', history: 'unknown' } as object);
  expect(await tags()).toEqual(['C-late', 'A-unknown', 'B-fresh']);
  const { body } = await server.read('/api/standings?limit=1');
  expect(body).toMatchObject({ total: 3, nextCursor: expect.any(String) });
  expect(body.compressorsByState).toEqual({
    overdue: 1,
    due: 1,
    nearing: 0,
    unknown: 0,
    fresh: 1,
    'put-off': 0,
  });
  expect(body.overdueSites).toBe(1);
  const [unit] = body.items;
  expect(unit).toMatchObject({
    compressorId: late,
    siteId,
    siteName: 'Hessel Tunnel',
    description: '3-stage high pressure',
  });
  // All seven that are late, and not only six: the two of safety first.
  expect(unit.tasks).toHaveLength(7);
  expect(unit.tasks[0]).toMatchObject({ state: 'overdue', safety: true });
  expect(unit.counts.overdue).toBeGreaterThanOrEqual(3);
});

describe('one that cannot be judged', () => {
  const broken = { tag: 'A-broken', family: 'screw' };
  const unjudged = async (unit: string) => {
    const { body, status } = await server.read('/api/standings');
    expect(status).toBe(200);
    return body.items.find(({ compressorId }: { compressorId: string }) => compressorId === unit);
  };

  test('shows as such, first of all, and keeps nobody else from being shown', async () => {
    const siteId = await server.addSite();
    await screw('B-sound', 100, siteId);
    const unit = await server.addCompressor({ siteId, ...broken } as object);
    await server.forget(
      `UPDATE "compressor" SET "plate" = json_set("plate", '$.commissionedOn', 'never') WHERE "id" = '${unit}'`,
    );
    await server.restart();
    expect(await tags()).toEqual(['A-broken', 'B-sound']);
    expect(await unjudged(unit)).toMatchObject({
      tasks: [],
      unjudged: expect.stringContaining('cannot be judged'),
    });
    expect((await server.read(`/api/compressors/${unit}/standing`)).body.unjudged).toContain(
      'cannot be judged',
    );
    expect((await server.read('/api/standings')).body.total).toBe(2);
    // On the walk through its site it can be read all the same.
    const walk = await server.read(`/api/sites/${siteId}/meters`);
    expect(walk.body.items.map(({ tag }: { tag: string }) => tag).sort()).toEqual(['A-broken', 'B-sound']);
  });

  test('a time zone that nobody knows counts as UTC', async () => {
    const siteId = await server.addSite();
    const unit = await server.addCompressor({ siteId, ...broken } as object);
    await server.forget(`UPDATE "site" SET "time_zone" = '__proto__' WHERE "id" = '${siteId}'`);
    await server.restart();
    expect((await unjudged(unit)).unjudged).toBeUndefined();
    expect((await server.read('/api/sites')).body.items[0].timeZone).toBe('UTC');
  });
});

describe('out of service', () => {
  const retire = (unit: string, retiredOn: string) =>
    server.post(`/api/compressors/${unit}/plate`, { id: randomUUID(), changedAt: daysAgo(0.001), retiredOn });

  test('it is from its day on, not from the moment at which that was told', async () => {
    const unit = await server.addCompressor({ tag: 'R-1', family: 'screw' } as object);
    await retire(unit, '2026-11-26');
    const shown = async () => ({
      today: await tags(),
      register: (await server.read('/api/compressors')).body.items.length as number,
      due: (await server.standing(unit)).tasks.length > 0,
    });
    expect(await shown()).toEqual({ today: ['R-1'], register: 1, due: true });
    expect(await tags(`?at=${new Date(NOW + 3 * DAY).toISOString()}`)).toEqual([]);
    server.now = NOW + 2 * DAY;
    expect(await shown()).toEqual({ today: [], register: 0, due: false });
  });

  test('a vessel likewise', async () => {
    const unit = await server.addCompressor({ tag: 'R-2' });
    const vessel = randomUUID();
    const { siteId } = (await server.read(`/api/compressors/${unit}`)).body;
    const registered = {
      id: vessel,
      siteId,
      tag: 'V',
      kind: 'receiver',
      compressorIds: [unit],
      inspectEveryMonths: 12,
    };
    await server.post('/api/vessels', registered);
    await server.post(`/api/vessels/${vessel}/changes`, { id: randomUUID(), retiredOn: '2026-11-26' });
    const dates = async () =>
      (await server.standing(unit)).tasks.filter((task: { vessel: unknown }) => task.vessel !== null).length;
    const listed = async () => (await server.read('/api/vessels')).body.items.length;
    expect([await dates(), await listed()]).toEqual([1, 1]);
    server.now = NOW + 2 * DAY;
    expect([await dates(), await listed()]).toEqual([0, 0]);
  });
});

test('a cursor of what is no number is refused', async () => {
  const cursor = Buffer.from(`["${randomUUID()}",1e999]`).toString('base64url');
  expect((await server.read(`/api/standings?cursor=${cursor}`)).status).toBe(400);
});

test('a page goes on where the last one ended', async () => {
  const siteId = await server.addSite();
  for (const hours of [500, 100, 400, 200, 300]) await screw(`U-${hours}`, hours, siteId);
  const all = await tags();
  const first = (await server.read('/api/standings?limit=2')).body;
  const second = (await server.read(`/api/standings?limit=2&cursor=${first.nextCursor}`)).body;
  const third = (await server.read(`/api/standings?limit=2&cursor=${second.nextCursor}`)).body;
  const paged = [first, second, third].flatMap((page) => page.items.map((unit: { tag: string }) => unit.tag));
  expect(paged).toEqual(all);
  expect(third.nextCursor).toBeNull();
});

test('a service moves a unit down, time alone moves it up, a retired one leaves', async () => {
  const siteId = await server.addSite();
  const slow = await screw('slow', 100, siteId);
  const fast = await screw('fast', 600, siteId);
  expect(await tags()).toEqual(['fast', 'slow']);
  // 20 h a day: the 2,000 h tasks fall due 70 days on. Cooling is due by the calendar for both before that.
  server.now = NOW + 75 * DAY;
  for (const unit of [slow, fast]) await server.recordService(unit, daysAgo(-74), ['cooling-clean']);
  const [first] = (await server.read('/api/standings')).body.items;
  expect(first).toMatchObject({ tag: 'fast' });
  expect(['due', 'overdue']).toContain(first.tasks[0].state);
  // A test is done with its result.
  const belt = {
    id: '66666666-6666-4666-8666-666666666666',
    check: 'belt-deflection',
    takenAt: daysAgo(-74.4),
    values: { method: 'feel', look: 'sound' },
  };
  expectStatus(201, await server.post(`/api/compressors/${fast}/measurements`, belt));
  const relief = {
    id: '88888888-8888-4888-8888-888888888888',
    check: 'relief-valve',
    takenAt: daysAgo(-74.4),
    values: { opens: 'yes', reseats: 'tight' },
  };
  expectStatus(201, await server.post(`/api/compressors/${fast}/measurements`, relief));
  await server.recordService(fast, daysAgo(-74.5), [
    'oil-change',
    'oil-filter',
    'intake-replace',
    'scavenge-clean',
    'valves-inspect',
    'belt-check',
    'oil-sample',
    'fasteners-check',
    'bearing-check',
    'prefilter-replace',
    'separator-replace',
    'relief-test',
  ]);
  const served = (await server.read('/api/standings')).body.items.find(
    (unit: { tag: string }) => unit.tag === 'fast',
  );
  expect(served.counts).toMatchObject({ due: 0, overdue: 0 });
  expect(served.recentServices).toHaveLength(4);
  const retired = {
    id: '77777777-7777-4777-8777-777777777777',
    changedAt: daysAgo(-74),
    retiredOn: '2027-02-06',
  };
  await server.post(`/api/compressors/${slow}/plate`, retired);
  expect(await tags()).toEqual(['fast']);
  // Last month it was in service: a past list is as it was.
  expect([...(await tags(`?at=${daysAgo(-40)}`))].sort()).toEqual(['fast', 'slow']);
});

test('the kept order is the order worked out from nothing, whatever is recorded in between', async () => {
  const siteId = await server.addSite();
  const units: string[] = [];
  for (const hours of [500, 100, 400, 650]) units.push(await screw(`U-${hours}`, hours, siteId));
  for (let step = 0; step < 12; step++) {
    server.now = NOW + step * 17 * DAY;
    const unit = units[step % units.length]!;
    if (step % 3 === 0)
      await server.recordService(unit, new Date(server.now).toISOString(), ['cooling-clean', 'oil-change']);
    // Asked with `at`, nothing that was kept is used.
    expect(await tags()).toEqual(await tags(`?at=${new Date(server.now).toISOString()}`));
  }
});
