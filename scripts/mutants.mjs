import { spawn } from 'node:child_process';
import { createHash } from 'node:crypto';
import {
  cpSync,
  existsSync,
  mkdirSync,
  mkdtempSync,
  readdirSync,
  readFileSync,
  rmSync,
  symlinkSync,
  writeFileSync,
} from 'node:fs';
import { availableParallelism, tmpdir } from 'node:os';
import { dirname, join, relative } from 'node:path';
import { createInstrumenter } from './mutants/instrumenter.mjs';
import { faults } from './mutants/faults.mjs';
import { survivors } from './mutants/survivors.mjs';
import { ensureInstalled, root } from './lib.mjs';

/*
 * Whether the tests of the core would notice: faults that are written down, and a sample of those that a program
 * makes, put in one at a time; the tests that come by the place run until one fails. At least 85 of 100 must be
 * noticed, and each that is not must be named with a word why (`mutants/survivors.mjs`).
 *
 * `npm run mutants [-- --only faults|drawn] [--file visit/progress.ts] [--again what-was-said.log] [--sample 400] [--seed 1]`
 */
ensureInstalled();

const AREAS = ['visit', 'plan', 'checks', 'hours'];
const LEAST_NOTICED = 0.85;
/** A fault that makes tests go round for ever is noticed, too; all of them together may take their time. */
const [LONGEST_MS, LONGEST_OF_ALL_MS] = [120_000, 900_000];

const args = new Map(
  process.argv
    .slice(2)
    .flatMap((one, index, all) => (one.startsWith('--') ? [[one.slice(2), all[index + 1]]] : [])),
);
const sampled = Number(args.get('sample') ?? 400);
const seed = args.get('seed') ?? '1';
const began = performance.now();
const work = mkdtempSync(join(existsSync('/dev/shm') ? '/dev/shm' : tmpdir(), 'entretien-mutants-'));
process.on('exit', () => rmSync(work, { recursive: true, force: true }));

const source = join(root, 'packages/core/src');
const filesOf = (folder) =>
  readdirSync(folder, { withFileTypes: true }).flatMap((entry) =>
    entry.isDirectory() ? filesOf(join(folder, entry.name)) : [join(folder, entry.name)],
  );
const mutated = AREAS.flatMap((area) => filesOf(join(source, area)))
  .filter((file) => file.endsWith('.ts') && !/\.(test|data)\.ts$/.test(file) && !file.endsWith('fixtures.ts'))
  .map((file) => relative(source, file));

/** A copy of the core with its tests, in which faults are put. */
function copyOf(name) {
  const folder = join(work, name);
  mkdirSync(join(folder, 'packages'), { recursive: true });
  cpSync(source, join(folder, 'packages/core/src'), { recursive: true });
  writeFileSync(join(folder, 'package.json'), '{"type":"module"}');
  symlinkSync(join(root, 'node_modules'), join(folder, 'node_modules'));
  mkdirSync(join(folder, 'scripts'));
  for (const file of ['seeded-fast-check.mjs', 'mutants/coverage.mjs', 'mutants/in-order.cjs'])
    cpSync(join(root, 'scripts', file), join(folder, 'scripts', file));
  cpSync(join(root, 'scripts/mutants/jest.config.mjs'), join(folder, 'jest.config.mjs'));
  return folder;
}

function jest(folder, files, environment, longest = LONGEST_MS) {
  return new Promise((resolve) => {
    const report = join(folder, 'report.json');
    rmSync(report, { force: true });
    const child = spawn(
      process.execPath,
      [
        '--experimental-vm-modules',
        '--no-warnings',
        join(root, 'node_modules/jest/bin/jest.js'),
        '--config',
        join(folder, 'jest.config.mjs'),
        '--ci',
        '--runInBand',
        '--forceExit',
        '--json',
        `--outputFile=${report}`,
        ...(environment.BAIL === 'yes' ? ['--bail'] : []),
        '--runTestsByPath',
        ...files.map((file) => join(folder, 'packages/core/src', file)),
      ],
      { cwd: folder, env: { ...process.env, ...environment }, stdio: 'ignore' },
    );
    const end = setTimeout(() => child.kill('SIGKILL'), longest);
    child.on('exit', (code) => {
      clearTimeout(end);
      resolve({ noticed: code !== 0, report });
    });
  });
}

