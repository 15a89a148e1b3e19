import { randomUUID } from 'node:crypto';
import { honestCourse, restartSteps } from '@entretien/core/isolation';
import type { DataPlate } from '@entretien/core/machine';
import { expectStatus, TestServer, type Answer } from '../testing/test-server.js';
import { VisitAtWork } from '../testing/visit-steps.js';

const MINUTE = 60_000;
let server: TestServer;
beforeEach(async () => {
  server = await TestServer.start();
});
afterEach(() => server.stop());

async function repairOf(unit: string, station?: string): Promise<string> {
  const id = randomUUID();
  const fault = {
    id,
    kind: 'fault',
    foundAt: new Date(server.now).toISOString(),
    found: 'It leaks',
    ...(station === undefined ? {} : { station }),
  };
  expectStatus(201, await server.post(`/api/compressors/${unit}/repairs`, fault));
  return id;
}

function record(repair: string, kind: string, details: object, more: object = {}): Promise<Answer> {
  server.now += 1000;
  const doneAt = new Date(server.now).toISOString();
  return server.post(`/api/repairs/${repair}/steps`, {
    id: randomUUID(),
    kind,
    doneAt,
    session: 'one',
    details,
    ...more,
  });
}

async function isolate(repair: string, unit: string, opens: readonly string[]): Promise<void> {
  const plate = (await server.read(`/api/compressors/${unit}`)).body as DataPlate;
  const start = server.now;
  for (const { seconds, body } of honestCourse(plate, opens)) {
    server.now = Math.max(server.now, start + seconds * 1000);
    const { kind, ...details } = body;
    expectStatus(201, await record(repair, kind, details));
  }
}

function entry(repair: string, body: object): Promise<Answer> {
  server.now += 1000;
  const at = new Date(server.now).toISOString();
  return server.post(`/api/repairs/${repair}/entries`, { id: randomUUID(), at, session: 'one', ...body });
}

const addHighPressure = () =>
  server.addCompressor({ family: 'high-pressure', stages: 4, workingPressureBar: 300, tag: 'SP-9' });

test('no step of a guided overhaul before the isolation of that unit, and again after a pause', async () => {
  const unit = await addHighPressure();
  const repair = await repairOf(unit);
  const head = { kind: 'step', text: 'cartridge/head' };
  const early = await entry(repair, head);
  expect(early).toMatchObject({ status: 409, body: { code: 'not-isolated' } });
  expect(early.body.detail).toContain('Tower empty');
  await isolate(repair, unit, ['tower']);
  expectStatus(201, await entry(repair, head));
  server.now += 15 * MINUTE;
  expect((await entry(repair, { ...head, text: 'cartridge/old' })).body.detail).toMatch(/^After a pause/);
  expectStatus(201, await record(repair, 'isolate', { step: 'still', confirmed: true, answer: 'holds' }));
  expectStatus(201, await entry(repair, { ...head, text: 'cartridge/old' }));
  // Not proved by what the work cannot move.
  const proof = {
    kind: 'proof',
    text: 'After',
    check: 'oil-level',
    values: { level: 'between', glass: 'clear' },
  };
  expect(await entry(repair, proof)).toMatchObject({ status: 422, body: { code: 'cannot-prove' } });
});

test('a blocked bleed and 250 bar on the needle: not by any number of confirmations', async () => {
  const unit = await addHighPressure();
  const repair = await repairOf(unit);
  await isolate(repair, unit, ['stages']);
  server.now += MINUTE;
  const bleed = (answer: string, more: object = {}) =>
    record(repair, 'isolate', { step: 'tower', confirmed: true, answer, ...more });
  expectStatus(201, await record(repair, 'isolate', { step: 'tower', confirmed: false }));
  expectStatus(201, await bleed('nothing', { needle: 'off', pressureBar: 250 }));
  expect((await bleed('silent', { needle: 'off', pressureBar: 250 })).body.code).toBe('not-opened');
  expect((await bleed('seen-free')).body.code).toBe('not-here');
  expectStatus(201, await bleed('second-gauge', { needle: 'off', pressureBar: 250 }));
  const view = (await server.read(`/api/compressors/${unit}/isolation`)).body;
  expect(view.points.find(({ code }: { code: string }) => code === 'tower')).toMatchObject({
    holds: [],
    lacks: [''],
  });
  expect((await entry(repair, { kind: 'work', text: 'Tower opened', opens: ['tower'] })).status).toBe(409);
});

