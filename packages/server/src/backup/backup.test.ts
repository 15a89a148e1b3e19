import { execFileSync } from 'node:child_process';
import { createHash, randomUUID } from 'node:crypto';
import {
  cpSync,
  existsSync,
  mkdtempSync,
  readdirSync,
  readFileSync,
  rmSync,
  statSync,
  writeFileSync,
} from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import Sqlite from 'better-sqlite3';
import sharp from 'sharp';
import { create, extract } from 'tar';
import { cookieOf, firstLead, PASSWORD } from '../testing/signed-in.js';
import { daysAgo, expectStatus, TestServer } from '../testing/test-server.js';
import { VisitAtWork } from '../testing/visit-steps.js';
import { makeBackup, restoreBackup, type Manifest } from './backup.js';

const NOW = new Date('2026-11-25T10:00:00Z');
let folder: string;
let server: TestServer;
beforeEach(async () => {
  folder = mkdtempSync(join(tmpdir(), 'entretien-backup-'));
  server = await TestServer.start();
});
afterEach(async () => {
  await server.stop();
  rmSync(folder, { recursive: true, force: true });
});

async function compressorWithPhoto(): Promise<{ unit: string; photo: string }> {
  const unit = await server.addCompressor();
  expectStatus(201, await server.readHours(unit, daysAgo(3), 100));
  const visit = await VisitAtWork.plan(server, unit, []);
  const photo = randomUUID();
  const picture = await sharp({ create: { width: 40, height: 30, channels: 3, background: '#888' } })
    .jpeg()
    .toBuffer();
  expectStatus(
    201,
    await server.postBytes(`/api/visits/${visit.id}/photos?id=${photo}`, picture, 'image/jpeg'),
  );
  return { unit, photo };
}

test('a backup made while the server works is whole: what was there is there again, photos too', async () => {
  const { unit, photo } = await compressorWithPhoto();
  const file = join(folder, 'one.tar.gz');
  const manifest = await makeBackup(server.dataDir, file, NOW);
  expect(manifest.photos.map(({ name }) => name)).toEqual([`${photo}.jpg`]);
  // What comes after is not in it.
  expectStatus(201, await server.readHours(unit, daysAgo(2), 110));
  const target = join(folder, 'data');
  expect(await restoreBackup(file, target, NOW)).toBeNull();
  expect(readFileSync(join(target, 'photos', `${photo}.jpg`)).length).toBeGreaterThan(0);
  const again = await TestServer.start({ dataDir: target });
  const { items } = (await again.read(`/api/compressors/${unit}/readings`)).body;
  expect(items.map(({ hours }: { hours: number }) => hours)).toEqual([100]);
  await again.stop();
});

test('what is put back signs everybody out, and says so: sessions that were ended since do not come back', async () => {
  const lead = await firstLead(server, 'Lena Orvik');
  const file = join(folder, 'one.tar.gz');
  await makeBackup(server.dataDir, file, NOW);
  const target = join(folder, 'data');
  await restoreBackup(file, target, NOW);
  const again = await TestServer.start({ dataDir: target });
  expect((await again.read('/api/sites', lead)).status).toBe(401);
  const answer = await again.post('/api/sign-in', { login: 'lena.orvik', password: PASSWORD });
  const { items } = (await again.read('/api/audit', cookieOf(answer))).body;
  expect(items.map(({ what }: { what: string }) => what)).toEqual([
    'signed in',
    'restored',
    'signed in',
    'first lead',
  ]);
  await again.stop();
});

test('what was there before is kept beside it', async () => {
  await compressorWithPhoto();
  const file = join(folder, 'one.tar.gz');
  await makeBackup(server.dataDir, file, NOW);
  const target = join(folder, 'data');
  await restoreBackup(file, target, NOW);
  writeFileSync(join(target, 'mine.txt'), 'mine');
  const before = await restoreBackup(file, target, NOW);
  expect(before).toBe(`${target}.before-2026-11-25-10-00-00`);
  expect(readFileSync(join(before!, 'mine.txt'), 'utf8')).toBe('mine');
  expect(existsSync(join(target, 'mine.txt'))).toBe(false);
});

/** The backup opened, changed and closed again. */
async function tampered(file: string, change: (inside: string) => void): Promise<string> {
  const inside = mkdtempSync(join(folder, 'inside-'));
  await extract({ cwd: inside, file });
  change(inside);
  const other = join(folder, 'other.tar.gz');
  await create({ cwd: inside, file: other, gzip: true }, ['manifest.json', 'entretien.sqlite', 'photos']);
  return other;
}

test('a backup that was damaged is refused, and what is there stays as it is', async () => {
  const { photo } = await compressorWithPhoto();
  const file = join(folder, 'one.tar.gz');
  await makeBackup(server.dataDir, file, NOW);
  const target = join(folder, 'data');
  await restoreBackup(file, target, NOW);
  const refuse = async (other: string, sentence: RegExp) => {
    await expect(restoreBackup(other, target, NOW)).rejects.toThrow(sentence);
    expect(existsSync(join(target, 'entretien.sqlite'))).toBe(true);
  };
  await refuse(
    await tampered(file, (inside) => {
      const path = join(inside, 'entretien.sqlite');
      const bytes = readFileSync(path);
      bytes[5000] = bytes[5000]! ^ 255;
      writeFileSync(path, bytes);
    }),
    /entretien\.sqlite is not as it was/,
  );
  await refuse(
    await tampered(file, (inside) => rmSync(join(inside, 'photos', `${photo}.jpg`))),
    /is missing in the backup/,
  );
  await refuse(
    await tampered(file, (inside) => writeFileSync(join(inside, 'manifest.json'), '{"format":9}')),
    /no backup of ours/,
  );
  writeFileSync(join(folder, 'nonsense.tar.gz'), 'nonsense');
  await refuse(join(folder, 'nonsense.tar.gz'), /cannot be read as a backup|no backup of ours/);
  await refuse(join(folder, 'nowhere.tar.gz'), /no file/);
  await expect(makeBackup(join(folder, 'empty'), file, NOW)).rejects.toThrow(/no database/);
});

