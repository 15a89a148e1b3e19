import { dayNumberOf } from '../basics/index.js';
import {
  calendarDuePoint,
  hoursDuePoint,
  milestoneDuePoint,
  nearingHours,
  type StartingPoint,
} from './due-point.js';
import { day, done, history, measured, only, read, task } from './fixtures.js';
import { cartridgeHoursAt } from './season-wear.js';
import { oilLifeShare, severitiesOf } from './severity.js';
import { hourClockOf } from './clock.js';
import type { StartingPointFact } from './history.js';

const start = (more: Partial<StartingPoint> = {}): StartingPoint => ({
  basis: 'done',
  at: 0,
  hours: 0,
  day: dayNumberOf('2026-01-01'),
  doneAt: 0,
  ...more,
});

describe('how long before its point a task is near', () => {
  test('a tenth of its interval, five hours at least, half of it at most', () => {
    expect([500, 100, 20, 8, 4].map((span) => nearingHours(span))).toEqual([50, 10, 5, 4, 2]);
    expect(nearingHours(500, 20)).toBe(20);
  });

  test('by the calendar seven days at least, half of it at most', () => {
    const window = (days: number) =>
      calendarDuePoint({ every: { days } }, 'last-done', start(), dayNumberOf('2026-01-01')).window;
    expect([100, 60, 14, 6].map(window)).toEqual([10, 7, 7, 3]);
  });
});

describe('on a grid', () => {
  test('work a little early counts for the point it was meant for', () => {
    const at = (hours: number, basis: 'done' | 'commissioned' = 'done') =>
      hoursDuePoint({ every: 500 }, 'grid', { basis }, hours).due;
    expect([440, 449, 450, 500, 540].map((hours) => at(hours))).toEqual([500, 500, 1000, 1000, 1000]);
    // What a machine was commissioned with is no work.
    expect(at(450, 'commissioned')).toBe(500);
  });

  test('credit of a bigger task settles its point whatever the hours', () => {
    expect(hoursDuePoint({ every: 500 }, 'grid', { basis: 'done', creditHours: 1000 }, 900).due).toBe(1500);
  });

  test('by the calendar likewise, never chained', () => {
    const due = (on: string) =>
      calendarDuePoint(
        { every: { months: 12 } },
        'grid',
        start({ day: dayNumberOf(on) }),
        dayNumberOf('2024-01-01'),
      ).due;
    expect(due('2025-11-01')).toBe(dayNumberOf('2026-01-01'));
    // Within the window of 36 days it counts for the coming one.
    expect(due('2025-12-20')).toBe(dayNumberOf('2027-01-01'));
  });
});

describe('fixed figures of hours', () => {
  const at = [500, 2000, 8000];

  test('each is its own interval, from the one before', () => {
    const point = (hours: number) => milestoneDuePoint(at, start({ basis: 'commissioned' }), hours);
    expect(point(0)).toEqual({ due: 500, span: 500, window: 50 });
    expect(point(600)).toEqual({ due: 2000, span: 1500, window: 150 });
    expect(point(2500)).toEqual({ due: 8000, span: 6000, window: 600 });
    expect(point(8001)).toBeNull();
  });

  test('on the figure it is done with', () => {
    expect(milestoneDuePoint(at, start({ basis: 'commissioned' }), 500)!.due).toBe(2000);
    expect(milestoneDuePoint(at, start(), 460)!.due).toBe(2000);
    expect(milestoneDuePoint(at, start(), 440)!.due).toBe(500);
  });
});

describe('where a task counts from', () => {
  const readings = [read(0, 0), read(100, 800)];
  const fact = (more: Partial<StartingPointFact>): StartingPointFact => ({
    task: 'oil',
    basis: 'inspection',
    setAt: day(50),
    recordedAt: day(50),
    ...more,
  });
  const dueBy = (startingPoints: StartingPointFact[], more: object = {}) =>
    only({ tasks: [task('oil')] }, history({ readings, startingPoints, ...more }), 100).dueAtHours;

  test('by what was found then: so many hours used', () => {
    // 400 h on day 50, 100 of them used since it was new.
    expect(dueBy([fact({ hoursUsed: 100 })])).toBeCloseTo(800, 0);
    expect(dueBy([fact({})])).toBeCloseTo(900, 0);
  });

  test('of two that were set at one moment, the one that became known later', () => {
    const first = fact({ hoursUsed: 100, recordedAt: day(51) });
    const second = fact({ hoursUsed: 300, recordedAt: day(52) });
    expect(dueBy([first, second])).toBeCloseTo(600, 0);
    expect(dueBy([second, first])).toBeCloseTo(600, 0);
  });

  test('work after it counts more, work before it less', () => {
    const services = (on: number) => ({ services: [done(on, ['oil'])] });
    expect(dueBy([fact({ hoursUsed: 100 })], services(60))).toBeCloseTo(980, 0);
    expect(dueBy([fact({ hoursUsed: 100 })], services(40))).toBeCloseTo(800, 0);
  });

  test('of one service the bigger task on the grid gives its credit', () => {
    const grid = (code: string, every: number, more: object = {}) =>
      task(code, { counting: 'grid', triggers: [{ kind: 'hours', every }], ...more });
    const plan = { tasks: [grid('small', 500), grid('big', 1000, { covers: ['small'] })] };
    // Both named, or the bigger alone: 800 h is within reach of its 1,000 h only by the bigger one's window.
    const past = (tasks: string[]) =>
      history({ readings: [read(0, 0), read(115, 920), read(120, 960)], services: [done(115, tasks)] });
    expect(only(plan, past(['big']), 120, 'small').dueAtHours).toBe(1500);
    expect(only(plan, past(['small', 'big']), 120, 'small').dueAtHours).toBe(1500);
    expect(only(plan, past(['big', 'small']), 120, 'small').dueAtHours).toBe(1500);
  });
});

