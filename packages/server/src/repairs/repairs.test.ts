import { randomUUID } from 'node:crypto';
import { openPdf } from '../testing/open-pdf.js';
import { daysAgo, expectStatus, NOW, TestServer } from '../testing/test-server.js';

let server: TestServer;
beforeAll(async () => {
  server = await TestServer.start();
  server.now = NOW;
});
afterAll(() => server.stop());

async function repairOf(plate: object = {}): Promise<{ unit: string; repair: string }> {
  const made = { family: 'screw', motor: 'three-phase', tag: `R-${randomUUID().slice(0, 6)}`, ...plate };
  const unit = await server.addCompressor(made);
  const repair = randomUUID();
  const found = { id: repair, kind: 'fault', foundAt: daysAgo(2), found: 'Runs too hot' };
  expectStatus(201, await server.post(`/api/compressors/${unit}/repairs`, found));
  return { unit, repair };
}

let told = 0;
/** Told the day after, one after the other: what happened then is no longer asked for its isolation. */
const yesterday = () => new Date(Date.parse(daysAgo(1)) + 1000 * (told += 1)).toISOString();
async function add(repair: string, kind: string, more: object = {}) {
  const id = randomUUID();
  const entry = { id, at: yesterday(), kind, text: `Some ${kind}`, ...more };
  const answer = await server.post(`/api/repairs/${repair}/entries`, entry);
  return { id, status: answer.status, body: answer.body };
}

function takeBack(repair: string, entry: string, reason = 'Told of the wrong machine.', id = randomUUID()) {
  return server.post(`/api/repairs/${repair}/entries/${entry}/withdrawal`, { id, reason });
}

const proof = (tempC: number) => ({
  check: 'discharge-temperature',
  values: { tempC, ambientC: 20, mostRiseK: 70 },
});

describe('what was said of a repair is put right', () => {
  test('in other words: it stays when it was, with what it opened and its page', async () => {
    const { unit, repair } = await repairOf();
    const work = await add(repair, 'work', { minutes: 400, opens: ['oil'], session: 'page-1' });
    await add(repair, 'proof', proof(78));
    const body = { text: 'Cooler cleaned', minutes: 40, corrects: work.id, at: daysAgo(0) };
    const right = await add(repair, 'work', body);
    expect([right.status, right.body.state, right.body.minutes]).toEqual([201, 'proved', 40]);
    const [entry, ...others] = right.body.entries.filter(({ kind }: { kind: string }) => kind === 'work');
    expect(others).toEqual([]);
    expect(entry).toMatchObject({ text: 'Cooler cleaned', opens: ['oil'], session: 'page-1' });
    expect(entry.at).toBe(work.body.entries[0].at);
    expect(entry.corrects).toBe(work.id);
    const { body: logbook } = await server.read(`/api/logbook?compressorId=${unit}`);
    expect(JSON.stringify(logbook)).toContain('Cooler cleaned');
  });

  test('not what is more than words, nor into something else, nor twice, nor of another repair', async () => {
    const { repair } = await repairOf();
    const other = await repairOf();
    const part = await add(repair, 'part', { count: 2 });
    const note = await add(repair, 'note');
    const of = (kind: string, corrects: string) => add(repair, kind, { corrects });
    expect(await of('part', part.id)).toMatchObject({ status: 422, body: { code: 'not-in-words' } });
    expect(await of('work', note.id)).toMatchObject({ status: 422, body: { code: 'not-in-words' } });
    expect((await of('note', note.id)).status).toBe(201);
    expect(await of('note', note.id)).toMatchObject({ status: 409, body: { code: 'already-voided' } });
    expect((await add(other.repair, 'note', { corrects: note.id })).status).toBe(404);
  });

  test('a part that was not used lies in the van again, once', async () => {
    const { repair } = await repairOf();
    const part = randomUUID();
    const catalogued = {
      id: part,
      number: `N-${part.slice(0, 5)}`,
      name: 'Gasket',
      class: 'other',
      answers: 'gasket',
      fits: [],
      figures: {},
      inVan: 5,
    };
    expectStatus(201, await server.post('/api/parts', catalogued));
    const inVan = async () =>
      (await server.read('/api/parts')).body.items.find(({ id }: { id: string }) => id === part).inVan;
    const used = await add(repair, 'part', { part, count: 2 });
    expect(await inVan()).toBe(3);
    const id = randomUUID();
    expectStatus(201, await takeBack(repair, used.id, 'Not used after all.', id));
    expect(await inVan()).toBe(5);
    // Sent again after a lost answer it is the same; another is refused.
    expectStatus(201, await takeBack(repair, used.id, 'Not used after all.', id));
    expect((await takeBack(repair, used.id)).status).toBe(409);
    expect(await inVan()).toBe(5);
  });

  test('a proof taken back proves nothing, nor does one whose measurement was taken back', async () => {
    const { unit, repair } = await repairOf();
    const measured = async () =>
      (await server.read(`/api/compressors/${unit}/measurements`)).body.items.filter(
        ({ voided }: { voided?: unknown }) => voided === undefined,
      );
    await add(repair, 'work');
    const first = await add(repair, 'proof', proof(78));
    expect(first.body.state).toBe('proved');
    const { body } = await takeBack(repair, first.id);
    expect([body.state, body.entries.length]).toEqual(['worked-on', 1]);
    expect(await measured()).toEqual([]);
    const second = await add(repair, 'proof', proof(78));
    expect(second.body.state).toBe('proved');
    const [{ id }] = await measured();
    const wrong = { id: randomUUID(), reason: 'The other machine.' };
    expectStatus(201, await server.post(`/api/compressors/${unit}/measurements/${id}/withdrawal`, wrong));
    const again = (await server.read(`/api/repairs/${repair}`)).body;
    expect([again.state, again.isOpen]).toEqual(['worked-on', true]);
    const { body: list } = await server.read(`/api/compressors/${unit}/repairs?show=open`);
    expect(list.items.map((one: { id: string }) => one.id)).toEqual([repair]);
    // The entry itself can still be taken back: its measurement stands no longer already.
    expectStatus(201, await takeBack(repair, second.id));
  });

  test('a closing taken back opens it again, everywhere', async () => {
    const { repair } = await repairOf();
    const closed = await add(repair, 'close');
    expect(closed.body.isOpen).toBe(false);
    expect((await takeBack(repair, closed.id)).body.isOpen).toBe(true);
    const { body } = await server.read('/api/open-work');
    expect(JSON.stringify(body.repairs)).toContain(repair);
  });

  test('what says no reason, or is none of the repair, is refused', async () => {
    const { repair } = await repairOf();
    const note = await add(repair, 'note');
    expect((await takeBack(repair, note.id, '')).status).toBe(400);
    expect((await takeBack(repair, randomUUID())).status).toBe(404);
    expect((await takeBack(randomUUID(), note.id)).status).toBe(404);
  });
});

