import { spawn, spawnSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { existsSync, mkdirSync, readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { join, resolve } from 'node:path';

export const root = resolve(import.meta.dirname, '..');
export const CHROMIUM = '/usr/bin/chromium-headless-shell';

/** How Debian's Chromium is started: as root, without a screen, asking nothing of the network. */
export const CHROMIUM_FLAGS = [
  '--no-sandbox',
  '--disable-gpu',
  '--disable-background-networking',
  '--disable-component-update',
  '--disable-sync',
  '--no-first-run',
];

const cache = join(root, 'node_modules/.cache/entretien');

/** Stops with a sentence that says what could not be had. */
export function giveUp(sentence) {
  console.error(`\n${sentence}`);
  process.exit(1);
}

/** Runs a command in the project and waits; its output is shown. */
export function run(command, args, options = {}) {
  const { status } = spawnSync(command, args, { cwd: root, stdio: 'inherit', ...options });
  return status === 0;
}

/** A program of an installed package. */
export function bin(name) {
  return join(root, 'node_modules/.bin', name);
}

/**
 * Runs a command beside others.
 *
 * @returns how it ended, and what it said where that is not shown as it comes
 */
export function start(command, args, { isShown = false, ...options } = {}) {
  const stdio = isShown ? 'inherit' : ['ignore', 'pipe', 'pipe'];
  const child = spawn(command, args, { cwd: root, stdio, ...options });
  let said = '';
  child.stdout?.on('data', (chunk) => (said += chunk));
  child.stderr?.on('data', (chunk) => (said += chunk));
  return new Promise((done) => {
    child.on('error', (error) => done({ status: 1, said: String(error) }));
    child.on('exit', (status) => done({ status: status ?? 1, said }));
  });
}

/** A program of the server, as it is shipped: few files, quick to start. */
export function bundled(name) {
  return join(root, 'packages/server/bundle', `${name}.js`);
}

/** Runs a server until it is stopped, and hands its signals on. */
export function serve(environment) {
  const server = spawn(process.execPath, [bundled('main')], {
    cwd: root,
    stdio: 'inherit',
    env: { ...process.env, ...environment },
  });
  for (const signal of ['SIGINT', 'SIGTERM']) process.on(signal, () => server.kill(signal));
  server.on('exit', (code) => process.exit(code ?? 0));
}

/** Installs what is missing: nothing when the lock file is the one that was installed. */
export function ensureInstalled() {
  const [major, minor] = process.versions.node.split('.').map(Number);
  if (major < 20 || (major === 20 && minor < 19))
    giveUp(`Node.js 20.19 or newer is needed; this is ${process.versions.node}.`);
  const lock = hashOf([join(root, 'package-lock.json')]);
  if (stampOf('installed') === lock) return;
  console.log('Installing packages (the database driver is compiled: about two minutes) …');
  if (!run('npm', ['ci', '--no-audit', '--no-fund', '--loglevel=error'])) {
    giveUp(
      'The packages could not be installed. Is the npm registry within reach, and are python3, make and g++ there to compile the database driver?',
    );
  }
  stamp('installed', lock);
}

/** Builds what has changed: nothing when the sources are those that were built. */
export async function ensureBuilt() {
  const sources = hashOfSources();
  const built = [bundled('main'), join(root, 'packages/web/dist/index.html')].every(existsSync);
  if (built && stampOf('built') === sources) return;
  console.log('Building …');
  for (const part of [buildTypes, buildPages]) {
    const { status, said } = await part();
    if (status !== 0) giveUp(`${said}\nThe build failed: see above.`);
  }
  markBuilt(sources);
}

/** What the build is made from, as a hash. */
export function hashOfSources() {
  return hashOf([...sourceFiles(), join(root, 'package-lock.json')]);
}

export function markBuilt(sources) {
  stamp('built', sources);
}

/** Checks all types, and writes the modules of what runs in Node.js. */
export function buildTypes() {
  return start(bin('tsc'), ['-b']);
}

/** The page, the server's bundle and what it answers with, side by side, from what {@link buildTypes} has written. */
export async function buildPages() {
  const parts = await Promise.all([
    start(bin('vite'), ['build', '--logLevel', 'warn'], { cwd: join(root, 'packages/web') }),
    start(process.execPath, [join(root, 'scripts/bundle.mjs')]),
    start(process.execPath, [join(root, 'scripts/answers.mjs')]),
  ]);
  // After the page, whose build begins with an empty folder.
  const { writeNotices } = await import('./notices.mjs');
  if (parts[0].status === 0) writeNotices();
  return {
    status: Math.max(...parts.map(({ status }) => status)),
    said: parts.map(({ said }) => said).join(''),
  };
}

/** Programs of Debian's that the tests need, and the packages that have them. */
const programs = {
  '/usr/bin/chromium-headless-shell': 'chromium-headless-shell',
  '/usr/bin/faketime': 'faketime',
};

/** Finds the browser and what else the tests need, or installs them from Debian's packages. */
export function ensurePrograms() {
  const missing = Object.keys(programs).filter((path) => !existsSync(path));
  if (missing.length === 0) return;
  const names = missing.map((path) => programs[path]);
  console.log(`Installing ${names.join(' and ')} from Debian’s packages …`);
  const quiet = {
    stdio: ['ignore', 'ignore', 'inherit'],
    env: { ...process.env, DEBIAN_FRONTEND: 'noninteractive' },
  };
  const isInstalled =
    run('apt-get', ['update', '-qq'], quiet) &&
    run('apt-get', ['install', '-y', '-qq', '--no-install-recommends', ...names], quiet);
  if (isInstalled && missing.every((path) => existsSync(path))) return;
  giveUp(
    `The tests need ${names.join(' and ')}, and they could not be installed. Run “apt-get install ${names.join(' ')}” with the rights to do so.`,
  );
}

function sourceFiles() {
  const files = [
    'tsconfig.base.json',
    'tsconfig.json',
    'scripts/bundle.mjs',
    'scripts/answers.mjs',
    'scripts/notices.mjs',
  ].map((file) => join(root, file));
  for (const name of readdirSync(join(root, 'packages'))) {
    const folder = join(root, 'packages', name);
    for (const entry of readdirSync(folder, { recursive: true, withFileTypes: true })) {
      const path = join(entry.parentPath, entry.name);
      // What the build itself leaves there would make it begin again.
      const isBuilt = /\/(dist|bundle|node_modules|test-results)\/|\.tsbuildinfo$/.test(path);
      if (entry.isFile() && !isBuilt) files.push(path);
    }
  }
  return files.sort();
}

function hashOf(files) {
  const hash = createHash('sha256');
  for (const file of files) hash.update(file).update('\0').update(readFileSync(file));
  return hash.digest('hex');
}

function stampOf(name) {
  const file = join(cache, name);
  return existsSync(file) ? readFileSync(file, 'utf8') : null;
}

function stamp(name, text) {
  mkdirSync(cache, { recursive: true });
  writeFileSync(join(cache, name), text);
}
