import { randomUUID } from 'node:crypto';
import {
  existsSync,
  mkdirSync,
  mkdtempSync,
  readdirSync,
  readFileSync,
  rmSync,
  writeFileSync,
} from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import sharp from 'sharp';
import Sqlite from 'better-sqlite3';
import { extract } from 'tar';
import { restoreBackup } from '../backup/backup.js';
import { makeScheduledBackup, scheduledBackupsIn } from '../backup/scheduled.js';
import { openLog } from '../common/logs.js';
import { VERSION } from '../common/version.js';
import { readTable } from '../testing/read-sqlite.js';
import { firstLead, invited } from '../testing/signed-in.js';
import { DAY, daysAgo, expectStatus, NOW, TestServer } from '../testing/test-server.js';
import { ScheduledBackups } from './scheduled-backups.js';

let folder: string;
let server: TestServer;
beforeEach(async () => {
  folder = mkdtempSync(join(tmpdir(), 'entretien-upkeep-'));
  server = await TestServer.start({ backupDir: join(folder, 'backups') });
});
afterEach(async () => {
  await server.stop();
  rmSync(folder, { recursive: true, force: true });
});

const nowhere = { write: () => true };
const backups = () => join(folder, 'backups');
const health = async () => (await server.read('/api/health')).body;

async function photo(unit: string, shade: number): Promise<string> {
  const id = randomUUID();
  const background = { r: shade, g: shade, b: shade };
  const picture = await sharp({ create: { width: 30, height: 20, channels: 3, background } })
    .jpeg()
    .toBuffer();
  const path = `/api/compressors/${unit}/photos?id=${id}`;
  expectStatus(201, await server.postBytes(path, picture, 'image/jpeg'));
  return id;
}

test('one is made each day, by another process, opened, and told of', async () => {
  const schedule = server.get(ScheduledBackups);
  expect((await health()).backups).toEqual({ isOn: true, lastAt: null, problem: null });
  await schedule.makeIfDue();
  expect((await health()).backups).toEqual({ isOn: true, lastAt: '2026-11-24T09:00:00.000Z', problem: null });
  server.now = NOW + 3600_000;
  await schedule.makeIfDue();
  expect(scheduledBackupsIn(backups())).toHaveLength(1);
  server.now = NOW + DAY;
  await schedule.makeIfDue();
  expect(scheduledBackupsIn(backups())).toHaveLength(2);
});

test('what is late is told to everybody; what fails says why, and takes nothing away', async () => {
  const schedule = server.get(ScheduledBackups);
  await schedule.makeIfDue();
  server.now = NOW + 3 * DAY;
  expect((await health()).doubts).toEqual([
    { code: 'backup-late', sentence: 'The last good backup is 3 days old. Look at the server.' },
  ]);
  // Something stands in the way of the folder's photos.
  rmSync(join(backups(), 'photos'), { recursive: true, force: true });
  writeFileSync(join(backups(), 'photos'), 'a file');
  await schedule.makeIfDue();
  const { doubts, backups: told } = await health();
  expect(told.problem).not.toBeNull();
  expect(doubts[0].sentence).toContain('3 days old');
  expect(scheduledBackupsIn(backups())).toHaveLength(1);
  rmSync(join(backups(), 'photos'));
  await schedule.makeIfDue();
  expect((await health()).doubts).toEqual([]);
});

test('strangers learn that it failed, and nothing of the machine', async () => {
  const schedule = server.get(ScheduledBackups);
  const lead = await firstLead(server);
  mkdirSync(backups(), { recursive: true });
  writeFileSync(join(backups(), 'of-data-folder.txt'), '/somewhere/else\n');
  await schedule.makeIfDue();
  const staff = (await server.read('/api/health', lead)).body;
  expect(staff.backups.problem).toContain('/somewhere/else');
  expect(staff.doubts).toMatchObject([{ code: 'backup-late' }]);
  const stranger = await health();
  expect(stranger.backups.problem).toBe('The last try failed.');
  expect(JSON.stringify(stranger)).not.toContain('/');
  expect(stranger.doubts).toEqual([]);
});

test('one made by a clock that was years ahead does not hide that the last good one is old', async () => {
  const schedule = server.get(ScheduledBackups);
  await schedule.makeIfDue();
  await makeScheduledBackup(server.dataDir, backups(), Date.UTC(2040, 0, 1));
  server.now = NOW + 5 * DAY;
  expect((await health()).backups.lastAt).toBe('2026-11-24T09:00:00.000Z');
  expect((await health()).doubts).toMatchObject([{ code: 'backup-late' }]);
});

