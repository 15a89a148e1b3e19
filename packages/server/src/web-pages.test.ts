import { mkdirSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { TestServer } from './testing/test-server.js';

const webDir = mkdtempSync(join(tmpdir(), 'entretien-web-'));
let server: TestServer;

beforeAll(async () => {
  mkdirSync(join(webDir, 'assets'));
  writeFileSync(join(webDir, 'index.html'), '<!doctype html><title>Entretien</title>');
  writeFileSync(join(webDir, 'assets/app-1a2b.js'), 'export {};');
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
