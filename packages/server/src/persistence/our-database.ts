import { existsSync, statSync } from 'node:fs';
import Sqlite from 'better-sqlite3';
import { migrationsOf } from './stored-kinds.js';

/** “Entr”: what kind of file it is, written where SQLite keeps room for it. */
export const APPLICATION_ID = 0x456e7472;

/** A sentence for whoever starts or restores with a database that is not to be opened. */
export class DatabaseProblem extends Error {}

/** Refuses a file that is no database, another program's, or a later release's; an empty one is ours to begin. */
export function refuseStrangeDatabase(
  file: string,
  ours: readonly { readonly name: string }[] = migrationsOf(),
): void {
  if (!existsSync(file) || statSync(file).size === 0) return;
  const applied = appliedMigrations(file);
  if (applied === null) {
    throw new DatabaseProblem(`${file} is a database of another program. Name another folder.`);
  }
  const known = new Set<string>(ours.map((migration) => migration.name));
  if (applied.some((name) => !known.has(name))) {
    throw new DatabaseProblem(
      `${file} was written by a later release of Entretien. Start that release; this one would not understand what it holds.`,
    );
  }
}

/** The names of what has been done to the tables; null where it is not ours. */
function appliedMigrations(file: string): string[] | null {
  let database: Sqlite.Database | undefined;
  try {
    database = new Sqlite(file, { readonly: true });
    const id = database.pragma('application_id', { simple: true });
    // Earlier releases left it empty.
    if (id !== 0 && id !== APPLICATION_ID) return null;
    const rows = database.prepare('SELECT "name" FROM "migrations"').all() as { name: string }[];
    return rows.map(({ name }) => name);
  } catch (error) {
    if ((error as { code?: string }).code === 'SQLITE_NOTADB') {
      throw new DatabaseProblem(`${file} is no database, or is damaged. Put a backup back: npm run restore.`);
    }
    return null;
  } finally {
    database?.close();
  }
}
