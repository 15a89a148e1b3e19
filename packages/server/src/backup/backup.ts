import { createHash } from 'node:crypto';
import {
  chmodSync,
  closeSync,
  cpSync,
  createReadStream,
  existsSync,
  fsyncSync,
  mkdirSync,
  mkdtempSync,
  openSync,
  readdirSync,
  readFileSync,
  renameSync,
  rmSync,
  statSync,
  writeFileSync,
} from 'node:fs';
import { dirname, join, resolve } from 'node:path';
import { pipeline } from 'node:stream/promises';
import { paperTypes } from '@entretien/core/machine';
import Sqlite from 'better-sqlite3';
import { create, extract } from 'tar';
import { ALBUM } from '../common/file-album.js';
import { VERSION } from '../common/version.js';
import { FolderLock } from '../persistence/folder-lock.js';
import { DatabaseProblem, refuseStrangeDatabase } from '../persistence/our-database.js';

const DATABASE = 'entretien.sqlite';
const MANIFEST = 'manifest.json';
const LOCK = 'entretien.lock';
/** Photos, and papers by what they are. */
const FILE_NAME = new RegExp(`^[0-9a-f-]{36}\\.(jpg|${Object.keys(paperTypes).join('|')})$`);

interface FileMark {
  readonly name: string;
  readonly bytes: number;
  readonly sha256: string;
}

/** What a backup says of itself, and is checked against. */
export interface Manifest {
  readonly format: 1;
  readonly madeAt: string;
  /** The release that made it; not said by those before 0.5.0. */
  readonly version?: string;
  readonly database: FileMark;
  readonly photos: readonly FileMark[];
  /** Photos that the database names and that were missing or damaged when the backup was made. */
  readonly missing?: readonly string[];
  /** Whether the photos lie in a folder beside the archive, shared by all that lie there. */
  readonly photosBeside?: true;
}

/** Where a backup has its photos. They never change: many backups in one folder can share one copy of each. */
export interface BackupOptions {
  readonly photos?: 'inside' | 'beside';
}

/** Something about a backup is not as it must be; the sentence is for whoever runs it. */
export class BackupProblem extends Error {}

/**
 * Copies the database while it is in use, and the photos it names, into one archive; or the photos beside it.
 *
 * @returns what the archive holds
 */
export async function makeBackup(
  dataDir: string,
  file: string,
  madeAt: Date,
  { photos = 'inside' }: BackupOptions = {},
): Promise<Manifest> {
  const isBeside = photos === 'beside';
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
    const names = filesNamedIn(join(work, DATABASE));
    const album = isBeside ? besideOf(file) : join(work, ALBUM);
    mkdirSync(album, { recursive: true });
    const missing: string[] = [];
    for (const name of names) {
      const photo = join(dataDir, ALBUM, name);
      // One that is missing must not end the backup of all the others: it is named.
      if (existsSync(photo)) putBy(photo, join(album, name));
      else if (!isBeside || !existsSync(join(album, name))) missing.push(name);
    }
    const there = names.filter((name) => !missing.includes(name));
    const manifest: Manifest = {
      format: 1,
      madeAt: madeAt.toISOString(),
      version: VERSION,
      database: await markOf(work, DATABASE),
      photos: await marksOf(album, there),
      ...(missing.length === 0 ? {} : { missing }),
      ...(isBeside ? { photosBeside: true } : {}),
    };
    writeFileSync(join(work, MANIFEST), JSON.stringify(manifest, null, 2));
    const half = `${resolve(file)}.part`;
    await create({ cwd: work, file: half, gzip: true, portable: true }, [
      MANIFEST,
      DATABASE,
      ...(isBeside ? [] : [ALBUM]),
    ]);
    chmodSync(half, 0o600);
    sync(half);
    renameSync(half, resolve(file));
    sync(dirname(resolve(file)));
    return manifest;
  } finally {
    rmSync(work, { recursive: true, force: true });
  }
}

function besideOf(file: string): string {
  return join(dirname(resolve(file)), ALBUM);
}

