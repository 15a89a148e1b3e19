import { guessImport, readImportRow, type ImportMapping } from './index.js';

const mapping: ImportMapping = {
  unit: 0,
  date: 1,
  time: null,
  hours: 2,
  counts: null,
  note: null,
  decimal: 'point',
  dateOrder: 'dmy',
  timeZone: 'Europe/Zurich',
};
const read = (cells: string[], more: Partial<ImportMapping> = {}) =>
  readImportRow(cells, { ...mapping, ...more });

describe('a row of a list', () => {
  test('is read by the order of dates, decimal sign and time zone stated', () => {
    expect(read(['HC-1', '24.11.2026 08:30', '1234.5'])).toEqual({
      ok: true,
      value: {
        unit: 'HC-1',
        takenAt: Date.UTC(2026, 10, 24, 7, 30),
        hours: 1234.5,
        counts: 'total',
        note: null,
      },
    });
  });

  test.each<[string, string, Partial<ImportMapping>, number]>([
    ['a day alone is its noon', '24.11.2026', {}, Date.UTC(2026, 10, 24, 11)],
    ['summer time', '1.7.2026 08:30', {}, Date.UTC(2026, 6, 1, 6, 30)],
    ['month first', '11/24/2026 8:30 pm', { dateOrder: 'mdy' }, Date.UTC(2026, 10, 24, 19, 30)],
    [
      'midnight and noon of twelve hours',
      '11/24/2026 12:05 am',
      { dateOrder: 'mdy' },
      Date.UTC(2026, 10, 23, 23, 5),
    ],
    ['year first, whatever the order', '2026-11-24 08.30', {}, Date.UTC(2026, 10, 24, 7, 30)],
    ['an instant with its zone', '2026-11-24T08:30:00Z', { dateOrder: 'mdy' }, Date.UTC(2026, 10, 24, 8, 30)],
    ['an hour that comes twice is the first', '25.10.2026 02:30', {}, Date.UTC(2026, 9, 25, 0, 30)],
    ['an hour that is skipped is carried on', '29.3.2026 02:30', {}, Date.UTC(2026, 2, 29, 1, 30)],
  ])('%s', (_name, date, more, at) => {
    expect(read(['HC-1', date, '1'], more)).toMatchObject({ ok: true, value: { takenAt: at } });
  });

  test.each<[string, Partial<ImportMapping>, number]>([
    ['1234.5', {}, 1234.5],
    ['1,234.5 h', {}, 1234.5],
    ["1'234", {}, 1234],
    ['1234,5', { decimal: 'comma' }, 1234.5],
    ['1.234,5', { decimal: 'comma' }, 1234.5],
    ['1.234', { decimal: 'comma' }, 1234],
    ['1.234', {}, 1.234],
  ])('the figure “%s”', (figure, more, hours) => {
    expect(read(['HC-1', '24.11.2026', figure], more)).toMatchObject({ ok: true, value: { hours } });
  });

  test.each<[string, string[], string]>([
    ['no unit', ['', '24.11.2026', '1'], 'no-unit'],
    ['no date', ['HC-1', '', '1'], 'no-date'],
    ['a day that does not exist', ['HC-1', '30.2.2026', '1'], 'not-a-date'],
    ['a month that does not exist', ['HC-1', '11/24/2026', '1'], 'not-a-date'],
    ['a year of two digits', ['HC-1', '24.11.26', '1'], 'not-a-moment'],
    ['a time that does not exist', ['HC-1', '24.11.2026 25:00', '1'], 'not-a-moment'],
    ['no figure', ['HC-1', '24.11.2026', ''], 'no-figure'],
    ['the other decimal sign', ['HC-1', '24.11.2026', '12,5'], 'not-a-number'],
    ['less than nothing', ['HC-1', '24.11.2026', '-5'], 'not-a-number'],
    ['a formula', ['HC-1', '24.11.2026', '=1+1'], 'not-a-number'],
    ['more than any meter', ['HC-1', '24.11.2026', '1e9'], 'not-a-number'],
    ['much more than any meter', ['HC-1', '24.11.2026', '99999999'], 'out-of-range'],
    ['a short row', ['HC-1'], 'no-date'],
  ])('%s is refused with a sentence', (_name, cells, code) => {
    const outcome = read(cells);
    expect(outcome).toMatchObject({ ok: false, problem: { code } });
    if (!outcome.ok) expect(outcome.problem.sentence).toMatch(/\.$/);
  });

  test('counter, time and note have columns of their own', () => {
    const more = { time: 3, counts: 4, note: 5 };
    expect(read(['HC-1', '24.11.2026', '80', '07:15', 'Loaded h', "'=bad"], more)).toMatchObject({
      ok: true,
      value: { takenAt: Date.UTC(2026, 10, 24, 6, 15), counts: 'loaded', note: '=bad' },
    });
    expect(read(['HC-1', '24.11.2026', '80', '', 'cycles', ''], more)).toMatchObject({
      ok: false,
      problem: { code: 'no-counter', field: 'counts' },
    });
  });
});

describe('how a list is to be read is guessed', () => {
  test('from names of columns, figures and dates', () => {
    const rows = [
      ['24.11.2026', '08:30', 'HC-1', '1.234,5', ''],
      ['13.11.2026', '09:00', 'HC-2', '999,25', 'loud'],
    ];
    expect(guessImport(['Date', 'Time', 'Unit', 'Hours', 'Remarks'], rows)).toEqual({
      unit: 2,
      date: 0,
      time: 1,
      hours: 3,
      counts: null,
      note: 4,
      decimal: 'comma',
      dateOrder: 'dmy',
    });
  });

  test('month first only where day first cannot be', () => {
    const guess = (date: string) => guessImport(['date'], [[date]]).dateOrder;
    expect(guess('11/24/2026')).toBe('mdy');
    expect(guess('10/11/2026')).toBe('dmy');
    expect(guess('2026-11-24')).toBe('ymd');
  });

  test('what cannot be found is left open', () => {
    expect(guessImport(['a', 'b'], [])).toMatchObject({ unit: null, date: null, hours: null });
  });
});
