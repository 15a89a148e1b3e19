import { ensureBuilt, ensureInstalled, serve } from './lib.mjs';

// The same as the demonstration, with your own data: empty at first, kept in ./data.
ensureInstalled();
await ensureBuilt();
serve({});