test.each([
  ['contradicts', 'silent', { needle: 'rises' }],
  ['missing-figure', 'silent', { needle: 'off' }],
  ['too-fast', 'silent', { needle: 'fell' }],
])('answers that cannot be so are refused: %s', async (code, answer, more) => {
  const unit = await server.addCompressor({ receiverL: 500, workingPressureBar: 10 });
  const repair = await repairOf(unit);
  for (const step of ['lock-out', 'network'])
    expectStatus(201, await record(repair, 'isolate', { step, confirmed: true, answer: 'holds' }));
  expectStatus(201, await record(repair, 'isolate', { step: 'receiver', confirmed: true, answer: 'passes' }));
  const refused = await record(repair, 'isolate', { step: 'receiver', confirmed: true, answer, ...more });
  expect(refused).toMatchObject({ status: 409, body: { code } });
  expect(refused.body.detail).toMatch(/[.?]$/);
});

test('two people at one vent, a look too soon, heads too hot, running work under a lock: each has its sentence', async () => {
  const unit = await server.addCompressor({ family: 'screw', tag: 'HC-6' });
  const repair = await repairOf(unit);
  const visit = await VisitAtWork.plan(server, unit, ['bearing-check']);
  const format = (step: string, answer: string, more: object = {}, who: object = {}) =>
    record(repair, 'isolate', { step, confirmed: true, answer, ...more }, who);
  const jon = { id: randomUUID(), name: 'Jon Brask' };
  await server.post('/api/people', jon);
  const his = { by: jon.id, session: 'his' };
  for (const who of [{}, his]) expectStatus(201, await format('lock-out', 'holds', {}, who));
  expect((await visit.done('bearing-check')).body.code).toBe('is-isolated');
  expectStatus(201, await format('outlet', 'holds'));
  expectStatus(201, await format('vessel', 'passes'));
  server.now += MINUTE;
  expect((await format('vessel', 'silent', { needle: 'fell' }, his)).body.code).toBe('another-opened');
  expectStatus(201, await format('vessel', 'silent', { needle: 'fell' }));
  const soon = await format('second-look', 'holds');
  expect(soon.body).toMatchObject({
    code: 'too-soon',
    detail: expect.stringMatching(/^Not yet: 5 min more/),
  });
  expect((await format('warm-oil', 'holds', { tempC: 85 })).body.code).toBe('too-hot');
  expect((await format('outlet', 'stuck')).body.code).toBe('not-here');
  expect((await format('no-such-point', 'holds')).status).toBe(422);
});

test('what is told of a repair and of a visit is one isolation; each under their own lock', async () => {
  const unit = await server.addCompressor({ family: 'screw', tag: 'HC-9' });
  const repair = await repairOf(unit);
  const visit = await VisitAtWork.plan(server, unit, ['scavenge-clean']);
  await isolate(repair, unit, ['separator']);
  expectStatus(201, await visit.done('scavenge-clean'));
  const jon = { id: randomUUID(), name: 'Jon Brask' };
  await server.post('/api/people', jon);
  const his = { by: jon.id, session: 'his' };
  expect(
    (await record(repair, 'isolate', { step: 'still', confirmed: true, answer: 'holds' }, his)).body.code,
  ).toBe('not-in-order');
  expectStatus(
    201,
    await record(repair, 'isolate', { step: 'lock-out', confirmed: true, answer: 'holds' }, his),
  );
  // Her lock is on: he gives it no power.
  const steps = restartSteps({ family: 'screw' } as DataPlate).map(({ code }) => code);
  expect((await record(repair, 'restart', { steps }, his)).body.code).toBe('anothers-lock');
  expect((await server.read(`/api/compressors/${unit}/isolation`)).body.locks).toHaveLength(2);
  expectStatus(201, await record(repair, 'isolate', { step: 'lock-out', confirmed: false }));
  expectStatus(201, await record(repair, 'restart', { steps }, his));
  expect((await server.read(`/api/compressors/${unit}/isolation`)).body.locks).toEqual([]);
  await server.restart();
  expect((await server.read(`/api/compressors/${unit}/isolation`)).body.locks).toEqual([]);
});

