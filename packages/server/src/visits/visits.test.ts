import { randomUUID } from 'node:crypto';
import { expectStatus, daysAgo, NOW, TestServer } from '../testing/test-server.js';
import { VisitAtWork } from '../testing/visit-steps.js';

const MINUTE = 60_000;

let server: TestServer;
beforeAll(async () => {
  server = await TestServer.start();
});
afterAll(() => server.stop());
beforeEach(() => {
  server.now = NOW;
});

/** A screw with its oil change behind it, so that a new one moves the schedule. */
async function screw(): Promise<string> {
  const unit = await server.addCompressor({ family: 'screw', motor: 'three-phase', tag: 'HC-1' });
  await server.readHours(unit, daysAgo(100), 0);
  await server.readHours(unit, daysAgo(1), 2100);
  return unit;
}

const cool = { check: 'discharge-temperature', values: { tempC: 78, ambientC: 20, mostRiseK: 70 } };
const hot = {
  check: 'discharge-temperature',
  values: { tempC: 99, ambientC: 20, mostRiseK: 70, tripC: 101 },
};

test('a visit without a task takes a package, lets one of it go, and is not signed for as it is', async () => {
  const unit = await screw();
  const visit = await VisitAtWork.plan(server, unit, []);
  expect(await visit.step('sign', { name: 'Mara Vell' })).toMatchObject({
    status: 409,
    body: { code: 'nothing-done' },
  });
  const { packages } = (await visit.view()).units[0];
  const service = packages.find(({ code }: { code: string }) => code === 'every-2000-h');
  expect(service).toMatchObject({ name: '2,000 h service' });
  expectStatus(201, await visit.step('plan', { tasks: service.tasks }));
  server.now += 1000;
  expectStatus(201, await visit.step('take-out', { tasks: ['relief-test'] }));
  expect(await visit.step('take-out', { tasks: ['paint-it'] })).toMatchObject({
    status: 422,
    body: { code: 'unknown-task' },
  });
  server.now += 1000;
  expectStatus(201, await visit.step('task', { task: 'bearing-check', outcome: 'not-done', reason: 'Hot' }));
  server.now += 1000;
  expect(await visit.step('take-out', { tasks: ['bearing-check'] })).toMatchObject({
    status: 409,
    body: { code: 'already-answered' },
  });
});

