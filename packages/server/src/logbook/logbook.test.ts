import { randomUUID } from 'node:crypto';
import Papa from 'papaparse';
import type { LogbookEntryView } from '@entretien/contracts';
import { daysAgo, expectStatus, TestServer } from '../testing/test-server.js';
import { VisitAtWork } from '../testing/visit-steps.js';

let server: TestServer;
let unit: string;
let other: string;
beforeAll(async () => {
  server = await TestServer.start();
  unit = await server.addCompressor({ tag: 'HC-1' });
  other = await server.addCompressor({ tag: 'CJ-9' });
  await server.readHours(unit, daysAgo(20), 100, { note: 'Meter glass cracked' });
  await server.readHours(other, daysAgo(19), 40);
  await server.recordService(unit, daysAgo(10), ['oil-change'], { note: 'Öl war schwarz' });
  await server.recordService(other, daysAgo(9), ['belt-check']);
  const repair = { id: randomUUID(), kind: 'fault', foundAt: daysAgo(8), found: 'Relief valve weeps' };
  expectStatus(201, await server.post(`/api/compressors/${unit}/repairs`, repair));
  const visit = await VisitAtWork.plan(server, unit, ['belt-check']);
  expectStatus(201, await visit.step('note', { text: 'Key at the gate' }));
});
afterAll(() => server.stop());

async function find(query: string): Promise<LogbookEntryView[]> {
  const answer = await server.read(`/api/logbook?${query}`);
  expectStatus(200, answer);
  return answer.body.items;
}
const texts = (entries: LogbookEntryView[]) => entries.map(({ tag, text }) => `${tag} ${text}`);

test('every kind of fact is in it, the latest first', async () => {
  const all = await find('limit=200');
  expect(all.map(({ kind }) => kind)).toEqual(
    expect.arrayContaining(['reading', 'service', 'repair', 'visit', 'visit-step']),
  );
  const moments = all.map(({ at }) => at);
  expect(moments).toEqual([...moments].sort().reverse());
});

test('it is found by unit, site, kind and time, and in pages', async () => {
  expect(new Set((await find(`compressorId=${unit}`)).map(({ tag }) => tag))).toEqual(new Set(['HC-1']));
  expect(texts(await find('kind=repair'))).toEqual(['HC-1 Fault found: Relief valve weeps']);
  expect(texts(await find(`kind=service&from=${daysAgo(9.5)}`))).toEqual([
    'CJ-9 Service: Belt check (looked at, no result)',
  ]);
  const first = await server.read('/api/logbook?limit=3');
  const second = await server.read(`/api/logbook?limit=200&cursor=${first.body.nextCursor}`);
  const ids = [...first.body.items, ...second.body.items].map(({ id }: LogbookEntryView) => id);
  expect(new Set(ids).size).toBe((await find('limit=200')).length);
});

test('words are looked for in what happened and in notes, whatever their accents and their beginning', async () => {
  expect(texts(await find('q=relief weeps'))).toEqual(['HC-1 Fault found: Relief valve weeps']);
  expect(texts(await find('q=ol schwarz'))).toEqual(['HC-1 Service: Oil change']);
  expect(texts(await find('q=belt ch'))).toEqual(['CJ-9 Service: Belt check (looked at, no result)']);
  expect(texts(await find('q=cracked'))).toEqual(['HC-1 Hours read: 100 h']);
  expect(texts(await find('q=gate'))).toEqual(['HC-1 Note: Key at the gate']);
  expect(await find('q=nowhere')).toEqual([]);
  // What means something to the index is taken for what it is.
  expect(await find(`q=${encodeURIComponent('" OR * -')}`)).toEqual([]);
});

test('what was withdrawn stays in it, and says so', async () => {
  const { items } = (await server.read(`/api/compressors/${other}/services`)).body;
  const withdrawal = { id: randomUUID(), reason: 'Wrong machine' };
  expectStatus(
    201,
    await server.post(`/api/compressors/${other}/services/${items[0].id}/withdrawal`, withdrawal),
  );
  const [entry] = await find(`kind=service&compressorId=${other}`);
  expect(entry).toMatchObject({ voided: true });
  expect(texts(await find('kind=withdrawal'))).toEqual(['CJ-9 Withdrawn: Wrong machine']);
});

