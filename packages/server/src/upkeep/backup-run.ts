import { BackupProblem } from '../backup/backup.js';
import { makeScheduledBackup } from '../backup/scheduled.js';

/** A process of its own for one backup of the schedule: `backup-run.js data-folder backup-folder moment`. */
const [dataDir, folder, moment] = process.argv.slice(2) as [string, string, string];
makeScheduledBackup(dataDir, folder, Number(moment)).then(
  (said) => process.stdout.write(`${said}\n`),
  (problem: unknown) => {
    const isForeseen = problem instanceof BackupProblem;
    process.stderr.write(`${isForeseen ? problem.message : String((problem as Error).stack)}\n`);
    process.exitCode = 1;
  },
);
