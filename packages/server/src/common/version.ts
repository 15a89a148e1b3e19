import { existsSync, readFileSync } from 'node:fs';
import { dirname, join } from 'node:path';

/** The release that runs, as the project's own list of packages has it; above wherever this module lies. */
function read(): string {
  for (let folder = import.meta.dirname; folder !== dirname(folder); folder = dirname(folder)) {
    const file = join(folder, 'package.json');
    if (!existsSync(file)) continue;
    const { name, version } = JSON.parse(readFileSync(file, 'utf8')) as { name: string; version: string };
    if (name === 'entretien') return version;
  }
  return 'unknown';
}

export const VERSION = read();
