import fc from 'fast-check';
import { DAY_MS } from '../basics/index.js';
import {
  guessMeterChange,
  meterChangeProblem,
  readingProblem,
  turnsOverAt,
  type HourReading,
} from './index.js';

const START = Date.UTC(2026, 0, 5, 8);
const last: HourReading = {
  takenAt: START,
  hours: 9990,
  counts: 'total',
  source: 'typed',
  recordedAt: START,
};

test.each([
  [0, 1000],
  [999.9, 1000],
  [1000, 10_000],
  [9990, 10_000],
  [10_000, 100_000],
])('a meter at %d h turns over at %d h', (hours, modulus) => {
  expect(turnsOverAt(hours)).toBe(modulus);
});

test('a roll-over came when the hours say: 10 h before it, 30 h after', () => {
  expect(guessMeterChange('rolled-over', last, 30, START + 4 * DAY_MS)).toEqual({
    changedAt: START + DAY_MS,
    oldFinalHours: 10_000,
    newStartHours: 0,
    reason: 'rolled-over',
  });
});

test('a new meter is guessed right after the last reading', () => {
  expect(guessMeterChange('replaced', last, 30, START + 4 * DAY_MS)).toMatchObject({
    changedAt: START + 60_000,
    oldFinalHours: 9990,
  });
});

test('what the old meter ran on to moves the guess: 10 h before the change, 30 h after', () => {
  expect(guessMeterChange('replaced', last, 30, START + 4 * DAY_MS, 10_000)).toMatchObject({
    changedAt: START + DAY_MS,
    oldFinalHours: 10_000,
  });
});

test('with the guess, any lower figure that the clock allows becomes possible', () => {
  fc.assert(
    fc.property(
      fc.constantFrom('replaced' as const, 'rolled-over' as const),
      fc.integer({ min: 2, max: 400 }),
      fc.double({ min: 0, max: 0.9, noNaN: true }),
      (reason, days, share) => {
        const at = START + days * DAY_MS;
        const room = days * 24 - (reason === 'rolled-over' ? 10 : 0);
        const reading: HourReading = {
          ...last,
          takenAt: at,
          hours: Math.min(room, 9000) * share,
          recordedAt: at,
        };
        const change = { ...guessMeterChange(reason, last, reading.hours, at), recordedAt: at };
        const context = { now: at, timeZone: 'UTC' };
        const before = { readings: [last], meterChanges: [] };
        expect(meterChangeProblem(before, change, context)).toBeNull();
        expect(readingProblem({ readings: [last], meterChanges: [change] }, reading, context)).toBeNull();
      },
    ),
  );
});