describe('a visit from planned to signed for', () => {
  test('what was done and proved moves the schedule when it is signed for, from the moment of the work', async () => {
    const unit = await screw();
    const visit = await VisitAtWork.plan(server, unit, ['oil-change']);
    expect(await visit.view()).toMatchObject({ state: 'planned', siteName: 'Coppel Joinery' });
    expectStatus(201, await visit.step('hours', { hours: 2110 }));
    expectStatus(201, await visit.step('measure', { phase: 'before', ...hot }));
    await visit.isolate();
    server.now += 10 * MINUTE;
    const work = await visit.done('oil-change');
    expectStatus(201, work);
    server.now += 10 * MINUTE;
    expectStatus(201, await visit.restart());
    expect((await server.task(unit, 'oil-change')).lastDoneAt).toBeNull();
    expectStatus(201, await visit.step('tight', { tight: true }));
    const proof = await visit.step('measure', { phase: 'proof', ...cool });
    expect(proof.body.outcome).toMatchObject({ verdict: 'good' });
    server.now += 10 * MINUTE;
    expectStatus(201, await visit.step('sign', { name: 'Mara Vell' }));
    expect(await server.task(unit, 'oil-change')).toMatchObject({
      state: 'fresh',
      lastDoneAt: work.body.doneAt,
      dueAtHours: expect.closeTo(4110, 0),
    });
    expect(await visit.view()).toMatchObject({ state: 'finished' });
    const { items } = (await server.read(`/api/compressors/${unit}/measurements`)).body;
    expect(items).toHaveLength(2);
  });

  test('a proof that fails keeps it open: the schedule stands still until it is closed with a reason', async () => {
    const unit = await screw();
    const visit = await VisitAtWork.plan(server, unit, ['oil-change']);
    await visit.isolate();
    await visit.done('oil-change');
    await visit.restart();
    await visit.step('tight', { tight: true });
    expect((await visit.step('measure', { phase: 'proof', ...hot })).body.outcome.verdict).toBe('act');
    const refused = await visit.step('sign', { name: 'Mara Vell' });
    expect(refused).toMatchObject({ status: 409, body: { code: 'proof-failed' } });
    expect(refused.body.detail).toMatch(/^The check failed: Oil change/);
    expect((await server.task(unit, 'oil-change')).lastDoneAt).toBeNull();
    expectStatus(201, await visit.step('close', { task: 'oil-change', reason: 'Hall at 41 °C today.' }));
    expectStatus(201, await visit.step('sign', { name: 'Mara Vell' }));
    expect((await server.task(unit, 'oil-change')).lastDoneAt).not.toBeNull();
  });

  test('nothing that opens the machine is taken while it is not isolated', async () => {
    const unit = await screw();
    const visit = await VisitAtWork.plan(server, unit, ['oil-change', 'scavenge-clean']);
    const early = await visit.done('oil-change');
    expect(early).toMatchObject({ status: 409, body: { code: 'not-isolated' } });
    expect(early.body.detail).toMatch(/Still to do: Off, locked, tried, automatic off; Outlet valve/);
    await visit.isolate();
    server.now += 25 * MINUTE;
    expect((await visit.done('oil-change')).body.code).toBe('not-isolated');
    const station = { station: 'separator', tasks: ['scavenge-clean'] };
    expect((await visit.step('station', station)).status).toBe(409);
    // After a pause one hold, not the whole again.
    expectStatus(201, await visit.step('isolate', { step: 'still', confirmed: true, answer: 'holds' }));
    expectStatus(201, await visit.step('station', station));
    visit.session = 'after a reload';
    expect((await visit.done('oil-change')).body).toMatchObject({
      code: 'not-isolated',
      detail: expect.stringMatching(/^After a pause, look again/),
    });
    visit.session = 'one';
    const jon = { id: randomUUID(), name: 'Jon Brask' };
    await server.post('/api/people', jon);
    expect((await visit.done('oil-change', { by: jon.id })).body.code).toBe('not-isolated');
    expectStatus(201, await visit.done('oil-change'));
  });

  test('done without a connection it has happened: taken, and marked where the isolation was stale', async () => {
    const unit = await screw();
    const visit = await VisitAtWork.plan(server, unit, ['oil-change', 'oil-filter']);
    await visit.isolate();
    const end = server.now;
    const [fresh, stale] = [end + 5 * MINUTE, end + 40 * MINUTE].map((at) => new Date(at).toISOString());
    server.now = end + 90 * MINUTE;
    expect((await visit.done('oil-change', { doneAt: fresh })).body.marks).toEqual([]);
    expect((await visit.done('oil-filter', { doneAt: stale })).body.marks).toEqual([
      'isolation-not-confirmed',
    ]);
    const { units } = await visit.view();
    expect(units[0].steps.at(-1).marks).toEqual(['isolation-not-confirmed']);
  });

  test('done before a colleague signed and told after: the unit is open again, for whoever did it, and counts', async () => {
    const unit = await screw();
    const visit = await VisitAtWork.plan(server, unit, ['bearing-check']);
    const jon = { id: randomUUID(), name: 'Jon Brask' };
    await server.post('/api/people', jon);
    const done = new Date(server.now).toISOString();
    server.now += 10 * MINUTE;
    expectStatus(201, await visit.done('bearing-check'));
    server.now += MINUTE;
    expectStatus(201, await visit.step('sign', { name: 'Mara Vell' }));
    expect((await visit.view()).state).toBe('finished');
    server.now += 20 * MINUTE;
    const his = { by: jon.id, session: 'his', doneAt: done };
    const late = await visit.step('task', { task: 'engine-note', outcome: 'done' }, his);
    expect(late.status).toBe(422);
    const recordedSteps = await visit.step(
      'task',
      { task: 'fasteners-check', outcome: 'not-done', reason: 'No key' },
      his,
    );
    expect(recordedSteps.body.marks).toEqual(['after-signing']);
    expect((await visit.view()).state).toBe('under-way');
    // Nobody had confirmed a lock for his moment: it is marked, and counts.
    const work = await visit.done('oil-level', his);
    expect(work.body.marks).toEqual(['isolation-not-confirmed']);
    server.now += MINUTE;
    expectStatus(201, await visit.step('sign', { name: 'Jon Brask' }, { by: jon.id, session: 'his' }));
    expect((await visit.view()).state).toBe('finished');
    const { items } = (await server.read(`/api/compressors/${unit}/services`)).body;
    expect(items.map(({ tasks }: { tasks: string[] }) => tasks)).toEqual([['bearing-check'], ['oil-level']]);
  });

  test('the same step sent again is answered as the first time; two signatures are one too many', async () => {
    const unit = await screw();
    const visit = await VisitAtWork.plan(server, unit, ['bearing-check']);
    const id = randomUUID();
    expectStatus(201, await visit.done('bearing-check', { id }));
    expectStatus(201, await visit.done('bearing-check', { id }));
    expect((await visit.step('note', { text: 'other' }, { id })).body.code).toBe('id-already-used');
    server.now += 1;
    const signature = randomUUID();
    expectStatus(201, await visit.step('sign', { name: 'Mara' }, { id: signature }));
    expectStatus(201, await visit.step('sign', { name: 'Mara' }, { id: signature }));
    const second = await visit.step('sign', { name: 'Jon' });
    expect(second).toMatchObject({ status: 409, body: { code: 'already-signed' } });
    const { items } = (await server.read(`/api/compressors/${unit}/services`)).body;
    expect(items).toHaveLength(1);
  });

  test('a visit can be left for another day, and lists say how it stands', async () => {
    const unit = await screw();
    const visit = await VisitAtWork.plan(server, unit, ['oil-change']);
    await visit.isolate();
    await visit.done('oil-change');
    const open = (await server.read(`/api/visits?show=open&compressorId=${unit}`)).body.items;
    expect(open).toMatchObject([
      { state: 'under-way', units: [{ tag: 'HC-1', state: 'open', unproved: 1 }] },
    ]);
    await visit.step('leave', { reason: 'Oil filter missing.' });
    expect((await server.read(`/api/visits?show=open&compressorId=${unit}`)).body.items).toEqual([]);
    const all = (await server.read(`/api/visits?compressorId=${unit}`)).body.items;
    expect(all).toMatchObject([{ state: 'finished', units: [{ state: 'left' }] }]);
  });
});

