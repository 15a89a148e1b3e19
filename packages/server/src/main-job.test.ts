import { randomUUID } from 'node:crypto';
import { DAY, daysAgo, NOW, TestServer } from './testing/test-server.js';

let server: TestServer;
beforeAll(async () => {
  server = await TestServer.start();
});
afterAll(() => server.stop());

describe('the main job', () => {
  test('register, read hours, see what is due, record the service, see the schedule move', async () => {
    const unit = await server.addCompressor();
    await server.readHours(unit, daysAgo(60), 0);
    expect((await server.readHours(unit, daysAgo(10), 40)).body).toMatchObject({ hours: 40, marks: [] });
    // 40 h in 50 days is 0.8 h a day; the first oil change at 50 h is nearing (5 h before) and still ahead.
    expect(await server.task(unit, 'oil-change')).toMatchObject({
      state: 'overdue', // three months from commissioning are long past
      dueAtHours: 50,
      dueOn: '2026-04-01',
      ruledBy: 'calendar',
    });
    expect((await server.standing(unit)).runHours).toBeCloseTo(48, 6);
    const service = await server.recordService(unit, daysAgo(0), ['oil-change'], { hours: 48 });
    expect(service.status).toBe(201);
    expect(service.body).toMatchObject({ tasks: ['oil-change'], planVersion: 1, runHours: 48 });
    expect(await server.task(unit, 'oil-change')).toMatchObject({
      state: 'fresh',
      dueAtHours: 548,
      remainingHours: 500,
      dueOn: '2027-02-24',
      lastDoneHours: 48,
    });
  });

  test('the standing of a past moment ignores what came later, happened or known', async () => {
    const unit = await server.addCompressor();
    await server.readHours(unit, daysAgo(100), 0);
    server.now = NOW + DAY;
    await server.recordService(unit, daysAgo(50), ['oil-change'], { hours: 30 });
    server.now = NOW + 2 * DAY;
    expect((await server.task(unit, 'oil-change', `?at=${daysAgo(60)}`)).dueAtHours).toBe(50);
    expect((await server.task(unit, 'oil-change', `?at=${daysAgo(40)}`)).dueAtHours).toBe(530);
    expect(
      (await server.task(unit, 'oil-change', `?at=${daysAgo(40)}&knownAt=${daysAgo(0)}`)).dueAtHours,
    ).toBe(50);
    server.now = NOW;
  });

  test('hours noted with a service count as a reading', async () => {
    const unit = await server.addCompressor();
    await server.readHours(unit, daysAgo(20), 100);
    await server.recordService(unit, daysAgo(10), ['belt-check'], { hours: 180 });
    expect(await server.standing(unit)).toMatchObject({
      hoursPerDay: expect.closeTo(8, 6),
      runHours: expect.closeTo(260, 6),
    });
    expect((await server.readHours(unit, daysAgo(9), 170)).body.code).toBe('goes-backwards');
  });

  test('a replaced meter goes on counting', async () => {
    const unit = await server.addCompressor();
    await server.readHours(unit, daysAgo(30), 9400);
    const change = {
      id: randomUUID(),
      changedAt: daysAgo(20),
      oldFinalHours: 9480,
      newStartHours: 0,
      reason: 'replaced',
    };
    expect((await server.post(`/api/compressors/${unit}/meter-changes`, change)).status).toBe(201);
    expect((await server.readHours(unit, daysAgo(10), 80)).status).toBe(201);
    expect((await server.standing(unit, `?at=${daysAgo(10)}`)).runHours).toBe(9560);
    expect((await server.read(`/api/compressors/${unit}/meter-changes`)).body.items).toHaveLength(1);
  });

  test('everything is there after a restart', async () => {
    const unit = await server.addCompressor({ stages: 2, workingPressureBar: 10, dust: 'dusty' } as object);
    await server.readHours(unit, daysAgo(20), 100);
    await server.readHours(unit, daysAgo(10), 180);
    await server.recordService(unit, daysAgo(5), ['oil-change']);
    const before = [await server.standing(unit), (await server.read(`/api/compressors/${unit}`)).body];
    await server.restart();
    expect([await server.standing(unit), (await server.read(`/api/compressors/${unit}`)).body]).toEqual(
      before,
    );
    expect(
      (await server.read(`/api/compressors/${unit}/readings`)).body.items.map(
        (one: { hours: number }) => one.hours,
      ),
    ).toEqual([180, 100]);
  });
});