test('a part for breathing air that is not named for the machine asks for a reason here too', async () => {
  const { unit, repair } = await repairOf({
    family: 'high-pressure',
    stages: 3,
    workingPressureBar: 300,
    airUse: 'breathing',
  });
  const part = randomUUID();
  const cartridge = {
    id: part,
    number: 'C-9',
    name: 'Cartridge',
    class: 'cartridge',
    answers: 'cartridge',
    fits: [],
    figures: {},
  };
  expectStatus(201, await server.post('/api/parts', cartridge));
  expect(await add(repair, 'part', { part })).toMatchObject({ status: 422, body: { code: 'needs-reason' } });
  const told = await add(repair, 'part', { part, reason: 'Same filling, by the lead.' });
  expect([told.status, told.body.entries[0].note]).toEqual([201, 'Same filling, by the lead.']);
  const named = { id: randomUUID(), fits: [unit] };
  expectStatus(201, await server.post(`/api/parts/${part}/changes`, named));
  expect((await add(repair, 'part', { part })).status).toBe(201);
});

test('the report: what was wrong, why, what was done, before beside after, and what it comes to', async () => {
  const papers = { workshopName: 'Haldris Air', currency: 'CHF', taxPercent: 10, labourCentsPerHour: 12_000 };
  expectStatus(200, await server.put('/api/settings', papers));
  const { unit, repair } = await repairOf({ serial: '4471', tag: 'R-9' });
  const before = { id: randomUUID(), takenAt: daysAgo(3), ...proof(96) };
  expectStatus(201, await server.post(`/api/compressors/${unit}/measurements`, before));
  await add(repair, 'cause', { text: 'Cooler full of dust' });
  await add(repair, 'work', { text: 'Cooler blown out', minutes: 90 });
  const wrong = await add(repair, 'work', { text: 'Fan changed', minutes: 30 });
  await takeBack(repair, wrong.id);
  await add(repair, 'part', { text: 'Gasket', count: 2 });
  const open = (await openPdf((await server.readBytes(`/api/repairs/${repair}/report.pdf`)).bytes)).text;
  expect(open).toContain('Not proved yet: measure whether it helped.');
  await add(repair, 'proof', proof(78));
  const { status, bytes } = await server.readBytes(`/api/repairs/${repair}/report.pdf`);
  const { text, pages } = await openPdf(bytes);
  // 90 minutes at 120.00 an hour, and a tenth of it.
  for (const one of [
    'Haldris Air Repair report',
    'serial number 4471',
    'Mended, and proved by measurement',
    'Runs too hot',
    'Cause: Cooler full of dust',
    'Cooler blown out 90 min',
    '96 °C',
    '78 °C',
    '2 × Gasket',
    'Labour: 90 min',
    'Total 198.00 CHF',
    'Done by Taken over by',
  ]) {
    expect(text).toContain(one);
  }
  expect(text).not.toContain('Fan changed');
  expect(text.indexOf('96 °C')).toBeLessThan(text.indexOf('78 °C'));
  expect([status, pages]).toEqual([200, 1]);
  expect((await server.read(`/api/repairs/${randomUUID()}/report.pdf`)).status).toBe(404);
});

