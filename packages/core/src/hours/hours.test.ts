import fc from 'fast-check';
import { DAY_MS } from '../basics/index.js';
import {
  hoursAt,
  meterChangeProblem,
  readingProblem,
  runHoursOf,
  whenReached,
  type HourLog,
  type HourReading,
  type MeterChange,
} from './index.js';

const START = Date.UTC(2026, 0, 5, 8);
const context = { now: START + 400 * DAY_MS, timeZone: 'UTC' };

function read(day: number, hours: number, more: Partial<HourReading> = {}): HourReading {
  const takenAt = START + day * DAY_MS;
  return { takenAt, hours, counts: 'total', source: 'typed', recordedAt: takenAt, ...more };
}

function change(
  day: number,
  oldFinalHours: number,
  newStartHours: number,
  reason: MeterChange['reason'] = 'replaced',
): MeterChange {
  const changedAt = START + day * DAY_MS;
  return { changedAt, oldFinalHours, newStartHours, reason, recordedAt: changedAt };
}

function log(readings: HourReading[], meterChanges: MeterChange[] = []): HourLog {
  return { readings, meterChanges };
}

function hoursOnDay(history: HourLog, day: number, hoursPerDay: number | null = null): number | undefined {
  return hoursAt(runHoursOf(history), START + day * DAY_MS, hoursPerDay)?.hours;
}

describe('continuous run hours', () => {
  test('between readings the hours lie on the line, and say so', () => {
    const runHours = runHoursOf(log([read(0, 100), read(10, 180)]));
    expect(hoursAt(runHours, START + 5 * DAY_MS, null)).toEqual({ hours: 140, basis: 'interpolated' });
    expect(hoursAt(runHours, START + 10 * DAY_MS, null)).toEqual({ hours: 180, basis: 'read' });
    expect(hoursAt(runHours, START + 12 * DAY_MS, 8)).toEqual({ hours: 196, basis: 'extrapolated' });
    expect(hoursAt(runHours, START - DAY_MS, 8)).toEqual({ hours: 100, basis: 'before-first' });
  });

  test('nothing is known without a reading', () => {
    expect(hoursAt(runHoursOf(log([])), START, 8)).toBeNull();
  });

  test('a replaced meter leaves no step', () => {
    // 9,400 h read, replaced at 9,500 h by a meter starting at 12 h, which shows 92 h ten days later.
    const history = log([read(0, 9400), read(20, 92)], [change(10, 9500, 12)]);
    expect(hoursOnDay(history, 10)).toBe(9500);
    expect(hoursOnDay(history, 15)).toBe(9540);
    expect(hoursOnDay(history, 20)).toBe(9580);
  });

  test('a meter that rolls over at 10,000 goes on from there', () => {
    const history = log([read(0, 9990), read(4, 22)], [change(1, 10000, 0, 'rolled-over')]);
    expect(hoursOnDay(history, 4)).toBe(10022);
  });

  test('a reading noted at the very moment of the change belongs to the meter it fits', () => {
    const meterChange = [change(10, 9500, 0)];
    expect(hoursOnDay(log([read(0, 9400), read(10, 9500)], meterChange), 10)).toBe(9500);
    expect(hoursOnDay(log([read(0, 9400), read(10, 0)], meterChange), 10)).toBe(9500);
  });

  test('loaded hours do not disturb total hours, and serve where there are no others', () => {
    const both = log([read(0, 100), read(5, 60, { counts: 'loaded' }), read(10, 180)]);
    expect(hoursOnDay(both, 5)).toBe(140);
    expect(runHoursOf(log([read(0, 60, { counts: 'loaded' })])).counts).toBe('loaded');
  });

  test('the moment a figure is reached is found on the line, and ahead at average use', () => {
    const runHours = runHoursOf(log([read(0, 100), read(10, 180), read(20, 180), read(30, 260)]));
    expect(whenReached(runHours, 140, 4)).toBe(START + 5 * DAY_MS);
    expect(whenReached(runHours, 180, 4)).toBe(START + 10 * DAY_MS);
    expect(whenReached(runHours, 300, 4)).toBe(START + 40 * DAY_MS);
    expect(whenReached(runHours, 300, 0)).toBeNull();
    expect(whenReached(runHours, 300, null)).toBeNull();
  });

  const gains = fc.array(
    fc.record({ days: fc.integer({ min: 1, max: 60 }), perDay: fc.double({ min: 0, max: 24, noNaN: true }) }),
    { minLength: 2, maxLength: 20 },
  );
  const toLog = (steps: { days: number; perDay: number }[]): HourLog => {
    let [day, hours] = [0, 500];
    const readings = [read(0, 500)];
    for (const step of steps) {
      day += step.days;
      hours += step.days * step.perDay;
      readings.push(read(day, hours));
    }
    return log(readings);
  };

  test('a reading in between never changes the total', () => {
    fc.assert(
      fc.property(gains, fc.double({ min: 0, max: 1, noNaN: true }), (steps, share) => {
        const history = toLog(steps);
        const last = history.readings.at(-1)!;
        const day = ((last.takenAt - START) / DAY_MS) * share;
        const between = read(day, hoursOnDay(history, day)!);
        const more = log([...history.readings, between]);
        expect(hoursAt(runHoursOf(more), last.takenAt, null)!.hours).toBeCloseTo(last.hours, 6);
      }),
    );
  });

  test('splitting a history at a meter change leaves the continuous hours the same', () => {
    fc.assert(
      fc.property(gains, fc.nat(), fc.integer({ min: 0, max: 500 }), (steps, where, newStart) => {
        const whole = toLog(steps);
        const cut = 1 + (where % (whole.readings.length - 1));
        const at = whole.readings[cut]!;
        const final = at.hours;
        const split = log(
          [
            ...whole.readings.slice(0, cut),
            ...whole.readings.slice(cut + 1).map((one) => ({ ...one, hours: one.hours - final + newStart })),
          ],
          [{ ...change(0, final, newStart), changedAt: at.takenAt }],
        );
        for (const { takenAt, hours } of whole.readings) {
          expect(hoursAt(runHoursOf(split), takenAt, null)!.hours).toBeCloseTo(hours, 6);
        }
      }),
    );
  });

  test('the order in which facts arrive does not matter', () => {
    const changes = [change(10, 9500, 0), change(30, 160, 5)];
    const readings = [read(0, 9400), read(9, 9490), read(20, 80), read(29, 150), read(40, 90)];
    const straight = runHoursOf(log(readings, changes));
    fc.assert(
      fc.property(
        fc.shuffledSubarray(readings, { minLength: 5 }),
        fc.shuffledSubarray(changes, { minLength: 2 }),
        (r, c) => {
          expect(runHoursOf(log(r, c))).toEqual(straight);
        },
      ),
    );
  });
});

