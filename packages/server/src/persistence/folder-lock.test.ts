import { existsSync, mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import Sqlite from 'better-sqlite3';
import { makeBackup, restoreBackup } from '../backup/backup.js';
import { HostClient } from '../testing/host-client.js';
import { NOW, TestServer } from '../testing/test-server.js';

const HOST = join(process.cwd(), 'packages/server/bundle/test-host.js');

const hosts: HostClient[] = [];
async function startHost(): Promise<HostClient> {
  const host = await HostClient.start(HOST);
  hosts.push(host);
  return host;
}

let server: TestServer;
beforeEach(async () => {
  server = await TestServer.start();
});
afterEach(async () => {
  // Whatever went wrong: no process is left behind.
  for (const host of hosts.splice(0)) await host.kill();
  await server.stop();
});

test('a second server on the same folder is refused, in this process and in another', async () => {
  const second = TestServer.start({ dataDir: server.dataDir });
  await expect(second).rejects.toThrow(/is in use by another Entretien/);
  const host = await startHost();
  await expect(host.open({ dataDir: server.dataDir, now: NOW })).rejects.toThrow(/in use by another/);
  await host.stop();
  expect((await server.read('/api/health')).status).toBe(200);
  // Let go, it can be taken again.
  await server.restart();
  expect((await server.read('/api/health')).status).toBe(200);
});

test('a server that was killed holds nothing', async () => {
  const dataDir = mkdtempSync(join(tmpdir(), 'entretien-lock-'));
  const host = await startHost();
  await host.open({ dataDir, now: NOW });
  await expect(TestServer.start({ dataDir })).rejects.toThrow(/in use/);
  await host.kill();
  const next = await TestServer.start({ dataDir });
  await next.stop();
});

test('a backup is made while a server runs, and put back only when it does not', async () => {
  const folder = mkdtempSync(join(tmpdir(), 'entretien-lock-'));
  const file = join(folder, 'one.tar.gz');
  await makeBackup(server.dataDir, file, new Date(NOW));
  await expect(restoreBackup(file, server.dataDir, new Date(NOW))).rejects.toThrow(/Stop that one first/);
  expect(existsSync(join(server.dataDir, 'entretien.sqlite'))).toBe(true);
  rmSync(folder, { recursive: true });
});

test('while somebody else holds the database, a write is told to come again, and reading goes on', async () => {
  const other = new Sqlite(join(server.dataDir, 'entretien.sqlite'));
  other.exec('BEGIN IMMEDIATE');
  const answer = await server.post('/api/people', {
    id: '0190a000-0000-7000-8000-000000000001',
    name: 'Runa Vest',
  });
  expect(answer).toMatchObject({ status: 503, body: { code: 'busy' }, headers: { 'retry-after': '2' } });
  expect((await server.read('/api/sites')).status).toBe(200);
  expect((await server.read('/api/health')).status).toBe(503);
  other.exec('ROLLBACK');
  other.close();
  expect((await server.read('/api/health')).status).toBe(200);
});
