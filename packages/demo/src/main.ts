import { existsSync, mkdirSync, renameSync, rmSync } from 'node:fs';
import { join, resolve } from 'node:path';
import { parseArgs } from 'node:util';

/**
 * Makes the demonstration data in a folder, unless they are there already: `main.js folder --anew` makes them
 * anew, `--at 2026-11-24T09:00:00Z` as they are at another moment than now.
 */
const { values, positionals } = parseArgs({
  options: { anew: { type: 'boolean' }, at: { type: 'string' } },
  allowPositionals: true,
});
const target = resolve(positionals[0] ?? './data-demo');

if (values.anew || !existsSync(join(target, 'entretien.sqlite'))) {
  // Made beside its place and moved there when whole, so that an interruption leaves nothing half told.
  const beside = `${target}.making`;
  rmSync(beside, { recursive: true, force: true });
  mkdirSync(beside, { recursive: true });
  // Fetched only now: with the data there, nothing of this is needed to start.
  const { FolderLock, generateDemo, systemClock } = await import('./generate.js');
  const at = values.at === undefined ? systemClock() : Date.parse(values.at);
  if (Number.isNaN(at))
    throw new Error(`--at ${values.at} is no moment; write it like 2026-11-24T09:00:00Z.`);
  const summary = await generateDemo(beside, at);
  // Nothing is taken from under a server that runs on it.
  const lock = existsSync(target) ? FolderLock.take(target) : null;
  rmSync(target, { recursive: true, force: true });
  lock?.release();
  renameSync(beside, target);
  const { sites, units, readings, services, measurements } = summary;
  console.log(
    `Haldris valley: ${sites} sites, ${units} units, ${readings} readings, ${services} services, ${measurements} measurements.`,
  );
}