test('a photo that is missing is named, and ends neither the backup nor putting it back', async () => {
  const { photo } = await compressorWithPhoto();
  rmSync(join(server.dataDir, 'photos', `${photo}.jpg`));
  const file = join(folder, 'one.tar.gz');
  const manifest = await makeBackup(server.dataDir, file, NOW);
  expect([manifest.photos, manifest.missing]).toEqual([[], [`${photo}.jpg`]]);
  expect(statSync(file).mode & 0o777).toBe(0o600);
  expect(await restoreBackup(file, join(folder, 'data'), NOW)).toBeNull();
});

test('only what the list of contents names is put back: no log that would change the data', async () => {
  await compressorWithPhoto();
  const file = join(folder, 'one.tar.gz');
  await makeBackup(server.dataDir, file, NOW);
  const inside = mkdtempSync(join(folder, 'inside-'));
  await extract({ cwd: inside, file });
  writeFileSync(join(inside, 'entretien.sqlite-wal'), 'a log');
  writeFileSync(join(inside, 'photos', 'more.jpg'), 'more');
  writeFileSync(join(inside, 'run.sh'), 'more');
  await create({ cwd: inside, file, gzip: true }, readdirSync(inside));
  const target = join(folder, 'data');
  await restoreBackup(file, target, NOW);
  expect(readdirSync(target).sort()).toEqual(['entretien.sqlite', 'photos']);
  expect(readdirSync(join(target, 'photos'))).toHaveLength(1);
});

describe('a database that is not to be opened', () => {
  const strange = (change: (database: Sqlite.Database) => void) => {
    const dataDir = mkdtempSync(join(folder, 'strange-'));
    const database = new Sqlite(join(dataDir, 'entretien.sqlite'));
    change(database);
    database.close();
    return dataDir;
  };
  const later = () =>
    strange((database) => {
      database.exec('CREATE TABLE "migrations" ("name" text)');
      database.exec(
        `INSERT INTO "migrations" VALUES ('FirstTables1764028800000'), ('Tomorrow1999999999999')`,
      );
    });
  const another = () => strange((database) => database.exec('CREATE TABLE "recipes" ("name" text)'));
  const marked = () =>
    strange((database) => {
      database.pragma('application_id = 12');
      database.exec('CREATE TABLE "migrations" ("name" text)');
    });

  test.each([
    ['a later release’s', later, /later release/],
    ['another program’s', another, /another program/],
    ['one marked as another program’s', marked, /another program/],
  ])('%s is refused at the start, and stays as it is', async (_name, make, sentence) => {
    const dataDir = make();
    const file = join(dataDir, 'entretien.sqlite');
    const before = readFileSync(file);
    await expect(TestServer.start({ dataDir })).rejects.toThrow(sentence);
    expect(readFileSync(file).equals(before)).toBe(true);
  });

  test('nor is it put back from an archive', async () => {
    await compressorWithPhoto();
    const file = join(folder, 'one.tar.gz');
    await makeBackup(server.dataDir, file, NOW);
    const target = join(folder, 'data');
    const other = await tampered(file, (inside) => {
      const path = join(inside, 'entretien.sqlite');
      cpSync(join(later(), 'entretien.sqlite'), path);
      const manifest = JSON.parse(readFileSync(join(inside, 'manifest.json'), 'utf8')) as Manifest;
      const bytes = readFileSync(path);
      const sha256 = createHash('sha256').update(bytes).digest('hex');
      const database = { ...manifest.database, bytes: bytes.length, sha256 };
      writeFileSync(join(inside, 'manifest.json'), JSON.stringify({ ...manifest, database, photos: [] }));
    });
    await expect(restoreBackup(other, target, NOW)).rejects.toThrow(/later release/);
    expect(existsSync(target)).toBe(false);
  });

  test('what is no database at all says so', async () => {
    const dataDir = mkdtempSync(join(folder, 'none-'));
    writeFileSync(join(dataDir, 'entretien.sqlite'), 'no database '.repeat(200));
    await expect(TestServer.start({ dataDir })).rejects.toThrow(/no database, or is damaged/);
  });
});

test('run by hand, it says what it did or what is wrong', () => {
  const run = (...args: string[]) => {
    const env = { ...process.env, ENTRETIEN_DATA_DIR: server.dataDir, NODE_OPTIONS: '' };
    const script = join(process.cwd(), 'packages/server/dist/backup/run.js');
    try {
      return execFileSync(process.execPath, [script, ...args], {
        env,
        encoding: 'utf8',
        cwd: folder,
        stdio: 'pipe',
      });
    } catch (error) {
      return (error as { stderr: string }).stderr;
    }
  };
  expect(run('backup', 'made.tar.gz')).toMatch(/made\.tar\.gz: the database \(.* MB\) and 0 photos/);
  expect(existsSync(join(folder, 'made.tar.gz'))).toBe(true);
  expect(run('restore')).toMatch(/Say which backup/);
  expect(run('restore', 'none.tar.gz')).toMatch(/There is no file/);
});