test('photos lie beside, once for all backups; each is put back with its own, and those of none go', async () => {
  const unit = await server.addCompressor();
  const first = await photo(unit, 10);
  await makeScheduledBackup(server.dataDir, backups(), NOW);
  const second = await photo(unit, 200);
  await makeScheduledBackup(server.dataDir, backups(), NOW + DAY);
  expect(readdirSync(join(backups(), 'photos')).sort()).toEqual([`${first}.jpg`, `${second}.jpg`].sort());
  const target = join(folder, 'back');
  await restoreBackup(join(backups(), 'entretien-2026-11-24-0900.tar.gz'), target, new Date(NOW));
  expect(readdirSync(join(target, 'photos'))).toEqual([`${first}.jpg`]);
  // Damaged beside it, it is not put back.
  writeFileSync(join(backups(), 'photos', `${second}.jpg`), 'another');
  const later = join(backups(), 'entretien-2026-11-25-0900.tar.gz');
  await expect(restoreBackup(later, join(folder, 'not'), new Date(NOW))).rejects.toThrow(/not as it was/);
  // The next run finds it damaged by its size, and copies it again.
  await makeScheduledBackup(server.dataDir, backups(), NOW + 2 * DAY);
  expect(await restoreBackup(later, join(folder, 'now'), new Date(NOW))).toBeNull();
  // Both go from the record; a year later no backup that is kept names the first.
  await server.forget('DELETE FROM "photo"');
  for (let month = 0; month < 14; month++)
    await makeScheduledBackup(server.dataDir, backups(), NOW + (40 + 31 * month) * DAY);
  expect(readdirSync(join(backups(), 'photos'))).toEqual([]);
  // Twelve later months have theirs: by its day alone, what a clock set back just made would go at once.
  await makeScheduledBackup(server.dataDir, backups(), Date.UTC(2019, 0, 1, 5));
  expect(existsSync(join(backups(), 'entretien-2019-01-01-0500.tar.gz'))).toBe(true);
  await makeScheduledBackup(server.dataDir, backups(), NOW + 500 * DAY);
  expect(existsSync(join(backups(), 'entretien-2019-01-01-0500.tar.gz'))).toBe(false);
});

test('a run that was ended leaves nothing in the way, and what is not ours stays', async () => {
  await makeScheduledBackup(server.dataDir, backups(), NOW);
  writeFileSync(join(backups(), 'entretien-2026-11-23-0900.unverified.tar.gz'), 'half');
  writeFileSync(join(backups(), 'entretien-2026-11-23-0900.unverified.tar.gz.part'), 'half');
  writeFileSync(join(backups(), 'mine.txt'), 'not ours');
  await makeScheduledBackup(server.dataDir, backups(), NOW + DAY);
  const left = readdirSync(backups());
  expect(left.filter((name) => /unverified/.test(name))).toEqual([]);
  expect(left).toContain('mine.txt');
});

test('the database in it is read by another reader of the format than the one that wrote it', async () => {
  const unit = await server.addCompressor();
  for (let day = 60; day > 0; day--) await server.readHours(unit, daysAgo(day), 1000 - day);
  await makeScheduledBackup(server.dataDir, backups(), NOW);
  await extract({ cwd: folder, file: join(backups(), 'entretien-2026-11-24-0900.tar.gz') });
  const manifest = JSON.parse(readFileSync(join(folder, 'manifest.json'), 'utf8')) as { version: string };
  expect(manifest.version).toBe(VERSION);
  // seq, id, recorded_at, by, note, marks, compressor_id, taken_at, hours, counts, source, corrects
  const rows = readTable(join(folder, 'entretien.sqlite'), 'reading').map((cells) => [
    cells[6],
    cells[7],
    cells[8],
  ]);
  expect(rows).toEqual(
    Array.from({ length: 60 }, (_, index) => [unit, NOW - (60 - index) * DAY, 940 + index]),
  );
  // A plan is longer than a page: it goes on over others.
  const [plan] = readTable(join(folder, 'entretien.sqlite'), 'plan_content').map((cells) =>
    String(cells.at(-1)),
  );
  expect((JSON.parse(plan!) as { tasks: object[] }).tasks.length).toBeGreaterThan(5);
  const database = new Sqlite(join(folder, 'entretien.sqlite'), { readonly: true });
  for (const table of ['fact', 'plan_content', 'reading', 'compressor', 'audit']) {
    const ours = readTable(join(folder, 'entretien.sqlite'), table);
    expect([table, ours]).toEqual([table, database.prepare(`SELECT * FROM "${table}"`).raw().all()]);
  }
  database.close();
});

