import { randomUUID } from 'node:crypto';
import { DAY, daysAgo, NOW, TestServer, type Answer } from '../testing/test-server.js';

let server: TestServer;
beforeEach(async () => {
  server = await TestServer.start();
});
afterEach(() => server.stop());

const planOf = async (unit: string) => (await server.read(`/api/compressors/${unit}/plan`)).body;

/** Saves a plan based on a version. */
async function save(
  unit: string,
  plan: object,
  basedOn?: number | string,
  more: object = {},
): Promise<Answer> {
  const headers: Record<string, string> = basedOn === undefined ? {} : { 'If-Match': `"${basedOn}"` };
  return server.put(`/api/compressors/${unit}/plan`, { id: randomUUID(), ...plan, ...more }, headers);
}

interface Task {
  code: string;
  triggers: object[];
}

/** The plan with other triggers for one task. */
function changed(plan: { tasks: Task[] }, code: string, triggers: object[]) {
  return { tasks: plan.tasks.map((task) => (task.code === code ? { ...task, triggers } : task)) };
}

const every = (hours: number) => [{ kind: 'hours', every: hours }];

describe('saving a plan', () => {
  test('makes the next version, in force from now, and leaves last year as it was', async () => {
    const unit = await server.addCompressor();
    await server.readHours(unit, daysAgo(300), 0);
    await server.readHours(unit, daysAgo(1), 300);
    const before = await server.task(unit, 'belt-check', `?at=${daysAgo(100)}`);
    expect(before.dueAtHours).toBe(500);
    const plan = await planOf(unit);
    expect(plan).toMatchObject({ version: 1, latest: 1, nextEffectiveAt: null });
    const saved = await save(unit, changed(plan, 'belt-check', every(250)), 1, { note: 'By the book.' });
    expect(saved.status).toBe(200);
    expect(saved.headers.etag).toBe('"2"');
    expect(saved.body).toMatchObject({ version: 2, latest: 2, note: 'By the book.' });
    expect(await server.task(unit, 'belt-check')).toMatchObject({ dueAtHours: 250 });
    expect(await server.task(unit, 'belt-check', `?at=${daysAgo(100)}`)).toEqual(before);
    // The same after a restart, and known then: a year ago nobody knew of it.
    await server.restart();
    expect(await server.task(unit, 'belt-check')).toMatchObject({ dueAtHours: 250 });
    expect(await server.task(unit, 'belt-check', `?knownAt=${daysAgo(0.5)}`)).toMatchObject({
      dueAtHours: 500,
    });
  });

  test('needs the version it was based on', async () => {
    const unit = await server.addCompressor();
    const plan = await planOf(unit);
    expect(await save(unit, plan0(plan))).toMatchObject({ status: 428, body: { code: 'version-missing' } });
    expect((await save(unit, changed(plan, 'belt-check', every(250)), 1)).status).toBe(200);
    const late = await save(unit, changed(plan, 'belt-check', every(300)), 1);
    expect(late).toMatchObject({ status: 412, body: { code: 'plan-changed' } });
    expect(late.body.detail).toContain('latest is version 2');
    expect(await server.task(unit, 'belt-check')).toMatchObject({ code: 'belt-check' });
    expect((await planOf(unit)).version).toBe(2);
  });

  test('sent again it is the same version; with other content it is a conflict', async () => {
    const unit = await server.addCompressor();
    const plan = await planOf(unit);
    const id = randomUUID();
    const body = changed(plan, 'belt-check', every(250));
    expect((await save(unit, body, 1, { id })).body.version).toBe(2);
    expect(await save(unit, body, 1, { id })).toMatchObject({ status: 200, body: { version: 2 } });
    expect((await save(unit, changed(plan, 'belt-check', every(251)), 1, { id })).status).toBe(409);
  });

  test('may take effect later, but not long ago', async () => {
    const unit = await server.addCompressor();
    await server.readHours(unit, daysAgo(10), 0);
    await server.readHours(unit, daysAgo(1), 10);
    const plan = await planOf(unit);
    const later = await save(unit, changed(plan, 'belt-check', every(250)), 1, { effectiveAt: daysAgo(-30) });
    expect(later.body).toMatchObject({ version: 1, latest: 2, nextEffectiveAt: daysAgo(-30) });
    expect((await server.task(unit, 'belt-check')).dueAtHours).toBe(500);
    expect((await server.task(unit, 'belt-check', `?at=${daysAgo(-31)}`)).dueAtHours).toBe(250);
    server.now = NOW + 31 * DAY;
    expect((await planOf(unit)).version).toBe(2);
    for (const effectiveAt of [daysAgo(0), daysAgo(-800)]) {
      expect(await save(unit, plan0(plan), 2, { effectiveAt })).toMatchObject({
        status: 422,
        body: { code: 'effective-at' },
      });
    }
  });

  test.each<[string, (plan: { tasks: Task[] }) => object, number, RegExp]>([
    ['no tasks', () => ({ tasks: [] }), 400, /at least one task/],
    ['a task of another shape', () => ({ tasks: [{ code: 'x' }] }), 400, /lacks “/],
    [
      'an interval of nothing',
      (plan) => changed(plan, 'belt-check', every(0)),
      400,
      /Belt check: trigger 1, every must be 0\.1 or more/,
    ],
    [
      'an interval of words',
      (plan) => changed(plan, 'belt-check', [{ kind: 'hours', every: 'often' }]),
      400,
      /Belt check: trigger 1, every must be a number/,
    ],
    [
      'a kind nobody knows',
      (plan) => changed(plan, 'belt-check', [{ kind: 'moon', every: 1 }]),
      400,
      /Belt check/,
    ],
    [
      'more than the form has',
      (plan) => ({ tasks: plan.tasks.map((task) => ({ ...task, colour: 'blue' })) }),
      400,
      /has no place for “colour”/,
    ],
    ['a task twice', (plan) => ({ tasks: [...plan.tasks, plan.tasks[0]] }), 422, /two tasks called/],
    [
      'a check without a figure',
      (plan) => changed(plan, 'belt-check', [{ kind: 'condition', check: 'bowl', limit: 1 }]),
      422,
      /no check called bowl/,
    ],
    [
      'a way that is none',
      (plan) => ({ tasks: plan.tasks, choices: { valves: 'moon' } }),
      422,
      /none of its ways/,
    ],
  ])('%s is refused in a sentence, and nothing changes', async (_name, wrong, status, text) => {
    const unit = await server.addCompressor();
    const plan = await planOf(unit);
    const answer = await save(unit, wrong(plan), 1);
    expect(answer.status).toBe(status);
    expect(answer.body.detail).toMatch(text);
    expect((await planOf(unit)).version).toBe(1);
  });
});

