import { writeFileSync } from 'node:fs';
import * as checks from '../packages/core/dist/checks/index.js';
import { checksPage } from './checks-page-text.mjs';

/** Writes the page of the checks in the handbook from the library. */
writeFileSync(new URL('../docs/handbook/checks.md', import.meta.url), checksPage(checks));
