import fc from 'fast-check';
import { DAY_MS } from '../basics/index.js';
import {
  fitUse,
  forecastHours,
  methodOf,
  practicePrior,
  presentRate,
  runHoursOf,
  whenLikely,
  type HourReading,
  type RunHours,
} from './index.js';

const START = Date.UTC(2023, 0, 2);
const day = (count: number) => START + count * DAY_MS;

/** Run hours of a machine that runs so many hours on each day, read every so many days. */
function readEvery(gap: number, days: number, use: (day: number) => number): RunHours {
  const readings: HourReading[] = [];
  let hours = 100;
  for (let count = 0; count <= days; count++) {
    if (count % gap === 0) {
      const takenAt = day(count);
      readings.push({ takenAt, hours, counts: 'total', source: 'typed', recordedAt: takenAt });
    }
    hours += use(count);
  }
  return runHoursOf({ readings, meterChanges: [] });
}

function forecast(runHours: RunHours, ahead: number, declaredHoursPerWeek?: number) {
  const model = fitUse({ runHours, declaredHoursPerWeek })!;
  const found = forecastHours(model, runHours, model.fromHours + ahead);
  const days = (at: number | null) => (at === null ? null : (at - model.fromAt) / DAY_MS);
  return { early: days(found.earlyAt), likely: days(found.likelyAt), late: days(found.lateAt), found, model };
}

describe('a regular machine', () => {
  const regular = readEvery(7, 210, () => 6);

  test('goes on as it went, in a narrow band', () => {
    const { early, likely, late, model } = forecast(regular, 300);
    expect(likely).toBeCloseTo(50, 1);
    expect(early).toBeGreaterThan(45);
    expect(late).toBeLessThan(56);
    expect(methodOf(model)).toBe('readings');
    expect(model.basedOn).toMatchObject({ spanDays: 210, declaredHoursPerWeek: null });
  });

  test('two readings already say as much as their average', () => {
    expect(
      forecast(
        readEvery(10, 10, () => 8),
        80,
      ).likely,
    ).toBeCloseTo(10, 9);
  });

  test('the longer it is not read, the less is sure', () => {
    const wide = (ahead: number) => {
      const { early, late } = forecast(regular, ahead);
      return late! - early!;
    };
    expect(wide(600)).toBeGreaterThan(wide(300));
  });

  test('a figure already passed has one moment', () => {
    const { found } = forecast(regular, -60);
    expect(found.likelyAt).toBe(day(200));
    expect(found.earlyAt).toBe(found.lateAt);
  });
});

test('a machine whose work changed is forecast from how it runs now', () => {
  const changed = readEvery(7, 420, (count) => (count < 280 ? 2 : 8));
  // Lifetime average: (280·2 + 140·8)/420 = 4 h a day, which would say 100 days.
  const { likely } = forecast(changed, 400);
  expect(likely).toBeGreaterThan(46);
  expect(likely).toBeLessThan(60);
});

test('its own past widens the band of a machine that keeps surprising', () => {
  const steady = forecast(
    readEvery(14, 700, () => 5),
    300,
  );
  // Four months of work, four of waiting: not of the year, and far beyond what one fortnight says of the next.
  const restless = forecast(
    readEvery(14, 700, (count) => (Math.floor(count / 110) % 2 === 0 ? 9 : 1)),
    300,
  );
  expect(steady.model.correction.scale).toBeLessThan(1);
  expect(restless.late === null || restless.late - restless.early! > 3 * (steady.late! - steady.early!)).toBe(
    true,
  );
});

describe('seasons', () => {
  // October to March, 5 h a day; nothing in summer.
  const winterOnly = (count: number) =>
    [9, 10, 11, 0, 1, 2].includes(new Date(day(count)).getUTCMonth()) ? 5 : 0;
  const until = (iso: string) => Math.round((Date.parse(iso) - START) / DAY_MS);

  test('in late summer of the second year, the hours wait for winter', () => {
    const { likely, early, model } = forecast(readEvery(14, until('2024-08-26T00:00Z'), winterOnly), 100);
    expect(methodOf(model)).toBe('season');
    // 20 days of running from October on. By its summer average it would be never.
    const on = new Date(model.fromAt + likely! * DAY_MS).toISOString().slice(0, 7);
    expect(['2024-10', '2024-11']).toContain(on);
    expect(new Date(model.fromAt + early! * DAY_MS).getUTCMonth()).toBeGreaterThanOrEqual(8);
  });

  test('in late winter, what is left goes into the next', () => {
    const { likely, model } = forecast(readEvery(14, until('2025-03-17T00:00Z'), winterOnly), 200);
    // About a fortnight of winter is left, 70 h; the other 130 h take until late October.
    const on = new Date(model.fromAt + likely! * DAY_MS);
    expect(on.getUTCFullYear()).toBe(2025);
    expect([9, 10]).toContain(on.getUTCMonth());
    expect(presentRate(model, Date.UTC(2025, 6, 1))).toBeLessThan(0.6);
    expect(presentRate(model, Date.UTC(2026, 0, 1))).toBeGreaterThan(4);
  });

  test('less than a year is no season yet', () => {
    expect(fitUse({ runHours: readEvery(14, 350, winterOnly) })!.season).toBeNull();
  });

  test('one year alone does not tell a season from a change that stays', () => {
    const changed = readEvery(7, 460, (count) => (count < 240 ? 2 : 6));
    const { model, likely } = forecast(changed, 300);
    expect(model.season).toBeNull();
    expect(likely).toBeGreaterThan(44);
    expect(likely).toBeLessThan(62);
  });

  test('a steady machine has none', () => {
    expect(fitUse({ runHours: readEvery(14, 900, () => 4) })!.season).toBeNull();
  });
});