/** All of the core with switches in it: which fault is on is said by the environment. */
async function instrument(folder) {
  const instrumenter = await createInstrumenter();
  const files = mutated.map((name) => ({
    name,
    mutate: true,
    content: readFileSync(join(source, name), 'utf8'),
  }));
  const { files: written, mutants } = await instrumenter(files);
  for (const { name, content } of written) writeFileSync(join(folder, 'packages/core/src', name), content);
  return mutants;
}

const tests = filesOf(source)
  .filter((file) => file.endsWith('.test.ts'))
  .map((file) => relative(source, file))
  // Searches and calibrations that take minutes look at the whole, not at a place.
  .filter((file) => !/^proof\/|calibration/.test(file));

console.log('Which tests come by which place …');
const base = copyOf('switched');
const mutants = await instrument(base);
mkdirSync(join(base, 'coverage'));
const first = await jest(base, tests, { MUTANT_COVERAGE: join(base, 'coverage') }, LONGEST_OF_ALL_MS);
if (first.noticed) {
  console.error('The tests fail without a fault: that is to be mended first.');
  process.exit(1);
}
const durations = new Map(
  JSON.parse(readFileSync(first.report, 'utf8')).testResults.map(({ name, startTime, endTime }) => [
    relative(join(base, 'packages/core/src'), name),
    endTime - startTime,
  ]),
);
/** Tests by the number of the switch that they come by. */
const coming = new Map();
for (const file of readdirSync(join(base, 'coverage'))) {
  const { test, covered } = JSON.parse(readFileSync(join(base, 'coverage', file), 'utf8'));
  for (const id of covered)
    coming.set(id, [...(coming.get(id) ?? []), relative(join(base, 'packages/core/src'), test)]);
}
const inShort = (text) => text.replaceAll(/\s+/g, ' ').slice(0, 60);
const quickFirst = (found, area) =>
  [...new Set(found)].sort(
    (a, b) =>
      Number(b.startsWith(area)) - Number(a.startsWith(area)) ||
      (durations.get(a) ?? 0) - (durations.get(b) ?? 0),
  );

const linesOf = new Map(mutated.map((name) => [name, readFileSync(join(source, name), 'utf8').split('\n')]));

/** What stands at a place of a file. */
function textAt(fileName, { start, end }) {
  const lines = linesOf.get(fileName).slice(start.line, end.line + 1);
  lines[lines.length - 1] = lines.at(-1).slice(0, end.column);
  lines[0] = lines[0].slice(start.column);
  return lines.join('\n');
}

/** The program's faults, each named by what stands there and what would: a name outlives changes elsewhere. */
function named() {
  const times = new Map();
  return mutants.map(({ id, fileName, location, mutatorName, replacement }) => {
    const change = `${inShort(textAt(fileName, location))} → ${inShort(replacement)}`;
    const same = `${fileName} ${mutatorName}: ${change}`;
    times.set(same, (times.get(same) ?? 0) + 1);
    return { id, file: fileName, name: `${fileName} ${mutatorName} #${times.get(same)}: ${change}` };
  });
}

/** Faults of a program: so many of them, drawn by a seed. */
function drawn() {
  return named()
    .map((one) => ({ ...one, rank: createHash('sha256').update(`${seed} ${one.name}`).digest('hex') }))
    .sort((a, b) => (a.rank < b.rank ? -1 : 1))
    .slice(0, sampled)
    .map(({ id, name, file }) => ({
      name,
      file,
      tests: coming.get(id) ?? [],
      run: (folder, files) => jest(folder, files, { __STRYKER_ACTIVE_MUTANT__: id, BAIL: 'yes' }),
      in: 'switched',
    }));
}