test('readings of a unit are found by what their line says', async () => {
  const ofCompressor = async (q: string) =>
    texts(await find(`compressorId=${unit}&q=${encodeURIComponent(q)}`));
  const line = 'HC-1 Hours read: 100 h';
  for (const q of ['hours read', '100', '10 h', 'Read 1', 'cracked'])
    expect(await ofCompressor(q)).toEqual([line]);
  for (const q of ['loaded', 'estimated', '00', '101', 'list 100']) expect(await ofCompressor(q)).toEqual([]);
  const old = await server.addCompressor({ tag: 'OL-3', commissionedOn: '2015-01-01' });
  await server.readHours(old, daysAgo(1), 12_345);
  for (const q of ['12,345', '123', 'hours 12345']) {
    expect(texts(await find(`compressorId=${old}&q=${q}`))).toEqual(['OL-3 Hours read: 12,345 h']);
  }
});

test('the list has moments as clock and calendar at the machine have them', async () => {
  const site = { id: randomUUID(), name: 'Far shore', timeZone: 'Asia/Kathmandu' };
  expectStatus(201, await server.post('/api/sites', site));
  const far = await server.addCompressor({ tag: 'FS-1', siteId: site.id });
  const takenAt = daysAgo(3);
  await server.readHours(far, takenAt, 70);
  const csv = await server.read(`/api/logbook/export?format=csv&kind=reading&compressorId=${far}`);
  const rows = Papa.parse<Record<string, string>>(csv.body, { header: true, skipEmptyLines: true }).data;
  const written = new Intl.DateTimeFormat('sv-SE', {
    timeZone: site.timeZone,
    dateStyle: 'short',
    timeStyle: 'short',
  });
  expect(rows).toMatchObject([{ Date: written.format(new Date(takenAt)), Zone: 'Asia/Kathmandu' }]);
});

test('it is written as a list and as JSON', async () => {
  const csv = await server.read(`/api/logbook/export?format=csv&compressorId=${unit}`);
  expect(csv.headers['content-disposition']).toMatch(/logbook\.csv/);
  const rows = Papa.parse<Record<string, string>>(csv.body, { header: true, skipEmptyLines: true }).data;
  expect(rows).toHaveLength((await find(`limit=200&compressorId=${unit}`)).length);
  expect(rows.find(({ Kind }) => Kind === 'service')).toMatchObject({
    Unit: 'HC-1',
    Note: 'Öl war schwarz',
    Stands: 'yes',
  });
  const json = await server.read(`/api/logbook/export?format=json&compressorId=${unit}`);
  expect(json.body).toHaveLength(rows.length);
});

test('bad questions get a sentence', async () => {
  expect((await server.read('/api/logbook?kind=dream')).status).toBe(400);
  expect((await server.read('/api/logbook?from=yesterday')).status).toBe(400);
  expect((await server.read(`/api/logbook?compressorId=${randomUUID()}`)).status).toBe(404);
  expect((await server.read('/api/logbook/export?format=pdf')).status).toBe(400);
});

test('after an upgrade that words lines in another way, they are written anew at the start', async () => {
  const before = await find('limit=200');
  await server.forget('UPDATE "wording" SET "version" = 0');
  await server.forget(`UPDATE "fact" SET "text" = 'As it was said before' WHERE "text" IS NOT NULL`);
  expect(texts(await find('limit=200&kind=service'))).toContain('HC-1 As it was said before');
  await server.restart();
  expect(await find('limit=200')).toEqual(before);
  expect(texts(await find('q=relief weeps'))).toEqual(['HC-1 Fault found: Relief valve weeps']);
  expect(await find('q=said before')).toEqual([]);
});

test('the steps of isolating a machine take one line', async () => {
  const third = await server.addCompressor({ tag: 'FP-2' });
  const visit = await VisitAtWork.plan(server, third, ['oil-change']);
  await visit.isolate();
  const lines = texts(await find(`kind=visit-step&compressorId=${third}`));
  expect(lines).toHaveLength(1);
  expect(lines[0]).toMatch(/^FP-2 Isolated: .*Receiver empty, silent, needle fell/);
  expect(lines[0]).toContain('Off, locked, tried, automatic off');
  expect(lines[0]!.match(/Isolated/g)).toHaveLength(1);
  // In a list each step stands by itself.
  const csv = await server.read(`/api/logbook/export?format=csv&kind=visit-step&compressorId=${third}`);
  const rows = Papa.parse<Record<string, string>>(csv.body, { header: true, skipEmptyLines: true }).data;
  expect(rows.length).toBeGreaterThan(3);
});