describe('plates and plans', () => {
  test('a unit needs five fields; the rest is unknown or a default', async () => {
    const unit = await server.addCompressor();
    const { body } = await server.read(`/api/compressors/${unit}`);
    expect(body).toMatchObject({ tag: 'CJ-1', family: 'piston', history: 'new', revision: 1 });
    expect(body).not.toHaveProperty('stages');
  });

  test('a unit of unknown history has unknown tasks until they are done', async () => {
    const unit = await server.addCompressor({ history: 'unknown' } as object);
    await server.readHours(unit, daysAgo(1), 3000);
    const { tasks } = await server.standing(unit);
    const known = tasks.filter(({ state }: { state: string }) => state !== 'unknown');
    // A safety test that nobody saw is due.
    expect(known).toMatchObject([{ code: 'relief-test', state: 'due', startedBy: null }]);
    await server.recordService(unit, daysAgo(1), ['oil-change']);
    expect(await server.task(unit, 'oil-change')).toMatchObject({ state: 'fresh', dueAtHours: 3500 });
  });

  test('a plate change holds from its date on, and last year stays as it was', async () => {
    const joinery = await server.addSite();
    const quarry = await server.addSite({ name: 'Brask Quarry' });
    const unit = await server.addCompressor({ siteId: joinery });
    const changed = await server.post(`/api/compressors/${unit}/plate`, {
      id: randomUUID(),
      changedAt: daysAgo(30),
      siteId: quarry,
      workingPressureBar: 9,
    });
    expect(changed.status).toBe(201);
    expect((await server.read(`/api/compressors/${unit}`)).body).toMatchObject({
      siteId: quarry,
      workingPressureBar: 9,
      revision: 2,
    });
    const retired = {
      id: randomUUID(),
      changedAt: daysAgo(1),
      retiredOn: '2026-11-23',
      workingPressureBar: null,
    };
    await server.post(`/api/compressors/${unit}/plate`, retired);
    const { body } = await server.read(`/api/compressors/${unit}`);
    expect(body.retiredOn).toBe('2026-11-23');
    expect(body).not.toHaveProperty('workingPressureBar');
    expect(await server.standing(unit)).toMatchObject({ retired: true, tasks: [] });
    expect((await server.standing(unit, `?at=${daysAgo(5)}`)).tasks.length).toBeGreaterThan(0);
    const listed = (show: string) => server.read(`/api/compressors?limit=200&show=${show}`);
    const tags = (answer: { body: { items: { id: string }[] } }) =>
      answer.body.items.some((one) => one.id === unit);
    expect([
      tags(await listed('in-service')),
      tags(await listed('retired')),
      tags(await listed('all')),
    ]).toEqual([false, true, true]);
  });

  test('odd plates are stored and marked', async () => {
    const unit = await server.addCompressor({
      tag: 'ODD-1',
      displacementLpm: 300,
      fadLpm: 300,
      cutOutBar: 10,
      reliefBar: 9,
    } as object);
    const { body } = await server.read(`/api/compressors/${unit}`);
    expect(body.marks).toEqual(['relief-order', 'fad-share']);
    expect(body.doubts[0].sentence).toBe('The relief setting (9 bar) must be above cut-out (10 bar).');
    const twin = await server.addCompressor({ tag: 'ODD-1' } as object);
    expect((await server.read(`/api/compressors/${twin}`)).body.marks).toEqual(['tag-in-use']);
  });

  test('the plan is copied to the unit at registration', async () => {
    const unit = await server.addCompressor({
      family: 'high-pressure',
      airUse: 'breathing',
      motor: 'petrol',
    } as object);
    const { body } = await server.read(`/api/compressors/${unit}/plan`);
    expect(body).toMatchObject({ compressorId: unit, version: 1 });
    const belt = body.tasks.find((task: { code: string }) => task.code === 'belt-check');
    expect(belt.triggers).toEqual([{ kind: 'hours', every: 100 }]);
  });

  test('a site can be corrected, field by field', async () => {
    const site = await server.addSite({ altitudeM: 1200, contact: 'Ila Brandvold' });
    const change = { id: randomUUID(), name: 'Coppel Joinery, upper hall', contact: null };
    expect((await server.post(`/api/sites/${site}/changes`, change)).body).toEqual({
      id: site,
      name: 'Coppel Joinery, upper hall',
      timeZone: 'UTC',
      altitudeM: 1200,
    });
    await server.restart();
    expect((await server.read(`/api/sites/${site}`)).body.name).toBe('Coppel Joinery, upper hall');
  });
});

