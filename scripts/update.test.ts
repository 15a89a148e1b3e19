import { execFileSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { gitSteps, goBack, update } from './update-steps.mjs';

interface Last {
  readonly from: string;
  readonly to: string;
  readonly backup: string;
}

let folder: string;
let here: string;
beforeEach(() => {
  folder = mkdtempSync(join(tmpdir(), 'entretien-update-'));
  here = join(folder, 'here');
});
afterEach(() => rmSync(folder, { recursive: true, force: true }));

function git(cwd: string, ...args: string[]): string {
  const identity = ['-c', 'user.name=Test', '-c', 'user.email=test@example.invalid'];
  return execFileSync('git', [...identity, ...args], { cwd, encoding: 'utf8' }).trim();
}

/** A release elsewhere, a clone of it here, and a next release elsewhere. */
function withNext(): { readonly first: string; readonly next: string } {
  const origin = join(folder, 'origin');
  git(folder, 'init', '--quiet', '--initial-branch=main', origin);
  const commit = (text: string) => {
    writeFileSync(join(origin, 'program.txt'), text);
    git(origin, 'add', '.');
    git(origin, 'commit', '--quiet', '-m', text);
    return git(origin, 'rev-parse', 'HEAD');
  };
  const first = commit('first');
  git(folder, 'clone', '--quiet', origin, here);
  return { first, next: commit('next') };
}

const program = () => readFileSync(join(here, 'program.txt'), 'utf8');

function around({ broken = (_program: string, _step: string): boolean => false, isRunning = false } = {}) {
  const done: string[] = [];
  let last: Last | null = null;
  const step = (name: string) => {
    done.push(`${name} ${program()}`);
    if (broken(program(), name)) throw new Error(`${name} failed`);
  };
  const steps = {
    ...gitSteps(here),
    refuseRunning: () => (isRunning ? Promise.reject(new Error('in use')) : Promise.resolve()),
    backup: () => {
      step('backup');
      return Promise.resolve('backup.tar.gz');
    },
    build: () => step('build'),
    trial: () => Promise.resolve().then(() => step('trial')),
    restore: (file: string) => Promise.resolve().then(() => step(`restore ${file}`)),
    lastUpdate: () => last,
    remember: (one: Last | null) => (last = one),
  };
  return { steps, done, lastUpdate: () => last };
}

const quiet = () => undefined;

test('the backup comes before anything is changed; the new release is built, then tried; the way back leads back', async () => {
  const { first, next } = withNext();
  const { steps, done, lastUpdate } = around();
  await update(steps, quiet);
  expect(done).toEqual(['backup first', 'build next', 'trial next']);
  expect(lastUpdate()).toEqual({ from: first, to: next, backup: 'backup.tar.gz' });
  await update(steps, quiet);
  expect(done).toHaveLength(3);
  await goBack(steps, quiet);
  expect(done.slice(3)).toEqual(['build first', 'restore backup.tar.gz first']);
  expect(program()).toBe('first');
  await expect(goBack(steps, quiet)).rejects.toThrow(/No update is on record/);
});

test.each(['build', 'trial'])('where the %s fails, the release before is there again', async (failing) => {
  withNext();
  const { steps, done, lastUpdate } = around({
    broken: (release, name) => release === 'next' && name === failing,
  });
  await expect(update(steps, quiet)).rejects.toThrow(/your data were not touched/);
  expect(program()).toBe('first');
  expect(done.at(-1)).toBe('build first');
  expect(lastUpdate()).toBeNull();
});

test('without a backup nothing is changed', async () => {
  const { first } = withNext();
  const { steps, done } = around({ broken: (_release, name) => name === 'backup' });
  await expect(update(steps, quiet)).rejects.toThrow('backup failed');
  expect(done).toEqual(['backup first']);
  expect(git(here, 'rev-parse', 'HEAD')).toBe(first);
});

test('what was changed here, commits of one’s own, and a running server stand against it', async () => {
  withNext();
  await expect(update(around({ isRunning: true }).steps, quiet)).rejects.toThrow('in use');
  writeFileSync(join(here, 'program.txt'), 'mine');
  await expect(update(around().steps, quiet)).rejects.toThrow(/were changed here/);
  git(here, 'commit', '--quiet', '-am', 'mine');
  await expect(update(around().steps, quiet)).rejects.toThrow(/commits here/);
  expect(program()).toBe('mine');
});

test('a folder that is no clone says what to do instead', () => {
  withNext();
  rmSync(join(here, '.git'), { recursive: true });
  expect(() => gitSteps(here).refuseChanged()).toThrow(/Unpack it beside/);
});
