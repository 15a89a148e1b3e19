import { existsSync, mkdirSync, renameSync, rmSync } from 'node:fs';
import { join, resolve } from 'node:path';

/** Makes the demonstration data in a folder, unless they are there already. */
const target = resolve(process.argv[2] ?? './data-demo');
const anew = process.argv.includes('--anew');

if (anew || !existsSync(join(target, 'entretien.sqlite'))) {
  // Made beside its place and moved there when whole, so that an interruption leaves nothing half told.
  const beside = `${target}.making`;
  rmSync(beside, { recursive: true, force: true });
  mkdirSync(beside, { recursive: true });
  // Fetched only now: with the data there, nothing of this is needed to start.
  const { generateDemo } = await import('./generate.js');
  const summary = await generateDemo(beside, Date.now());
  rmSync(target, { recursive: true, force: true });
  renameSync(beside, target);
  const { sites, units, readings, services, measurements } = summary;
  console.log(
    `Haldris valley: ${sites} sites, ${units} units, ${readings} readings, ${services} services, ${measurements} measurements.`,
  );
}