/** The parts of a plan that are saved. */
function plan0({ tasks, choices, overrides }: { tasks: Task[]; choices?: object; overrides?: object }) {
  return { tasks, ...(choices ? { choices } : {}), ...(overrides ? { overrides } : {}) };
}

test('what somebody does under a changed plan is done under that version', async () => {
  const unit = await server.addCompressor();
  await server.readHours(unit, daysAgo(10), 0);
  const plan = await planOf(unit);
  await save(unit, changed(plan, 'belt-check', every(250)), 1);
  server.now = NOW + DAY;
  const now = await server.recordService(unit, daysAgo(-0.5), ['belt-check']);
  expect(now.body.planVersion).toBe(2);
  expect((await server.recordService(unit, daysAgo(5), ['belt-check'])).body.planVersion).toBe(1);
});

describe('a preview', () => {
  test('shows the standing, three coming points and what changes, and stores nothing', async () => {
    const unit = await server.addCompressor();
    await server.readHours(unit, daysAgo(50), 0);
    await server.readHours(unit, daysAgo(0.01), 100);
    const plan = await planOf(unit);
    const { status, body } = await server.post(
      `/api/compressors/${unit}/plan-preview`,
      changed(plan, 'belt-check', every(250)),
    );
    expect(status).toBe(200);
    expect(body.coming['belt-check'].map((point: { hours: number }) => point.hours)).toEqual([250, 500, 750]);
    expect(body.differences).toMatchObject([{ code: 'belt-check', changes: ['every 500 h → every 250 h'] }]);
    expect(body.standing.tasks.find((task: Task) => task.code === 'belt-check').dueAtHours).toBe(250);
    expect(body.problems).toEqual([]);
    expect((await server.task(unit, 'belt-check')).dueAtHours).toBe(500);
  });

  test('names what is wrong with a plan instead of refusing to look at it', async () => {
    const unit = await server.addCompressor();
    const plan = await planOf(unit);
    const { body } = await server.post(`/api/compressors/${unit}/plan-preview`, {
      tasks: plan.tasks.map((task: Task) => ({
        ...task,
        ...(task.code === 'belt-check' ? { station: 'tower' } : {}),
      })),
    });
    expect(body.problems).toMatchObject([{ code: 'no-such-station', field: 'tasks.belt-check' }]);
  });
});

