import { spawnSync } from 'node:child_process';

/** Something that stands against an update; the sentence is for whoever runs it. */
export class UpdateProblem extends Error {}

/**
 * Brings the next release in: backup first, then the new one is built and tried on a copy of the data. Whatever goes
 * wrong, the release that was there is there again, and the data were not touched.
 *
 * @param steps what is done, each as a function; see update.mjs
 * @param say tells what is under way
 */
export async function update(steps, say) {
  steps.refuseChanged();
  await steps.refuseRunning();
  const from = steps.revision();
  const to = steps.lookForNext();
  if (to === from) return say('This is the latest release: nothing to do.');
  say('Making a backup …');
  const backup = await steps.backup(from);
  say(`The backup is ${backup}.`);
  try {
    steps.goTo(to);
    say('Building the new release …');
    steps.build();
    say('Trying it on a copy of the data …');
    await steps.trial(backup);
  } catch (problem) {
    say(`It did not work: ${problem.message}`);
    say('Going back to the release before …');
    steps.goTo(from);
    steps.build();
    throw new UpdateProblem('The release before is there again, and your data were not touched.');
  }
  steps.remember({ from, to, backup });
  say(`Updated. Start the server: at its first start it brings the data forward.`);
  say('The way back, with the data as they were before: npm run update -- back');
}

/** Goes back to the release before the last update, with the data of then. */
export async function goBack(steps, say) {
  const last = steps.lastUpdate();
  if (last === null) throw new UpdateProblem('No update is on record here that could be taken back.');
  steps.refuseChanged();
  await steps.refuseRunning();
  if (steps.revision() !== last.to)
    throw new UpdateProblem(`The release here is not the one of the last update (${last.to.slice(0, 12)}).`);
  say('Building the release before …');
  steps.goTo(last.from);
  steps.build();
  say('Putting the data of then back …');
  await steps.restore(last.backup);
  steps.remember(null);
  say('The release before is there again, with the data of then. Start the server.');
}

/** What is done by git in a clone. */
export function gitSteps(root) {
  const git = (...args) => {
    const { status, stdout, stderr } = spawnSync('git', args, { cwd: root, encoding: 'utf8' });
    if (status !== 0) throw new UpdateProblem(`git ${args[0]}: ${(stderr || stdout).trim()}`);
    return stdout.trim();
  };
  return {
    refuseChanged() {
      if (spawnSync('git', ['rev-parse', '--git-dir'], { cwd: root }).status !== 0)
        throw new UpdateProblem(
          'This folder is no clone, so there is nowhere to look for the next release. Unpack it beside this one, and start it with ENTRETIEN_DATA_DIR on the data of this.',
        );
      const changed = git('status', '--porcelain', '--untracked-files=no');
      if (changed !== '')
        throw new UpdateProblem(
          `Files of the program were changed here; an update would lose that:\n${changed}`,
        );
    },
    revision: () => git('rev-parse', 'HEAD'),
    lookForNext() {
      git('fetch', '--quiet');
      const to = git('rev-parse', '@{upstream}');
      const isAhead = git('merge-base', 'HEAD', to) !== git('rev-parse', 'HEAD');
      if (isAhead) throw new UpdateProblem('There are commits here that the next release does not have.');
      return to;
    },
    goTo: (revision) => void git('reset', '--quiet', '--keep', revision),
  };
}
