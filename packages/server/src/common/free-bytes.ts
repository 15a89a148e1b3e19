import { statfsSync } from 'node:fs';

/** Room left on the disk of a folder for whoever is not root. */
export function freeBytesAt(folder: string): number {
  const { bavail, bsize } = statfsSync(folder);
  return bavail * bsize;
}