test('packages are saved with a plan, and written out in the library', async () => {
  const unit = await server.addCompressor();
  const plan = await planOf(unit);
  const own = [{ code: 'autumn', name: 'Autumn', tasks: ['belt-check', 'oil-change'] }];
  const saved = await save(unit, { ...plan0(plan), packages: own }, 1);
  expect(saved).toMatchObject({ status: 200, body: { packages: own } });
  expect(
    await save(unit, { ...plan0(plan), packages: [{ ...own[0], tasks: ['paint-it'] }] }, 2),
  ).toMatchObject({ status: 422, body: { code: 'package-of-nothing' } });
  expect(await save(unit, { ...plan0(plan), packages: [{ ...own[0], tasks: [] }] }, 2)).toMatchObject({
    status: 400,
    body: { detail: expect.stringMatching(/must hold 1 at least/) },
  });
  const { packages } = (await server.read('/api/plan-library?family=screw')).body.plan;
  expect(packages.map(({ code }: { code: string }) => code)).toContain('every-2000-h');
});

test('the library has the defaults of a unit or a family, its practice choices and the schema', async () => {
  const unit = await server.addCompressor({ family: 'high-pressure', stages: 5 });
  const ofCompressor = (await server.read(`/api/plan-library?compressorId=${unit}`)).body;
  expect(ofCompressor.plan).toMatchObject({ format: 'entretien-plan', version: 1, family: 'high-pressure' });
  expect(ofCompressor.practices.map((practice: { code: string }) => practice.code)).toContain('cartridge');
  const ofFamily = (await server.read('/api/plan-library?family=screw')).body;
  expect(ofFamily.plan.tasks.map((task: Task) => task.code)).toContain('scavenge-clean');
  expect(ofFamily.schema.title).toBe('Entretien service plan');
  expect((await server.read('/api/plan-library')).status).toBe(400);
  expect((await server.read('/api/plan-library?family=steam')).status).toBe(400);
});

test('the reasons come with the standing when they are asked for, in data and in words', async () => {
  const unit = await server.addCompressor({ dust: 'dusty' });
  await server.readHours(unit, daysAgo(50), 0);
  await server.readHours(unit, daysAgo(0.01), 100);
  const { tasks } = await server.standing(unit, '?explain=yes');
  const intake = tasks.find((task: Task) => task.code === 'intake-replace');
  expect(intake.explanation).toMatchObject({
    origin: 'practice',
    factors: [{ kind: 'dust', times: 0.5, because: 'Dust halves its life.' }],
    start: { basis: 'commissioned', on: '2026-01-01' },
    triggers: [
      {
        rule: { every: { months: 12 } },
        applied: { every: { months: 6 } },
        dueOn: '2026-07-01',
        isRuling: true,
      },
    ],
  });
  expect(intake.explanation.lines.at(-1).text).toBe('So it is due on 1 Jul 2026.');
  expect(intake.dueOn).toBe('2026-07-01');
  expect((await server.standing(unit)).tasks[0].explanation).toBeUndefined();
});

