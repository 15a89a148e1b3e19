import { existsSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { pathToFileURL } from 'node:url';
import type { seed } from './seed.js';
import type { BenchServer } from './servers.js';

/** A release of before as `npm run earlier-release` builds it, measured beside this one. */
export interface Earlier {
  readonly version: string;
  readonly seed: typeof seed;
  readonly start: (dataDir: string, now: number) => Promise<BenchServer>;
}

/** Null where nobody has built it; then there is nothing to compare with, and that is said. */
export async function earlierRelease(version: string): Promise<Earlier | null> {
  const built = join(tmpdir(), `entretien-earlier-${version}`, 'packages/benchmarks/dist');
  if (!existsSync(join(built, 'serve.js'))) {
    console.log(`Release ${version} is not built beside this one: npm run earlier-release -- ${version}\n`);
    return null;
  }
  const load = <Module>(file: string) => import(pathToFileURL(join(built, file)).href) as Promise<Module>;
  const { seed: seedEarlier } = await load<{ seed: typeof seed }>('seed.js');
  const { BenchServer: Server } = await load<{ BenchServer: typeof BenchServer }>('servers.js');
  return { version, seed: seedEarlier, start: (dataDir, now) => Server.start('app', dataDir, now) };
}
