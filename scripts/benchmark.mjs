import { join } from 'node:path';
import { ensureBuilt, ensureInstalled, root, run } from './lib.mjs';

// Prints the ratios that docs/architecture.md speaks of, each measured within this one run.
ensureInstalled();
await ensureBuilt();
process.exitCode = run(process.execPath, [
  '--expose-gc',
  join(root, 'packages/benchmarks/dist/main.js'),
  ...process.argv.slice(2),
])
  ? 0
  : 1;
