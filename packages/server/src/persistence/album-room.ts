import { ProblemError } from '../common/problem.js';
import type { Database } from './database.js';

/** What photos and papers take together: they share what the server allows. */
export function bytesInAlbum(database: Database): number {
  const [{ sum } = { sum: 0 }] = database.all<{ sum: number }>(
    'SELECT (SELECT coalesce(sum("bytes"), 0) FROM "photo") + (SELECT coalesce(sum("bytes"), 0) FROM "paper") AS "sum"',
  );
  return sum;
}

export function albumFull(): ProblemError {
  return new ProblemError(
    507,
    'photos-full',
    'It could not be written.',
    'All photos and papers together take as much as this server allows (ENTRETIEN_PHOTOS_GB). Ask whoever runs it for more room.',
  );
}
