import { readdirSync } from 'node:fs';
import { join } from 'node:path';
import { daysAgo, TestServer } from '../testing/test-server.js';

let server: TestServer;
let unit: string;
beforeAll(async () => {
  server = await TestServer.start({ timeZone: 'Europe/Zurich' });
  const siteId = await server.addSite();
  unit = await server.addCompressor({ siteId, tag: 'HC-1' } as object);
  await server.addCompressor({ siteId, tag: 'Twin' } as object);
  await server.addCompressor({ siteId, tag: 'Twin' } as object);
  await server.readHours(unit, daysAgo(100), 100);
});
afterAll(() => server.stop());

const send = (text: string, query: string) =>
  server.post(`/api/readings/import?${query}`, text, { 'Content-Type': 'text/csv' });
const figures = async () =>
  (await server.read(`/api/compressors/${unit}/readings?limit=200`)).body.items.map(
    ({ hours }: { hours: number }) => hours,
  );

const list = [
  'Unit;Date;Hours;Note',
  'HC-1;01.09.2026 08:00;150,5;first',
  'hc-1;08.09.2026 08:00;170;"said ""loud"", with; a semicolon"',
  'HC-1;09.09.2026 08:00;400;too fast',
  'XX-9;09.09.2026 08:00;180;',
  'Twin;09.09.2026 08:00;180;',
  'HC-1;31.09.2026 08:00;180;',
  'HC-1;10.09.2026 08:00;abc;',
  'HC-1;15.09.2026 08:00;190;',
  'HC-1;15.09.2026 08:00;190;',
  '',
].join('\r\n');

