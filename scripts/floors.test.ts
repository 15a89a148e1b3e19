import { ESLint } from 'eslint';

const eslint = new ESLint();

async function complaints(filePath: string, code: string): Promise<string[]> {
  const [result] = await eslint.lintText(code, { filePath });
  return result!.messages.map((message) => message.ruleId ?? message.message);
}

test.each([
  [
    'packages/core/src/hours/x.ts',
    "import { standing } from '../plan/index.js';\nstanding;",
    'no-restricted-imports',
  ],
  [
    'packages/core/src/plan/x.ts',
    "import { convert } from '../quantities/convert.js';\nconvert;",
    'no-restricted-imports',
  ],
  [
    'packages/core/src/plan/x.ts',
    "import { createApp } from '@entretien/server';\ncreateApp;",
    'no-restricted-imports',
  ],
  ['packages/core/src/plan/x.ts', 'export const now = Date.now();', 'no-restricted-properties'],
  ['packages/core/src/plan/x.ts', 'export const seed = Math.random();', 'no-restricted-properties'],
  ['packages/core/src/plan/x.ts', "import fs from 'node:fs';\nfs;", 'no-restricted-imports'],
  [
    'packages/web/src/app/x.ts',
    "import { createApp } from '@entretien/server';\ncreateApp;",
    'no-restricted-imports',
  ],
  [
    'packages/contracts/src/x.ts',
    "import { createApp } from '@entretien/server';\ncreateApp;",
    'no-restricted-imports',
  ],
  ['packages/server/src/visits/x.ts', 'export const now = Date.now();', 'no-restricted-syntax'],
  ['packages/server/src/visits/x.test.ts', 'export const now = new Date();', 'no-restricted-syntax'],
  ['packages/web/src/app/x.ts', 'export const clock = Date.now;', 'no-restricted-syntax'],
  ['packages/e2e/tests/x.spec.ts', "await page.waitForLoadState('networkidle');", 'no-restricted-syntax'],
  ['packages/e2e/tests/x.spec.ts', 'await page.waitForTimeout(300);', 'no-restricted-syntax'],
])('%s may not do this: %s', async (filePath, code, rule) => {
  expect(await complaints(filePath, code)).toContain(rule);
});

test('what stands on lower floors is allowed', async () => {
  const code = "import { runHoursOf } from '../hours/index.js';\n\nexport const log = runHoursOf;\n";
  expect(await complaints('packages/core/src/plan/x.ts', code)).toEqual([]);
});
