import {
  declaredTime,
  guessMeterChange,
  hoursAt,
  loadedShare,
  meterScaleAt,
  readingMarks,
  readingProblem,
  runHoursOf,
  type HourReading,
  type MeterChange,
} from './index.js';

const [MINUTE, DAY] = [60_000, 86_400_000];
const NOW = Date.UTC(2026, 10, 24, 9);
const context = { now: NOW, timeZone: 'UTC' };
const read = (days: number, hours: number, more: Partial<HourReading> = {}): HourReading => ({
  takenAt: NOW - days * DAY,
  hours,
  counts: 'total',
  source: 'typed',
  recordedAt: NOW,
  ...more,
});
const log = (...readings: HourReading[]) => ({ readings, meterChanges: [] });
const code = (readings: HourReading[], one: HourReading) =>
  readingProblem(log(...readings), one, context)?.code ?? null;

describe('a reading', () => {
  test('some minutes ahead are a clock that goes wrong, more have not come yet', () => {
    const ahead = (minutes: number) => code([], { ...read(0, 10), takenAt: NOW + minutes * MINUTE });
    expect([ahead(0), ahead(5), ahead(5.1), ahead(300)]).toEqual([
      null,
      null,
      'in-the-future',
      'in-the-future',
    ]);
  });

  test('half an hour more than the clock is a round figure, more is none', () => {
    const gain = (hours: number) => code([read(1, 100)], read(0, 100 + hours));
    expect([gain(24), gain(24.5), gain(24.6)]).toEqual([null, null, 'faster-than-the-clock']);
  });

  test('loaded hours are held against the next total, not against a later one', () => {
    const totals = [read(10, 100), read(2, 180)];
    const loaded = (days: number, hours: number) => code(totals, read(days, hours, { counts: 'loaded' }));
    expect(loaded(12, 101)).toBe('loaded-above-total');
    expect(loaded(12, 100)).toBeNull();
    expect(loaded(5, 181)).toBe('loaded-above-total');
  });

  test('a figure far from habit is told, one that is only more than usual is not', () => {
    // 8 h a day, give or take half an hour: four times the least deviation of 2 h is allowed.
    const past = [50, 40, 30, 20, 10].map((days, index) => read(days, index * 80 + (index % 2)));
    const marks = (hours: number) => readingMarks(log(...past), read(0, past.at(-1)!.hours + hours));
    expect(marks(80)).not.toContain('far-from-habit');
    expect(marks(150)).not.toContain('far-from-habit');
    expect(marks(200)).toContain('far-from-habit');
  });
});

describe('run hours', () => {
  test('never fall, whatever was read in between', () => {
    const runHours = runHoursOf(log(read(30, 100), read(20, 90), read(10, 110)));
    expect(runHours.hours).toEqual([100, 100, 110]);
    expect(hoursAt(runHours, NOW - 20 * DAY, null)!.hours).toBe(100);
  });

  test('of a loaded counter a change of the meter moves nothing', () => {
    const change: MeterChange = {
      changedAt: NOW - 20 * DAY,
      oldFinalHours: 900,
      newStartHours: 0,
      reason: 'replaced',
      recordedAt: NOW,
    };
    expect(meterScaleAt([change], 'loaded', NOW)).toMatchObject({ offset: 0, fittedAtHours: null });
    expect(meterScaleAt([change], 'total', NOW)).toMatchObject({ offset: 900, fittedAtHours: 900 });
    expect(meterScaleAt([change], 'total', NOW - 21 * DAY)).toMatchObject({ offset: 0 });
  });

  test('more loaded hours than hours are a share of one', () => {
    const loaded = (days: number, hours: number) => read(days, hours, { counts: 'loaded' });
    expect(loadedShare(log(read(60, 0), read(10, 100), loaded(60, 0), loaded(10, 50)))).toBeCloseTo(0.5, 6);
    expect(loadedShare(log(read(60, 0), read(10, 100), loaded(60, 0), loaded(10, 130)))).toBe(1);
    expect(loadedShare(log(read(60, 0), read(56, 100), loaded(60, 0), loaded(56, 50)))).toBeNull();
  });

  test('a meter that was changed was so before it was read', () => {
    const last = { takenAt: NOW - 30_000, hours: 500 };
    const guess = guessMeterChange('replaced', last, 2, NOW);
    expect(guess.changedAt).toBeLessThanOrEqual(NOW);
    const long = guessMeterChange('replaced', { takenAt: NOW - 10 * DAY, hours: 500 }, 2, NOW, 510);
    expect(long.changedAt).toBeGreaterThan(NOW - 10 * DAY);
    expect(long.changedAt).toBeLessThan(NOW);
  });
});

describe('declared days of use', () => {
  const monday = Date.UTC(2026, 10, 23);
  const days = (duty: Parameters<typeof declaredTime>[0], from: number, to: number) =>
    declaredTime(duty, 'UTC', monday).at(monday + to * DAY) -
    declaredTime(duty, 'UTC', monday).at(monday + from * DAY);

  test('a week is seven of them, on whatever days it is closed', () => {
    expect(days({ closedWeekdays: [6, 7] }, 0, 7)).toBeCloseTo(7, 9);
    expect(days({ closedWeekdays: [6, 7] }, 0, 5)).toBeCloseTo(7, 9);
    expect(days({ closedWeekdays: [6, 7] }, 5, 7)).toBeCloseTo(0, 9);
    // Closed every day is a slip: then it counts as if it were open.
    expect(days({ closedWeekdays: [1, 2, 3, 4, 5, 6, 7] }, 0, 7)).toBeCloseTo(7, 9);
  });

  test('closures that overlap are one, as long as both together', () => {
    const closures = ['2026-11-24/2026-11-29', '2026-11-25/2026-11-26'];
    // Of a fortnight from Monday the 23rd six days are closed.
    expect(days({ closures }, 0, 14)).toBeCloseTo(8, 9);
    expect(days({ closures: [...closures].reverse() }, 0, 14)).toBeCloseTo(8, 9);
    expect(days({ closures: ['2026-11-24/2026-11-24'] }, 1, 2)).toBeCloseTo(0, 9);
  });
});