test('an own valve and an own vessel of a unit are asked for, too', async () => {
  const unit = await server.addCompressor({
    moreValves: ['To the paint shop'],
    moreVessels: ['In the cellar'],
  });
  const repair = await repairOf(unit);
  const { detail } = (await entry(repair, { kind: 'work', text: 'Relief valve off', opens: ['receiver'] }))
    .body;
  expect(detail).toContain('To the paint shop');
  expect(detail).toContain('In the cellar');
  await isolate(repair, unit, ['receiver']);
  expectStatus(201, await entry(repair, { kind: 'work', text: 'Relief valve off', opens: ['receiver'] }));
});

test('how long a pause is, is set, within bounds', async () => {
  const usual = {
    isolationMinutes: 20,
    isolationMinutesHighPressure: 10,
    workshopName: null,
    currency: 'EUR',
    taxPercent: 0,
    labourCentsPerHour: 0,
  };
  expect((await server.read('/api/settings')).body).toMatchObject(usual);
  const put = (body: object) => server.put('/api/settings', body);
  expect((await put({ isolationMinutes: 4, isolationMinutesHighPressure: 10 })).status).toBe(400);
  expect((await put({ isolationMinutes: 61, isolationMinutesHighPressure: 10 })).status).toBe(400);
  expectStatus(200, await put({ isolationMinutes: 40, isolationMinutesHighPressure: 5 }));
  // What stands on papers is set apart: what is left out stays as it is.
  const papers = { workshopName: 'Haldris Air', currency: 'CHF', taxPercent: 8.1, labourCentsPerHour: 9500 };
  expectStatus(200, await put(papers));
  for (const wrong of [
    { currency: 'francs' },
    { taxPercent: 51 },
    { taxPercent: -1 },
    { labourCentsPerHour: 1_000_001 },
    { workshopName: ' ' },
    { colour: 'blue' },
  ])
    expect((await put(wrong)).status).toBe(400);
  await server.restart();
  const set = { isolationMinutes: 40, isolationMinutesHighPressure: 5 };
  expect((await server.read('/api/settings')).body).toMatchObject({ ...usual, ...papers, ...set });
  expect((await put({ workshopName: null })).body.workshopName).toBeNull();
  const unit = await server.addCompressor({ family: 'screw', tag: 'HC-8' });
  const repair = await repairOf(unit);
  await isolate(repair, unit, ['separator']);
  server.now += 30 * MINUTE;
  expectStatus(201, await entry(repair, { kind: 'work', text: 'Lid off', opens: ['separator'] }));
});

test('a machine that has no such part, and a step of another kind, get a sentence', async () => {
  const unit = await server.addCompressor();
  const repair = await repairOf(unit);
  expect((await record(repair, 'isolate', { step: 'pray', confirmed: true, answer: 'holds' })).status).toBe(
    422,
  );
  expect(
    (await record(repair, 'isolate', { step: 'receiver', confirmed: true, answer: 'pray' })).status,
  ).toBe(400);
  expect((await record(repair, 'sign', { name: 'Mara' })).status).toBe(400);
  expect((await record(repair, 'restart', { steps: ['clear'] })).body.code).toBe('not-ready');
  expect(
    (
      await record(
        repair,
        'isolate',
        { step: 'lock-out', confirmed: true },
        { doneAt: '2031-01-01T00:00:00Z' },
      )
    ).status,
  ).toBe(422);
});
