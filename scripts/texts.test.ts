import { oldWords } from './old-words.mjs';
import { texts } from './texts.mjs';

const all = texts() as { file: string; line: number; text: string }[];

test('no text says an old word', () => {
  const found = all.flatMap(({ file, line, text }) =>
    (oldWords as [RegExp, string][])
      .filter(([word]) => word.test(text))
      .map(([, instead]) => `${file}:${line}: “${text}”: ${instead}`),
  );
  expect(found).toEqual([]);
});

test('texts of every kind are found: in the page, in its attributes, in sentences with gaps, in data', () => {
  const said = new Set(all.map(({ text }) => text));
  for (const text of [
    'Keep this order',
    'Show time in',
    'Undo: …',
    'New oil filter',
    'Still to choose: “…”.',
  ])
    expect(said).toContain(text);
  expect(all.length).toBeGreaterThan(3000);
});

test('what nobody reads is left out: styles, statements of the database, paths', () => {
  const strange = all.filter(({ text }) => /^(SELECT|INSERT|\/api|\.\.?\/)|var\(--/.test(text));
  expect(strange.map(({ file, line, text }) => `${file}:${line}: ${text}`)).toEqual([]);
});
