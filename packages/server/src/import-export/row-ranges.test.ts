import fc from 'fast-check';
import { isInRanges, rowRanges } from './row-ranges.js';

test.each([
  [
    '3,7-9',
    [
      [3, 3],
      [7, 9],
    ],
  ],
  [
    '7-9,3,8-12,13',
    [
      [3, 3],
      [7, 13],
    ],
  ],
  ['9-7', []],
  ['0', []],
  ['0-5', []],
  ['', []],
  ['1-9999999', [[1, 9_999_999]]],
])('%s', (text, ranges) => {
  expect(rowRanges(text)).toEqual(ranges);
});

test('however many and however wide they are, they stay ranges', () => {
  const text = Array.from({ length: 2000 }, () => '1-9999999').join(',');
  expect(rowRanges(text)).toEqual([[1, 9_999_999]]);
});

test('a row is in them exactly where one of those sent holds it', () => {
  const range = fc.tuple(fc.integer({ min: 1, max: 60 }), fc.integer({ min: 0, max: 9 }));
  fc.assert(
    fc.property(fc.array(range, { maxLength: 12 }), fc.integer({ min: 1, max: 75 }), (sent, row) => {
      const text = sent
        .map(([from, more]) => (more === 0 ? String(from) : `${from}-${from + more}`))
        .join(',');
      const isIn = sent.some(([from, more]) => row >= from && row <= from + more);
      expect(isInRanges(row, rowRanges(text))).toBe(isIn);
    }),
  );
});
