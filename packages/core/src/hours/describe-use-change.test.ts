import { describeTimesUsed, describeUseChange } from './index.js';

test.each([
  [1.5, 'half as much again'],
  [2.2, 'twice as much'],
  [4.9, 'five times as much'],
  [8, '8 times as much'],
  [25, 'more than ten times as much'],
  [0.62, 'two thirds as much'],
  [0.5, 'half as much'],
  [0.21, 'a fifth as much'],
  [0.14, 'a 7th as much'],
])('%d times is %s', (times, text) => {
  expect(describeTimesUsed(times)).toBe(text);
});

test('with the day about which it changed, as it was there', () => {
  const at = Date.UTC(2026, 9, 1, 23, 30);
  expect(describeUseChange({ at, before: 1, since: 5 }, 'Europe/Zurich')).toBe(
    'Used five times as much since about 2 Oct 2026',
  );
  expect(describeUseChange({ at, before: 4, since: 0.01 }, 'UTC')).toBe('Hardly used since about 1 Oct 2026');
});
