import { formatFigure, readNumber, typedFigure } from './index.js';
import {
  decimalSigns,
  dayOrders,
  describeDay,
  describeDayOfYear,
  formatMoment,
  formatsCode,
  formatsOf,
  readFormatsFrom,
  usualFormats,
  type Formats,
} from '../basics/index.js';

function reading<Result>(formats: Formats, work: () => Result): Result {
  const putBack = readFormatsFrom(() => formats);
  try {
    return work();
  } finally {
    putBack();
  }
}

test.each([
  ['day-month', '5 Dec 2026', '5 Dec', '5 Dec 2026, 08:30'],
  ['month-day', 'Dec 5, 2026', 'Dec 5', 'Dec 5, 2026, 08:30'],
  ['year-first', '2026-12-05', '12-05', '2026-12-05, 08:30'],
] as const)('a day, %s', (dayOrder, whole, ofYear, moment) => {
  const at = Date.UTC(2026, 11, 5, 8, 30);
  const found = reading({ ...usualFormats, dayOrder }, () => [
    describeDay('2026-12-05'),
    describeDayOfYear('2026-12-05'),
    formatMoment(at, 'UTC'),
  ]);
  expect(found).toEqual([whole, ofYear, moment]);
});

test('a comma for decimals leaves thousands a thin space', () => {
  const figures = () => [formatFigure(1234.5, { figures: 6 }), formatFigure(0.25), formatFigure(-15930)];
  expect(figures()).toEqual(['1,234.5', '0.25', '-15,930']);
  expect(reading({ ...usualFormats, decimal: 'comma' }, figures)).toEqual([
    '1\u202f234,5',
    '0,25',
    '-15\u202f930',
  ]);
});

test.each(decimalSigns)('what is written with a %s can be typed again and means the same', (decimal) => {
  reading({ ...usualFormats, decimal }, () => {
    for (const figure of [0, 0.25, 1.013, 12.5, 999, 1234.5, 15930, -40, 275.79]) {
      const typed = typedFigure(formatFigure(figure, { figures: 8, maxDecimals: 3 }));
      expect(readNumber(typed)).toEqual({ ok: true, value: figure });
    }
  });
});

test('formats go into one word and come out of it; nonsense is the usual', () => {
  for (const dayOrder of dayOrders)
    for (const decimal of decimalSigns)
      expect(formatsOf(formatsCode({ dayOrder, decimal }))).toEqual({ dayOrder, decimal });
  for (const nonsense of [undefined, '', 'x', 'comma', 'day-month.', '<script>'])
    expect(formatsOf(nonsense)).toEqual(usualFormats);
});