describe('the first visit to a machine of unknown history', () => {
  const unknown = { family: 'piston', history: 'unknown', receiverL: 270, fadLpm: 400 } as const;
  const standingOf = async (unit: string, code: string) =>
    (await server.read(`/api/compressors/${unit}/standing`)).body.tasks.find(
      (task: { code: string }) => task.code === code,
    );

  test('each look sets where the task counts from, and nothing is recorded as done', async () => {
    const unit = await server.addCompressor(unknown);
    await server.read(`/api/compressors/${unit}`);
    const visit = await VisitAtWork.plan(server, unit, ['oil-change', 'intake-replace', 'valves-inspect']);
    expect(await standingOf(unit, 'oil-change')).toMatchObject({ state: 'unknown', startedBy: null });
    expectStatus(201, await visit.step('look', { task: 'oil-change', found: 'half' }));
    expectStatus(201, await visit.step('look', { task: 'valves-inspect', found: 'unknown' }));
    expect(await standingOf(unit, 'oil-change')).toMatchObject({ startedBy: 'inspection', lastDoneAt: null });
    // Three months, half of them gone.
    const half = (await standingOf(unit, 'oil-change')).dueOn as string;
    expect((Date.parse(half) - server.now) / 86_400_000).toBeGreaterThan(40);
    expect((Date.parse(half) - server.now) / 86_400_000).toBeLessThan(50);
    expect((await server.read(`/api/compressors/${unit}/services`)).body.items).toEqual([]);
    // A second look is the later word; a look after the work is none.
    expectStatus(201, await visit.step('look', { task: 'oil-change', found: 'new' }));
    await server.recordService(unit, new Date(server.now).toISOString(), ['intake-replace']);
    const late = await visit.step('look', { task: 'intake-replace', found: 'new' });
    expect([late.status, late.body.code]).toEqual([422, 'history-known']);
  });

  test('what cannot be told is due now, not late, by the interval as it holds in that place', async () => {
    // A year for the intake element, half of it in dust.
    const unit = await server.addCompressor({ ...unknown, dust: 'dusty' });
    const visit = await VisitAtWork.plan(server, unit, ['intake-replace']);
    expectStatus(201, await visit.step('look', { task: 'intake-replace', found: 'unknown' }));
    expect(await standingOf(unit, 'intake-replace')).toMatchObject({ state: 'due', dueOn: '2026-11-24' });
  });

  test('a test is done, not looked at; no estimate stands for what keeps somebody safe', async () => {
    const unit = await server.addCompressor(unknown);
    expect(await standingOf(unit, 'relief-test')).toMatchObject({ state: 'due', startedBy: null });
    const visit = await VisitAtWork.plan(server, unit, ['relief-test']);
    const looked = await visit.step('look', { task: 'relief-test', found: 'new' });
    expect([looked.status, looked.body.code]).toEqual([422, 'is-a-test']);
    const estimate = (task: string) =>
      server.post(`/api/compressors/${unit}/starting-points`, {
        id: randomUUID(),
        setAt: new Date(server.now).toISOString(),
        basis: 'estimate',
        points: [{ task, hoursUsed: 0 }],
      });
    const refused = await estimate('relief-test');
    expect([refused.status, refused.body.code]).toEqual([422, 'needs-seeing']);
    expectStatus(201, await estimate('oil-change'));
    expect(await standingOf(unit, 'relief-test')).toMatchObject({ state: 'due' });
  });

  test.each([[{ task: 'oil-change', found: 'shiny' }], [{ task: 'oil-change' }], [{ found: 'new' }]])(
    'a look that says nothing is refused: %j',
    async (details) => {
      const unit = await server.addCompressor(unknown);
      const visit = await VisitAtWork.plan(server, unit, ['oil-change']);
      expect((await visit.step('look', details)).status).toBe(400);
    },
  );
});

