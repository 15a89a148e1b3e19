import { systemClock } from '../common/system-clock.js';
import { SettingsProblem, settingsFrom } from '../config.js';
import { BackupProblem, makeBackup, restoreBackup, takeLock } from './backup.js';

/**
 * `run.js backup [file]`, `run.js restore file`, or `run.js refuse-running` where no server may be at work: on the data
 * folder that the environment names.
 */
async function run([what, file]: readonly string[]): Promise<string> {
  const { dataDir } = settingsFrom(process.env);
  const now = new Date(systemClock());
  if (what === 'backup') {
    const target = file ?? `entretien-${now.toISOString().slice(0, 10)}.tar.gz`;
    const { database, photos, missing = [] } = await makeBackup(dataDir, target, now);
    const size = (database.bytes / 1_000_000).toFixed(1);
    const without =
      missing.length === 0 ? '' : ` Missing in ${dataDir}, and so in it: ${missing.join(', ')}.`;
    return `${target}: the database (${size} MB) and ${photos.length} photos.${without}`;
  }
  if (what === 'refuse-running') {
    takeLock(dataDir).release();
    return `${dataDir} is free.`;
  }
  if (what !== 'restore' || file === undefined) {
    throw new BackupProblem('Say which backup: npm run restore -- entretien-2026-11-25.tar.gz');
  }
  const before = await restoreBackup(file, dataDir, now);
  return `${dataDir} is what ${file} held.${before === null ? '' : ` What was there before lies in ${before}.`}`;
}

run(process.argv.slice(2)).then(
  (text) => process.stdout.write(`${text}\n`),
  (problem: unknown) => {
    // A sentence for whoever ran it; what nobody foresaw comes with where it happened.
    const isForeseen = problem instanceof BackupProblem || problem instanceof SettingsProblem;
    if (!isForeseen) throw problem;
    process.stderr.write(`${problem.message}\n`);
    process.exitCode = 1;
  },
);
