import { closeSync, existsSync, openSync } from 'node:fs';
import { join } from 'node:path';
import Sqlite from 'better-sqlite3';
import { DatabaseProblem } from './our-database.js';

function opened(file: string): Sqlite.Database {
  try {
    // Only where there is none: closing a file lets go of every lock that this process holds on it.
    if (!existsSync(file)) closeSync(openSync(file, 'a', 0o600));
    return new Sqlite(file, { timeout: 0 });
  } catch (error) {
    if (
      !/^(SQLITE_(CANTOPEN|READONLY)|EACCES|EROFS|EPERM|ENOSPC)/.test(
        String((error as { code?: string }).code),
      )
    )
      throw error;
    throw new DatabaseProblem(`${file} cannot be written: look at the rights of its folder, and its disk.`);
  }
}

/**
 * Says that a data folder is in use: two servers on one would answer differently, and a restore under a running
 * one would lose what it acknowledges afterwards. The lock is the operating system's, on a file beside the
 * database, and so gone with the process that held it, however that ended.
 */
export class FolderLock {
  private constructor(private readonly holder: Sqlite.Database) {}

  /** Takes the lock, or throws a sentence for whoever started the second. */
  static take(dataDir: string): FolderLock {
    const holder = opened(join(dataDir, 'entretien.lock'));
    try {
      holder.exec('BEGIN EXCLUSIVE');
      return new FolderLock(holder);
    } catch (error) {
      holder.close();
      if ((error as { code?: string }).code !== 'SQLITE_BUSY') throw error;
      throw new DatabaseProblem(`${dataDir} is in use by another Entretien. Stop that one first.`);
    }
  }

  release(): void {
    if (this.holder.open) this.holder.close();
  }
}