describe('water that a cartridge takes up', () => {
  const hours = (maintainingValveBar: number, tempC = 30) =>
    cartridgeHoursAt({ moistureCapacityG: 48, fadLpm: 255, maintainingValveBar }, tempC)!;

  test('goes by the absolute pressure: 11.01 over 6.01 bar is 1.83, not twice', () => {
    expect(hours(10) / hours(5)).toBeCloseTo(11.013 / 6.013, 1);
  });

  test('warm air fills it sooner', () => {
    expect(hours(150, 32)).toBeLessThan(hours(150, 18) / 2);
  });
});

describe('what wears oil sooner', () => {
  test('every ten degrees above what it is rated for halve it', () => {
    expect([90, 100, 110, 95].map((tempC) => oilLifeShare(tempC, 90))).toEqual([1, 0.5, 0.25, 2 ** -0.5]);
  });

  test('the middle of the latest five temperatures counts, an even number is halved', () => {
    const heat = (...temperatures: number[]) => {
      const measurements = temperatures.map((tempC, index) =>
        measured(10 + index, 'discharge-temperature', tempC - 20, { tempC }),
      );
      const past = history({ readings: [read(0, 0), read(20, 160)], measurements });
      return severitiesOf(past, hourClockOf(past, day(20))).dischargeC;
    };
    expect(heat(80, 120, 90)).toBe(90);
    expect(heat(80, 90)).toBe(85);
    expect(heat(40, 40, 80, 82, 84, 86, 120)).toBe(84);
  });

  test('a week of use says nothing of a year', () => {
    const use = (days: number) => {
      const past = history({ readings: [read(0, 0), read(days, days)] });
      return severitiesOf(past, hourClockOf(past, day(days))).hoursPerWeek;
    };
    expect(use(10)).toBeNull();
    expect(use(60)).toBeCloseTo(7, 1);
  });

  test('oil that is no hotter than it is rated for lasts as long as it should', () => {
    const oil = task('oil', { severity: [{ kind: 'heat', because: 'Hot oil ages.' }] });
    const at = (tempC: number) =>
      only(
        { tasks: [oil] },
        history({
          readings: [read(0, 0), read(20, 160)],
          measurements: [measured(10, 'discharge-temperature', tempC - 20, { tempC })],
          place: { oilRatedTempC: 90 },
        }),
        20,
      ).dueAtHours;
    expect([at(80), at(90), at(100)]).toEqual([500, 500, 250]);
  });
});

describe('not before', () => {
  const held = (floor: number) =>
    task('valves', {
      triggers: [
        {
          kind: 'not-before',
          trigger: { kind: 'calendar', every: { days: 100 } },
          floor: { kind: 'hours', every: floor },
        },
      ],
    });
  const past = history({ readings: [read(0, 0), read(20, 160), read(40, 320), read(60, 480)] });

  test('takes the later of both, early dates, likely ones and late ones each', () => {
    // 1,600 h come on day 200, long after day 100.
    const late = only({ tasks: [held(1600)] }, past, 60);
    expect(late.likelyAt! / 86_400_000 - day(0) / 86_400_000).toBeCloseTo(200, 0);
    expect(late.earlyAt!).toBeGreaterThan(day(100));
    expect(late.lateAt === null || late.lateAt >= late.likelyAt!).toBe(true);
    const soon = only({ tasks: [held(160)] }, past, 60);
    expect([soon.earlyAt, soon.likelyAt, soon.lateAt]).toEqual([day(100), day(100), day(100)]);
  });

  test('and the smaller share used', () => {
    expect(only({ tasks: [held(1600)] }, past, 60).usedFraction).toBeCloseTo(0.3, 2);
    expect(only({ tasks: [held(160)] }, past, 60).usedFraction).toBeCloseTo(0.6, 2);
  });
});
