import { day, done, history, only, read, task } from './fixtures.js';
import type { Deferral } from './history.js';
import { standing } from './standing.js';

/** 8 h a day. */
const upTo = (days: number) => [read(0, 0), read(days, days * 8)];

describe('of several triggers', () => {
  const both = {
    tasks: [
      task('oil', {
        triggers: [
          { kind: 'hours', every: 1000 },
          { kind: 'calendar', every: { days: 100 } },
        ],
      }),
    ],
  };

  test('the share used is that of the one used up most', () => {
    // Day 50: 400 of 1,000 h, 50 of 100 days.
    expect(only(both, history({ readings: upTo(50) }), 50).usedFraction).toBeCloseTo(0.5, 2);
    // At 20 h a day the hours lead.
    const busy = history({ readings: [read(0, 0), read(40, 800)] });
    expect(only(both, busy, 40).usedFraction).toBeCloseTo(0.8, 2);
  });

  test('one that cannot be judged leaves the word to the other', () => {
    const plan = {
      tasks: [
        task('valves', {
          triggers: [
            { kind: 'hours', every: 1000 },
            { kind: 'condition', check: 'discharge-temperature', limit: 100 },
          ],
        }),
      ],
    };
    const past = history({ readings: upTo(50) });
    expect(only(plan, past, 50)).toMatchObject({ state: 'fresh', ruledBy: 'hours' });
    // And of the other's dates nothing is taken away.
    expect(only(plan, past, 50).likelyOn).not.toBeNull();
  });

  test('the dates are those of the first to come, early ones and late ones each for itself', () => {
    const { earlyAt, likelyAt, lateAt } = only(both, history({ readings: upTo(50) }), 50);
    expect(likelyAt).toBe(day(100));
    expect(earlyAt!).toBeLessThanOrEqual(likelyAt!);
    expect(lateAt!).toBe(day(100));
  });
});

describe('the edge of a putting off', () => {
  const plan = { tasks: [task('oil')] };
  const deferral = (on: number, more: Partial<Deferral>): Deferral => ({
    task: 'oil',
    deferredAt: day(on),
    recordedAt: day(on),
    reason: 'No part',
    ...more,
  });

  test('at the very hours it is over', () => {
    const past = history({
      readings: [read(0, 0), read(64, 512), read(67.5, 540)],
      deferrals: [deferral(63, { untilHours: 540 })],
    });
    expect(only(plan, past, 67.5)).toMatchObject({ deferral: null });
  });

  test('work of the very moment ends it', () => {
    const past = history({
      readings: upTo(70),
      services: [done(1, ['oil']), done(66, ['oil'])],
      deferrals: [deferral(66, { untilHours: 5000 })],
    });
    // Due again at 66 × 8 + 500 h; by then nothing is put off any more.
    expect(only(plan, { ...past, readings: upTo(130) }, 130)).toMatchObject({ deferral: null });
  });

  test('of two the later rules, whichever is longer', () => {
    const readings = upTo(66);
    const short = deferral(64, { untilHours: 520 });
    const long = deferral(63, { untilHours: 5000 });
    expect(only(plan, history({ readings, deferrals: [long, short] }), 66).deferral).toBeNull();
    expect(only(plan, history({ readings, deferrals: [short, long] }), 66).deferral).toBeNull();
    const later = deferral(65, { untilHours: 5000, reason: 'Still no part' });
    expect(only(plan, history({ readings, deferrals: [short, later] }), 66).deferral).toMatchObject({
      reason: 'Still no part',
    });
  });

  test('by hours alone it says when it ends, and the standing changes then', () => {
    const past = history({ readings: upTo(64), deferrals: [deferral(63, { untilHours: 540 })] });
    const { steadyUntil } = standing(plan, past, day(64));
    // 540 h on day 67.5 at 8 h a day.
    expect((steadyUntil! - day(0)) / (day(1) - day(0))).toBeCloseTo(67.5, 0);
  });
});