test('a part that is not the unit’s own becomes a modification of it, and goes with the entry it came by', async () => {
  const { unit, repair } = await repairOf({ family: 'high-pressure', stages: 3, airUse: 'breathing' });
  const part = randomUUID();
  const cartridge = {
    id: part,
    number: 'C-2',
    name: 'Cartridge of the H4',
    class: 'cartridge',
    answers: 'x',
  };
  expectStatus(201, await server.post('/api/parts', { ...cartridge, fits: [], figures: {} }));
  const own = randomUUID();
  const fits = { ...cartridge, id: own, number: 'C-3', name: 'Own cartridge', fits: [unit], figures: {} };
  expectStatus(201, await server.post('/api/parts', fits));
  const modifications = async () => {
    const { items } = (await server.read(`/api/compressors/${unit}/repairs`)).body;
    return items.filter(({ kind }: { kind: string }) => kind === 'modification');
  };
  expect((await add(repair, 'part', { part: own, count: 1, reason: 'As ever' })).status).toBe(201);
  expect(await modifications()).toEqual([]);
  const used = await add(repair, 'part', { part, count: 1, reason: 'None other to be had' });
  expect(used.status).toBe(201);
  expect(await modifications()).toMatchObject([
    { found: 'Cartridge of the H4, C-2, in place of its own: None other to be had' },
  ]);
  expectStatus(201, await takeBack(repair, used.id));
  expect(await modifications()).toEqual([]);
});

describe('what the fault finder was told', () => {
  const search = {
    symptom: 'S4',
    answers: [
      { test: 'T26', answer: 'dirty' },
      { test: 'T32', answer: 'cannot-tell' },
    ],
  };
  const countsOf = async () => (await server.read('/api/fault-counts')).body.counts;

  test('stands with the repair, and counts once somebody confirmed the cause', async () => {
    const { unit, repair } = await repairOf();
    const before = (await countsOf()).S4?.COOL ?? 0;
    const told = await add(repair, 'search', { search, text: 'Hot, trips on temperature.' });
    expect([told.status, told.body.search, told.body.confirmed]).toEqual([201, search, null]);
    const named = await add(repair, 'cause', { text: 'Cooling: cooler dirty', cause: 'COOL' });
    expect(named.body).toMatchObject({ cause: 'Cooling: cooler dirty', causeCode: 'COOL' });
    expect((await countsOf()).S4?.COOL ?? 0).toBe(before);
    await add(repair, 'work', { opens: [] });
    await add(repair, 'proof', proof(78));
    // It is settled, and still it can be said what it was.
    const confirmed = await add(repair, 'confirmed', { text: 'Cooler dirty', cause: 'COOL' });
    expect([confirmed.status, confirmed.body.confirmed, confirmed.body.state]).toEqual([
      201,
      'COOL',
      'proved',
    ]);
    expect((await countsOf()).S4.COOL).toBe(before + 1);
    const { body: logbook } = await server.read(`/api/logbook?compressorId=${unit}`);
    expect(JSON.stringify(logbook)).toContain('Cause confirmed: Cooler dirty');
    // It was a slip: it counts no longer.
    expectStatus(201, await takeBack(repair, confirmed.id));
    expect((await countsOf()).S4?.COOL ?? 0).toBe(before);
    // The last word counts, once.
    await add(repair, 'confirmed', { cause: 'ROOM' });
    await add(repair, 'confirmed', { cause: 'COOL' });
    const counts = (await countsOf()).S4;
    expect([counts.COOL, counts.ROOM]).toEqual([before + 1, undefined]);
  });

  test('is refused where it makes no sense', async () => {
    const { repair } = await repairOf();
    const bad: readonly (readonly [string, object])[] = [
      ['search', {}],
      ['search', { search: { symptom: 'Z9', answers: [] } }],
      ['search', { search: { symptom: 'S4' } }],
      ['search', { search: { symptom: 'S4', answers: [{ test: 'T99', answer: 'usual' }] } }],
      ['search', { search: { symptom: 'S4', answers: [{ test: 'T26', answer: 'puff' }] } }],
      ['search', { search: { symptom: 'S4', answers: [search.answers[0], search.answers[0]] } }],
      ['search', { search: { ...search, more: 1 } }],
      [
        'search',
        { search: { symptom: 'S4', answers: Array.from({ length: 500 }, () => search.answers[0]) } },
      ],
      ['cause', { cause: 'GHOST' }],
      ['confirmed', {}],
      ['confirmed', { cause: 'GHOST' }],
      ['work', { cause: 'COOL' }],
    ];
    for (const [kind, more] of bad)
      expect([kind, more, (await add(repair, kind, more)).status]).toEqual([kind, more, 400]);
    expect((await add(repair, 'cause', { cause: 'COOL' })).status).toBe(201);
  });
});
