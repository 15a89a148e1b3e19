import { spawn, spawnSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { existsSync, mkdirSync, readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { join, resolve } from 'node:path';

export const root = resolve(import.meta.dirname, '..');
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

/** Runs a server until it is stopped, and hands its signals on. */
export function serve(environment) {
  const server = spawn(process.execPath, [join(root, 'packages/server/dist/main.js')], {
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
export function ensureBuilt() {
  const sources = hashOf([...sourceFiles(), join(root, 'package-lock.json')]);
  const built = ['packages/server/dist/main.js', 'packages/web/dist/index.html'].every((file) =>
    existsSync(join(root, file)),
  );
  if (built && stampOf('built') === sources) return;
  console.log('Building …');
  if (!build()) giveUp('The build failed: see above.');
  stamp('built', sources);
}

function build() {
  return (
    run('npx', ['tsc', '-b']) &&
    run('npx', ['vite', 'build', '--logLevel', 'warn'], { cwd: join(root, 'packages/web') })
  );
}

/** Finds Chromium, or installs it from Debian's packages. */
export function ensureChromium() {
  const path = '/usr/bin/chromium';
  if (existsSync(path)) return;
  console.log('Installing Chromium from Debian’s packages …');
  const quiet = {
    stdio: ['ignore', 'ignore', 'inherit'],
    env: { ...process.env, DEBIAN_FRONTEND: 'noninteractive' },
  };
  const isInstalled =
    run('apt-get', ['update', '-qq'], quiet) && run('apt-get', ['install', '-y', '-qq', 'chromium'], quiet);
  if (!isInstalled || !existsSync(path)) {
    giveUp(
      `The interface is tested with Chromium at ${path}, and it could not be installed. Run “apt-get install chromium” with the rights to do so.`,
    );
  }
}

function sourceFiles() {
  const files = ['tsconfig.base.json', 'tsconfig.json'].map((file) => join(root, file));
  for (const name of readdirSync(join(root, 'packages'))) {
    const folder = join(root, 'packages', name);
    for (const entry of readdirSync(folder, { recursive: true, withFileTypes: true })) {
      const path = join(entry.parentPath, entry.name);
      if (entry.isFile() && !/\/(dist|node_modules|test-results)\//.test(path)) files.push(path);
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
