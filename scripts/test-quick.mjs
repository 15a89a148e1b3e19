import { spawnSync } from 'node:child_process';
import { existsSync } from 'node:fs';
import { join } from 'node:path';
import { bin, ensureBuilt, ensureInstalled, ensurePrograms, giveUp, root, run, start } from './lib.mjs';

/*
 * For a change under way: what changed since a commit (by default the last one) and whatever stands on it. Leaves
 * out the tests that take long by their nature, and of the interface all but the tests that changed and the one
 * way through everything: before anything is handed in, `npm test` runs it all.
 */
const base = process.argv[2] ?? 'HEAD';
const LONG = ['killed.test', 'any-day.test'];

ensureInstalled();
const changed = [
  ...lines(['diff', '--name-only', '--diff-filter=d', base]),
  ...lines(['ls-files', '--others', '--exclude-standard']),
].filter((file) => existsSync(join(root, file)));

function lines(args) {
  const { status, stdout } = spawnSync('git', args, { cwd: root, encoding: 'utf8' });
  if (status !== 0) giveUp(`git ${args.join(' ')} did not answer: is ${base} a commit?`);
  return stdout.split('\n').filter((line) => line !== '');
}

if (changed.length === 0)
  giveUp(`Nothing has changed since ${base}. Name an earlier commit: npm run test:quick -- main~3`);
console.log(`${changed.length} files have changed since ${base}.`);

const code = changed.filter((file) => /\.(ts|tsx|js|mjs)$/.test(file));
const environment = { ...process.env, NODE_OPTIONS: '--experimental-vm-modules --no-warnings' };
const failed = [];

async function check(name, running) {
  const { status, said } = await running;
  console.log(`— ${name}: ${status === 0 ? 'holds' : `fails\n${said}`}`);
  if (status !== 0) failed.push(name);
}

await Promise.all([
  ...(code.length === 0
    ? []
    : [check('lint', start(bin('eslint'), ['--no-warn-ignored', '--max-warnings', '0', ...code]))]),
  check('format', start(bin('prettier'), ['--check', '--ignore-unknown', '--log-level', 'warn', ...changed])),
  ensureBuilt(),
]);

const sources = code.filter((file) => !file.startsWith('packages/e2e/'));
if (sources.length > 0) {
  const args = [
    '--maxWorkers=100%',
    '--silent',
    '--passWithNoTests',
    '--testPathIgnorePatterns',
    ...LONG,
    '/dist/',
  ];
  if (!run(bin('jest'), [...args, '--findRelatedTests', ...sources], { env: environment }))
    failed.push('tests');
}

const ships = sources.some((file) =>
  /^packages\/(core|contracts|server|web)\/src\/(?!.*\.test\.)/.test(file),
);
const specs = changed.filter((file) => file.endsWith('.spec.ts'));
if (ships || specs.length > 0) {
  ensurePrograms();
  const args = ['test', '--config', 'packages/e2e/playwright.config.ts', '--reporter=list'];
  const which = [...(ships ? ['main-job.spec.ts'] : []), ...specs];
  if (!run(bin('playwright'), [...args, ...which])) failed.push('interface tests');
}

console.log(failed.length === 0 ? '\nAll of it holds.' : `\nFails: ${failed.join(', ')}.`);
process.exitCode = failed.length === 0 ? 0 : 1;
