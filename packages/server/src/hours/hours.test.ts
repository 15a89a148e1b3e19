import { randomUUID } from 'node:crypto';
import { practicePrior } from '@entretien/core/hours';
import { FleetPriorRepository } from '../compressors/fleet-prior-repository.js';
import { DAY, daysAgo, expectStatus, NOW, TestServer } from '../testing/test-server.js';

let server: TestServer;
beforeAll(async () => {
  server = await TestServer.start();
});
afterAll(() => server.stop());

const inDays = (moment: string) => (Date.parse(moment) - NOW) / DAY;

/** A unit read every so many days up to today, running so many hours a day. */
async function readEvery(gap: number, days: number, hoursPerDay: number, more: object = {}): Promise<string> {
  const unit = await server.addCompressor({ commissionedOn: '2023-01-01', ...more } as object);
  for (let ago = days; ago >= 0; ago -= gap) {
    expectStatus(201, await server.readHours(unit, daysAgo(ago), Math.round((days - ago) * hoursPerDay)));
  }
  return unit;
}

describe('the forecast', () => {
  test('says early, likely and late, and what it rests on', async () => {
    const unit = await readEvery(7, 140, 6);
    const { body } = await server.read(`/api/compressors/${unit}/forecast?hours=1140`);
    expect(inDays(body.likely)).toBeCloseTo(50, 0);
    expect(inDays(body.early)).toBeLessThan(inDays(body.likely));
    expect(inDays(body.late)).toBeGreaterThan(inDays(body.likely));
    expect(body).toMatchObject({
      hoursPerDay: expect.closeTo(6, 2),
      method: 'readings',
      reason: null,
      basedOn: {
        from: daysAgo(140),
        to: daysAgo(0),
        spanDays: 140,
        seasonYears: 0,
        declaredHoursPerWeek: null,
      },
    });
  });

  test('agrees with the standing, and the band with the three dates of a task', async () => {
    const unit = await readEvery(7, 140, 6);
    expectStatus(201, await server.recordService(unit, daysAgo(3), ['oil-change'], { hours: 822 }));
    const task = await server.task(unit, 'oil-change');
    const { body } = await server.read(`/api/compressors/${unit}/forecast?hours=${task.dueAtHours}`);
    expect(task.ruledBy).toBe('hours');
    expect(task.likelyOn).toBe(body.likely.slice(0, 10));
    expect(task.earlyOn).toBe(body.early.slice(0, 10));
    // Three months by the calendar cut the late end off.
    expect([body.late.slice(0, 10), task.dueOn]).toContain(task.lateOn);
    expect(task.earlyOn <= task.likelyOn && task.likelyOn <= task.lateOn).toBe(true);
  });

  test('is not moved by what happened later, or became known later', async () => {
    const unit = await readEvery(10, 100, 4);
    const path = `/api/compressors/${unit}/forecast?hours=1000&at=${daysAgo(25)}`;
    const before = (await server.read(`${path}&knownAt=${daysAgo(0)}`)).body;
    server.now = NOW + DAY;
    expectStatus(201, await server.readHours(unit, daysAgo(26), 318));
    expect((await server.read(`${path}&knownAt=${daysAgo(0)}`)).body).toEqual(before);
    expect((await server.read(path)).body.likely).not.toBe(before.likely);
    server.now = NOW;
  });

  test('has no dates where there are none, with the reason', async () => {
    const idle = await server.addCompressor();
    for (const ago of [200, 150, 100, 50, 0]) await server.readHours(idle, daysAgo(ago), 80);
    expect((await server.read(`/api/compressors/${idle}/forecast?hours=500`)).body).toMatchObject({
      early: null,
      likely: null,
      late: null,
      hoursPerDay: 0,
      method: 'idle',
      reason: 'idle',
    });
    const unread = await server.addCompressor();
    expect((await server.read(`/api/compressors/${unread}/forecast?hours=500`)).body).toMatchObject({
      likely: null,
      method: 'none',
      reason: 'use-unknown',
    });
  });

  test('follows declared duty where there is no meter, on open days only', async () => {
    const closures = [`${daysAgo(-10).slice(0, 10)}/${daysAgo(-30).slice(0, 10)}`];
    const plain = { hasHourMeter: false, declaredHoursPerWeek: 35, commissionedOn: daysAgo(0).slice(0, 10) };
    const open = await server.addCompressor(plain as object);
    const closed = await server.addCompressor({ ...plain, closures, closedWeekdays: [6, 7] } as object);
    const likely = async (unit: string) =>
      inDays((await server.read(`/api/compressors/${unit}/forecast?hours=100`)).body.likely);
    expect((await server.read(`/api/compressors/${open}/forecast?hours=100`)).body.method).toBe('declared');
    // 100 h at 5 h a day are 20 days; three closed weeks push it out.
    expect(await likely(open)).toBeCloseTo(20 - 9 / 24, 1);
    expect(await likely(closed)).toBeGreaterThan(38);
  });

  test.each([
    '',
    '?hours=',
    '?hours=-1',
    '?hours=1e9',
    '?hours=NaN',
    '?hours=10&at=yesterday',
    '?hours=10&what=1',
  ])('refuses “%s” with a sentence', async (query) => {
    const unit = await server.addCompressor();
    const { status, body } = await server.read(`/api/compressors/${unit}/forecast${query}`);
    expect(status).toBe(400);
    expect(body.errors[0].message).toMatch(/\.$/);
  });
});

