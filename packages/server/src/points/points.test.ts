import { randomUUID } from 'node:crypto';
import { honestCourse, pointRestartSteps } from '@entretien/core/isolation';
import { pointGuarded } from '@entretien/core/points';
import { TestServer } from '../testing/test-server.js';

let server: TestServer;
let siteId: string;
let unit: string;
beforeEach(async () => {
  server = await TestServer.start();
  siteId = await server.addSite({ name: 'Haldris Sawmill' });
  unit = await server.addCompressor({ tag: 'S-1', siteId, family: 'screw', cutOutBar: 10 });
});
afterEach(() => server.stop());

const plate = (more: object = {}) => ({
  id: randomUUID(),
  siteId,
  tag: 'P-1',
  compressorIds: [unit],
  vesselIds: [],
  fittedOn: '2026-01-10',
  whenAirGoes: 'The clamp lets go',
  isBreathed: false,
  filterMicron: 5,
  bowl: 'plastic',
  hasGuard: true,
  drain: 'manual',
  ...more,
});

async function register(more: object = {}) {
  const point = plate(more);
  const answer = await server.post('/api/points', point);
  expect([answer.status, answer.body]).toMatchObject([201, { tag: point.tag }]);
  return point.id;
}

const iso = (at: number) => new Date(at).toISOString();

/** The element changed behind its own valve, ending some minutes before now. */
function change(more: object = {}, minutesAgo = 5) {
  const end = server.now - minutesAgo * 60_000;
  const course = honestCourse(pointGuarded('UTC').plate, ['point']);
  const start = end - 120_000 - course.at(-1)!.seconds * 1000;
  const steps = course.map(({ seconds, body }) => ({ at: iso(start + seconds * 1000), ...body }));
  const back = {
    at: iso(end - 30_000),
    kind: 'restart',
    scope: 'point',
    steps: pointRestartSteps.map(({ code }) => code),
  };
  return {
    id: randomUUID(),
    doneAt: iso(end),
    tasks: [{ code: 'point-element', at: iso(end - 60_000) }],
    looks: [{ check: 'line-element', values: { element: 'dark' }, at: iso(end - 90_000) }],
    steps: [...steps, back],
    ...more,
  };
}

const look = (check: string, values: object, more: object = {}) => {
  const at = iso(server.now - 60_000);
  return { id: randomUUID(), doneAt: at, tasks: [], looks: [{ check, values, at }], steps: [], ...more };
};

describe('the register', () => {
  test('keeps a point with what feeds it, and says how it stands', async () => {
    const id = await register();
    const { body } = await server.read(`/api/points/${id}`);
    expect(body).toMatchObject({
      tag: 'P-1',
      siteName: 'Haldris Sawmill',
      units: [{ id: unit, tag: 'S-1' }],
      whenAirGoes: 'The clamp lets go',
      stops: [],
    });
    expect(body.tasks.map((task: { code: string }) => task.code).sort()).toEqual([
      'point-bowl',
      'point-drain',
      'point-element',
    ]);
    expect((await server.read(`/api/points?compressorId=${unit}`)).body.items).toHaveLength(1);
    expect((await server.read(`/api/points?siteId=${siteId}`)).body.items).toHaveLength(1);
  });

  test.each([
    ['no unit', { compressorIds: [] }, 422, 'no-unit'],
    ['a unit that is not there', { compressorIds: [randomUUID()] }, 422, 'no-such-unit'],
    ['a vessel that is not there', { vesselIds: [randomUUID()] }, 422, 'no-such-vessel'],
    ['nothing in it', { filterMicron: null }, 422, 'nothing-there'],
    ['a lubricator where somebody breathes', { isBreathed: true, lubricator: 'direct' }, 422, 'oil-breathed'],
    ['set above what is behind it', { regulatorBar: 8, ratedBar: 7 }, 422, 'above-rating'],
    ['a day ahead', { fittedOn: '2031-01-01' }, 422, 'in-the-future'],
    ['a regulator for 4,000 bar', { regulatorBar: 4000 }, 400, 'invalid-input'],
    ['a fineness of nothing', { filterMicron: 0 }, 400, 'invalid-input'],
    ['words without end', { whenAirGoes: 'x'.repeat(161) }, 400, 'invalid-input'],
    ['a field of its own', { colour: 'red' }, 400, 'invalid-input'],
  ])('refuses %s', async (_, more, status, code) => {
    const answer = await server.post('/api/points', plate(more));
    expect([answer.status, answer.body.code]).toEqual([status, code]);
    expect((await server.read('/api/points')).body.items).toEqual([]);
  });

  test('refuses a unit of another site, and a tag that is in use', async () => {
    const elsewhere = await server.addCompressor({
      tag: 'X-1',
      siteId: await server.addSite({ name: 'Quarry' }),
    });
    expect((await server.post('/api/points', plate({ compressorIds: [elsewhere] }))).body.code).toBe(
      'no-such-unit',
    );
    const id = await register();
    expect((await server.post('/api/points', plate({ tag: 'p-1' }))).body.code).toBe('tag-in-use');
    const change = (more: object) => server.post(`/api/points/${id}/changes`, { id: randomUUID(), ...more });
    expect((await change({ retiredOn: '2026-01-20' })).status).toBe(201);
    expect((await server.post('/api/points', plate())).status).toBe(201);
    expect((await server.read('/api/points')).body.items).toHaveLength(1);
    expect((await server.read('/api/points?show=all')).body.items).toHaveLength(2);
  });

  test('a change is told again, refused where the whole cannot be, and needs something in it', async () => {
    const id = await register();
    const change = (more: object) => server.post(`/api/points/${id}/changes`, { id: randomUUID(), ...more });
    expect((await change({})).status).toBe(400);
    expect((await change({ filterMicron: null })).body.code).toBe('nothing-there');
    expect((await change({ compressorIds: [] })).body.code).toBe('no-unit');
    expect((await change({ regulatorBar: 6 })).body).toMatchObject({ regulatorBar: 6 });
    const told = { id: randomUUID(), regulatorBar: 5 };
    await server.post(`/api/points/${id}/changes`, told);
    expect((await server.post(`/api/points/${id}/changes`, told)).body).toMatchObject({ regulatorBar: 5 });
  });
});

