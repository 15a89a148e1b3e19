import { spawnSync } from 'node:child_process';
import { readFileSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { ensureBuilt, ensureChromium, ensureInstalled, root, run } from './lib.mjs';

// Everything that must hold: lint, format, types, unit, server and interface tests; the sum on the last line.
ensureInstalled();
ensureChromium();

const totals = { passed: 0, failed: 0 };

/** A check that either holds or not. */
function check(name, command, args) {
  console.log(`\n— ${name}`);
  const holds = run(command, args);
  totals[holds ? 'passed' : 'failed'] += 1;
}

/** A test runner that writes its counts into a JSON file. */
function suite(name, command, args, environment, counts) {
  console.log(`\n— ${name}`);
  const report = join(root, 'node_modules/.cache', `entretien-${name.replaceAll(/[^a-z]+/g, '-')}.json`);
  rmSync(report, { force: true });
  const { status } = spawnSync(command, args(report), {
    cwd: root,
    stdio: 'inherit',
    env: { ...process.env, ...environment(report) },
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

function jest(project) {
  suite(
    `${project} tests`,
    'npx',
    (report) => [
      'jest',
      '--selectProjects',
      project,
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
}

check('lint', 'npx', ['eslint', '.', '--max-warnings', '0']);
check('format', 'npx', ['prettier', '--check', '--log-level', 'warn', '.']);
check('types', 'npx', ['tsc', '-b']);
jest('unit');
jest('server');
ensureBuilt();
// Desk and phone apart, so that neither grows past a quarter of an hour.
for (const device of ['desk', 'phone']) {
  suite(
    `interface tests, ${device}`,
    'npx',
    () => ['playwright', 'test', '--config', 'packages/e2e/playwright.config.ts', '--project', device],
    (report) => ({ PLAYWRIGHT_JSON_OUTPUT_NAME: report, PLAYWRIGHT_SKIP_BROWSER_DOWNLOAD: '1' }),
    ({ stats }) => ({ passed: stats.expected, failed: stats.unexpected + stats.flaky }),
  );
}

console.log(`\n${totals.passed} passed, ${totals.failed} failed`);
process.exitCode = totals.failed > 0 ? 1 : 0;