describe('the continuous hours', () => {
  test('are given with the source of each point, across a new meter', async () => {
    const unit = await server.addCompressor();
    await server.readHours(unit, daysAgo(40), 9400);
    const change = { changedAt: daysAgo(20), oldFinalHours: 9500, newStartHours: 12, reason: 'replaced' };
    await server.post(`/api/compressors/${unit}/meter-changes`, { id: randomUUID(), ...change });
    await server.readHours(unit, daysAgo(10), 62, { source: 'estimated' });
    const { body } = await server.read(`/api/compressors/${unit}/hours?from=${daysAgo(30)}&to=${daysAgo(0)}`);
    expect(body).toMatchObject({ counts: 'total', isCut: false, loaded: [], loadedShare: null, ahead: [] });
    expect(body.points).toEqual([
      { at: daysAgo(30), hours: 9450, source: 'interpolated', isEstimate: false },
      { at: daysAgo(20), hours: 9500, source: 'meter-change', isEstimate: false },
      { at: daysAgo(10), hours: 9550, source: 'estimated', isEstimate: true },
      { at: daysAgo(0), hours: expect.closeTo(9600, 4), source: 'extrapolated', isEstimate: true },
    ]);
  });

  test('stand beside the loaded hours', async () => {
    const unit = await readEvery(10, 100, 10);
    for (const ago of [100, 50, 0]) {
      expectStatus(201, await server.readHours(unit, daysAgo(ago), (100 - ago) * 6, { counts: 'loaded' }));
    }
    const { body } = await server.read(`/api/compressors/${unit}/hours`);
    expect(body.loaded).toHaveLength(3);
    expect(body.loadedShare).toBeCloseTo(0.6, 6);
  });

  test('go on into the days ahead, wider and wider', async () => {
    const unit = await readEvery(7, 140, 6);
    const { body } = await server.read(`/api/compressors/${unit}/hours?ahead=90`);
    const [first, last] = [body.ahead[0], body.ahead.at(-1)];
    expect(first).toMatchObject({ at: daysAgo(0), low: 840, likely: 840, high: 840 });
    expect(last).toMatchObject({ at: daysAgo(-90), likely: expect.closeTo(1380, 0) });
    expect(last.high - last.low).toBeGreaterThan(20);
    expect(last.high - 840).toBeLessThanOrEqual(90 * 24);
  });

  test('refuse a time that ends before it begins', async () => {
    const unit = await server.addCompressor();
    const path = `/api/compressors/${unit}/hours?from=${daysAgo(1)}&to=${daysAgo(2)}`;
    expect((await server.read(path)).body.errors[0].field).toBe('to');
    expect((await server.read(`/api/compressors/${randomUUID()}/hours`)).status).toBe(404);
  });
});

