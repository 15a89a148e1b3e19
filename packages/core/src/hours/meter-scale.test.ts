import fc from 'fast-check';
import { DAY_MS } from '../basics/index.js';
import {
  FIRST_METER,
  fromMeter,
  hoursAt,
  hoursSeen,
  meterScaleAt,
  onMeter,
  runHoursOf,
  formatHoursSeen,
  type HourReading,
  type MeterChange,
} from './index.js';

const START = Date.UTC(2020, 0, 1);

/** What a machine does to its meters: it runs some hours, or its meter is changed. */
type Event =
  | { readonly run: number }
  | { readonly reason: 'replaced' | 'reset' | 'rolled-over'; readonly newStart: number };

const events = fc.array(
  fc.oneof(
    { weight: 3, arbitrary: fc.integer({ min: 0, max: 900 }).map((run): Event => ({ run })) },
    {
      weight: 1,
      arbitrary: fc.record({
        reason: fc.constantFrom('replaced' as const, 'reset' as const, 'rolled-over' as const),
        newStart: fc.integer({ min: 0, max: 4000 }),
      }),
    },
  ),
  { minLength: 1, maxLength: 25 },
);

/** Lives it through: what was noted of it, and what its meter really showed each day. */
function live(first: number, course: readonly Event[]) {
  const readings: HourReading[] = [];
  const meterChanges: MeterChange[] = [];
  const shown: { readonly at: number; readonly figure: number }[] = [];
  let [at, figure] = [START, first];
  const read = () => {
    readings.push({ takenAt: at, hours: figure, counts: 'total', source: 'typed', recordedAt: at });
    shown.push({ at, figure });
  };
  read();
  for (const event of course) {
    at += DAY_MS;
    if ('run' in event) figure += event.run;
    else {
      const newStartHours = event.reason === 'rolled-over' ? 0 : event.newStart;
      meterChanges.push({
        changedAt: at,
        oldFinalHours: figure,
        newStartHours,
        reason: event.reason,
        recordedAt: at,
      });
      figure = newStartHours;
      at += DAY_MS / 2;
    }
    read();
  }
  return { log: { readings, meterChanges }, shown, figure, at };
}

describe('whatever is said of hours is what the meter shows', () => {
  test('over replaced, reset and rolled-over meters, at every moment that it was read', () => {
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 20_000 }), events, (first, course) => {
        const { log, shown } = live(first, course);
        const runHours = runHoursOf(log);
        for (const { at, figure } of shown) {
          const scale = meterScaleAt(log.meterChanges, 'total', at);
          const continuous = hoursAt(runHours, at, null)!.hours;
          expect(onMeter(scale, continuous)).toBeCloseTo(figure, 6);
          expect(hoursSeen(scale, continuous)).toEqual({
            figure: expect.closeTo(figure, 6),
            counter: 'meter',
          });
        }
      }),
      { numRuns: 300 },
    );
  });

  test('and what is due is the figure that it will show when it has run so much more', () => {
    fc.assert(
      fc.property(fc.nat(20_000), events, fc.nat(5000), (first, course, more) => {
        const { log, figure, at } = live(first, course);
        const scale = meterScaleAt(log.meterChanges, 'total', at);
        const due = hoursAt(runHoursOf(log), at, null)!.hours + more;
        expect(onMeter(scale, due)).toBeCloseTo(figure + more, 6);
        expect(fromMeter(scale, onMeter(scale, due))).toBeCloseTo(due, 6);
      }),
      { numRuns: 300 },
    );
  });
});

const replaced: readonly MeterChange[] = [
  {
    changedAt: START + 10 * DAY_MS,
    oldFinalHours: 5865,
    newStartHours: 0,
    reason: 'replaced',
    recordedAt: START,
  },
];

describe('in words', () => {
  const later = meterScaleAt(replaced, 'total', START + 20 * DAY_MS);

  test.each([
    // A total of 7,975 h on a meter that came at 5,865 h shows 2,110 h.
    [later, 7975, '2,110 h', '2,110 h on the meter, 7,975 h total'],
    [later, 9295, '3,430 h', '3,430 h on the meter, 9,295 h total'],
    // Before it was fitted there was no figure on it.
    [later, 5000, '5,000 h total', '5,000 h total'],
    [meterScaleAt(replaced, 'total', START), 5000, '5,000 h', '5,000 h'],
    [FIRST_METER, 487.5, '488 h', '488 h'],
    [FIRST_METER, 12.25, '12.3 h', '12.3 h'],
    [meterScaleAt(replaced, 'loaded', START + 20 * DAY_MS), 900, '900 h loaded', '900 h loaded'],
  ])('%j at %d: %s', (scale, hours, short, full) => {
    expect([formatHoursSeen(scale, hours), formatHoursSeen(scale, hours, 'full')]).toEqual([short, full]);
  });
});

test('two changes count in the order of their moments, however they are told', () => {
  const [first] = replaced;
  // 5,865 h total when the first came off; the second began at 10 and was at 400: 390 h more.
  const second = { ...first!, changedAt: START + 30 * DAY_MS, oldFinalHours: 400, newStartHours: 5 };
  const begunAt = { ...first!, newStartHours: 10 };
  const both = [
    [begunAt, second],
    [second, begunAt],
  ].map((changes) => meterScaleAt(changes, 'total', START + 40 * DAY_MS));
  expect(both[0]).toEqual({ offset: 5865 - 10 + 400 - 5, fittedAtHours: 5865 + 390, counts: 'total' });
  expect(both[1]).toEqual(both[0]);
});
