/**
 * One clock for server, demonstration, page and tests: whoever needs the time is given it, so that nothing hangs
 * on the day on which it runs. The few places where a real clock enters are named here.
 */
const WHERE_IT_ENTERS = [
  'packages/web/src/data/clock.ts',
  'packages/server/src/common/system-clock.ts',
  'packages/benchmarks/src/**',
];

const noClock = [
  {
    selector: 'CallExpression[callee.object.name="Date"][callee.property.name="now"]',
    message: 'Ask the one clock: the time is given.',
  },
  { selector: 'NewExpression[callee.name="Date"][arguments.length=0]', message: 'Ask the one clock.' },
  { selector: 'CallExpression[callee.name="Date"]', message: 'Ask the one clock.' },
  {
    selector: 'MemberExpression[object.name="Date"][property.name="now"]',
    message: 'Ask the one clock: the time is given.',
  },
];

/** What a test waits for is something that can be seen, never a while, and never silence. */
const noWaiting = [
  {
    selector: 'CallExpression[callee.property.name="waitForTimeout"]',
    message: 'Wait for what a person would see.',
  },
  { selector: 'Literal[value="networkidle"]', message: 'Wait for what a person would see.' },
];

export const clockRules = [
  {
    files: ['packages/*/src/**/*.{ts,tsx}', 'scripts/**/*.test.ts'],
    ignores: WHERE_IT_ENTERS,
    rules: { 'no-restricted-syntax': ['error', ...noClock] },
  },
  {
    files: ['packages/e2e/**/*.ts'],
    rules: { 'no-restricted-syntax': ['error', ...noClock, ...noWaiting] },
  },
];