test('a lead makes one by a press; others may not; where there is no schedule it says so', async () => {
  const lead = await firstLead(server);
  const { cookie } = await invited(server, lead, 'technician');
  expect((await server.post('/api/backups', {}, cookie)).status).toBe(403);
  expect(await server.post('/api/backups', {}, lead)).toMatchObject({ status: 201, body: { problem: null } });
  expect((await server.read('/api/audit', lead)).body.items[0].what).toBe('backed up');
  const without = await TestServer.start();
  expect((await without.post('/api/backups', {})).body.code).toBe('no-schedule');
  expect((await without.read('/api/health')).body.backups.isOn).toBe(false);
  await without.stop();
});

test('health tells the release and the room that is left', async () => {
  const { version, freeBytes } = await health();
  expect(version).toMatch(/^\d+\.\d+\.\d+$/);
  expect(freeBytes).toBeGreaterThan(1_000_000);
});

test('what breaks inside has a number, in the answer and in the log', async () => {
  const logs = join(folder, 'logs');
  const { log, close } = await openLog({ level: 'error', print: nowhere, folder: logs });
  const broken = await TestServer.start({}, null, undefined, log);
  const unit = await broken.addCompressor();
  await broken.forget('ALTER TABLE "starting_point" RENAME TO "elsewhere"');
  const { status, body } = await broken.read(`/api/compressors/${unit}/starting-points`);
  await broken.stop();
  await close();
  expect(status).toBe(500);
  const [, id] = /^urn:uuid:([0-9a-f-]{36})$/.exec(body.instance)!;
  expect(body.detail).toContain(id);
  const lines = readFileSync(join(logs, 'entretien.log'), 'utf8').trim().split('\n');
  expect(lines.map((line) => (JSON.parse(line) as { incident?: string }).incident)).toContain(id);
});

test('a log is changed for another when it is full, and the oldest go', async () => {
  const logs = join(folder, 'small');
  const { log, close } = await openLog({
    level: 'error',
    print: nowhere,
    folder: logs,
    size: '1K',
    files: 3,
  });
  for (let line = 0; line < 200; line++) {
    log.error(`line ${line}`);
    if (line % 10 === 0) await new Promise((done) => setTimeout(done, 5));
  }
  await close();
  const files = readdirSync(logs).filter((name) => name.endsWith('entretien.log'));
  expect(files.length).toBeGreaterThan(2);
  expect(files.length).toBeLessThanOrEqual(4);
});

test('requests in a minute: an account has its share, others go on, and a minute later so does it', async () => {
  const busy = await TestServer.start({ requestsAMinute: 100 });
  const lead = await firstLead(busy);
  const { cookie } = await invited(busy, lead, 'technician');
  const statuses: number[] = [];
  for (let ask = 0; ask < 105; ask++) statuses.push((await busy.read('/api/sites', cookie)).status);
  expect([...new Set(statuses)]).toEqual([200, 429]);
  const refused = await busy.read('/api/sites', cookie);
  expect(refused).toMatchObject({ body: { code: 'too-many-requests' }, headers: { 'retry-after': '60' } });
  expect((await busy.read('/api/sites', lead)).status).toBe(200);
  busy.now += 61_000;
  expect((await busy.read('/api/sites', cookie)).status).toBe(200);
  await busy.stop();
});

test('photos together take no more than is allowed; one that is on record is still taken again', async () => {
  const small = await TestServer.start({ mostPhotoBytes: 1500 });
  const unit = await small.addCompressor();
  const picture = await sharp({ create: { width: 64, height: 64, channels: 3, background: '#345' } })
    .jpeg()
    .toBuffer();
  const ids = Array.from({ length: 6 }, () => randomUUID());
  const send = (id: string) =>
    small.postBytes(`/api/compressors/${unit}/photos?id=${id}`, picture, 'image/jpeg');
  const answers = [];
  for (const id of ids) answers.push(await send(id));
  expect(answers[0]!.status).toBe(201);
  expect(answers.at(-1)).toMatchObject({ status: 507, body: { code: 'photos-full' } });
  expect((await send(ids[0]!)).status).toBe(201);
  expect(existsSync(join(small.dataDir, 'photos', `${ids[5]}.jpg`))).toBe(false);
  await small.stop();
});
