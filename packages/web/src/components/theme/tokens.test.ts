import { dark, light, type Tokens } from './tokens.js';

/** Relative luminance and contrast as WCAG 2.2 defines them. */
function luminance(hex: string): number {
  const [r, g, b] = [1, 3, 5].map((start) => {
    const value = parseInt(hex.slice(start, start + 2), 16) / 255;
    return value <= 0.04045 ? value / 12.92 : ((value + 0.055) / 1.055) ** 2.4;
  });
  return 0.2126 * r! + 0.7152 * g! + 0.0722 * b!;
}

function contrast(a: string, b: string): number {
  const [low, high] = [luminance(a), luminance(b)].sort((x, y) => x - y);
  return (high! + 0.05) / (low! + 0.05);
}

test('black on white is 21 to 1', () => {
  expect(contrast('#000000', '#FFFFFF')).toBeCloseTo(21, 6);
});

describe.each([
  ['light', light],
  ['dark', dark],
])('%s', (_name, tokens: Tokens) => {
  const text = ['ink', 'secondInk', 'verdigris', 'brass', 'oxide', 'slate'] as const;

  test.each(text)('%s can be read on paper and sheet (4.5 to 1)', (word) => {
    expect(contrast(tokens[word], tokens.paper)).toBeGreaterThanOrEqual(4.5);
    expect(contrast(tokens[word], tokens.sheet)).toBeGreaterThanOrEqual(4.5);
  });

  test.each(['brass', 'oxide', 'slate', 'verdigris'] as const)('%s can be read on its own ground', (word) => {
    expect(contrast(tokens[word], tokens[`${word}Ground`])).toBeGreaterThanOrEqual(4.5);
  });

  test('words on a filled button can be read', () => {
    expect(contrast(tokens.onVerdigris, tokens.verdigris)).toBeGreaterThanOrEqual(4.5);
    expect(contrast(tokens.paper, tokens.ink)).toBeGreaterThanOrEqual(4.5);
  });
});
