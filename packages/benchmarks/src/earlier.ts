import { spawnSync } from 'node:child_process';
import { existsSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { pathToFileURL } from 'node:url';
import type * as hours from '@entretien/core/hours';
import type { seed } from './seed.js';
import type { BenchServer } from './servers.js';

/** A release of before as `npm run earlier-release` builds it, measured beside this one. */
export interface Earlier {
  readonly version: string;
  readonly seed: typeof seed;
  readonly start: (dataDir: string, now: number) => Promise<BenchServer>;
}

/** Runs a bench of an earlier release, so that its figures stand beside ours, measured by its own code in the same run. */
export function runEarlier(version: string, bench: string): void {
  const main = join(builtOf(version), 'main.js');
  if (!existsSync(main)) return describeMissing(version);
  console.log(`  beside it, release ${version}:`);
  spawnSync(process.execPath, ['--expose-gc', main, bench], { stdio: 'inherit' });
}

const builtOf = (version: string, part = 'benchmarks') =>
  join(tmpdir(), `entretien-earlier-${version}`, 'packages', part, 'dist');

function describeMissing(version: string): void {
  console.log(`Release ${version} is not built beside this one: npm run earlier-release -- ${version}\n`);
}

export type HoursOfEarlier = typeof hours;

/** The hours of an earlier release's core, to forecast the same machines by; null where nobody has built it. */
export async function earlierHours(version: string): Promise<HoursOfEarlier | null> {
  const file = join(builtOf(version, 'core'), 'hours/index.js');
  if (existsSync(file)) return import(pathToFileURL(file).href) as Promise<HoursOfEarlier>;
  describeMissing(version);
  return null;
}

/** Null where nobody has built it; then there is nothing to compare with, and that is said. */
export async function earlierRelease(version: string): Promise<Earlier | null> {
  const built = builtOf(version);
  if (!existsSync(join(built, 'serve.js'))) {
    describeMissing(version);
    return null;
  }
  const load = <Module>(file: string) => import(pathToFileURL(join(built, file)).href) as Promise<Module>;
  const { seed: seedEarlier } = await load<{ seed: typeof seed }>('seed.js');
  const { BenchServer: Server } = await load<{ BenchServer: typeof BenchServer }>('servers.js');
  return { version, seed: seedEarlier, start: (dataDir, now) => Server.start('app', dataDir, now) };
}
