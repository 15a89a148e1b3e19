import fc from 'fast-check';
import {
  DAY_MS,
  dayNumberOf,
  formatDay,
  formatInstant,
  isTimeZone,
  localDayAt,
  writeLocal,
  parseInstant,
  parseLocalDate,
  formatMoment,
  startOfLocalDay,
  shiftDays,
} from './index.js';

describe('instants', () => {
  test.each([
    ['2026-11-24T08:30:00Z', Date.UTC(2026, 10, 24, 8, 30)],
    ['2026-11-24T08:30Z', Date.UTC(2026, 10, 24, 8, 30)],
    ['2024-02-29T23:59:59.5Z', Date.UTC(2024, 1, 29, 23, 59, 59, 500)],
  ])('%s is read', (text, expected) => {
    expect(parseInstant(text)).toEqual({ ok: true, value: expected });
  });

  test.each([
    '2026-02-30T00:00:00Z',
    '2025-02-29T00:00:00Z',
    '2026-13-01T00:00:00Z',
    '2026-11-24T24:00:00Z',
    '2026-11-24T08:61:00Z',
    '2026-11-24T08:30:75Z',
    '2026-11-24T08:30:00',
    '2026-11-24T08:30:00+01:00',
    '2026-11-24',
    '1763972000000',
    '0026-11-24T08:30:00Z',
    'yesterday',
    '',
  ])('“%s” is refused', (text) => {
    expect(parseInstant(text).ok).toBe(false);
  });

  test('what is written can be read again', () => {
    fc.assert(
      fc.property(fc.integer({ min: 0, max: Date.UTC(2199, 11, 31) }), (instant) => {
        expect(parseInstant(formatInstant(instant))).toEqual({ ok: true, value: instant });
      }),
    );
  });
});

describe('local dates', () => {
  test('a day that does not exist is refused, not rolled over', () => {
    expect(parseLocalDate('2026-02-30').ok).toBe(false);
    expect(parseLocalDate('2026-2-3').ok).toBe(false);
    expect(parseLocalDate('2026-02-28')).toEqual({ ok: true, value: Date.UTC(2026, 1, 28) / DAY_MS });
  });

  test.each([
    // A missing day becomes the month's last, and the anchor's day comes back afterwards.
    ['2026-01-31', 1, '2026-02-28'],
    ['2024-01-31', 1, '2024-02-29'],
    ['2026-01-31', 2, '2026-03-31'],
    ['2026-01-31', 3, '2026-04-30'],
    ['2024-02-29', 12, '2025-02-28'],
    ['2024-02-29', 48, '2028-02-29'],
    ['2026-11-30', 3, '2027-02-28'],
    ['2026-03-31', -1, '2026-02-28'],
  ])('%s and %d months is %s', (from, count, to) => {
    expect(formatDay(shiftDays(dayNumberOf(from), { months: 1 }, count))).toBe(to);
  });

  test('days are stepped as days', () => {
    expect(formatDay(shiftDays(dayNumberOf('2026-02-27'), { days: 7 }))).toBe('2026-03-06');
  });
});

describe('time zones', () => {
  test('a day begins at local midnight, in winter and in summer', () => {
    // Central European time: UTC+1 in winter, UTC+2 in summer.
    expect(formatInstant(startOfLocalDay(dayNumberOf('2026-01-15'), 'Europe/Zurich'))).toBe(
      '2026-01-14T23:00:00.000Z',
    );
    expect(formatInstant(startOfLocalDay(dayNumberOf('2026-07-15'), 'Europe/Zurich'))).toBe(
      '2026-07-14T22:00:00.000Z',
    );
  });

  test('the days on which clocks change begin at midnight too', () => {
    expect(formatInstant(startOfLocalDay(dayNumberOf('2026-03-29'), 'Europe/Zurich'))).toBe(
      '2026-03-28T23:00:00.000Z',
    );
    expect(formatInstant(startOfLocalDay(dayNumberOf('2026-03-30'), 'Europe/Zurich'))).toBe(
      '2026-03-29T22:00:00.000Z',
    );
    expect(formatInstant(startOfLocalDay(dayNumberOf('2026-10-26'), 'Europe/Zurich'))).toBe(
      '2026-10-25T23:00:00.000Z',
    );
  });

  test('a moment is written as the clock at the site has it', () => {
    const written = (text: string, zone: string) => writeLocal(Date.parse(text), zone);
    expect(written('2026-07-01T06:30:59.999Z', 'Europe/Zurich')).toBe('2026-07-01 08:30');
    // The clocks went back at 01:00 UTC on 25 October 2026: 02:30 comes twice.
    expect(written('2026-10-25T00:30:00Z', 'Europe/Zurich')).toBe('2026-10-25 02:30');
    expect(written('2026-10-25T01:30:00Z', 'Europe/Zurich')).toBe('2026-10-25 02:30');
    expect(written('2026-12-31T23:59:00Z', 'Pacific/Auckland')).toBe('2027-01-01 12:59');
    expect(written('2026-01-01T03:00:00Z', 'America/St_Johns')).toBe('2025-12-31 23:30');
  });

  test('a day whose midnight is skipped begins at the first moment that exists', () => {
    // Beirut moved its clocks from 00:00 to 01:00 on 31 March 2024 (IANA time-zone database).
    const start = startOfLocalDay(dayNumberOf('2024-03-31'), 'Asia/Beirut');
    expect(formatInstant(start)).toBe('2024-03-30T22:00:00.000Z');
    expect(localDayAt(start - 1, 'Asia/Beirut')).toBe(dayNumberOf('2024-03-30'));
  });

  test('each day starts where the one before it ends, in any zone', () => {
    const zones = fc.constantFrom(
      'UTC',
      'Europe/Zurich',
      'America/St_Johns',
      'Pacific/Auckland',
      'Asia/Kathmandu',
      'Asia/Beirut',
    );
    fc.assert(
      fc.property(zones, fc.integer({ min: 18_000, max: 23_000 }), (zone, day) => {
        const start = startOfLocalDay(day, zone);
        expect(localDayAt(start, zone)).toBe(day);
        expect(localDayAt(start - 1, zone)).toBe(day - 1);
      }),
    );
  });

  test('an invented zone is told from a real one', () => {
    expect(isTimeZone('Europe/Zurich')).toBe(true);
    expect(isTimeZone('Haldris/Valley')).toBe(false);
    for (const zone of ['UTC', 'America/Argentina/Ushuaia', 'Etc/GMT+5'])
      expect([zone, isTimeZone(zone)]).toEqual([zone, true]);
    // What a reader of offsets would believe, and what every object has.
    for (const zone of [
      'constructor',
      '__proto__',
      'toString',
      '+25:00',
      '+02:00',
      '2024-02-29',
      'Z',
      '',
      'Europe',
      'europe/zürich',
    ])
      expect([zone, isTimeZone(zone)]).toEqual([zone, false]);
  });

  test('moments are said in local time', () => {
    expect(formatMoment(Date.UTC(2026, 10, 24, 7, 30), 'Europe/Zurich')).toBe('24 Nov 2026, 08:30');
  });
});