/** Copies a picture to its place, whole or not at all; one that lies there already stays. */
function putBy(photo: string, place: string): void {
  if (existsSync(place) && statSync(place).size === statSync(photo).size) return;
  cpSync(photo, `${place}.part`);
  sync(`${place}.part`);
  renameSync(`${place}.part`, place);
}

/** Unpacks a backup beside itself and looks at all of it, as a restore would; throws a sentence where it is not whole. */
export async function verifyBackup(file: string): Promise<Manifest> {
  const work = mkdtempSync(`${resolve(file)}.`);
  try {
    await unpack(file, work);
    const manifest = readManifest(work);
    await check(work, manifest.photosBeside ? besideOf(file) : join(work, ALBUM));
    return manifest;
  } finally {
    rmSync(work, { recursive: true, force: true });
  }
}

async function unpack(file: string, into: string): Promise<void> {
  try {
    await extract({ cwd: into, file, strict: true, preservePaths: false });
  } catch (error) {
    throw new BackupProblem(`${file} cannot be read as a backup: ${(error as Error).message}`);
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
  let lock: FolderLock | undefined;
  try {
    await unpack(file, work);
    const { photosBeside, photos } = readManifest(work);
    if (photosBeside) fetchBeside(besideOf(file), join(work, ALBUM), photos);
    await check(work, join(work, ALBUM));
    keepNamed(work, readManifest(work));
    endSessions(work, now);
    if (existsSync(target)) lock = takeLock(target);
    const before =
      existsSync(target) && readdirSync(target).some((name) => !name.startsWith(LOCK))
        ? `${target}.before-${stamp(now)}`
        : null;
    if (before !== null) renameSync(target, before);
    else rmSync(target, { recursive: true, force: true });
    renameSync(work, target);
    sync(dirname(target));
    return before;
  } catch (problem) {
    rmSync(work, { recursive: true, force: true });
    throw problem;
  } finally {
    lock?.release();
  }
}

/** Brings the photos that lie beside a backup; what is missing there is found by the check that follows. */
function fetchBeside(album: string, into: string, photos: readonly FileMark[]): void {
  mkdirSync(into, { recursive: true });
  for (const { name } of photos)
    if (existsSync(join(album, name))) cpSync(join(album, name), join(into, name));
}

/** Whoever was signed in then is not signed in now: what was ended since would have come back. */
function endSessions(folder: string, now: Date): void {
  const database = new Sqlite(join(folder, 'entretien.sqlite'));
  try {
    const has = (table: string) =>
      database.prepare(`SELECT 1 FROM "sqlite_master" WHERE "type" = 'table' AND "name" = ?`).get(table) !==
      undefined;
    if (has('session')) database.exec('DELETE FROM "session"');
    if (has('audit'))
      database
        .prepare('INSERT INTO "audit" ("at", "by_name", "what", "about") VALUES (?, ?, ?, ?)')
        .run(now.getTime(), 'whoever runs the server', 'restored', 'everybody is signed out');
  } finally {
    database.close();
  }
}

/** A restore under a running server would lose what that acknowledges afterwards. */
export function takeLock(dataDir: string): FolderLock {
  try {
    return FolderLock.take(dataDir);
  } catch (error) {
    if (error instanceof DatabaseProblem) throw new BackupProblem(error.message);
    throw error;
  }
}

async function check(folder: string, album: string): Promise<void> {
  const manifest = readManifest(folder);
  const marks = [
    { ...manifest.database, folder },
    ...manifest.photos.map((photo) => ({ ...photo, folder: album })),
  ];
  for (const { folder: where, name, bytes, sha256 } of marks) {
    if (!existsSync(join(where, name))) throw new BackupProblem(`${name} is missing in the backup.`);
    const found = await markOf(where, name);
    if (found.bytes !== bytes || found.sha256 !== sha256) {
      throw new BackupProblem(`${name} is not as it was when the backup was made.`);
    }
  }
  // What was not named must not be read with it either.
  for (const log of ['-wal', '-shm', '-journal']) rmSync(join(folder, DATABASE + log), { force: true });
  const database = new Sqlite(join(folder, DATABASE), { readonly: true });
  try {
    const answer = database.pragma('integrity_check', { simple: true });
    if (answer !== 'ok') throw new BackupProblem(`The database in the backup is damaged: ${String(answer)}`);
  } finally {
    database.close();
  }
  refuseStrange(join(folder, DATABASE));
  const there = new Set([...manifest.photos.map(({ name }) => name), ...(manifest.missing ?? [])]);
  const missing = filesNamedIn(join(folder, DATABASE)).find((name) => !there.has(name));
  if (missing !== undefined)
    throw new BackupProblem(
      `The ${missing.endsWith('.jpg') ? 'photo' : 'paper'} ${missing} is missing in the backup.`,
    );
}

/** Leaves nothing but what the list of contents names: a log beside the database would change it when it is opened. */
function keepNamed(folder: string, { photos }: Manifest): void {
  for (const name of readdirSync(folder)) {
    if (name !== DATABASE && name !== ALBUM) rmSync(join(folder, name), { recursive: true, force: true });
  }
  const named = new Set(photos.map(({ name }) => name));
  mkdirSync(join(folder, ALBUM), { recursive: true });
  for (const name of readdirSync(join(folder, ALBUM))) {
    if (!named.has(name)) rmSync(join(folder, ALBUM, name), { recursive: true, force: true });
    else sync(join(folder, ALBUM, name));
  }
  for (const path of [join(folder, DATABASE), join(folder, ALBUM), folder]) sync(path);
}

/** What was written is on the disk, and not on its way there. */
function sync(path: string): void {
  const handle = openSync(path, 'r');
  fsyncSync(handle);
  closeSync(handle);
}

function refuseStrange(file: string): void {
  try {
    refuseStrangeDatabase(file);
  } catch (error) {
    if (error instanceof DatabaseProblem) throw new BackupProblem(`In the backup: ${error.message}`);
    throw error;
  }
}

function readManifest(folder: string): Manifest {
  try {
    const manifest = JSON.parse(readFileSync(join(folder, MANIFEST), 'utf8')) as Manifest;
    const isManifest =
      manifest.format === 1 && manifest.database.name === DATABASE && Array.isArray(manifest.photos);
    // A name from a file never leads out of its folder.
    const names = [...manifest.photos.map(({ name }) => name), ...(manifest.missing ?? [])];
    if (isManifest && names.every((name) => FILE_NAME.test(name))) return manifest;
  } catch {
    // Falls through to the problem below.
  }
  throw new BackupProblem('This is no backup of ours: its list of contents is missing or of another kind.');
}

/** The names of the photos and papers that a database knows. */
function filesNamedIn(file: string): readonly string[] {
  const database = new Sqlite(file, { readonly: true });
  try {
    const has = (table: string) =>
      database.prepare('SELECT 1 FROM "sqlite_master" WHERE "name" = ?').all(table).length > 0;
    const names = (sql: string) =>
      (database.prepare(sql).all() as { name: string }[]).map(({ name }) => name);
    return [
      ...(has('photo') ? names(`SELECT "id" || '.jpg' AS "name" FROM "photo" ORDER BY "id"`) : []),
      ...(has('paper') ? names(`SELECT "id" || '.' || "type" AS "name" FROM "paper" ORDER BY "id"`) : []),
    ];
  } finally {
    database.close();
  }
}

/** One after the other: thousands of files open at once are more than a machine allows. */
async function marksOf(folder: string, names: readonly string[]): Promise<FileMark[]> {
  const marks: FileMark[] = [];
  for (const name of names) marks.push(await markOf(folder, name));
  return marks;
}

async function markOf(folder: string, name: string): Promise<FileMark> {
  const hash = createHash('sha256');
  await pipeline(createReadStream(join(folder, name)), hash);
  return { name, bytes: statSync(join(folder, name)).size, sha256: hash.digest('hex') };
}

function stamp(now: Date): string {
  return now.toISOString().slice(0, 19).replace(/[:T]/g, '-');
}