describe('judging a reading', () => {
  const known = log([read(0, 100), read(10, 180)]);
  const judge = (reading: HourReading, history = known) => readingProblem(history, reading, context);

  test.each([
    ['between its neighbours', read(5, 140)],
    ['the same figure again', read(11, 180)],
    ['running day and night', read(12, 228)],
    ['before the first: nothing is known there', read(-100, 0)],
  ])('possible: %s', (_name, reading) => {
    expect(judge(reading)).toBeNull();
  });

  test('lower than what was read before', () => {
    expect(judge(read(11, 179))).toEqual({
      code: 'goes-backwards',
      field: 'hours',
      sentence:
        '179 h is less than the 180 h on 15 Jan 2026, 08:00. Is it a slip, a new meter, or did the meter roll over?',
    });
  });

  test('higher than what was read later', () => {
    const problem = judge(read(5, 181));
    expect(problem?.code).toBe('goes-backwards');
    expect(problem?.sentence).toContain('181 h is more than the 180 h read later, on 15 Jan 2026, 08:00');
  });

  test('faster than the clock, forwards and backwards, with the arithmetic', () => {
    expect(judge(read(12, 250))).toEqual({
      code: 'faster-than-the-clock',
      field: 'hours',
      sentence:
        'From 180 h on 15 Jan 2026, 08:00 to 250 h on 17 Jan 2026, 08:00 is 70 h of running in 48 h. No machine runs more than 24 h a day.',
    });
    expect(judge(read(9.5, 140))?.code).toBe('faster-than-the-clock');
  });

  test('half an hour is allowed for clocks and rounding, not more', () => {
    expect(judge(read(11, 204.5))).toBeNull();
    expect(judge(read(11, 204.6))?.code).toBe('faster-than-the-clock');
  });

  test('the future has not come yet', () => {
    expect(judge(read(401, 200))?.code).toBe('in-the-future');
    expect(judge({ ...read(0, 200), takenAt: context.now + 60_000 })).toBeNull();
  });

  test('loaded hours above total hours', () => {
    expect(judge(read(9, 181, { counts: 'loaded' }))?.code).toBe('loaded-above-total');
    expect(judge(read(9, 120, { counts: 'loaded' }))).toBeNull();
  });

  test('a replaced meter makes a low figure possible, and its own arithmetic holds', () => {
    const changed = log([read(0, 9400)], [change(10, 9500, 0)]);
    expect(judge(read(12, 20), changed)).toBeNull();
    expect(judge(read(12, 90), changed)?.code).toBe('faster-than-the-clock');
    expect(judge(read(9, 9600), changed)?.code).toBe('goes-backwards');
  });
});

describe('judging a meter change', () => {
  const known = log([read(0, 9400), read(10, 9480)]);
  const judge = (meterChange: MeterChange) => meterChangeProblem(known, meterChange, context);

  test('the last figure of the old meter must follow from what was read', () => {
    expect(judge(change(12, 9500, 0))).toBeNull();
    expect(judge(change(12, 9470, 0))?.code).toBe('goes-backwards');
    expect(judge(change(12, 9700, 0))?.code).toBe('faster-than-the-clock');
    expect(judge(change(500, 9500, 0))?.code).toBe('in-the-future');
  });

  test('what was read later must follow from its first figure', () => {
    // 9,480 h on day 10 cannot be read off a meter that started at 0 h on day 8.
    expect(judge(change(8, 9460, 0))?.code).toBe('faster-than-the-clock');
  });
});
