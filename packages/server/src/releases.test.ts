import { mkdirSync, mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { gunzipSync } from 'node:zlib';
import { restoreBackup } from './backup/backup.js';
import { releaseAnswers } from './testing/release-answers.js';
import { NOW, TestServer } from './testing/test-server.js';

const RELEASES = join(process.cwd(), 'releases');
const versions = readdirSync(RELEASES);

const folder = mkdtempSync(join(tmpdir(), 'entretien-releases-'));
afterAll(() => rmSync(folder, { recursive: true, force: true }));

function answersOf(version: string): object {
  const file = readFileSync(join(RELEASES, version, 'answers.json'), 'utf8');
  return JSON.parse(file) as object;
}

/** Opens a data folder with the code of today, which brings its tables forward, and asks it everything. */
async function asked(dataDir: string) {
  const server = await TestServer.start({ dataDir });
  server.now = NOW;
  const read = async (path: string) => {
    const answer = await server.read(`/api${path}`);
    expect([path, answer.status]).toEqual([path, 200]);
    return answer.body as unknown;
  };
  const answers = await releaseAnswers(read);
  const photos = server.rows<{ id: string; visit: string }>(
    'SELECT "id", "visit_id" AS "visit" FROM "photo"',
  );
  const shown = await Promise.all(
    photos.map(({ id, visit }) => server.readBytes(`/api/visits/${visit}/photos/${id}`)),
  );
  await server.stop();
  return { answers, shown };
}

test('there is something of every release to try', () => {
  const { version } = JSON.parse(readFileSync('package.json', 'utf8')) as { version: string };
  expect(versions).toContain('0.1.0');
  const [, changes] = /^## (\S+)/m.exec(readFileSync('CHANGELOG.md', 'utf8'))!;
  expect([version, 'Unreleased']).toContain(changes);
});

test.each(versions)('the database of release %s is opened, brought forward and read', async (version) => {
  const dataDir = join(folder, `database-${version}`);
  mkdirSync(dataDir);
  const packed = readFileSync(join(RELEASES, version, 'entretien.sqlite.gz'));
  writeFileSync(join(dataDir, 'entretien.sqlite'), gunzipSync(packed));
  expect((await asked(dataDir)).answers).toEqual(answersOf(version));
});

test.each(versions)('the backup of release %s is put back and read, photos too', async (version) => {
  const dataDir = join(folder, `backup-${version}`);
  await restoreBackup(join(RELEASES, version, 'backup.tar.gz'), dataDir, new Date(NOW));
  const { answers, shown } = await asked(dataDir);
  expect(answers).toEqual(answersOf(version));
  expect(shown.length).toBeGreaterThan(0);
  for (const photo of shown) expect([photo.status, photo.type]).toEqual([200, 'image/jpeg']);
});
