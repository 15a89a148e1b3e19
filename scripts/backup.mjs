import { bundled, ensureBuilt, ensureInstalled, run } from './lib.mjs';

// `backup [file]` and `restore file`, on the data folder that ENTRETIEN_DATA_DIR names (default ./data).
ensureInstalled();
await ensureBuilt();
const done = run(process.execPath, [bundled('backup'), ...process.argv.slice(2)]);
process.exitCode = done ? 0 : 1;
