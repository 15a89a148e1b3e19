import { existsSync, readFileSync } from 'node:fs';

/**
 * What tells this build of the server from every other: written beside the bundle. From single modules, as in
 * development, there is none; then nothing is taken over from what an earlier start has worked out.
 */
export function buildId(): string | null {
  const file = new URL('./build-id', import.meta.url);
  return existsSync(file) ? readFileSync(file, 'utf8') : null;
}
