import { randomUUID } from 'node:crypto';
import { daysAgo, TestServer, type Answer } from './testing/test-server.js';

let server: TestServer;
let unit: string;
beforeAll(async () => {
  server = await TestServer.start();
  unit = await server.addCompressor();
  await server.readHours(unit, daysAgo(20), 100);
  await server.readHours(unit, daysAgo(10), 180);
});
afterAll(() => server.stop());

function expectProblem(answer: Answer, status: number, field?: string): void {
  expect(answer.headers['content-type']).toContain('application/problem+json');
  expect(answer.body).toMatchObject({
    status,
    title: expect.any(String),
    type: expect.stringMatching(/^\/problems\//),
  });
  expect(answer.status).toBe(status);
  if (field !== undefined) {
    const error = answer.body.errors.find((one: { field: string }) => one.field === field);
    expect(error.message).toMatch(/^[A-Z“\d].{10,}[.?]$/s);
  }
}

describe('a reading that cannot be', () => {
  const reading = (more: object) => ({
    id: randomUUID(),
    takenAt: daysAgo(5),
    hours: 200,
    counts: 'total',
    source: 'typed',
    ...more,
  });
  const send = (more: object) => server.post(`/api/compressors/${unit}/readings`, reading(more));

  test.each([
    ['lower than read before', { hours: 179 }, 422, 'hours'],
    ['more than 24 h a day', { hours: 400 }, 422, 'hours'],
    ['more than a later neighbour allows', { takenAt: daysAgo(15), hours: 181 }, 422, 'hours'],
    ['in the future', { takenAt: daysAgo(-1) }, 422, 'takenAt'],
    ['on 30 February', { takenAt: '2026-02-30T00:00:00Z' }, 400, 'takenAt'],
    ['without a moment', { takenAt: undefined }, 400, 'takenAt'],
    ['a string for a number', { hours: '200' }, 400, 'hours'],
    ['null for a number', { hours: null }, 400, 'hours'],
    ['1e308', { hours: 1e308 }, 400, 'hours'],
    ['negative', { hours: -1 }, 400, 'hours'],
    ['no such counter', { counts: 'idle' }, 400, 'counts'],
    ['no such source', { source: 'guess' }, 400, 'source'],
    ['an id that is none', { id: 'reading-1' }, 400, 'id'],
    ['an unknown field', { pressure: 7 }, 400, 'pressure'],
    ['a note of a megabyte', { note: 'x'.repeat(1_000_000) }, 400, 'note'],
    ['a blank note', { note: '   ' }, 400, 'note'],
    ['a list for a note', { note: ['a'] }, 400, 'note'],
  ])('%s', async (_name, more, status, field) => {
    expectProblem(await send(more), status, field);
  });

  test('the arithmetic is shown', async () => {
    const { body } = await send({ hours: 400 });
    expect(body.code).toBe('faster-than-the-clock');
    expect(body.detail).toContain('is 220 h of running in 120 h. No machine runs more than 24 h a day.');
  });

  test('nothing of it is kept, and nothing else is lost', async () => {
    const { body } = await server.read(`/api/compressors/${unit}/readings`);
    expect(body.items.map((one: { hours: number }) => one.hours)).toEqual([180, 100]);
    expect((await server.standing(unit)).revision).toBe(3);
  });
});

describe('other things that cannot be', () => {
  test.each([
    ['a task that the plan does not have', { tasks: ['polish-badge'] }, 422, 'tasks'],
    ['no task at all', { tasks: [] }, 400, 'tasks'],
    ['the same task twice', { tasks: ['oil-change', 'oil-change'] }, 400, 'tasks'],
    ['a task that is no code', { tasks: ['Oil change!'] }, 400, 'tasks'],
    ['tasks that are no list', { tasks: 'oil-change' }, 400, 'tasks'],
    ['hours below the last reading', { hours: 90 }, 422, 'hours'],
    ['tomorrow', { doneAt: daysAgo(-1) }, 422, 'doneAt'],
  ])('a service: %s', async (_name, more, status, field) => {
    const service = { id: randomUUID(), doneAt: daysAgo(1), tasks: ['oil-change'], ...more };
    expectProblem(await server.post(`/api/compressors/${unit}/services`, service), status, field);
  });

  test.each([
    ['no such site', { siteId: randomUUID() }, 422, 'siteId'],
    ['six stages', { stages: 6 }, 400, 'stages'],
    ['five stages of a piston set', { stages: 5 }, 422, 'stages'],
    ['no such family', { family: 'turbine' }, 400, 'family'],
    ['commissioned tomorrow', { commissionedOn: '2026-11-25' }, 422, 'commissionedOn'],
    ['30 February', { commissionedOn: '2026-02-30' }, 400, 'commissionedOn'],
    ['pressure beyond any machine', { workingPressureBar: 5000 }, 400, 'workingPressureBar'],
    ['a blank tag', { tag: '  ' }, 400, 'tag'],
    ['more hours than a week has', { declaredHoursPerWeek: 169 }, 400, 'declaredHoursPerWeek'],
  ])('a unit: %s', async (_name, more, status, field) => {
    const siteId = await server.addSite();
    const one = {
      id: randomUUID(),
      siteId,
      tag: 'X-1',
      family: 'piston',
      commissionedOn: '2026-01-01',
      ...more,
    };
    expectProblem(await server.post('/api/compressors', one), status, field);
  });

  test.each([
    ['nothing changed', {}, 400, 'changes'],
    ['to no such site', { siteId: randomUUID() }, 422, 'siteId'],
    ['in the future', { changedAt: daysAgo(-2), workingPressureBar: 8 }, 422, 'changedAt'],
    ['retired before commissioned', { retiredOn: '2025-12-31' }, 422, 'retiredOn'],
    ['a tag that is nothing', { tag: null }, 400, 'tag'],
  ])('a plate change: %s', async (_name, more, status, field) => {
    const change = { id: randomUUID(), changedAt: daysAgo(1), ...more };
    expectProblem(await server.post(`/api/compressors/${unit}/plate`, change), status, field);
  });

  test('an invented time zone', async () => {
    expectProblem(
      await server.post('/api/sites', { id: randomUUID(), name: 'A', timeZone: 'Haldris/Valley' }),
      400,
      'timeZone',
    );
  });

  test('a unit that is not in the register', async () => {
    const nowhere = `/api/compressors/${randomUUID()}`;
    expectProblem(await server.read(nowhere), 404);
    expectProblem(await server.read(`${nowhere}/standing`), 404);
    expectProblem(await server.readHours(randomUUID(), daysAgo(1), 5), 404);
    expectProblem(await server.read(`/api/compressors/not-an-id`), 404);
  });

  test('a meter change that does not follow', async () => {
    const change = {
      id: randomUUID(),
      changedAt: daysAgo(5),
      oldFinalHours: 150,
      newStartHours: 0,
      reason: 'replaced',
    };
    expectProblem(await server.post(`/api/compressors/${unit}/meter-changes`, change), 422, 'oldFinalHours');
  });
});

describe('a request that is not one of ours', () => {
  const path = () => `/api/compressors/${unit}/readings`;

  test.each(['{"id": ', 'NaN', '{"hours": NaN}', ''])('a body that is not JSON: %s', async (body) => {
    const answer = await server.post(path(), body);
    expectProblem(answer, 400);
  });

  test.each(['[]', '"text"', '7', 'null'])('JSON that is no object: %s', async (body) => {
    expectProblem(await server.post(path(), body), 400);
  });

  test('a body beyond two megabytes', async () => {
    expectProblem(await server.post(path(), { note: 'x'.repeat(2_100_000) }), 413);
  });

  test('another content type', async () => {
    expectProblem(
      await server.post(path(), 'id=1', { 'Content-Type': 'application/x-www-form-urlencoded' }),
      415,
    );
    expectProblem(await server.post(path(), '{}', { 'Content-Type': 'text/plain' }), 415);
  });

  test('another host or origin', async () => {
    expectProblem(await server.read('/api/health', { Host: 'evil.example' }), 421);
    expectProblem(await server.read('/api/health', { Origin: 'http://evil.example' }), 403);
    expectProblem(await server.read('/api/health', { Origin: 'null' }), 403);
    expect(
      (await server.read('/api/health', { Host: 'localhost:4170', Origin: 'http://localhost:4170' })).status,
    ).toBe(200);
  });

  test('an address that does not exist, and methods that do not', async () => {
    expectProblem(await server.read('/api/compresors'), 404);
    expectProblem(await server.post('/api/health', {}), 404);
  });

  test.each([
    '?limit=0',
    '?limit=201',
    '?limit=ten',
    '?limit=1e9',
    '?cursor=%00',
    '?cursor=W10',
    '?page=2',
    '?limit=5&limit=6',
  ])('a query that makes no sense: %s', async (query) => {
    expectProblem(await server.read(`${path()}${query}`), 400);
  });

  test.each(['?at=yesterday', '?at=2026-02-30T00:00:00Z', '?knownAt=', '?at=2026-11-24'])(
    'a moment that is none: %s',
    async (query) => {
      expectProblem(await server.read(`/api/compressors/${unit}/standing${query}`), 400);
    },
  );
});

describe('the description of the interface', () => {
  test('carries the rules of the contracts', async () => {
    const { body } = await server.read('/api/openapi.json');
    const reading = body.components.schemas.RecordReading;
    expect(reading.required).toEqual(expect.arrayContaining(['id', 'takenAt', 'hours', 'counts', 'source']));
    expect(reading.properties.hours).toMatchObject({ type: 'number', minimum: 0, maximum: 1_000_000 });
    expect(reading.properties.takenAt.format).toBe('date-time');
    expect(reading.properties.counts.enum).toEqual(['total', 'loaded']);
    expect(Object.keys(body.paths)).toEqual(
      expect.arrayContaining([
        '/api/sites',
        '/api/people',
        '/api/compressors',
        '/api/compressors/{id}',
        '/api/compressors/{id}/plate',
        '/api/compressors/{compressorId}/readings',
        '/api/compressors/{compressorId}/services',
        '/api/compressors/{compressorId}/standing',
        '/api/standings',
        '/api/health',
      ]),
    );
  });

  test('has a page to read it on', async () => {
    const { status, headers } = await server.read('/api/docs');
    expect(status).toBe(200);
    expect(headers['content-type']).toContain('text/html');
  });

  test('health says that the database answers', async () => {
    expect((await server.read('/api/health')).body).toMatchObject({
      status: 'ok',
      database: 'answers',
      migrations: 'current',
      doubts: [],
    });
  });
});

describe('a body nested too deep', () => {
  const nested = (levels: number) => '['.repeat(levels) + ']'.repeat(levels);
  const row = (note: string) =>
    `{"id":"${randomUUID()}","takenAt":"${daysAgo(3)}","hours":190,"counts":"total","source":"typed","compressorId":"${unit}"${note}}`;

  test('is refused before anything walks it', async () => {
    for (const levels of [40, 1600, 400_000]) {
      const answer = await server.post(
        '/api/readings/batch',
        `{"readings":[${row('')},{"x":${nested(levels)}}]}`,
      );
      expectProblem(answer, 400);
      expect(answer.body.detail).toContain('nested');
    }
  });

  test('brackets in a text are no levels', async () => {
    const note = `,"note":"${'[{'.repeat(100)} \\" ${'[{'.repeat(100)}"`;
    const answer = await server.post('/api/readings/batch', `{"readings":[${row(note)}]}`);
    expect(answer.status).toBe(200);
  });
});

describe('nonsense that was once taken', () => {
  const part = (more: object = {}) => ({
    id: randomUUID(),
    number: `N-${randomUUID().slice(0, 8)}`,
    name: 'Oil filter',
    class: 'element',
    answers: 'oil filter',
    fits: [],
    figures: {},
    inVan: 2,
    ...more,
  });
  const site = async () => (await server.read(`/api/compressors/${unit}`)).body.siteId as string;

  test.each([
    ['in 2199', { movedAt: '2199-01-01T00:00:00Z', count: 1 }, 'movedAt'],
    ['in 1950', { movedAt: '1950-01-01T00:00:00Z', count: 1 }, 'movedAt'],
    ['of 0.0001 of it', { movedAt: daysAgo(1), count: 0.0001 }, 'count'],
    ['that leaves fewer than none', { movedAt: daysAgo(1), count: -3 }, 'count'],
  ])('a move of parts %s', async (_name, move, field) => {
    const one = part();
    expect((await server.post('/api/parts', one)).status).toBe(201);
    expectProblem(await server.post(`/api/parts/${one.id}/moves`, { id: randomUUID(), ...move }), 422, field);
    // What is there can be taken.
    const all = { id: randomUUID(), movedAt: daysAgo(1), count: -2 };
    expect((await server.post(`/api/parts/${one.id}/moves`, all)).body.inVan).toBe(0);
  });

  test('one number twice in the catalogue', async () => {
    const first = part();
    expect((await server.post('/api/parts', first)).status).toBe(201);
    expectProblem(await server.post('/api/parts', part({ number: first.number })), 422, 'number');
    expect((await server.post('/api/parts', first)).status).toBe(201);
  });

  test('a change of a site that changes nothing', async () => {
    expectProblem(await server.post(`/api/sites/${await site()}/changes`, { id: randomUUID() }), 422);
  });

  test.each(['1950-01-01', '2199-01-01'])('a visit planned on %s', async (plannedOn) => {
    const visit = {
      id: randomUUID(),
      siteId: await site(),
      plannedOn,
      units: [{ compressorId: unit, tasks: [] }],
    };
    expectProblem(await server.post('/api/visits', visit), 422, 'plannedOn');
  });

  test('a step of 1950, and work on a fault before it was found', async () => {
    const visit = {
      id: randomUUID(),
      siteId: await site(),
      plannedOn: '2026-11-24',
      units: [{ compressorId: unit, tasks: [] }],
    };
    expect((await server.post('/api/visits', visit)).status).toBe(201);
    const step = {
      id: randomUUID(),
      compressorId: unit,
      kind: 'note',
      session: 's',
      details: { text: 'Seen' },
    };
    const long = { ...step, doneAt: '1950-01-01T00:00:00Z' };
    expectProblem(await server.post(`/api/visits/${visit.id}/steps`, long), 422, 'doneAt');
    const repair = { id: randomUUID(), kind: 'fault', foundAt: daysAgo(2), found: 'Weeps' };
    expect((await server.post(`/api/compressors/${unit}/repairs`, repair)).status).toBe(201);
    const entry = { id: randomUUID(), kind: 'note', at: daysAgo(3), text: 'Closed' };
    expectProblem(await server.post(`/api/repairs/${repair.id}/entries`, entry), 422, 'at');
  });

  test.each([
    ['of no width', '\u200b\u2060'],
    ['with a bell in it', 'Coppel\u0007Joinery'],
    ['with a zero in it', 'Coppel\u0000'],
  ])('a name %s', async (_name, name) => {
    expectProblem(await server.post('/api/sites', { id: randomUUID(), name }), 400, 'name');
  });

  test.each(['constructor', 'toString', '__proto__', 'hasOwnProperty'])('a field named %s', async (field) => {
    const body = `{"id":"${randomUUID()}","name":"Coppel Joinery","${field}":{"x":1}}`;
    expectProblem(await server.post('/api/sites', body), 400, field);
    expectProblem(
      await server.post('/api/readings/batch', `{"readings":[{"a":{"${field}":1}}]}`),
      400,
      field,
    );
  });
});

test('what a clock that was fast has recorded can be withdrawn once the clock is right', async () => {
  const other = await server.addCompressor({ tag: 'FAST-1' });
  const now = server.now;
  server.now += 400 * 86_400_000;
  const reading = (await server.readHours(other, new Date(server.now).toISOString(), 5000)).body;
  server.now = now;
  const withdrawal = { id: randomUUID(), reason: 'The clock was fast.' };
  const path = `/api/compressors/${other}/readings/${reading.id}/withdrawal`;
  expect((await server.post(path, withdrawal)).status).toBe(201);
  expect((await server.readHours(other, daysAgo(1), 20)).status).toBe(201);
});
