import { mkdirSync, mkdtempSync, readdirSync, rmSync, statSync, writeFileSync } from 'node:fs';
import { connect } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { brotliCompressSync } from 'node:zlib';
import { TestServer } from './testing/test-server.js';

const webDir = mkdtempSync(join(tmpdir(), 'entretien-web-'));
let server: TestServer;

beforeAll(async () => {
  mkdirSync(join(webDir, 'assets'));
  writeFileSync(join(webDir, 'index.html'), '<!doctype html><title>Entretien</title>');
  writeFileSync(join(webDir, 'assets/app-1a2b.js'), 'export {};');
  writeFileSync(join(webDir, 'assets/app-1a2b.js.br'), brotliCompressSync('export {};'));
  server = await TestServer.start({ webDir });
});
afterAll(async () => {
  await server.stop();
  rmSync(webDir, { recursive: true, force: true });
});

test.each(['/', '/units', '/units/0190-any', '/anything/else'])(
  '%s is the page, asked for anew each time',
  async (path) => {
    const { status, body, headers } = await server.read(path);
    expect(status).toBe(200);
    expect(body).toContain('<title>Entretien</title>');
    expect(headers['cache-control']).toBe('no-cache');
    expect(headers['content-security-policy']).toContain("default-src 'self'");
  },
);

test('files with a hash in their name are kept for good', async () => {
  const { status, headers } = await server.read('/assets/app-1a2b.js');
  expect(status).toBe(200);
  expect(headers['cache-control']).toContain('immutable');
});

test.each(['/api/nothing', '/assets/gone.js'])('%s is not the page', async (path) => {
  const { status, body } = await server.read(path);
  expect(status).toBe(404);
  expect(JSON.stringify(body)).not.toContain('<title>');
});

test('nothing outside the folder is served', async () => {
  const { body } = await server.read('/../../etc/passwd');
  expect(body).not.toContain('root:');
});

test('files come packed to whoever can unpack them, and as they are to others', async () => {
  const packed = await server.read('/assets/app-1a2b.js', { 'Accept-Encoding': 'gzip, br' });
  expect([packed.headers['content-encoding'], packed.headers['cache-control']]).toEqual([
    'br',
    expect.stringContaining('immutable'),
  ]);
  expect(packed.headers['content-type']).toContain('javascript');
  const plain = await server.read('/assets/app-1a2b.js', { 'Accept-Encoding': 'identity' });
  expect(plain.headers['content-encoding']).toBeUndefined();
});

test('data are packed where they are large, never kept, and nobody else’s', async () => {
  for (let count = 0; count < 30; count += 1) await server.addSite({ name: `Site ${count}` });
  const { headers, body } = await server.read('/api/sites', { 'Accept-Encoding': 'gzip' });
  expect(body.items).toHaveLength(30);
  expect(headers).toMatchObject({
    'content-encoding': 'gzip',
    'cache-control': 'no-store',
    'cross-origin-resource-policy': 'same-origin',
    'x-content-type-options': 'nosniff',
  });
  const page = await server.read('/');
  expect(page.headers['strict-transport-security']).toBeUndefined();
  expect(page.headers['cross-origin-resource-policy']).toBe('same-origin');
});

test('the data folder is nobody else’s on the machine', async () => {
  const rights = (path: string) => (statSync(path).mode & 0o777).toString(8);
  expect(rights(server.dataDir)).toBe('700');
  await server.addSite();
  const files = readdirSync(server.dataDir).filter((name) => name.startsWith('entretien.'));
  expect(files.length).toBeGreaterThan(1);
  for (const file of files) expect([file, rights(join(server.dataDir, file))]).toEqual([file, '600']);
});

test('pictures under way are counted: the one too many is told to come again, and nobody else waits', async () => {
  const { port } = new URL(server.url);
  const unit = await server.addCompressor();
  const open = Array.from({ length: 6 }, () => {
    const socket = connect(Number(port), '127.0.0.1');
    socket.on('error', () => undefined);
    const path = `/api/visits/${unit}/photos?id=${unit}`;
    socket.write(
      `POST ${path} HTTP/1.1\r\nHost: 127.0.0.1:${port}\r\nContent-Type: image/jpeg\r\nContent-Length: 1000\r\n\r\nabc`,
    );
    return socket;
  });
  const send = () =>
    server.postBytes(`/api/visits/${unit}/photos?id=${unit}`, Buffer.from('x'), 'image/jpeg');
  // The others arrive on connections of their own, in a moment.
  let answer = await send();
  for (let tries = 0; answer.status !== 503 && tries < 200; tries += 1) answer = await send();
  expect(answer).toMatchObject({ status: 503, body: { code: 'busy' }, headers: { 'retry-after': '2' } });
  expect((await server.read('/api/sites')).status).toBe(200);
  for (const socket of open) socket.destroy();
  for (let tries = 0; answer.status === 503 && tries < 200; tries += 1) answer = await send();
  expect(answer.status).toBe(404);
});
