// Lets the simulator write how often each test finds something under each cause: `node scripts/fault-likelihoods.mjs`,
// after a build. A test makes a part of it anew and compares.
import { writeFileSync } from 'node:fs';
import { join } from 'node:path';
import seedrandom from 'seedrandom';
import { simulatedFamilies } from '../packages/core/dist/faults/index.js';
import { simulateAnswers } from '../packages/core/dist/proof/index.js';

const EACH = 24;

const answers = Object.fromEntries(
  simulatedFamilies.map((machine) => [
    machine,
    simulateAnswers({ machine, each: EACH, random: (cause) => seedrandom(`${machine} ${cause}`) }),
  ]),
);
const file = join(import.meta.dirname, '../packages/core/src/proof/simulated-answers.data.ts');
writeFileSync(
  file,
  `import type { SimulatedFamily } from '../faults/index.js';
import type { SimulatedAnswers } from './simulated-answers.js';

/** Made by \`scripts/fault-likelihoods.mjs\`: of ${EACH} machines of each cause, how many gave each answer. */
export const simulatedEach = ${EACH};
export const simulatedAnswers: Readonly<Record<SimulatedFamily, SimulatedAnswers>> = ${JSON.stringify(answers)};
`,
);