test('a machine that has stood still for ten weeks may start again any day, or not for long', () => {
  const idle = readEvery(7, 210, (count) => (count < 140 ? 6 : 0));
  const { early, likely, late, model } = forecast(idle, 100);
  expect(methodOf(model)).toBe('idle');
  expect(presentRate(model, model.fromAt)).toBe(0);
  // Were it started today, 100 h would take 17 days.
  expect(early!).toBeGreaterThan(17);
  expect(early!).toBeLessThan(60);
  expect(likely!).toBeGreaterThan(60);
  expect(late === null || late > 200).toBe(true);
});

describe('a change of use that came to stay', () => {
  // 1 h a day, then 5, as five working days a week: 56 days ago, with one year and a half, or four, before it.
  const raised = (before: number, days = 56) =>
    readEvery(7, before + days, (count) =>
      count % 7 >= 5 ? 0 : (count < before ? 1 : 5) * (1 + 0.2 * Math.sin(count * 7.3)),
    );

  test.each([480, 1460])('is no season: with %d days before it, 250 h come after 70 days', (before) => {
    // 250 h at 25 h a week: 70 days.
    const { early, likely, late, model } = forecast(raised(before), 250);
    expect(model.season).toBeNull();
    expect(likely!).toBeGreaterThan(63);
    expect(likely!).toBeLessThan(80);
    expect(early!).toBeLessThan(70);
    expect(late!).toBeGreaterThan(70);
  });

  test('is told: about when, from what to what', () => {
    const { model } = forecast(raised(480), 250);
    expect(Math.abs(model.change!.at - (model.fromAt - 56 * DAY_MS)) / DAY_MS).toBeLessThan(15);
    expect(model.change!.before).toBeCloseTo(5 / 7, 1);
    expect(model.change!.since / model.change!.before).toBeGreaterThan(4);
    expect(model.change!.since / model.change!.before).toBeLessThan(6);
  });

  test('is not told of a machine that never changed, nor of one that works by seasons', () => {
    expect(
      forecast(
        readEvery(7, 700, (count) => (count % 7 >= 5 ? 0 : 6 + Math.sin(count))),
        100,
      ).model.change,
    ).toBeNull();
    const winter = readEvery(10, 1400, (count) =>
      [9, 10, 11, 0, 1, 2].includes(new Date(day(count)).getUTCMonth()) ? 5 : 0,
    );
    expect(forecast(winter, 100).model.change).toBeNull();
  });
});

test('steady growth is followed: 60 % more each year', () => {
  const grows = readEvery(14, 1000, (count) =>
    count % 7 >= 5 ? 0 : 4 * Math.exp((Math.log(1.6) * (count - 1000)) / 365.25),
  );
  // From 20/7 h a day growing by ln 1.6 a year: t with 20/7·(e^(gt) − 1)/g = 600, g = 0.0012868: 186 days.
  // By the average since the beginning, 1.59 h a day, it would be 378.
  const { likely } = forecast(grows, 600);
  expect(likely!).toBeGreaterThan(176);
  expect(likely!).toBeLessThan(196);
});

describe('no date', () => {
  test('for a machine that has stood still for long: it says why', () => {
    const idle = readEvery(30, 2400, (count) => (count < 140 ? 6 : 0));
    const { found, model } = forecast(idle, 1000);
    expect(found).toEqual({ earlyAt: null, likelyAt: null, lateAt: null, reason: 'idle' });
    expect(methodOf(model)).toBe('idle');
    expect(presentRate(model, model.fromAt)).toBe(0);
    expect(whenLikely(model, idle, model.fromHours + 1000)).toBeNull();
  });

  test('for hours that ten years do not bring', () => {
    expect(
      forecast(
        readEvery(30, 300, () => 0.1),
        1000,
      ).found.reason,
    ).toBe('beyond-ten-years');
  });

  test('for a machine of whose use nothing is known', () => {
    const once = readEvery(1, 0, () => 0);
    expect(forecast(once, 100).found.reason).toBe('use-unknown');
    expect(fitUse({ runHours: runHoursOf({ readings: [], meterChanges: [] }) })).toBeNull();
  });
});

