import { join } from 'node:path';
import { ensureBuilt, ensureInstalled, root, run } from './lib.mjs';

// `backup [file]` and `restore file`, on the data folder that ENTRETIEN_DATA_DIR names (default ./data).
ensureInstalled();
ensureBuilt();
const done = run(process.execPath, [
  join(root, 'packages/server/dist/backup/run.js'),
  ...process.argv.slice(2),
]);
process.exitCode = done ? 0 : 1;
