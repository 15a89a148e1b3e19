import fc from 'fast-check';
import { DAY_MS, formatInstant, HOUR_MS } from '../basics/index.js';
import { backupsToKeep, isBackupDue, usualRotation } from './rotation.js';

const at = (text: string) => Date.parse(`${text}Z`);
const days = (kept: ReadonlySet<number>) =>
  [...kept].sort((one, other) => one - other).map((one) => formatInstant(one).slice(0, 10));

test('one a day over two years: a week by days, a month by weeks, a year by months', () => {
  const last = at('2026-11-28T03:00');
  const made = Array.from({ length: 730 }, (_, back) => last - back * DAY_MS);
  // Worked out by hand on a calendar: 28 November 2026 is a Saturday. Weeks end on Sundays, so the latest of the
  // weeks before are the 22nd (a day as well), 15th, 8th and 1st; months end on their last days.
  expect(days(backupsToKeep(made))).toEqual([
    '2025-12-31',
    '2026-01-31',
    '2026-02-28',
    '2026-03-31',
    '2026-04-30',
    '2026-05-31',
    '2026-06-30',
    '2026-07-31',
    '2026-08-31',
    '2026-09-30',
    '2026-10-31',
    '2026-11-01',
    '2026-11-08',
    '2026-11-15',
    '2026-11-22',
    '2026-11-23',
    '2026-11-24',
    '2026-11-25',
    '2026-11-26',
    '2026-11-27',
    '2026-11-28',
  ]);
});

test('of one day the latest stays; what stood still loses nothing', () => {
  const morning = at('2026-11-28T03:00');
  expect([...backupsToKeep([morning, morning + HOUR_MS, morning - HOUR_MS])]).toEqual([morning + HOUR_MS]);
  const seldom = [at('2020-02-29T01:00'), at('2023-07-01T01:00'), at('2026-11-28T01:00')];
  expect(backupsToKeep(seldom).size).toBe(3);
  expect(backupsToKeep([]).size).toBe(0);
});

test('Sunday and Monday are two weeks', () => {
  const rotation = { daily: 0, weekly: 2, monthly: 0 };
  const [sunday, monday, tuesday] = [at('2026-11-22T23:59'), at('2026-11-23T00:00'), at('2026-11-24T12:00')];
  expect(backupsToKeep([sunday, monday, tuesday], rotation)).toEqual(new Set([tuesday, sunday]));
});

test('whatever there is: the latest stays, never more than all together, and once more changes nothing', () => {
  const moments = fc.array(fc.integer({ min: 0, max: 4e12 }), { maxLength: 200 });
  fc.assert(
    fc.property(moments, (made) => {
      const kept = backupsToKeep(made);
      const { daily, weekly, monthly } = usualRotation;
      expect(kept.size).toBeLessThanOrEqual(daily + weekly + monthly);
      if (made.length > 0) expect(kept.has(Math.max(...made))).toBe(true);
      expect(backupsToKeep([...kept])).toEqual(kept);
    }),
  );
});

test('one is due once a day', () => {
  const made = [at('2026-11-27T23:59')];
  expect(isBackupDue(made, at('2026-11-27T23:59'))).toBe(false);
  expect(isBackupDue(made, at('2026-11-28T00:00'))).toBe(true);
  expect(isBackupDue([], at('2026-11-28T00:00'))).toBe(true);
  // A clock that is set back makes another, of its own day.
  expect(isBackupDue(made, at('2026-11-26T12:00'))).toBe(true);
});