describe('declared duty', () => {
  test('stands alone before there are readings, with a wide band', () => {
    const { early, likely, late, model } = forecast(
      readEvery(1, 0, () => 0),
      350,
      35,
    );
    expect(likely).toBeCloseTo(70, 9);
    expect(methodOf(model)).toBe('declared');
    expect(late! - early!).toBeGreaterThan(20);
  });

  test('fades as readings come', () => {
    const rate = (days: number) =>
      fitUse({ runHours: readEvery(7, days, () => 10), declaredHoursPerWeek: 35 })!.level!;
    expect(rate(7)).toBeGreaterThan(5);
    expect(rate(7)).toBeLessThan(9);
    expect(rate(28)).toBeGreaterThan(rate(7));
    expect(rate(364)).toBeCloseTo(10, 0);
  });
});

describe('always', () => {
  const machines = fc.record({
    steps: fc.array(
      fc.record({
        days: fc.double({ min: 0.02, max: 90, noNaN: true }),
        rate: fc.double({ min: 0, max: 24, noNaN: true }),
      }),
      { maxLength: 40 },
    ),
    declared: fc.option(fc.double({ min: 0, max: 168, noNaN: true }), { nil: undefined }),
    ahead: fc.double({ min: 0.1, max: 20_000, noNaN: true }),
  });
  const runHoursFrom = (steps: { days: number; rate: number }[]): RunHours => {
    const [at, hours] = [[START], [0]];
    for (const { days, rate } of steps) {
      at.push(at.at(-1)! + days * DAY_MS);
      hours.push(hours.at(-1)! + days * rate);
    }
    return { at, hours, counts: 'total', lastEstimated: false };
  };

  test('early before likely before late, never before the clock allows, never beyond ten years of use', () => {
    fc.assert(
      fc.property(machines, ({ steps, declared, ahead }) => {
        const { early, likely, late, found, model } = forecast(runHoursFrom(steps), ahead, declared);
        if (likely === null) {
          expect([early, late]).toEqual([null, null]);
          expect(found.reason).not.toBeNull();
          return;
        }
        expect(early!).toBeGreaterThanOrEqual(ahead / 24 - 1e-6);
        expect(early!).toBeLessThanOrEqual(likely);
        if (late === null) expect(found.reason).toBe('beyond-ten-years');
        else expect(late).toBeGreaterThanOrEqual(likely);
        const figures = model.outlooks.flatMap((one) => [
          one.weight,
          one.level,
          one.levelVariance,
          one.scatter,
          one.wander,
          one.patternNoise,
        ]);
        for (const figure of [model.level!, model.scatter, model.correction.scale, ...figures]) {
          expect(Number.isFinite(figure) && figure >= 0).toBe(true);
        }
      }),
    );
  });

  test('more hours never come sooner', () => {
    fc.assert(
      fc.property(
        machines,
        fc.double({ min: 0, max: 500, noNaN: true }),
        ({ steps, declared, ahead }, more) => {
          const [sooner, later] = [ahead, ahead + more].map((hours) =>
            forecast(runHoursFrom(steps), hours, declared),
          );
          for (const which of ['early', 'likely', 'late'] as const) {
            const [a, b] = [sooner![which], later![which]];
            if (b !== null) expect(a!).toBeLessThanOrEqual(b + 1e-4);
          }
        },
      ),
    );
  });

  test('the likely moment alone is the likely moment of the three', () => {
    fc.assert(
      fc.property(machines, ({ steps, declared, ahead }) => {
        const runHours = runHoursFrom(steps);
        const { model, found } = forecast(runHours, ahead, declared);
        expect(whenLikely(model, runHours, model.fromHours + ahead)).toBe(found.likelyAt);
      }),
    );
  });
});

test('the fleet’s prior decides while a machine has hardly any readings of its own', () => {
  const few = readEvery(10, 20, (count) => 5 + (count % 3));
  const width = (spread: number) => {
    const model = fitUse({ runHours: few, prior: { ...practicePrior, spread } })!;
    const { earlyAt, lateAt } = forecastHours(model, few, model.fromHours + 100);
    return lateAt! - earlyAt!;
  };
  expect(width(1.4)).toBeGreaterThan(1.5 * width(0.35));
  const many = readEvery(10, 900, (count) => 5 + (count % 3));
  const level = (spread: number) => fitUse({ runHours: many, prior: { ...practicePrior, spread } })!.scatter;
  expect(Math.sqrt(level(1.4) / level(0.35))).toBeLessThan(4);
});
