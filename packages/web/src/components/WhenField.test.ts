import { fromLocalText, toLocalText } from './WhenField.js';

const AT = Date.parse('2026-07-01T10:30:15.000Z');

test.each([
  ['Europe/Zurich', '2026-07-01T12:30'],
  ['America/St_Johns', '2026-07-01T08:00'],
  ['UTC', '2026-07-01T10:30'],
])('a moment is shown by the clock of %s, to the minute, and read back', (zone, text) => {
  expect(toLocalText(AT, zone)).toBe(text);
  expect(fromLocalText(text, zone)).toBe(AT - 15_000);
});

test('what is typed with seconds is read to the minute', () => {
  expect(fromLocalText('2026-07-01T12:30:59', 'Europe/Zurich')).toBe(AT - 15_000);
});

test('an hour that the clock leaps over is the one after it; one that it shows twice is one of the two', () => {
  expect(fromLocalText('2026-03-29T02:30', 'Europe/Zurich')).toBe(Date.parse('2026-03-29T01:30Z'));
  const twice = fromLocalText('2026-10-25T02:30', 'Europe/Zurich')!;
  expect(['2026-10-25T00:30:00.000Z', '2026-10-25T01:30:00.000Z']).toContain(new Date(twice).toISOString());
  expect(toLocalText(twice, 'Europe/Zurich')).toBe('2026-10-25T02:30');
});

test.each(['', '2026-02-31T10:00', '2026-07-01', 'soon', '2026-07', '12:30'])('“%s” is no moment', (text) => {
  expect(fromLocalText(text, 'Europe/Zurich')).toBeNull();
});