describe('measured condition', () => {
  test('a climbing separator drop makes its date, and clearing it takes the date back', async () => {
    const unit = await server.addCompressor({ family: 'screw', commissionedOn: '2026-01-01' });
    await server.readHours(unit, daysAgo(300), 0);
    const measure = (ago: number, dropBar: number, more: object = {}) =>
      server.post(`/api/compressors/${unit}/measurements`, {
        id: randomUUID(),
        check: 'separator-drop',
        takenAt: daysAgo(ago),
        values: { dropBar },
        ...more,
      });
    for (const ago of [200, 100, 1]) await server.readHours(unit, daysAgo(ago), (300 - ago) * 10);
    const plan = await planOf(unit);
    await save(
      unit,
      changed(plan, 'separator-replace', [{ kind: 'condition', check: 'separator-drop', limit: 1 }]),
      1,
    );
    for (const [ago, drop] of [
      [200, 0.2],
      [100, 0.4],
      [2, 0.6],
    ] as const)
      await measure(ago, drop);
    const separator = await server.task(unit, 'separator-replace');
    // 0.2 bar every thousand hours: one bar at 5,000 h by the line, somewhat sooner since wear may quicken.
    expect(separator.rule).toBe('condition');
    expect(separator.dueAtHours).toBeGreaterThan(4400);
    expect(separator.dueAtHours).toBeLessThan(5200);
    expect(Date.parse(separator.earlyOn)).toBeLessThan(Date.parse(separator.likelyOn));
    await server.restart();
    expect((await server.task(unit, 'separator-replace')).dueAtHours).toBe(separator.dueAtHours);
    await server.recordService(unit, daysAgo(1), ['separator-replace']);
    expect(await server.task(unit, 'separator-replace')).toMatchObject({ dueAtHours: null, state: 'fresh' });
  });

  test('a hot discharge halves the oil’s hours', async () => {
    const unit = await server.addCompressor({
      family: 'screw',
      oilGrade: 'synthetic',
      commissionedOn: '2026-06-01',
    });
    await server.readHours(unit, daysAgo(30), 0);
    await server.readHours(unit, daysAgo(1), 300);
    expect((await server.task(unit, 'oil-change')).dueAtHours).toBe(8000);
    const values = { tempC: 100, ambientC: 30, mostRiseK: 75 };
    const hot = { id: randomUUID(), check: 'discharge-temperature', takenAt: daysAgo(1), values };
    expect((await server.post(`/api/compressors/${unit}/measurements`, hot)).status).toBe(201);
    expect((await server.task(unit, 'oil-change')).dueAtHours).toBe(4000);
    const taken = { id: randomUUID(), reason: 'Wrong probe.' };
    await server.post(`/api/compressors/${unit}/measurements/${hot.id}/withdrawal`, taken);
    expect((await server.task(unit, 'oil-change')).dueAtHours).toBe(8000);
    // As known before it was withdrawn … at the same clock nobody can tell; as known before it was measured, it was not.
    expect((await server.task(unit, 'oil-change', `?knownAt=${daysAgo(2)}`)).dueAtHours).toBe(8000);
  });
});

test('an id that something else bears is no id of a plan', async () => {
  const unit = await server.addCompressor();
  const id = randomUUID();
  await server.readHours(unit, daysAgo(1), 10, { id });
  const plan = await planOf(unit);
  const answer = await save(unit, plan0(plan), 1, { id });
  expect([answer.status, answer.body.code]).toEqual([409, 'id-already-used']);
  const saved = randomUUID();
  expect((await save(unit, plan0(plan), 1, { id: saved })).status).toBe(200);
  expect((await server.readHours(unit, daysAgo(0.5), 11, { id: saved })).status).toBe(409);
});

test('PUT is guarded like every other write', async () => {
  const unit = await server.addCompressor();
  const plan = await planOf(unit);
  const answer = await save(unit, plan0(plan), 1, { by: 'not an id' });
  expect(answer.status).toBe(400);
});
