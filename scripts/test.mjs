import { mkdirSync, mkdtempSync, readFileSync, rmSync, statfsSync } from 'node:fs';
import { join } from 'node:path';
import {
  bin,
  buildPages,
  buildTypes,
  ensureInstalled,
  ensurePrograms,
  hashOfSources,
  markBuilt,
  root,
  start,
} from './lib.mjs';
import { someOtherDay } from './other-days.mjs';

/*
 * Everything that must hold: lint, format, types, unit, server, component and interface tests; the sum on the last
 * line. What needs nothing of each other runs side by side.
 */
ensureInstalled();
ensurePrograms();

const totals = { passed: 0, failed: 0 };
const reports = join(root, 'node_modules/.cache');
mkdirSync(reports, { recursive: true });

// Tests that write wait for no disk where the machine lends its memory for it: the file is a real one all the same.
const memory = freeBytes('/dev/shm') > 2e9 ? mkdtempSync('/dev/shm/entretien-test-') : null;
const environment = {
  ...process.env,
  PLAYWRIGHT_SKIP_BROWSER_DOWNLOAD: '1',
  ...(memory === null ? {} : { TMPDIR: memory }),
};
process.on('exit', () => {
  if (memory !== null) rmSync(memory, { recursive: true, force: true });
});

function freeBytes(folder) {
  try {
    const { bavail, bsize } = statfsSync(folder);
    return bavail * bsize;
  } catch {
    return 0;
  }
}

/** A check that either holds or not. */
async function check(name, running) {
  const { status, said } = await running;
  totals[status === 0 ? 'passed' : 'failed'] += 1;
  console.log(`— ${name}: ${status === 0 ? 'holds' : `fails\n${said}`}`);
  return status === 0;
}

/** A test runner that writes its counts into a JSON file. */
async function suite(name, command, args, more, counts) {
  console.log(`\n— ${name}`);
  const report = join(reports, `entretien-${name.replaceAll(/[^a-z]+/g, '-')}.json`);
  rmSync(report, { force: true });
  const { status } = await start(command, args(report), {
    env: { ...environment, ...more(report) },
    isShown: true,
  });
  try {
    const { passed, failed } = counts(JSON.parse(readFileSync(report, 'utf8')));
    totals.passed += passed;
    // A runner that failed without a failed test broke outside its tests: that counts, too.
    totals.failed += failed === 0 && status !== 0 ? 1 : failed;
    console.log(`${name}: ${passed} passed, ${failed} failed`);
  } catch {
    totals.failed += 1;
    console.error(`${name}: no report was written.`);
  }
}

const began = performance.now();
const lint = check('lint', start(bin('eslint'), ['.', '--max-warnings', '0']));
const format = check('format', start(bin('prettier'), ['--check', '--log-level', 'warn', '.']));
const sources = hashOfSources();
const types = check('types', buildTypes());
const build = types.then((hold) => hold && check('build', buildPages()));
// It follows the packages into what was built of them.
const unused = build.then((hold) => hold && check('nothing that nobody uses', start(bin('knip'), [])));
await Promise.all([lint, unused, format, build]);
if (await build) markBuilt(sources);
else {
  console.log(`\n${totals.passed} passed, ${totals.failed} failed`);
  process.exit(1);
}
console.log(`${Math.round((performance.now() - began) / 1000)} s`);

await suite(
  'unit, component and server tests',
  bin('jest'),
  (report) => [
    '--ci',
    '--maxWorkers=100%',
    '--silent',
    '--reporters=default',
    '--json',
    `--outputFile=${report}`,
  ],
  () => ({ NODE_OPTIONS: '--experimental-vm-modules --no-warnings' }),
  (result) => ({
    passed: result.numPassedTests,
    failed: result.numFailedTests + result.numRuntimeErrorTestSuites,
  }),
);
await check('tests on another day', someOtherDay(environment));
const nonsense = ['scripts/fuzz.mjs', '--requests', '1500', '--seed', '3', '--slow', '120000'];
await check('nonsense sent to every operation', start(process.execPath, nonsense, { env: environment }));
await suite(
  'interface tests',
  bin('playwright'),
  () => ['test', '--config', 'packages/e2e/playwright.config.ts'],
  (report) => ({ PLAYWRIGHT_JSON_OUTPUT_NAME: report }),
  ({ stats }) => ({ passed: stats.expected, failed: stats.unexpected + stats.flaky }),
);

console.log(`\n${Math.round((performance.now() - began) / 1000)} s`);
console.log(`\n${totals.passed} passed, ${totals.failed} failed`);
process.exitCode = totals.failed > 0 ? 1 : 0;
