import { join } from 'node:path';
import { bundled, ensureBuilt, ensureInstalled, giveUp, root, run, serve } from './lib.mjs';

// The demonstration: installs and builds what is missing, makes its data once, and serves them.
ensureInstalled();
await ensureBuilt();
const dataDir = join(root, 'data-demo');
const make = [bundled('demo'), dataDir, ...process.argv.slice(2)];
if (!run(process.execPath, make)) giveUp('The demonstration data could not be made: see above.');
// Its data are made again at will: a backup of them a day would only take room.
serve({ ENTRETIEN_DATA_DIR: dataDir, ENTRETIEN_BACKUPS: process.env.ENTRETIEN_BACKUPS ?? 'no' });