test('another unit of the site joins a visit with a task; one of another site does not', async () => {
  const siteId = await server.addSite();
  const [one, two] = [
    await server.addCompressor({ siteId, tag: 'A-1' }),
    await server.addCompressor({ siteId, tag: 'A-2' }),
  ];
  const visit = await VisitAtWork.plan(server, one, ['belt-check']);
  const join = (compressorId: string, tasks: string[]) => visit.step('plan', { tasks }, { compressorId });
  expect((await join(await screw(), [])).body.code).toBe('another-site');
  expectStatus(201, await join(two, ['oil-change']));
  const { units } = await visit.view();
  expect(units.map(({ tag }: { tag: string }) => tag)).toEqual(['A-1', 'A-2']);
  const [brief] = (await server.read(`/api/visits?compressorId=${two}`)).body.items;
  expect(brief).toMatchObject({ id: visit.id, units: [{ tag: 'A-1' }, { tag: 'A-2' }] });
});

describe('bad input gets a sentence and records nothing', () => {
  test.each([
    ['hours', { hours: 99 }, 422, /is less than the/],
    [
      'measure',
      { phase: 'proof', check: 'discharge-temperature', values: { tempC: 9000, ambientC: 20 } },
      422,
      /./,
    ],
    ['measure', { phase: 'proof', check: 'no-such-check', values: {} }, 422, /./],
    ['task', { task: 'paint-it', outcome: 'done' }, 422, /no task of this unit/],
    ['note', { text: '' }, 400, /must not be empty/],
    ['dance', { text: 'x' }, 400, /kind is one of/],
    ['note', { text: 'x', mood: 'good' }, 400, /no field “mood”/],
    ['part', { part: '01890000-0000-7000-8000-000000000000', name: 'Filter', count: 1 }, 404, /catalogue/],
    ['photo', { photo: '01890000-0000-7000-8000-000000000000' }, 422, /has not arrived/],
    ['fault', { found: 'A crack', station: 'cellar' }, 422, /no station/],
  ])('%s %j', async (kind, details, status, sentence) => {
    const unit = await screw();
    const visit = await VisitAtWork.plan(server, unit, ['oil-change']);
    const answer = await visit.step(kind, details);
    expect(answer.status).toBe(status);
    expect(answer.body.detail ?? answer.body.title).toMatch(sentence);
    expect((await visit.view()).units[0].steps).toEqual([]);
  });

  test('a step from the future, of no visit, and of a unit that is not in it', async () => {
    const unit = await screw();
    const visit = await VisitAtWork.plan(server, unit, ['oil-change']);
    const tomorrow = new Date(NOW + 86_400_000).toISOString();
    expect((await visit.done('bearing-check', { doneAt: tomorrow })).status).toBe(422);
    expect((await server.read(`/api/visits/${randomUUID()}`)).status).toBe(404);
    const other = await screw();
    expect((await visit.step('note', { text: 'x' }, { compressorId: other })).body.code).toBe('not-in-visit');
  });

  test('a visit is to units of one site, each once, with tasks of their plans', async () => {
    const [one, other] = [await screw(), await screw()];
    const plate = (await server.read(`/api/compressors/${one}`)).body;
    const plan = (units: object[], more = {}) =>
      server.post('/api/visits', {
        id: randomUUID(),
        siteId: plate.siteId,
        plannedOn: '2026-11-24',
        units,
        ...more,
      });
    expect((await plan([{ compressorId: other, tasks: [] }])).body.code).toBe('another-site');
    expect((await plan([{ compressorId: one, tasks: ['paint-it'] }])).body.code).toBe('unknown-task');
    expect((await plan([])).status).toBe(400);
    expect((await plan([{ compressorId: one, tasks: [], more: 1 }])).status).toBe(400);
    expect((await plan([{ compressorId: one, tasks: [] }], { plannedOn: '2026-02-30' })).status).toBe(400);
  });

  test('a refused step leaves nothing behind that would be believed', async () => {
    const unit = await screw();
    const visit = await VisitAtWork.plan(server, unit, ['oil-change']);
    const before = (await server.standing(unit)).runHours;
    // The reading would stand, the step does not: the meter is far beyond what a day can hold.
    expect((await visit.step('hours', { hours: 9999 })).status).toBe(422);
    expect((await server.standing(unit)).runHours).toBe(before);
  });
});