/** Faults as they are written down; the tests are those that come by the lines which they change. */
function written() {
  return Object.entries(faults).flatMap(([file, list]) => {
    const text = readFileSync(join(source, file), 'utf8');
    return list.map(([stands, instead], index) => {
      if (text.split(stands).length !== 2) throw new Error(`${file}: “${stands}” must stand there once.`);
      const from = text.slice(0, text.indexOf(stands)).split('\n').length - 1;
      const until = from + stands.split('\n').length - 1;
      const near = mutants.filter(
        ({ fileName, location }) =>
          fileName === file && location.start.line <= until && location.end.line >= from,
      );
      const found = near.flatMap(({ id }) => coming.get(id) ?? []);
      const all = mutants
        .filter(({ fileName }) => fileName === file)
        .flatMap(({ id }) => coming.get(id) ?? []);
      return {
        name: `${file} #${index + 1} ${inShort(stands)} → ${inShort(instead)}`,
        file,
        tests: found.length > 0 ? found : all,
        run: async (folder, files) => {
          const path = join(folder, 'packages/core/src', file);
          writeFileSync(
            path,
            text.replace(stands, () => instead),
          );
          try {
            return await jest(folder, files, { BAIL: 'yes' });
          } finally {
            writeFileSync(path, text);
          }
        },
        in: 'plain',
      };
    });
  });
}

const only = args.get('only');
const again = args.has('again') ? readFileSync(args.get('again'), 'utf8') : null;
const wanted = [...(only === 'drawn' ? [] : written()), ...(only === 'faults' ? [] : drawn())].filter(
  ({ file, name }) =>
    (args.get('file') ?? file) === file && (again === null || again.includes(`  lives: ${name}\n`)),
);
const workers = Math.max(1, availableParallelism());
const folders = Array.from({ length: workers }, (_, index) => ({
  plain: copyOf(`plain-${index}`),
  switched: index === 0 ? base : copyOf(`switched-${index}`),
}));
for (const { switched } of folders.slice(1))
  for (const name of mutated)
    cpSync(join(base, 'packages/core/src', name), join(switched, 'packages/core/src', name));

console.log(`${wanted.length} faults of ${mutants.length + Object.values(faults).flat().length} …`);
const missed = [];
const minutes = () => ((performance.now() - began) / 60_000).toFixed(1);
let [next, done] = [0, 0];
await Promise.all(
  folders.map(async (folder) => {
    while (next < wanted.length) {
      const fault = wanted[next++];
      const files = quickFirst(fault.tests, dirname(fault.file).split('/')[0]);
      const noticed = files.length > 0 && (await fault.run(folder[fault.in], files)).noticed;
      if (!noticed) {
        missed.push({ ...fault, isSeen: files.length > 0 });
        console.log(`  lives: ${fault.name}`);
      }
      done += 1;
      if (done % 25 === 0) console.log(`${done}, ${missed.length} not noticed, ${minutes()} min`);
    }
  }),
);

// What the tests run on may have changed meanwhile: then everything would seem to be noticed.
if ((await jest(base, tests.slice(0, 5), {})).noticed) {
  console.error('The tests fail without a fault now: nothing of this counts.');
  process.exit(1);
}
const noticed = wanted.length - missed.length;
const share = noticed / wanted.length;
const known = new Map(survivors);
const unnamed = missed.filter(({ name }) => !known.has(name));
console.log(`\nNot noticed:`);
for (const { name, isSeen } of missed.sort((a, b) => (a.name < b.name ? -1 : 1)))
  console.log(`  ${name}${isSeen ? '' : ' (no test comes by)'}\n      ${known.get(name) ?? 'NOT NAMED'}`);
console.log(
  `\n${noticed} of ${wanted.length} noticed, ${(100 * share).toFixed(1)} % (at least ${100 * LEAST_NOTICED}), in ${minutes()} min; ${unnamed.length} that were not are not named.`,
);
process.exitCode = share >= LEAST_NOTICED && unnamed.length === 0 ? 0 : 1;
