import { ensureBuilt, ensureInstalled } from './lib.mjs';

ensureInstalled();
await ensureBuilt();
