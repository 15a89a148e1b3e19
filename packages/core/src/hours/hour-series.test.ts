import fc from 'fast-check';
import { DAY_MS } from '../basics/index.js';
import { hourSeries, loadedShare, type HourLog, type HourReading } from './index.js';

const START = Date.UTC(2026, 0, 5, 8);
const day = (count: number) => START + count * DAY_MS;

function read(at: number, hours: number, more: Partial<HourReading> = {}): HourReading {
  return { takenAt: day(at), hours, counts: 'total', source: 'typed', recordedAt: day(at), ...more };
}

const replaced: HourLog = {
  readings: [read(0, 9400), read(20, 92, { source: 'estimated' })],
  meterChanges: [
    { changedAt: day(10), oldFinalHours: 9500, newStartHours: 12, reason: 'replaced', recordedAt: day(10) },
  ],
};

describe('the continuous hours as a series', () => {
  test('name the source of each point, and run on across a new meter', () => {
    expect(hourSeries(replaced, 'total', day(0), day(20))).toEqual([
      { at: day(0), hours: 9400, source: 'typed' },
      { at: day(10), hours: 9500, source: 'meter-change' },
      { at: day(20), hours: 9580, source: 'estimated' },
    ]);
  });

  test('begin and end where they are asked to, between the points', () => {
    expect(hourSeries(replaced, 'total', day(5), day(15))).toEqual([
      { at: day(5), hours: 9450, source: 'interpolated' },
      { at: day(10), hours: 9500, source: 'meter-change' },
      { at: day(15), hours: 9540, source: 'interpolated' },
    ]);
    expect(hourSeries(replaced, 'total', day(-9), day(-5))).toEqual([]);
  });

  test('never fall', () => {
    const figures = fc.array(fc.tuple(fc.integer({ min: 0, max: 300 }), fc.integer({ min: 0, max: 5000 })), {
      maxLength: 30,
    });
    fc.assert(
      fc.property(figures, (pairs) => {
        const log = { readings: pairs.map(([at, hours]) => read(at, hours)), meterChanges: [] };
        const hours = hourSeries(log, 'total', day(0), day(300)).map((point) => point.hours);
        expect(hours).toEqual([...hours].sort((a, b) => a - b));
      }),
    );
  });
});

describe('the loaded share', () => {
  const both = (loadedPerDay: number, days = 200): HourLog => ({
    readings: [0, days / 2, days].flatMap((at) => [
      read(at, at * 10),
      read(at, at * loadedPerDay, { counts: 'loaded' }),
    ]),
    meterChanges: [],
  });

  test('is what was run under load of what was run', () => {
    expect(loadedShare(both(6))).toBeCloseTo(0.6, 9);
  });

  test('looks at the last quarter, not at the whole life', () => {
    const log = both(6);
    const changed = {
      ...log,
      readings: [...log.readings, read(290, 2900), read(290, 1290, { counts: 'loaded' })],
    };
    // 1,200 h loaded on day 200 and 1,290 on day 290: 90 h in 900.
    expect(loadedShare(changed)).toBeCloseTo(0.1, 9);
  });

  test.each([
    ['only one counter', { readings: [read(0, 0), read(90, 900)], meterChanges: [] }],
    ['less than a week of both', both(6, 6)],
    [
      'nothing run',
      {
        readings: [0, 90].flatMap((at) => [read(at, 5), read(at, 5, { counts: 'loaded' })]),
        meterChanges: [],
      },
    ],
  ])('is not known: %s', (_name, log: HourLog) => {
    expect(loadedShare(log)).toBeNull();
  });
});
