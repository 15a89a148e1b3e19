import { writeFileSync } from 'node:fs';
import { planFileSchema } from '../packages/core/dist/plan/index.js';
import prettier from 'prettier';

/** Writes the published schema of plans from the one that plans are read by. */
const target = new URL('../docs/plan.schema.json', import.meta.url);
const options = await prettier.resolveConfig(target);
const text = await prettier.format(JSON.stringify(planFileSchema), { ...options, parser: 'json' });
writeFileSync(target, text);