describe('people', () => {
  test('a default person stands in until somebody is added, and who works is decided by the request', async () => {
    const alone = await TestServer.start();
    const defaults = (await alone.read('/api/people')).body.items;
    expect(defaults).toHaveLength(1);
    const unit = await alone.addCompressor();
    expect((await alone.readHours(unit, daysAgo(3), 1)).body.by).toBe(defaults[0].id);
    const mira = { id: randomUUID(), name: 'Mira Kolstad' };
    expect((await alone.post('/api/people', mira)).body).toEqual({ ...mira, initials: 'MK' });
    expect((await alone.read('/api/people')).body.items).toEqual([{ ...mira, initials: 'MK' }]);
    const reading = { id: randomUUID(), takenAt: daysAgo(2), hours: 2, counts: 'total', source: 'typed' };
    const path = `/api/compressors/${unit}/readings`;
    expect((await alone.post(path, reading, { 'Entretien-Person': mira.id })).body.by).toBe(mira.id);
    const named = await alone.readHours(unit, daysAgo(1), 3, { by: mira.id });
    expect(named.body.by).toBe(mira.id);
    const stranger = await alone.readHours(unit, daysAgo(1), 3, { by: randomUUID() });
    expect(stranger).toMatchObject({
      status: 422,
      body: { code: 'unknown-person', errors: [{ field: 'by' }] },
    });
    await alone.stop();
  });
});

describe('facts', () => {
  test('the same id with the same content answers as the first time, with other content it is a conflict', async () => {
    const unit = await server.addCompressor();
    const path = `/api/compressors/${unit}/readings`;
    const reading = { id: randomUUID(), takenAt: daysAgo(20), hours: 100, counts: 'total', source: 'typed' };
    const first = await server.post(path, reading);
    // What came meanwhile would make the first reading impossible: a retry is answered all the same.
    await server.post(`/api/compressors/${unit}/meter-changes`, {
      id: randomUUID(),
      changedAt: daysAgo(21),
      oldFinalHours: 500,
      newStartHours: 99,
      reason: 'replaced',
    });
    server.now = NOW + 5 * DAY;
    expect(await server.post(path, reading)).toMatchObject({ status: 201, body: first.body });
    expect(await server.post(path, { ...reading, hours: 101 })).toMatchObject({
      status: 409,
      body: { code: 'id-already-used' },
    });
    expect(await server.post(path, { ...reading, note: 'odd' })).toMatchObject({ status: 409 });
    const service = { id: reading.id, doneAt: daysAgo(20), tasks: ['oil-change'] };
    expect(await server.post(`/api/compressors/${unit}/services`, service)).toMatchObject({ status: 409 });
    expect((await server.read(path)).body.items).toHaveLength(1);
    server.now = NOW;
  });

  test('each fact raises the revision of its unit once', async () => {
    const unit = await server.addCompressor();
    const reading = { id: randomUUID(), takenAt: daysAgo(20), hours: 100, counts: 'total', source: 'typed' };
    for (let i = 0; i < 3; i++) await server.post(`/api/compressors/${unit}/readings`, reading);
    await server.recordService(unit, daysAgo(10), ['oil-change']);
    expect((await server.standing(unit)).revision).toBe(3);
  });

  test('lists are paged by cursor, latest first, without gaps or repeats', async () => {
    const unit = await server.addCompressor();
    for (let i = 0; i < 7; i++) await server.readHours(unit, daysAgo(70 - 10 * i), i);
    const seen: number[] = [];
    let cursor: string | null = '';
    while (cursor !== null) {
      const more: string = cursor ? `&cursor=${cursor}` : '';
      const { body } = await server.read(`/api/compressors/${unit}/readings?limit=3${more}`);
      seen.push(...body.items.map((one: { hours: number }) => one.hours));
      cursor = body.nextCursor;
    }
    expect(seen).toEqual([6, 5, 4, 3, 2, 1, 0]);
  });
});
