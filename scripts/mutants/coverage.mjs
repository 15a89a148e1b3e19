/* global afterAll, expect */
import { randomUUID } from 'node:crypto';
import { writeFileSync } from 'node:fs';
import { join } from 'node:path';

/* After the tests of a file: which switches they came by. */
const folder = process.env.MUTANT_COVERAGE;
if (folder !== undefined) {
  afterAll(() => {
    const { static: once = {}, perTest = {} } = globalThis.__stryker__?.mutantCoverage ?? {};
    const covered = [...new Set([once, ...Object.values(perTest)].flatMap((counts) => Object.keys(counts)))];
    writeFileSync(
      join(folder, `${randomUUID()}.json`),
      JSON.stringify({ test: expect.getState().testPath, covered }),
    );
  });
}
