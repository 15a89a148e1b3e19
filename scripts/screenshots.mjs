import { ensureBuilt, ensurePrograms, ensureInstalled, run } from './lib.mjs';

// Retakes docs/screenshots from the demonstration data.
ensureInstalled();
ensurePrograms();
await ensureBuilt();
const taken = run('npx', ['playwright', 'test', '--config', 'packages/e2e/screenshots.config.ts']);
process.exitCode = taken ? 0 : 1;
