import { randomUUID } from 'node:crypto';
import { daysAgo, expectStatus, TestServer } from '../testing/test-server.js';
import { csv } from './csv.js';

const servers: TestServer[] = [];
async function start(): Promise<TestServer> {
  const server = await TestServer.start();
  servers.push(server);
  return server;
}
afterAll(() => Promise.all(servers.map((server) => server.stop())));

describe('rows as RFC 4180 wants them', () => {
  test.each<[string, (string | number)[][], string]>([
    [
      'lines end in CR LF, the last without',
      [
        ['a', 'b'],
        ['c', 'd'],
      ],
      'a,b\r\nc,d',
    ],
    ['a comma is quoted', [['a,b', 'c']], '"a,b",c'],
    ['a quote is doubled', [['say "no"', 'c']], '"say ""no""",c'],
    ['a line break stays inside quotes', [['a\r\nb', 'c']], '"a\r\nb",c'],
    ['empty fields stay', [['', 'x', '']], ',x,'],
    ['blanks at the ends belong to the field', [[' a ', 'b']], '" a ",b'],
    ['figures are written plainly', [[1234.5, -3]], '1234.5,-3'],
  ])('%s', (_name, rows, text) => {
    expect(csv(rows)).toBe(text);
  });

  test.each([
    '=1+1',
    '+49',
    '-cmd',
    '@SUM(A1)',
    '\tx',
    '\rx',
    '\nx',
    '\n=1+1',
    ' =1+1',
    '\r\n -1',
    '\u200b=1',
  ])('“%s” is no formula any more', (text) => {
    expect(csv([[text, 'b']]).replaceAll('"', '')).toBe(`'${text},b`);
  });
});

test('whoever writes a comma gets semicolons between columns; our own import reads them', async () => {
  const server = await start();
  const unit = await server.addCompressor({ tag: 'HC-1' } as object);
  expectStatus(201, await server.readHours(unit, daysAgo(20), 1100.5, { note: 'a;b' }));
  const cookie = { Cookie: 'entretien-formats=day-month.comma' };
  const { body: text } = await server.read('/api/readings/export', cookie);
  expect(text).toContain('HC-1;');
  expect(text).toContain(';1100,5;total;typed;"a;b";');
  const elsewhere = await start();
  const copy = await elsewhere.addCompressor({ tag: 'HC-1' } as object);
  const sent = await elsewhere.post('/api/readings/import?mode=commit', text, { 'Content-Type': 'text/csv' });
  expect(sent.body).toMatchObject({ stored: 1, refused: 0 });
  const { items } = (await elsewhere.read(`/api/compressors/${copy}/readings`)).body;
  expect(items.map(({ hours }: { hours: number }) => hours)).toEqual([1100.5]);
});

test('what was exported adds nothing when it is imported, and all of it elsewhere', async () => {
  const server = await start();
  const siteId = await server.addSite({ name: 'Haldris, "Creamery"' });
  const unit = await server.addCompressor({ siteId, tag: 'HC-1' } as object);
  await server.addCompressor({ tag: 'HC-2' } as object);
  expectStatus(201, await server.readHours(unit, daysAgo(20), 100.5, { note: '=HYPERLINK("x"),\nand more' }));
  const slip = (await server.readHours(unit, daysAgo(10), 300)).body;
  expectStatus(201, await server.readHours(unit, daysAgo(10), 210, { corrects: slip.id }));
  const { body: text, headers } = await server.read(`/api/readings/export?siteId=${siteId}`);
  expect(headers['content-type']).toContain('text/csv');
  expect(text.startsWith('\ufeffUnit,')).toBe(true);
  expect(text.split('\r\n')).toHaveLength(4);
  expect(text).toContain('"Haldris, ""Creamery"""');
  expect(text).toContain(`"'=HYPERLINK`);
  expect(text).not.toContain(slip.id);
  const send = (to: TestServer) =>
    to.post('/api/readings/import?mode=commit', text, { 'Content-Type': 'text/csv' });
  expect((await send(server)).body).toMatchObject({ stored: 0, known: 2, refused: 0 });
  const elsewhere = await start();
  const copy = await elsewhere.addCompressor({ tag: 'HC-1' } as object);
  expect((await send(elsewhere)).body).toMatchObject({ stored: 2, known: 0, refused: 0 });
  const { items } = (await elsewhere.read(`/api/compressors/${copy}/readings`)).body;
  expect(items.map(({ hours, note }: { hours: number; note?: string }) => [hours, note])).toEqual([
    [210, undefined],
    [100.5, '=HYPERLINK("x"),\nand more'],
  ]);
  expect((await server.read(`/api/readings/export?compressorId=${randomUUID()}`)).status).toBe(404);
});