describe('what should be read again', () => {
  test('is what has grown vague, not merely old', async () => {
    const restless = await server.addCompressor();
    // 200 h and none by turns of a month: nobody can say what the last six weeks brought.
    const figures = [0, 200, 210, 420, 425, 640, 650, 860];
    for (const [index, hours] of figures.entries())
      await server.readHours(restless, daysAgo(252 - index * 30), hours);
    await server.recordService(restless, daysAgo(42), ['oil-change']);
    const regular = await readEvery(7, 252, 2);
    const { readingNeed } = await server.standing(restless);
    expect(readingNeed.daysSince).toBeCloseTo(42, 6);
    expect(readingNeed.spreadDays).toBeGreaterThan(readingNeed.spreadIfReadDays);
    expect(readingNeed.spreadDays).toBeGreaterThan(5);
    expect((await server.standing(regular)).readingNeed).toBeNull();
  });

  test('is never what has no meter', async () => {
    const unit = await server.addCompressor({ hasHourMeter: false, declaredHoursPerWeek: 20 } as object);
    expect((await server.standing(unit)).readingNeed).toBeNull();
  });
});

describe('the fleet’s prior', () => {
  let own: TestServer;
  afterAll(() => own.stop());

  test('is learnt from the fleet’s own machines, stored with its day, and not moved by what they do later', async () => {
    own = await TestServer.start();
    const priors = () => own.get(FleetPriorRepository).all();
    expect(priors()).toEqual([{ fixedAt: expect.any(Number), prior: practicePrior }]);
    const siteId = await own.addSite();
    for (let machine = 0; machine < 12; machine++) {
      const unit = await own.addCompressor({
        siteId,
        tag: `M-${machine}`,
        commissionedOn: '2025-01-01',
      } as object);
      for (let week = 0; week <= 16; week++) {
        await own.readHours(unit, daysAgo((16 - week) * 14), week * 70 + (week % 2) * (machine + 5));
      }
    }
    await own.restart();
    expect(priors()).toHaveLength(2);
    const learnt = priors()[1]!;
    expect(learnt).toMatchObject({ fixedAt: NOW });
    // These machines are steadier than machines at large.
    expect(learnt.prior.spread).toBeLessThan(practicePrior.spread);
    own.now = NOW + 30 * DAY;
    await own.restart();
    expect(priors()).toHaveLength(2);
    own.now = NOW + 91 * DAY;
    await own.restart();
    expect(priors()).toHaveLength(3);
  });
});

describe('the walk through a site', () => {
  test('has its meters in walking order, with what they should show', async () => {
    const siteId = await server.addSite();
    const units: string[] = [];
    for (const tag of ['W-10', 'W-9', 'W-2'])
      units.push(await server.addCompressor({ siteId, tag } as object));
    const [ten, nine, two] = units as [string, string, string];
    for (const ago of [40, 30, 20, 10]) await server.readHours(nine, daysAgo(ago), 9000 + (40 - ago) * 5);
    const change = { changedAt: daysAgo(8), oldFinalHours: 9160, newStartHours: 0, reason: 'replaced' };
    await server.post(`/api/compressors/${nine}/meter-changes`, { id: randomUUID(), ...change });
    const walk = async () => (await server.read(`/api/sites/${siteId}/meters`)).body;
    const tags = (body: { items: { tag: string }[] }) => body.items.map(({ tag }) => tag);
    const before = await walk();
    expect(tags(before)).toEqual(['W-2', 'W-9', 'W-10']);
    const meter = before.items[1];
    expect(meter).toMatchObject({
      compressorId: nine,
      hasHourMeter: true,
      hoursPerDay: expect.closeTo(5, 3),
    });
    expect(meter.readings.map(({ hours }: { hours: number }) => hours)).toEqual([9150, 9100, 9050, 9000]);
    // 10 h up to the change, 40 h since: the new meter shows about 40.
    expect(meter.expected.likely).toBeGreaterThan(35);
    expect(meter.expected.likely).toBeLessThan(45);
    expect(before.items[0].expected).toBeNull();
    const order = { id: randomUUID(), walk: [ten, nine] };
    expect((await server.post(`/api/sites/${siteId}/changes`, order)).status).toBe(201);
    expect(tags(await walk())).toEqual(['W-10', 'W-9', 'W-2']);
    await server.restart();
    expect(tags(await walk())).toEqual(['W-10', 'W-9', 'W-2']);
    await server.post(`/api/compressors/${two}/plate`, {
      id: randomUUID(),
      changedAt: daysAgo(0),
      retiredOn: '2026-11-24',
    });
    expect(tags(await walk())).toEqual(['W-10', 'W-9']);
    const twice = { id: randomUUID(), walk: [ten, ten] };
    expect((await server.post(`/api/sites/${siteId}/changes`, twice)).status).toBe(400);
  });
});
