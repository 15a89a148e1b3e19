import { ProblemError } from '../common/problem.js';
import type { Database } from './database.js';

/** Refuses what is more than photos and papers may take together. */
export function refuseFullAlbum(database: Database, most: number, bytes: number): void {
  if (most === Infinity) return;
  const [{ sum } = { sum: 0 }] = database.all<{ sum: number }>(
    'SELECT (SELECT coalesce(sum("bytes"), 0) FROM "photo") + (SELECT coalesce(sum("bytes"), 0) FROM "paper") AS "sum"',
  );
  if (sum + bytes <= most) return;
  throw new ProblemError(
    507,
    'photos-full',
    'It could not be written.',
    'All photos and papers together take as much as this server allows (ENTRETIEN_PHOTOS_GB). Ask whoever runs it for more room.',
  );
}
