import { dayOrders, describeDay, readDay, readDayAndTime, readFormatsFrom, usualFormats } from './index.js';

afterEach(() => void readFormatsFrom(() => usualFormats));

test.each([
  '2026-12-05',
  '5 Dec 2026',
  '05 december 2026',
  'Dec 5, 2026',
  'December 5 2026',
  '5.12.2026',
  '5/12/2026',
  '5. 12. 26',
  ' 5-12-2026 ',
])('“%s” is the fifth of December', (text) => {
  expect(readDay(text)).toEqual({ ok: true, value: '2026-12-05' });
});

test('of numbers alone the order is the reader’s own, unless only the other can be', () => {
  readFormatsFrom(() => ({ ...usualFormats, dayOrder: 'month-day' }));
  expect(readDay('12/5/2026')).toMatchObject({ value: '2026-12-05' });
  expect(readDay('25/12/2026')).toMatchObject({ value: '2026-12-25' });
  readFormatsFrom(() => usualFormats);
  expect(readDay('12/25/2026')).toMatchObject({ value: '2026-12-25' });
});

test.each([
  '',
  'soon',
  '2026',
  '31 Feb 2026',
  '13.13.2026',
  '5 Foo 2026',
  '2026-02-30',
  '5 Dec',
  '5 Dec 1912',
])('“%s” is no day', (text) => {
  const read = readDay(text);
  expect(read.ok).toBe(false);
  if (!read.ok) expect(read.problem.sentence).toMatch(/\.$/);
});

test.each(dayOrders)('what is written %s is read again', (dayOrder) => {
  readFormatsFrom(() => ({ ...usualFormats, dayOrder }));
  for (const date of ['2026-12-05', '2026-01-31', '2024-02-29', '1999-07-09'])
    expect(readDay(describeDay(date))).toEqual({ ok: true, value: date });
});

test.each([
  ['2026-12-05T08:30', '2026-12-05T08:30'],
  ['5 Dec 2026, 8:30', '2026-12-05T08:30'],
  ['5.12.2026 23.59', '2026-12-05T23:59'],
  ['Dec 5, 2026, 00:00', '2026-12-05T00:00'],
])('“%s” is a moment', (text, value) => {
  expect(readDayAndTime(text)).toEqual({ ok: true, value });
});

test.each(['5 Dec 2026', '08:30', '5 Dec 2026, 24:00', '5 Dec 2026, 08:60', '31 Feb 2026, 08:30', ''])(
  '“%s” is no moment',
  (text) => {
    expect(readDayAndTime(text).ok).toBe(false);
  },
);
