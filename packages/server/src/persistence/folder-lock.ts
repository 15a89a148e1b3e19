import { join } from 'node:path';
import Sqlite from 'better-sqlite3';
import { DatabaseProblem } from './our-database.js';

/**
 * Says that a data folder is in use: two servers on one would answer differently, and a restore under a running
 * one would lose what it acknowledges afterwards. The lock is the operating system's, on a file beside the
 * database, and so gone with the process that held it, however that ended.
 */
export class FolderLock {
  private constructor(private readonly holder: Sqlite.Database) {}

  /** Takes the lock, or throws a sentence for whoever started the second. */
  static take(dataDir: string): FolderLock {
    const holder = new Sqlite(join(dataDir, 'entretien.lock'), { timeout: 0 });
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
