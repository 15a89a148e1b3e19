import { randomUUID } from 'node:crypto';
import { mkdtempSync, readdirSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { PDFDocument, PDFName, PDFString } from 'pdf-lib';
import { makeBackup, restoreBackup } from '../backup/backup.js';
import { TestServer } from '../testing/test-server.js';

let server: TestServer;
let unit: string;
beforeEach(async () => {
  server = await TestServer.start();
  unit = await server.addCompressor({ tag: 'S-1', family: 'screw' });
});
afterEach(() => server.stop());

async function manual(change: (document: PDFDocument) => void = () => undefined): Promise<Buffer> {
  const document = await PDFDocument.create();
  for (const title of ['Manual', 'Oil', 'Belts']) document.addPage([300, 400]).drawText(title);
  change(document);
  return Buffer.from(await document.save());
}

const send = (content: Buffer, more: object = {}, type = 'application/pdf') => {
  const query = { id: randomUUID(), kind: 'manual', title: 'Manual, 2019', ...more };
  return server.postBytes(
    `/api/compressors/${unit}/papers?${new URLSearchParams(query as Record<string, string>)}`,
    content,
    type,
  );
};
const list = async () => (await server.read(`/api/compressors/${unit}/papers`)).body.items;

test('a manual is kept as it was sent, listed, read and put aside', async () => {
  const content = await manual();
  const answer = await send(content);
  expect([answer.status, answer.body]).toMatchObject([
    201,
    { kind: 'manual', title: 'Manual, 2019', type: 'pdf', pages: 3, bytes: content.length },
  ]);
  const { id } = answer.body as { id: string };
  const file = await server.readBytes(`/api/compressors/${unit}/papers/${id}/file`);
  expect([file.type, file.bytes.equals(content)]).toEqual(['application/pdf', true]);
  const { headers } = await server.read(`/api/compressors/${unit}/papers/${id}/file`);
  expect([headers['x-content-type-options'], headers['content-disposition']]).toEqual([
    'nosniff',
    `attachment; filename="manual-${id.slice(0, 8)}.pdf"`,
  ]);
  expect(await list()).toHaveLength(1);
  const aside = await server.post(`/api/compressors/${unit}/papers/${id}/aside`, {});
  expect([aside.status, aside.body.items]).toEqual([201, []]);
  // It stays on record.
  expect((await server.read(`/api/compressors/${unit}/papers/${id}/file`)).status).toBe(200);
});

test('a sound is kept, and is no manual', async () => {
  const wave = Buffer.concat([Buffer.from('RIFF\0\0\0\0WAVEfmt '), Buffer.alloc(4000)]);
  expect((await send(wave, { kind: 'sound', title: 'New, warm' }, 'audio/wav')).body).toMatchObject({
    type: 'wav',
    pages: null,
  });
  expect((await send(wave, { kind: 'manual' })).body.code).toBe('not-a-paper');
  expect((await send(await manual(), { kind: 'sound' }, 'audio/wav')).body.code).toBe('not-a-paper');
});

describe('refused', () => {
  const script = (document: PDFDocument) => {
    const action = document.context.obj({
      Type: 'Action',
      S: 'JavaScript',
      JS: PDFString.of('app.alert(1)'),
    });
    document.catalog.set(PDFName.of('OpenAction'), action);
  };
  const launch = (document: PDFDocument) =>
    document.catalog.set(
      PDFName.of('OpenAction'),
      document.context.obj({ S: 'Launch', F: PDFString.of('a.exe') }),
    );
  const onPage = (document: PDFDocument) =>
    document
      .getPage(1)
      .node.set(PDFName.of('AA'), document.context.obj({ O: { S: 'JavaScript', JS: PDFString.of('x') } }));
  const submits = (document: PDFDocument) =>
    document.getPage(0).node.set(PDFName.of('AA'), document.context.obj({ O: { S: 'SubmitForm' } }));

  test.each([
    ['a script that runs when it is opened', script],
    ['a program that it starts', launch],
    ['a script of a page', onPage],
    ['a form that sends', submits],
  ])('%s', async (_, change) => {
    const answer = await send(await manual(change));
    expect([answer.status, answer.body.code]).toEqual([422, 'pdf-active']);
    expect(await list()).toEqual([]);
  });

  test('a file that it brings along', async () => {
    const document = await PDFDocument.create();
    document.addPage();
    await document.attach(Buffer.from('MZ'), 'tool.exe');
    expect((await send(Buffer.from(await document.save()))).body.code).toBe('pdf-active');
  });

  test.each([
    ['what is none', Buffer.from('<html><script>alert(1)</script></html>'), 422, 'not-a-paper'],
    ['only the mark of one', Buffer.from('%PDF-1.7\nnothing else'), 422, 'not-a-pdf'],
    ['nothing', Buffer.alloc(0), 422, 'not-a-paper'],
    [
      '30 MB and one byte',
      Buffer.concat([Buffer.from('%PDF-1.7'), Buffer.alloc(30_000_001)]),
      413,
      'paper-too-large',
    ],
  ])('%s', async (_, content, status, code) => {
    const answer = await send(content);
    expect([answer.status, answer.body.code]).toEqual([status, code]);
    expect(await list()).toEqual([]);
  });

  test('a sound of more than 10 MB', async () => {
    const answer = await send(
      Buffer.concat([Buffer.from('OggS'), Buffer.alloc(10_000_000)]),
      { kind: 'sound' },
      'audio/ogg',
    );
    expect(answer.body.code).toBe('paper-too-large');
  });

  test('a page sent as one, a strange kind, a title without end, a unit that is not there', async () => {
    expect((await send(await manual(), {}, 'text/html')).status).toBe(415);
    expect((await send(await manual(), { kind: 'song' })).status).toBe(400);
    expect((await send(await manual(), { title: 'x'.repeat(121) })).status).toBe(400);
    expect((await server.read(`/api/compressors/${randomUUID()}/papers`)).status).toBe(404);
    expect((await server.read(`/api/compressors/${unit}/papers/${randomUUID()}/file`)).status).toBe(404);
  });
});

test('sent again it is on record once; the same id with another file is refused', async () => {
  const [id, content] = [randomUUID(), await manual()];
  await send(content, { id });
  expect((await send(content, { id })).status).toBe(201);
  expect(await list()).toHaveLength(1);
  expect((await send(await manual((document) => document.addPage()), { id })).status).toBe(409);
});

test('a damaged file is said, and written again when it is sent again', async () => {
  const [id, content] = [randomUUID(), await manual()];
  await send(content, { id });
  const folder = join(server.dataDir, 'photos');
  expect(readdirSync(folder)).toEqual([`${id}.pdf`]);
  writeFileSync(join(folder, `${id}.pdf`), 'cut');
  const read = () => server.read(`/api/compressors/${unit}/papers/${id}/file`);
  expect((await read()).body.code).toBe('paper-damaged');
  expect((await send(content, { id })).status).toBe(201);
  expect((await read()).status).toBe(200);
});

test('a paper is in the backup, and comes back with it', async () => {
  const [id, content] = [randomUUID(), await manual()];
  await send(content, { id });
  const folder = mkdtempSync(join(tmpdir(), 'entretien-papers-'));
  try {
    const file = join(folder, 'backup.tar.gz');
    const { photos } = await makeBackup(server.dataDir, file, new Date(server.now));
    expect(photos.map(({ name }) => name)).toEqual([`${id}.pdf`]);
    const dataDir = join(folder, 'back');
    await restoreBackup(file, dataDir, new Date(server.now));
    const other = await TestServer.start({ dataDir });
    try {
      const read = await other.readBytes(`/api/compressors/${unit}/papers/${id}/file`);
      expect([read.status, read.bytes.equals(content)]).toEqual([200, true]);
    } finally {
      await other.stop();
    }
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
});
