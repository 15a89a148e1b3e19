import fc from 'fast-check';
import { DAY_MS } from '../basics/index.js';
import {
  declaredHours,
  declaredTime,
  hoursFromAir,
  hoursFromCycles,
  isClosedOn,
  parseClosure,
  describeEstimate,
} from './index.js';

describe('hours from counted cycles', () => {
  test('240 cycles of 2½ minutes are 10 h', () => {
    expect(hoursFromCycles(240, 2.5)).toEqual({ ok: true, value: 10 });
    expect(describeEstimate({ cycles: 240, pumpUpMinutes: 2.5 })).toBe('Estimated: 240 cycles × 2.5 min.');
  });

  test.each([
    [-1, 2, 'cycles'],
    [NaN, 2, 'cycles'],
    [1e8, 2, 'cycles'],
    [10, 0, 'pumpUpMinutes'],
    [10, 1441, 'pumpUpMinutes'],
  ])('%d cycles of %d min are refused beside the field', (cycles, minutes, field) => {
    expect(hoursFromCycles(cycles, minutes)).toMatchObject({
      ok: false,
      problem: { code: 'out-of-range', field },
    });
  });
});

describe('hours from air delivered', () => {
  test('60 m³ at 200 L/min are 5 h', () => {
    expect(hoursFromAir(60_000, 200)).toEqual({ ok: true, value: 5 });
    expect(describeEstimate({ airL: 60_000, fadLpm: 200 })).toBe('Estimated: 60 m³ of air ÷ 200 L/min.');
  });

  test.each([
    [-1, 200, 'airL'],
    [1e11, 200, 'airL'],
    [100, 0, 'fadLpm'],
    [100, NaN, 'fadLpm'],
  ])('%d L at %d L/min are refused beside the field', (air, fad, field) => {
    expect(hoursFromAir(air, fad)).toMatchObject({ ok: false, problem: { code: 'out-of-range', field } });
  });
});

describe('hours by declared duty', () => {
  // Monday 1 June 2026, midnight in Zürich.
  const monday = Date.UTC(2026, 4, 31, 22);
  const hours = (days: number, duty: object) =>
    declaredHours({ hoursPerWeek: 40, ...duty }, monday, monday + days * DAY_MS, 'Europe/Zurich');

  test('are even over the week when nothing is closed', () => {
    expect(hours(7, {})).toBeCloseTo(40, 9);
    expect(hours(3.5, {})).toBeCloseTo(20, 9);
  });

  test('fall on the open days of a week', () => {
    const weekends = { closedWeekdays: [6, 7] };
    expect(hours(5, weekends)).toBeCloseTo(40, 9);
    expect(hours(7, weekends)).toBeCloseTo(40, 9);
    expect(hours(8, weekends)).toBeCloseTo(48, 9);
  });

  test('are not made up for after a closure', () => {
    // Tuesday to Thursday of the first week closed: Monday and Friday are left of it, 8 h each.
    expect(hours(14, { closedWeekdays: [6, 7], closures: ['2026-06-02/2026-06-04'] })).toBeCloseTo(
      16 + 40,
      9,
    );
    // Closures that overlap count once.
    const overlapping = ['2026-06-02/2026-06-04', '2026-06-03/2026-06-05'];
    expect(hours(14, { closedWeekdays: [6, 7], closures: overlapping })).toBeCloseTo(8 + 40, 9);
  });

  test('stand still while it is closed', () => {
    const time = declaredTime(
      { closedWeekdays: [6, 7], closures: ['2026-06-08/2026-06-12'] },
      'Europe/Zurich',
      monday,
    );
    // 7 working days are the first week; the next hour comes on Monday of the third.
    const third = monday + 14 * DAY_MS;
    for (const at of [5, 7, 9.3, 14]) expect(time.at(monday + at * DAY_MS)).toBeCloseTo(7, 9);
    expect(time.at(third + DAY_MS / 2)).toBeCloseTo(7.7, 9);
    expect(time.factorAt(monday + 9 * DAY_MS)).toBeLessThan(0.5);
    expect(time.factorAt(monday + 60 * DAY_MS)).toBeCloseTo(1, 9);
  });

  test('never fall, and grow by no more than an open day counts', () => {
    const time = declaredTime({ closedWeekdays: [7], closures: ['2026-07-20/2026-08-02'] }, 'UTC', monday);
    const days = fc.double({ min: 0, max: 900, noNaN: true });
    fc.assert(
      fc.property(days, days, (day, more) => {
        const gained = time.at(monday + (day + more) * DAY_MS) - time.at(monday + day * DAY_MS);
        expect(gained).toBeGreaterThanOrEqual(-1e-9);
        expect(gained).toBeLessThanOrEqual((more * 7) / 6 + 1e-9);
      }),
    );
  });

  test.each([
    '2026-07-20',
    '2026-07-20/2026-07-19',
    '2026-02-30/2026-03-02',
    'a/b',
    '2026-07-20/2026-07-21/2026-07-22',
  ])('“%s” is no closure', (text) => {
    expect(parseClosure(text)).toMatchObject({ ok: false, problem: { code: 'not-a-closure' } });
  });
});

test('a day lies in a closure from its first to its last', () => {
  const closures = ['2026-12-24/2027-01-03', '2026-08-01/2026-08-01'];
  const days = ['2026-12-23', '2026-12-24', '2027-01-03', '2027-01-04', '2026-08-01', '2026-07-31', 'soon'];
  expect(days.map((day) => isClosedOn(closures, day))).toEqual([
    false,
    true,
    true,
    false,
    true,
    false,
    false,
  ]);
  expect(isClosedOn([], '2026-12-24')).toBe(false);
});