describe('work', () => {
  test('an element changed behind its own valve, while the compressor runs', async () => {
    const id = await register();
    const told = change();
    const answer = await server.post(`/api/points/${id}/work`, told);
    expect([answer.status, answer.body.code]).toEqual([201, undefined]);
    const element = answer.body.tasks.find((task: { code: string }) => task.code === 'point-element');
    expect(element).toMatchObject({ lastDoneAt: told.doneAt, state: 'fresh' });
    // Told again by a page whose answer was lost: it is on record once.
    expect((await server.post(`/api/points/${id}/work`, told)).status).toBe(201);
    const { items } = (await server.read(`/api/points/${id}/work`)).body;
    expect(items).toHaveLength(1);
    expect(items[0].looks).toMatchObject([{ check: 'line-element', judgement: { verdict: 'act' } }]);
    const book = (await server.read('/api/logbook?kind=point-work')).body.items;
    expect(book).toMatchObject([
      { text: expect.stringMatching(/^Point of use P-1: filter element changed/) },
    ]);
  });

  test('is refused where it was not isolated, or its air never came back', async () => {
    const id = await register();
    const whole = change();
    for (const [steps, code] of [
      [[], 'not-isolated'],
      [whole.steps.slice(0, -1), 'no-air-back'],
      [whole.steps.slice(-1), 'not-isolated'],
      [whole.steps.slice(1), 'not-in-order'],
    ] as const) {
      const answer = await server.post(`/api/points/${id}/work`, { ...whole, id: randomUUID(), steps });
      expect(answer.body.code).toBe(code);
    }
    expect((await server.read(`/api/points/${id}/work`)).body.items).toEqual([]);
  });

  test.each([
    ['nothing', { tasks: [], looks: [] }, 422],
    ['a task of machines', { tasks: [{ code: 'oil-change', at: '2026-01-01T00:00:00Z' }] }, 422],
    ['a task without its moment', { tasks: [{ code: 'point-bowl' }] }, 400],
    ['a list that is none', { looks: 'bowl' }, 400],
    [
      'a step with a field of its own',
      { steps: [{ at: '2026-01-01T00:00:00Z', kind: 'isolate', colour: 'red' }] },
      400,
    ],
    [
      'a figure that is a text',
      { steps: [{ at: '2026-01-01T00:00:00Z', kind: 'isolate', pressureBar: 'six' }] },
      400,
    ],
    [
      'a thousand steps',
      { steps: Array.from({ length: 1000 }, () => ({ at: '2026-01-01T00:00:00Z', kind: 'isolate' })) },
      400,
    ],
    ['a day ahead', { doneAt: '2031-01-01T00:00:00Z' }, 422],
  ])('refuses %s', async (_, more, status) => {
    const id = await register();
    expect((await server.post(`/api/points/${id}/work`, { ...change(), ...more })).status).toBe(status);
  });

  test('a crazed bowl stops the point; a sound one, or who may sign, ends it', async () => {
    const id = await register();
    const crazed = look('bowl', { bowl: 'crazed' });
    expect((await server.post(`/api/points/${id}/work`, crazed)).body).toMatchObject({
      state: 'stopped',
      stops: [{ check: 'bowl', workId: crazed.id }],
    });
    expect((await server.read('/api/points?show=due')).body.items).toHaveLength(1);
    const withdraw = () =>
      server.post(`/api/points/${id}/withdrawals`, {
        id: randomUUID(),
        workId: crazed.id,
        reason: 'Another bowl',
      });
    expect((await withdraw()).body).toMatchObject({ stops: [] });
    expect((await withdraw()).status).toBe(409);
    expect((await server.read(`/api/points/${id}/work`)).body.items).toMatchObject([
      { id: crazed.id, withdrawn: { reason: 'Another bowl' } },
    ]);
    const other = { id: randomUUID(), workId: randomUUID(), reason: 'Slip' };
    expect((await server.post(`/api/points/${id}/withdrawals`, other)).status).toBe(404);
  });

  test('a look that does not fit is refused in words', async () => {
    const id = await register();
    expect(
      (await server.post(`/api/points/${id}/work`, look('bowl', { bowl: 'purple' }))).body,
    ).toMatchObject({
      code: 'wrong-kind',
    });
    expect(
      (await server.post(`/api/points/${id}/work`, look('regulator', { setBar: 6, flowBar: 5 }))).body.code,
    ).toBe('unknown-check');
    expect((await server.read(`/api/points/${randomUUID()}`)).status).toBe(404);
  });
});
