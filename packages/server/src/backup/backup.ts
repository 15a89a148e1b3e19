import { createHash } from 'node:crypto';
import {
  cpSync,
  createReadStream,
  existsSync,
  mkdirSync,
  mkdtempSync,
  readdirSync,
  readFileSync,
  renameSync,
  rmSync,
  statSync,
  writeFileSync,
} from 'node:fs';
import { dirname, join, resolve } from 'node:path';
import { pipeline } from 'node:stream/promises';
import Sqlite from 'better-sqlite3';
import { create, extract } from 'tar';

const DATABASE = 'entretien.sqlite';
const PHOTOS = 'photos';
const MANIFEST = 'manifest.json';

interface FileMark {
  readonly name: string;
  readonly bytes: number;
  readonly sha256: string;
}

/** What a backup says of itself, and is checked against. */
export interface Manifest {
  readonly format: 1;
  readonly madeAt: string;
  readonly database: FileMark;
  readonly photos: readonly FileMark[];
}

/** Something about a backup is not as it must be; the sentence is for whoever runs it. */
export class BackupProblem extends Error {}

/**
 * Copies the database while it is in use, and the photos it names, into one archive.
 *
 * @returns what the archive holds
 */
export async function makeBackup(dataDir: string, file: string, madeAt: Date): Promise<Manifest> {
  const source = join(dataDir, DATABASE);
  if (!existsSync(source)) throw new BackupProblem(`There is no database in ${dataDir}.`);
  mkdirSync(dirname(resolve(file)), { recursive: true });
  const work = mkdtempSync(`${resolve(file)}.`);
  try {
    const live = new Sqlite(source, { readonly: true });
    try {
      await live.backup(join(work, DATABASE));
    } finally {
      live.close();
    }
    // A photo lies there before the database names it: whatever the copy names is there by now.
    const names = photosOf(join(work, DATABASE)).map(({ id }) => `${id}.jpg`);
    mkdirSync(join(work, PHOTOS));
    for (const name of names) {
      const photo = join(dataDir, PHOTOS, name);
      if (!existsSync(photo)) throw new BackupProblem(`The photo ${name} is missing in ${dataDir}.`);
      cpSync(photo, join(work, PHOTOS, name));
    }
    const manifest: Manifest = {
      format: 1,
      madeAt: madeAt.toISOString(),
      database: await markOf(work, DATABASE),
      photos: await Promise.all(names.map((name) => markOf(join(work, PHOTOS), name))),
    };
    writeFileSync(join(work, MANIFEST), JSON.stringify(manifest, null, 2));
    const half = `${resolve(file)}.part`;
    await create({ cwd: work, file: half, gzip: true, portable: true }, [MANIFEST, DATABASE, PHOTOS]);
    renameSync(half, resolve(file));
    return manifest;
  } finally {
    rmSync(work, { recursive: true, force: true });
  }
}

/**
 * Puts a backup in the place of a data folder, checked first: every file by its sum, the database by its own
 * check, every photo that it names. What was there before is kept beside it.
 *
 * @returns where what was there before lies now; null where nothing was
 */
export async function restoreBackup(file: string, dataDir: string, now: Date): Promise<string | null> {
  if (!existsSync(file)) throw new BackupProblem(`There is no file ${file}.`);
  const target = resolve(dataDir);
  mkdirSync(dirname(target), { recursive: true });
  const work = mkdtempSync(`${target}.restoring-`);
  try {
    try {
      await extract({ cwd: work, file, strict: true, preservePaths: false });
    } catch (error) {
      throw new BackupProblem(`${file} cannot be read as a backup: ${(error as Error).message}`);
    }
    await check(work);
    rmSync(join(work, MANIFEST));
    const before =
      existsSync(target) && readdirSync(target).length > 0 ? `${target}.before-${stamp(now)}` : null;
    if (before !== null) renameSync(target, before);
    else rmSync(target, { recursive: true, force: true });
    renameSync(work, target);
    return before;
  } catch (problem) {
    rmSync(work, { recursive: true, force: true });
    throw problem;
  }
}

async function check(folder: string): Promise<void> {
  const manifest = readManifest(folder);
  const marks = [
    { ...manifest.database, folder },
    ...manifest.photos.map((photo) => ({ ...photo, folder: join(folder, PHOTOS) })),
  ];
  for (const { folder: where, name, bytes, sha256 } of marks) {
    if (!existsSync(join(where, name))) throw new BackupProblem(`${name} is missing in the backup.`);
    const found = await markOf(where, name);
    if (found.bytes !== bytes || found.sha256 !== sha256) {
      throw new BackupProblem(`${name} is not as it was when the backup was made.`);
    }
  }
  const database = new Sqlite(join(folder, DATABASE), { readonly: true });
  try {
    const answer = database.pragma('integrity_check', { simple: true });
    if (answer !== 'ok') throw new BackupProblem(`The database in the backup is damaged: ${String(answer)}`);
  } finally {
    database.close();
  }
  const there = new Set(manifest.photos.map(({ name }) => name));
  const missing = photosOf(join(folder, DATABASE)).find(({ id }) => !there.has(`${id}.jpg`));
  if (missing) throw new BackupProblem(`The photo ${missing.id}.jpg is missing in the backup.`);
}

function readManifest(folder: string): Manifest {
  try {
    const manifest = JSON.parse(readFileSync(join(folder, MANIFEST), 'utf8')) as Manifest;
    const isManifest =
      manifest.format === 1 && manifest.database.name === DATABASE && Array.isArray(manifest.photos);
    // A name from a file never leads out of its folder.
    if (isManifest && manifest.photos.every(({ name }) => /^[0-9a-f-]{36}\.jpg$/.test(name))) return manifest;
  } catch {
    // Falls through to the problem below.
  }
  throw new BackupProblem('This is no backup of ours: its list of contents is missing or of another kind.');
}

function photosOf(file: string): { id: string }[] {
  const database = new Sqlite(file, { readonly: true });
  try {
    const [table] = database.prepare(`SELECT 1 FROM "sqlite_master" WHERE "name" = 'photo'`).all();
    return table
      ? (database.prepare('SELECT "id" FROM "photo" ORDER BY "id"').all() as { id: string }[])
      : [];
  } finally {
    database.close();
  }
}

async function markOf(folder: string, name: string): Promise<FileMark> {
  const hash = createHash('sha256');
  await pipeline(createReadStream(join(folder, name)), hash);
  return { name, bytes: statSync(join(folder, name)).size, sha256: hash.digest('hex') };
}

function stamp(now: Date): string {
  return now.toISOString().slice(0, 19).replace(/[:T]/g, '-');
}
