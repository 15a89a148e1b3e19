import { DAY_MS } from '../basics/index.js';
import type { HourReading } from '../hours/index.js';
import { hourClockOf } from './clock.js';
import type { CompressorHistory } from './history.js';
import { readingNeed } from './reading-need.js';
import { standing } from './standing.js';
import type { ServicePlan } from './service-plan.js';

const NOW = Date.UTC(2026, 10, 24, 9);
const plan: ServicePlan = {
  tasks: [
    {
      code: 'oil-change',
      name: 'Oil change',
      station: 'crankcase',
      action: 'replace',
      triggers: [{ kind: 'hours', every: 1200 }],
      counting: 'last-done',
      isolation: 'isolated-and-vented',
      minutes: 30,
      origin: 'practice',
    },
  ],
};

/** Read so many days ago, at so many hours each. */
function machine(
  figures: readonly (readonly [number, number])[],
  more: Partial<CompressorHistory> = {},
): CompressorHistory {
  return {
    timeZone: 'UTC',
    commissionedOn: '2025-01-01',
    history: 'new',
    meterChanges: [],
    services: [],
    readings: figures.map(([ago, hours]): HourReading => {
      const takenAt = NOW - ago * DAY_MS;
      return { takenAt, hours, counts: 'total', source: 'typed', recordedAt: takenAt };
    }),
    ...more,
  };
}

function need(history: CompressorHistory) {
  const { tasks } = standing(plan, history, NOW);
  return readingNeed(hourClockOf(history, NOW), tasks, NOW);
}

/** Restless: 150 h and next to none by turns, every twenty days, up to so many days ago. */
const restless = (until: number) =>
  machine(
    Array.from(
      { length: 12 },
      (_, i) => [until + (11 - i) * 20, 50 + Math.floor((i + 1) / 2) * 150 + i] as const,
    ),
  );

describe('whether the hours should be read', () => {
  test('yes, where a reading would make the next date much surer', () => {
    const found = need(restless(45))!;
    expect(found.daysSince).toBeCloseTo(45, 6);
    expect(found.spreadDays).toBeGreaterThan(found.spreadIfReadDays!);
  });

  test('not within a week of the last', () => {
    expect(need(restless(6))).toBeNull();
  });

  test('not for a machine so regular that its dates are sure all the same', () => {
    const regular = Array.from({ length: 20 }, (_, i) => [45 + (19 - i) * 14, i * 70] as const);
    expect(need(machine(regular))).toBeNull();
  });

  test('yes, for one that was never read, as long as it has papers to be read by', () => {
    expect(need(machine([]))).toEqual({ daysSince: null, spreadDays: null, spreadIfReadDays: null });
  });

  test('by age alone for one that stood still: nobody knows whether it still does', () => {
    const idle = (ago: number) =>
      need(
        machine([
          [300, 0],
          [250, 300],
          [200, 300],
          [ago, 300],
        ]),
      );
    expect(idle(70)).toMatchObject({ spreadDays: null });
    expect(idle(30)).toBeNull();
  });
});

test('every task carries early, likely and late, whichever trigger comes first', () => {
  const { tasks } = standing(plan, restless(20), NOW);
  const [task] = tasks;
  expect(task!.earlyOn! < task!.likelyOn!).toBe(true);
  expect(task!.lateOn === null || task!.lateOn > task!.likelyOn!).toBe(true);
  const yearly: ServicePlan = {
    tasks: [
      {
        ...plan.tasks[0]!,
        triggers: [...plan.tasks[0]!.triggers, { kind: 'calendar', every: { months: 24 } }],
      },
    ],
  };
  const [both] = standing(yearly, restless(20), NOW).tasks;
  // The calendar cuts off what the hours leave open.
  expect(both!.lateOn! <= '2027-01-01').toBe(true);
});

test('hours that are only declared are as unsure as the time since the work was done, not since commissioning', () => {
  const declared = (commissionedOn: string) =>
    machine([], {
      commissionedOn,
      declaredHoursPerWeek: 35,
      services: [{ doneAt: NOW - 30 * DAY_MS, recordedAt: NOW, tasks: ['oil-change'] }],
    });
  const spread = (commissionedOn: string) => {
    const [task] = standing(plan, declared(commissionedOn), NOW).tasks;
    return task!.lateAt! - task!.earlyAt!;
  };
  expect(spread('2016-01-01') / spread('2026-01-01')).toBeCloseTo(1, 1);
});
