import { readFileSync } from 'node:fs';

/** Rows of docs/behaviours.md: what, where, by which title. */
const rows = readFileSync('docs/behaviours.md', 'utf8')
  .split('\n')
  .map((line) => line.split('|').map((cell) => cell.trim()))
  .filter(([, , file]) => file !== undefined && /^(packages|scripts)\//.test(file))
  .map(([, what, file, title]) => [what!, file!, title!] as const);

test('there are such behaviours', () => {
  expect(rows.length).toBeGreaterThanOrEqual(40);
});

test.each(rows)('%s is still looked after, in %s', (_what, file, title) => {
  const text = readFileSync(file, 'utf8');
  expect(text).toContain(title);
  // Left out or taken out of the run it would look after nothing.
  expect(text).not.toMatch(/\b(test|it|describe)\.(skip|fixme|only|todo)\b/);
});