describe('parts and repairs of a visit', () => {
  test('parts go out of the van; more than it holds is taken and marked', async () => {
    const unit = await screw();
    const id = randomUUID();
    const part = {
      id,
      number: 'HV-100',
      name: 'Oil filter',
      class: 'element',
      answers: 'oil filter',
      fits: [unit],
      figures: {},
      priceCents: 2450,
      inVan: 1,
    };
    expect((await server.post('/api/parts', part)).body).toMatchObject({ inVan: 1, priceCents: 2450 });
    const visit = await VisitAtWork.plan(server, unit, ['oil-filter']);
    expect((await visit.step('part', { part: id, name: 'Oil filter', count: 1 })).body.marks).toEqual([]);
    expect((await visit.step('part', { part: id, name: 'Oil filter', count: 1 })).body.marks).toEqual([
      'beyond-stock',
    ]);
    const { items } = (await server.read('/api/parts')).body;
    expect(items.find((one: { id: string }) => one.id === id).inVan).toBe(-1);
    const moved = await server.post(`/api/parts/${id}/moves`, {
      id: randomUUID(),
      movedAt: daysAgo(0),
      count: 5,
    });
    expect(moved.body.inVan).toBe(4);
  });

  test('another cartridge for breathing air needs a reason, which the report tells', async () => {
    const unit = await server.addCompressor({ family: 'high-pressure', stages: 3, airUse: 'breathing' });
    const id = randomUUID();
    const part = {
      id,
      number: 'C-1',
      name: 'Another cartridge',
      class: 'cartridge',
      answers: 'x',
      fits: [],
      figures: {},
    };
    expectStatus(201, await server.post('/api/parts', part));
    const visit = await VisitAtWork.plan(server, unit, []);
    const used = { part: id, name: 'Another cartridge', count: 1 };
    expect(await visit.step('part', used)).toMatchObject({ status: 422, body: { code: 'needs-reason' } });
    expectStatus(201, await visit.step('part', { ...used, reason: 'Agreed with the lead' }));
    // From now on the unit is another than its plate says.
    const changed = async () => (await server.read(`/api/compressors/${unit}/repairs`)).body.items;
    expect(await changed()).toMatchObject([
      {
        kind: 'modification',
        isOpen: false,
        found: 'Another cartridge, C-1, in place of its own: Agreed with the lead',
      },
    ]);
    // Taking it back asks nothing more than giving it did.
    expectStatus(201, await visit.step('part', { ...used, count: -1, reason: 'Agreed with the lead' }));
    expect(await changed()).toHaveLength(1);
  });

  test('a substitute is judged with the comparison', async () => {
    const unit = await server.addCompressor({ family: 'screw', displacementLpm: 4000 });
    const add = async (ratedFlowLpm: number) => {
      const id = randomUUID();
      const figures = { ratedFlowLpm, micron: 10 };
      const part = {
        id,
        number: `F-${ratedFlowLpm}`,
        name: 'Element',
        class: 'element',
        answers: 'intake element',
        fits: [],
        figures,
      };
      expectStatus(201, await server.post('/api/parts', part));
      return id;
    };
    const [original, weak] = [await add(4500), await add(3000)];
    const itself = await server.post('/api/parts/compare', {
      compressorId: unit,
      original,
      offered: original,
    });
    expect([itself.status, itself.body.code]).toEqual([422, 'same-part']);
    const asked = await server.post('/api/parts/compare', { compressorId: unit, original, offered: weak });
    expect(asked.body).toMatchObject({
      verdict: 'does-not-fit',
      sentence: expect.stringMatching(/3000 L\/min, under 4000/),
    });
  });

  test.each([
    [{ figures: { ratedFlowLpm: -1 } }],
    [{ figures: { colour: 'red' } }],
    [{ class: 'gadget' }],
    [{ priceCents: 1.5 }],
    [{ name: ' ' }],
  ])('a part with %j is refused', async (more) => {
    const part = {
      id: randomUUID(),
      number: 'N',
      name: 'N',
      class: 'other',
      answers: 'n',
      fits: [],
      figures: {},
      ...more,
    };
    expect((await server.post('/api/parts', part)).status).toBe(400);
  });

  test('a fault opens a repair, which is open until a check proves it', async () => {
    const unit = await server.addCompressor({ receiverL: 50, fadLpm: 200 });
    const visit = await VisitAtWork.plan(server, unit, []);
    expectStatus(201, await visit.step('fault', { found: 'Slow to fill', station: 'stage-1' }));
    const [repair] = (await server.read(`/api/compressors/${unit}/repairs?show=open`)).body.items;
    expect(repair).toMatchObject({
      found: 'Slow to fill',
      state: 'found',
      waitsFor: 'The cause is not known yet.',
    });
    const add = (entry: object) =>
      server.post(`/api/repairs/${repair.id}/entries`, {
        id: randomUUID(),
        at: new Date((server.now += 1000)).toISOString(),
        ...entry,
      });
    expect((await add({ kind: 'cause', text: 'Worn ring' })).body).toMatchObject({
      cause: 'Worn ring',
      isOpen: true,
    });
    const work = { kind: 'work', text: 'Ring and sleeve renewed', minutes: 90 };
    // Nobody said what it opened: everything; and nothing of that is isolated.
    expect(await add(work)).toMatchObject({ status: 409, body: { code: 'not-isolated' } });
    expect((await add({ ...work, opens: ['stages'] })).body.detail).toMatch(/Still to do: Off, locked/);
    await visit.isolate(['stages']);
    expect((await add({ ...work, opens: ['stages'], session: 'one' })).body.minutes).toBe(90);
    expect((await add({ kind: 'proof', text: 'After' })).body.code).toBe('missing');
    const values = { fromBar: 0, toBar: 8, seconds: 1200, volumeL: 50, again: 'yes' };
    const proof = await add({ kind: 'proof', text: 'Pump-up after', check: 'pump-up', values });
    expect(proof.body.entries?.at(-1)?.outcome?.verdict ?? proof.body).toBe('act');
    expect(proof.body).toMatchObject({ state: 'proof-failed', isOpen: true });
    expect((await add({ kind: 'close', text: 'Replaced by another machine.' })).body.state).toBe('closed');
    expect((await add({ kind: 'work', text: 'more', opens: [] })).body.code).toBe('already-settled');
    const improvement = {
      id: randomUUID(),
      kind: 'improvement',
      foundAt: daysAgo(1),
      found: 'Drain brought out to the front',
    };
    expect((await server.post(`/api/compressors/${unit}/repairs`, improvement)).body).toMatchObject({
      isOpen: false,
    });
  });
});

