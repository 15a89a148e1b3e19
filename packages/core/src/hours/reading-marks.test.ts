import { DAY_MS } from '../basics/index.js';
import { readingMarks, type HourReading } from './index.js';

const START = Date.UTC(2026, 0, 5, 8);

function read(day: number, hours: number, more: Partial<HourReading> = {}): HourReading {
  const takenAt = START + day * DAY_MS;
  return { takenAt, hours, counts: 'total', source: 'typed', recordedAt: takenAt, ...more };
}

/** Weekly readings at about 5 h a day, as they come: 30 to 40 h a week. */
const weekly = [0, 34, 70, 103, 141, 176, 208].map((hours, week) => read(week * 7, hours));
const marks = (reading: HourReading, readings = weekly) =>
  readingMarks({ readings, meterChanges: [] }, reading);

describe('a reading is unusual', () => {
  test.each([
    ['an ordinary week', read(49, 244), []],
    ['a busy week', read(49, 270), []],
    ['five times the habit', read(49, 378), ['far-from-habit']],
    ['night and day', read(49, 376), ['far-from-habit']],
    ['a quiet week', read(49, 215), []],
    ['one long day, the day after', read(43, 222), []],
    ['the same figure again', read(49, 208), ['same-figure']],
    ['the same figure an hour later is the same visit', read(42 + 1 / 24, 208), []],
    ['two months and more since the last', read(42 + 61, 208 + 61 * 5), ['long-gap']],
  ])('%s', (_name, reading, expected) => {
    expect(marks(reading)).toEqual(expected);
  });

  test('only against a habit: with three readings nothing is far', () => {
    expect(marks(read(21, 380), weekly.slice(0, 3))).toEqual([]);
  });

  test('one odd reading does not poison what follows', () => {
    const odd = [...weekly, read(49, 378)];
    expect(marks(read(56, 413), odd)).toEqual([]);
    expect(marks(read(56, 545), odd)).toEqual(['far-from-habit']);
  });

  test('not across a new meter: the hours go on', () => {
    const changed = {
      readings: weekly,
      meterChanges: [
        {
          changedAt: START + 43 * DAY_MS,
          oldFinalHours: 213,
          newStartHours: 0,
          reason: 'replaced',
          recordedAt: START,
        },
      ],
    } as const;
    expect(readingMarks(changed, read(49, 30))).toEqual([]);
    expect(readingMarks(changed, read(49, 140))).toEqual(['far-from-habit']);
  });

  test('the other counter has a habit of its own', () => {
    expect(marks(read(49, 10, { counts: 'loaded' }))).toEqual([]);
  });

  test('a first reading is never unusual', () => {
    expect(marks(read(0, 9900), [])).toEqual([]);
  });
});
