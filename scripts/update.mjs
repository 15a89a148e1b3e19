import { spawn, spawnSync } from 'node:child_process';
import { existsSync, mkdirSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join, resolve } from 'node:path';
import { bundled, ensureBuilt, ensureInstalled, giveUp, root } from './lib.mjs';
import { gitSteps, goBack, update, UpdateProblem } from './update-steps.mjs';

// `npm run update`: the next release, after a backup; `npm run update -- back`: the one before, with its data.
const dataDir = resolve(process.env.ENTRETIEN_DATA_DIR ?? join(root, 'data'));
const folder = resolve(process.env.ENTRETIEN_BACKUP_DIR ?? `${dataDir}-backups`);
const memory = join(folder, 'last-update.json');

function node(script, args, environment = {}) {
  const { status, stderr } = spawnSync(process.execPath, [script, ...args], {
    cwd: root,
    env: { ...process.env, ...environment },
    stdio: ['ignore', 'inherit', 'pipe'],
    encoding: 'utf8',
  });
  if (status !== 0) throw new UpdateProblem(stderr.trim() || `${script} failed.`);
}

/** Starts the new server on a copy of the data, and waits until it says that it is well. */
async function trial(backup) {
  const work = mkdtempSync(join(tmpdir(), 'entretien-trial-'));
  const copy = { ENTRETIEN_DATA_DIR: join(work, 'data'), ENTRETIEN_BACKUPS: 'no', ENTRETIEN_PORT: '0' };
  try {
    node(bundled('backup'), ['restore', backup], copy);
    // As it is reached from elsewhere is none of the trial's: it listens here, for a moment.
    const environment = {
      ...process.env,
      ...copy,
      ENTRETIEN_HOST: '127.0.0.1',
      ENTRETIEN_BEHIND_PROXY: 'no',
    };
    for (const name of ['CERTIFICATE', 'KEY', 'PUBLIC_URL']) delete environment[`ENTRETIEN_${name}`];
    const server = spawn(process.execPath, [bundled('main')], { cwd: root, env: environment });
    let said = '';
    const address = await new Promise((ready, fail) => {
      const listen = (piece) => {
        said += piece;
        const found = /is ready on (\S+)/.exec(said);
        if (found) ready(found[1]);
      };
      server.stdout.on('data', listen);
      server.stderr.on('data', listen);
      server.on('exit', () => fail(new UpdateProblem(`The new release does not start:\n${said.trim()}`)));
    });
    try {
      const response = await fetch(`${address}/api/health`);
      if (!response.ok) throw new UpdateProblem(`The new release is not well: ${await response.text()}`);
    } finally {
      server.removeAllListeners('exit');
      const ended = new Promise((done) => server.once('exit', done));
      server.kill();
      await ended;
    }
  } finally {
    rmSync(work, { recursive: true, force: true });
  }
}

const steps = {
  ...gitSteps(root),
  async refuseRunning() {
    if (!existsSync(join(dataDir, 'entretien.sqlite'))) return;
    ensureInstalled();
    await ensureBuilt();
    node(bundled('backup'), ['refuse-running'], { ENTRETIEN_DATA_DIR: dataDir });
  },
  backup(from) {
    if (!existsSync(join(dataDir, 'entretien.sqlite')))
      throw new UpdateProblem(`There are no data in ${dataDir}: say where they are in ENTRETIEN_DATA_DIR.`);
    mkdirSync(folder, { recursive: true, mode: 0o700 });
    const file = join(folder, `before-update-from-${from.slice(0, 12)}.tar.gz`);
    node(bundled('backup'), ['backup', file], { ENTRETIEN_DATA_DIR: dataDir });
    return file;
  },
  // By the scripts of the release that is there by then.
  build: () => node(join(root, 'scripts/build.mjs'), []),
  trial,
  restore: (file) => node(bundled('backup'), ['restore', file], { ENTRETIEN_DATA_DIR: dataDir }),
  lastUpdate: () => (existsSync(memory) ? JSON.parse(readFileSync(memory, 'utf8')) : null),
  remember(last) {
    if (last === null) rmSync(memory, { force: true });
    else writeFileSync(memory, JSON.stringify(last, null, 2));
  },
};

try {
  const [what] = process.argv.slice(2);
  if (what !== undefined && what !== 'back') giveUp('npm run update, or npm run update -- back.');
  await (what === 'back' ? goBack : update)(steps, (text) => console.log(text));
} catch (problem) {
  if (!(problem instanceof UpdateProblem)) throw problem;
  giveUp(problem.message);
}
