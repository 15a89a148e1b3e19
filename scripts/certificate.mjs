import { bundled, ensureBuilt, ensureInstalled, run } from './lib.mjs';

// `npm run certificate -- name`: a local authority and a certificate, in the data folder that ENTRETIEN_DATA_DIR names.
ensureInstalled();
await ensureBuilt();
const done = run(process.execPath, [bundled('certificate'), ...process.argv.slice(2)]);
process.exitCode = done ? 0 : 1;
