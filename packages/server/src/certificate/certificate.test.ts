import { X509Certificate } from 'node:crypto';
import { mkdtempSync, readFileSync, rmSync, statSync } from 'node:fs';
import { get } from 'node:https';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { createApp } from '../app.js';
import { systemClock } from '../common/system-clock.js';
import { CertificateProblem, makeCertificate } from './certificate.js';

const NOW = new Date(Date.UTC(2026, 10, 24, 9));
const HOST = 'compressors.workshop.home';
const folders: string[] = [];
function folder(): string {
  const made = mkdtempSync(join(tmpdir(), 'entretien-certificate-'));
  folders.push(made);
  return made;
}
afterAll(() => folders.forEach((one) => rmSync(one, { recursive: true, force: true })));

const read = (file: string) => new X509Certificate(readFileSync(file));

test('read by another library: for its name, by its authority, for as long as phones take it', async () => {
  const files = await makeCertificate(folder(), HOST, NOW);
  const [authority, server] = [read(files.authority), read(files.certificate)];
  expect([authority.ca, server.ca]).toEqual([true, false]);
  expect(authority.verify(authority.publicKey)).toBe(true);
  expect(server.verify(authority.publicKey)).toBe(true);
  expect(server.checkIssued(authority)).toBe(true);
  expect(server.checkHost(HOST)).toBe(HOST);
  expect(server.checkHost('elsewhere.home')).toBeUndefined();
  const days = (Date.parse(server.validTo) - NOW.getTime()) / 86_400_000;
  expect(days).toBeLessThanOrEqual(398);
  expect(days).toBeGreaterThan(390);
  for (const file of [files.key, files.authority]) expect(statSync(file).mode & 0o077).toBe(0);
});

test('the next certificate is by the same authority: what a phone trusted stays trusted', async () => {
  const place = folder();
  const first = await makeCertificate(place, HOST, NOW);
  const authority = readFileSync(first.authority, 'utf8');
  const old = readFileSync(first.certificate, 'utf8');
  const later = new Date(NOW.getTime() + 300 * 86_400_000);
  const second = await makeCertificate(place, HOST, later);
  expect(readFileSync(second.authority, 'utf8')).toBe(authority);
  expect(readFileSync(second.certificate, 'utf8')).not.toBe(old);
  expect(read(second.certificate).verify(read(second.authority).publicKey)).toBe(true);
  // Near the end of its ten years it makes none that would outlive it.
  const end = new Date(NOW.getTime() + 9.5 * 365 * 86_400_000);
  await expect(makeCertificate(place, HOST, end)).rejects.toThrow(/The authority .* ends on/);
  rmSync(join(place, 'authority.key'));
  await expect(makeCertificate(place, HOST, NOW)).rejects.toThrow(/only one half/);
});

test.each(['192.168.1.5', '::1', '', 'no name', '-x.home', 'a'.repeat(300), 'x;rm -rf'])(
  '“%s” is no name',
  async (name) => {
    await expect(makeCertificate(folder(), name, NOW)).rejects.toThrow(CertificateProblem);
  },
);

test('a server with it answers whoever trusts the authority, encrypted, and asks them to stay so', async () => {
  const files = await makeCertificate(folder(), HOST, new Date(systemClock()));
  const settings = {
    host: '127.0.0.1',
    port: 0,
    dataDir: folder(),
    timeZone: 'UTC',
    publicUrl: `https://${HOST}`,
    tls: { certificate: files.certificate, key: files.key },
  };
  const app = await createApp({ settings });
  await app.listen(0, '127.0.0.1');
  try {
    const { port } = app.getHttpServer().address() as { port: number };
    const ask = (path: string, ca: Buffer | undefined) =>
      new Promise<{ status: number; hsts: string | undefined }>((done, fail) => {
        const options = {
          host: '127.0.0.1',
          port,
          path,
          servername: HOST,
          headers: { Host: HOST },
          ...(ca ? { ca } : {}),
        };
        get(options, (response) => {
          response.resume();
          done({ status: response.statusCode!, hsts: response.headers['strict-transport-security'] });
        }).on('error', fail);
      });
    const trusted = readFileSync(files.authority);
    // There are no accounts yet: by its name nobody comes in, however well encrypted.
    expect((await ask('/api/sites', trusted)).status).toBe(403);
    await expect(ask('/api/sites', undefined)).rejects.toThrow(/certificate|issuer/);
  } finally {
    await app.close();
  }
});