describe('what a later rule would refuse', () => {
  test('is on record: it is shown as it is, counts as far as it can be read, and ends no list', async () => {
    const unit = await server.addCompressor({ family: 'screw', tag: 'OLD-1' });
    const visit = await VisitAtWork.plan(server, unit, ['bearing-check']);
    expectStatus(201, await visit.step('note', { text: 'Seen' }));
    expectStatus(201, await visit.done('bearing-check'));
    const write = (kind: string, details: object) =>
      server.forget(
        `UPDATE "visit_step" SET "details" = '${JSON.stringify(details)}' WHERE "visit_id" = '${visit.id}' AND "kind" = '${kind}'`,
      );
    // Longer than is taken now, with a field that nobody knows any more.
    await write('note', { text: 'x'.repeat(5000), colour: 'red' });
    expect((await server.read('/api/visits')).status).toBe(200);
    const { steps } = (await visit.view()).units[0];
    expect(steps.find(({ kind }: { kind: string }) => kind === 'note').details.colour).toBe('red');
    // What it says cannot be told at all: it counts for nothing.
    await write('task', { done: 'yes' });
    const { status, body } = await server.read(`/api/visits/${visit.id}`);
    expect([status, body.units[0].steps.length]).toEqual([200, 2]);
    expect(
      (await server.read('/api/visits?show=open')).body.items.map(({ id }: { id: string }) => id),
    ).toContain(visit.id);
    expect((await server.read(`/api/visits/${visit.id}/report.pdf`)).status).toBe(200);
  });
});

test('a visit that is open is found behind any number of newer ones, and again when it is opened again', async () => {
  const unit = await server.addCompressor({ family: 'screw', tag: 'MANY-1' });
  const old = await VisitAtWork.plan(server, unit, []);
  await server.forget(`UPDATE "visit" SET "planned_on" = '2020-01-01' WHERE "id" = '${old.id}'`);
  for (let count = 0; count < 12; count += 1) {
    const visit = await VisitAtWork.plan(server, unit, []);
    expectStatus(201, await visit.step('leave', { reason: 'Another day.' }));
  }
  const open = async () =>
    (await server.read(`/api/visits?show=open&limit=5&compressorId=${unit}`)).body.items.map(
      ({ id }: { id: string }) => id,
    );
  expect(await open()).toEqual([old.id]);
  expectStatus(201, await old.step('leave', { reason: 'Another day.' }));
  expect(await open()).toEqual([]);
  expectStatus(201, await old.step('note', { text: 'Come again.' }));
  expect((await open()).length).toBeLessThanOrEqual(1);
});
