import { createHash, randomUUID } from 'node:crypto';
import {
  closeSync,
  existsSync,
  fsyncSync,
  mkdirSync,
  openSync,
  readdirSync,
  readFileSync,
  renameSync,
  rmSync,
  writeSync,
} from 'node:fs';
import { join } from 'node:path';

/** The folder beside the database in which photos and papers lie; backups take along what the database names. */
export const ALBUM = 'photos';

/** Files beside the database, each whole or not at all, under names of our own. */
export class FileAlbum {
  private readonly folder: string;

  constructor(dataDir: string) {
    this.folder = join(dataDir, ALBUM);
  }

  /** What a start finds half written was never acknowledged. */
  sweep(): void {
    if (!existsSync(this.folder)) return;
    const halves = readdirSync(this.folder).filter((name) => name.endsWith('.part'));
    for (const half of halves) rmSync(join(this.folder, half), { force: true });
  }

  /** A file as it was stored; null where it is missing or is not what was stored. */
  read(name: string, { bytes, stored }: { readonly bytes: number; readonly stored: string }): Buffer | null {
    const file = join(this.folder, name);
    if (!existsSync(file)) return null;
    const content = readFileSync(file);
    return content.length === bytes && sha256(content) === stored ? content : null;
  }

  /**
   * Writes a file beside its place, whole, and has it moved in: a nearly full disk takes less at a time than it is
   * given, and says so only to whoever looks.
   *
   * @param decide whether it belongs there after all; moves it in
   */
  write<Result>(name: string, data: Buffer, decide: (moveIn: () => void) => Result): Result {
    const aside = this.writeAside(name, data);
    try {
      return decide(() => this.moveIn(aside, name));
    } finally {
      rmSync(aside, { force: true });
    }
  }

  private writeAside(name: string, data: Buffer): string {
    mkdirSync(this.folder, { recursive: true });
    const aside = join(this.folder, `${name}.${randomUUID()}.part`);
    const handle = openSync(aside, 'wx', 0o600);
    try {
      for (let written = 0; written < data.length;) {
        const taken = writeSync(handle, data, written, data.length - written);
        if (taken === 0) throw new Error('the disk takes no more');
        written += taken;
      }
      fsyncSync(handle);
      if (sha256(readFileSync(aside)) !== sha256(data))
        throw new Error('what was written is not what was sent');
      return aside;
    } catch (error) {
      rmSync(aside, { force: true });
      throw error;
    } finally {
      closeSync(handle);
    }
  }

  private moveIn(aside: string, name: string): void {
    renameSync(aside, join(this.folder, name));
    const folder = openSync(this.folder, 'r');
    fsyncSync(folder);
    closeSync(folder);
  }
}

export function sha256(data: Buffer): string {
  return createHash('sha256').update(data).digest('hex');
}