describe('a list of readings', () => {
  test('is previewed: how it is read, what becomes of each row and why; nothing is stored', async () => {
    const { status, body } = await send(list, 'mode=preview');
    expect(status).toBe(200);
    expect(body).toMatchObject({
      mode: 'preview',
      stored: 3,
      known: 1,
      refused: 5,
      leftOut: 0,
      units: 1,
      isCut: false,
    });
    expect(body.columns).toEqual(['Unit', 'Date', 'Hours', 'Note']);
    expect(body.mapping).toMatchObject({ decimal: 'comma', dateOrder: 'dmy', timeZone: 'Europe/Zurich' });
    const rows = body.rows.map(({ row, outcome, code }: { row: number; outcome: string; code?: string }) =>
      code === undefined ? [row, outcome] : [row, outcome, code],
    );
    expect(rows).toEqual([
      [2, 'stored'],
      [3, 'stored'],
      [4, 'refused', 'faster-than-the-clock'],
      [5, 'refused', 'no-such-unit'],
      [6, 'refused', 'ambiguous-unit'],
      [7, 'refused', 'not-a-date'],
      [8, 'refused', 'not-a-number'],
      [9, 'stored'],
      [10, 'known'],
    ]);
    expect(body.rows[2].reason).toContain('is 230 h of running in 24 h');
    expect(body.rows[0].takenAt).toBe('2026-09-01T06:00:00.000Z');
    expect(await figures()).toEqual([100]);
  });

  test('is taken in without the rows left out, the rest keeping its reasons', async () => {
    const { body } = await send(list, 'mode=commit&leaveOut=3,9-10');
    expect(body).toMatchObject({ mode: 'commit', stored: 1, known: 0, refused: 5, leftOut: 3 });
    expect(await figures()).toEqual([150.5, 100]);
  });

  test('adds the rest when it is sent again, and then nothing, whoever typed what meanwhile', async () => {
    await server.readHours(unit, '2026-09-15T06:00:00Z', 190);
    expect((await send(list, 'mode=commit')).body).toMatchObject({ stored: 1, known: 3, refused: 5 });
    expect((await send(list, 'mode=commit')).body).toMatchObject({ stored: 0, known: 4, refused: 5 });
    expect(await figures()).toEqual([190, 170, 150.5, 100]);
    const { items } = (await server.read(`/api/compressors/${unit}/readings`)).body;
    expect(items[1]).toMatchObject({ source: 'imported', note: 'said "loud", with; a semicolon', marks: [] });
    const { revision } = await server.standing(unit);
    await server.restart();
    expect((await server.standing(unit)).revision).toBe(revision);
  });

  test('does not bring back what was withdrawn', async () => {
    const { items } = (await server.read(`/api/compressors/${unit}/readings`)).body;
    const imported = items.find(({ hours }: { hours: number }) => hours === 170);
    await server.post(`/api/compressors/${unit}/readings/${imported.id}/withdrawal`, {
      id: '5b1c8a52-31ad-4f0e-9a57-0d0a9b5a8d11',
      reason: 'A slip.',
    });
    expect((await send(list, 'mode=commit')).body).toMatchObject({ stored: 0, known: 4 });
    expect((await server.standing(unit, '?at=2026-09-08T06:00:00Z')).runHours).not.toBe(170);
  });

  test('is judged by time, in whatever order its rows come, and across a new meter', async () => {
    const other = await server.addCompressor({ tag: 'HC-2' } as object);
    await server.readHours(other, daysAgo(50), 9400);
    await server.post(`/api/compressors/${other}/meter-changes`, {
      id: 'a2f5a2d1-3d0f-4a52-8a4e-7a7e1b1f3c55',
      changedAt: daysAgo(40),
      oldFinalHours: 9480,
      newStartHours: 0,
      reason: 'replaced',
    });
    const rows = [20, 30, 45, 10].map((ago) => [daysAgo(ago), ago === 45 ? 9440 : (40 - ago) * 8]);
    const text = ['when,tag,meter h', ...rows.map(([at, hours]) => `${at},HC-2,${hours}`)].join('\n');
    expect((await send(text, 'mode=commit')).body).toMatchObject({ stored: 4, refused: 0 });
    expect((await server.standing(other, `?at=${daysAgo(10)}`)).runHours).toBe(9720);
  });

  test('is marked where it is unusual', async () => {
    const other = await server.addCompressor({ tag: 'HC-3' } as object);
    const rows = [0, 30, 61, 89, 120, 150, 300, 300].map(
      (hours, week) => `HC-3,${daysAgo(70 - week * 7)},${hours}`,
    );
    await send(['unit,date,hours', ...rows].join('\n'), 'mode=commit');
    const { items } = (await server.read(`/api/compressors/${other}/readings`)).body;
    expect(items.map(({ marks }: { marks: string[] }) => marks).slice(0, 3)).toEqual([
      ['same-figure'],
      ['far-from-habit'],
      [],
    ]);
  });
});

describe('a list that cannot be read', () => {
  test.each([
    ['no mode', 'Unit,Date,Hours\nHC-1,2026-01-01,1', '', 'mode'],
    ['nothing', '', 'mode=preview', 'file'],
    ['a picture', '\u0000\u0001PNG', 'mode=preview', 'file'],
    [
      'no such column',
      'Unit,Date,Hours\nHC-1,2026-01-01,1',
      'mode=preview&hoursColumn=Stunden',
      'hoursColumn',
    ],
    ['a column that cannot be guessed', 'a,b,c\nHC-1,2026-01-01,1', 'mode=preview', 'unitColumn'],
    ['no such zone', 'Unit,Date,Hours', 'mode=preview&timeZone=Haldris', 'timeZone'],
    ['rows that are no rows', 'Unit,Date,Hours', 'mode=preview&leaveOut=all', 'leaveOut'],
  ])('%s', async (_name, text, query, field) => {
    const { status, body } = await send(text, query);
    expect([status, body.errors?.[0].field]).toEqual([400, field]);
  });

  test('and what is no list at all, by its type', async () => {
    expect((await server.post('/api/readings/import?mode=preview', { rows: [] })).status).toBe(415);
    expect((await server.post('/api/readings/batch', 'a,b', { 'Content-Type': 'text/csv' })).status).toBe(
      415,
    );
  });

  test('leaves no file behind', () => {
    expect(readdirSync(join(server.dataDir, 'imports'))).toEqual([]);
  });
});
