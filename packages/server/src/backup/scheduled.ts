import {
  existsSync,
  mkdirSync,
  readdirSync,
  readFileSync,
  renameSync,
  rmSync,
  statSync,
  writeFileSync,
} from 'node:fs';
import { join } from 'node:path';
import { formatInstant, type Instant } from '@entretien/core/basics';
import { backupsToKeep } from '@entretien/core/upkeep';
import { ALBUM } from '../common/file-album.js';
import { freeBytesAt } from '../common/free-bytes.js';
import { BackupProblem, makeBackup, verifyBackup, type Manifest } from './backup.js';

const NAME = /^entretien-(\d{4})-(\d{2})-(\d{2})-(\d{2})(\d{2})\.tar\.gz$/;
/** What a run that was ended left half done. */
const HALF = /^entretien-[\d-]+\.(unverified\.)?tar\.gz\.|\.unverified\.tar\.gz$/;
/** Says of which data the backups in a folder are: two installations would take each other’s away. */
const OWNER = 'of-data-folder.txt';
/** Beside an archive lies what is in it, so that photos that nothing names any more are found. */
const LISTS = 'contents';

/** When a backup of the schedule was made, by its name; null for any other file. */
export function madeAtOf(name: string): Instant | null {
  const found = NAME.exec(name);
  if (!found) return null;
  const [year, month, day, hour, minute] = found.slice(1).map(Number) as [
    number,
    number,
    number,
    number,
    number,
  ];
  return Date.UTC(year, month - 1, day, hour, minute);
}

function nameOf(at: Instant): string {
  return `entretien-${formatInstant(at).slice(0, 16).replace('T', '-').replace(':', '')}.tar.gz`;
}

/** When the backups in a folder were made; each was opened and found whole before it got its name. */
export function scheduledBackupsIn(folder: string): readonly Instant[] {
  if (!existsSync(folder)) return [];
  return readdirSync(folder)
    .map(madeAtOf)
    .filter((at) => at !== null)
    .sort((one, other) => one - other);
}

/**
 * Makes a backup, opens it again, gives it its name, and takes away those that are no longer kept. Before it is
 * found whole nothing is taken away.
 *
 * @returns what was done, in a sentence
 */
export async function makeScheduledBackup(dataDir: string, folder: string, now: Instant): Promise<string> {
  mkdirSync(folder, { recursive: true, mode: 0o700 });
  refuseForeign(dataDir, folder);
  for (const name of readdirSync(folder))
    if (HALF.test(name)) rmSync(join(folder, name), { recursive: true, force: true });
  refuseFullDisk(dataDir, folder);
  const name = nameOf(now);
  const unverified = join(folder, name.replace('.tar.gz', '.unverified.tar.gz'));
  let manifest: Manifest;
  try {
    await makeBackup(dataDir, unverified, new Date(now), { photos: 'beside' });
    manifest = await verifyBackup(unverified);
  } catch (problem) {
    rmSync(unverified, { force: true });
    throw problem;
  }
  mkdirSync(join(folder, LISTS), { recursive: true });
  writeFileSync(
    join(folder, LISTS, `${name}.json`),
    JSON.stringify(manifest.photos.map((photo) => photo.name)),
  );
  renameSync(unverified, join(folder, name));
  const gone = takeAway(folder, madeAtOf(name)!);
  return `${name}: ${manifest.photos.length} photos beside it; ${gone} earlier taken away.`;
}

function refuseForeign(dataDir: string, folder: string): void {
  const file = join(folder, OWNER);
  const owner = existsSync(file) ? readFileSync(file, 'utf8').trim() : null;
  if (owner === null) writeFileSync(file, `${dataDir}\n`);
  else if (owner !== dataDir)
    throw new BackupProblem(
      `${folder} holds the backups of ${owner}. Name another folder in ENTRETIEN_BACKUP_DIR; if those data were moved to ${dataDir}, delete ${file}.`,
    );
}

/** Takes away what is kept no longer; what was just made stays, whatever the clock says. */
function takeAway(folder: string, justMade: Instant): number {
  const made = scheduledBackupsIn(folder);
  const kept = backupsToKeep(made);
  const old = made.filter((at) => !kept.has(at) && at !== justMade);
  for (const at of old) {
    rmSync(join(folder, nameOf(at)));
    rmSync(join(folder, LISTS, `${nameOf(at)}.json`), { force: true });
  }
  if (old.length > 0) takeAwayPhotos(folder);
  return old.length;
}

/** Photos that no backup names; where one does not say what it names, all stay. */
function takeAwayPhotos(folder: string): void {
  const lists = scheduledBackupsIn(folder).map((at) => join(folder, LISTS, `${nameOf(at)}.json`));
  if (!lists.every(existsSync)) return;
  const named = new Set(lists.flatMap((list) => JSON.parse(readFileSync(list, 'utf8')) as string[]));
  for (const photo of readdirSync(join(folder, ALBUM)))
    if (!named.has(photo)) rmSync(join(folder, ALBUM, photo), { force: true });
}

/** Twice the database, for it is packed and unpacked again; and the photos that are not there yet. */
function refuseFullDisk(dataDir: string, folder: string): void {
  const sizeOf = (path: string) => (existsSync(path) ? statSync(path).size : 0);
  const database = sizeOf(join(dataDir, 'entretien.sqlite')) + sizeOf(join(dataDir, 'entretien.sqlite-wal'));
  const album = join(dataDir, ALBUM);
  const photos = existsSync(album)
    ? readdirSync(album)
        .filter((name) => !existsSync(join(folder, ALBUM, name)))
        .reduce((sum, name) => sum + sizeOf(join(album, name)), 0)
    : 0;
  const [needed, free] = [2.5 * database + photos, freeBytesAt(folder)];
  if (free < needed)
    throw new BackupProblem(
      `There is no room for a backup in ${folder}: it takes ${megabytes(needed)}, and ${megabytes(free)} are free.`,
    );
}

function megabytes(bytes: number): string {
  return `${Math.ceil(bytes / 1_000_000)} MB`;
}
