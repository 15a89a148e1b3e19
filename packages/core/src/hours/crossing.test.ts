import fc from 'fast-check';
import jstat from 'jstat';
import seedrandom from 'seedrandom';
import {
  chanceReached,
  dayReached,
  hoursReached,
  layOut,
  MOST_DAYS,
  normalBelow,
  plainTime,
  type Outlook,
} from './index.js';

const normal = jstat.jStat.normal;
const START = Date.UTC(2026, 0, 5);

/** One way of going on: a day-and-night machine, of which weekdays say nothing. */
const outlook = (of: Partial<Outlook>): Outlook => ({
  weight: 1,
  time: plainTime(START),
  level: 24,
  levelVariance: 0,
  scatter: 1,
  wander: 0,
  growth: null,
  patternNoise: 0,
  change: null,
  ...of,
});
const surfaceOf = (...outlooks: Outlook[]) => layOut(outlooks, START);

/** Quantile of Birnbaum & Saunders (1969): β/4·(αz + √((αz)² + 4))². */
function birnbaumSaunders(p: number, alpha: number, beta: number): number {
  const az = alpha * normal.inv(p, 0, 1);
  return (beta / 4) * (az + Math.sqrt(az ** 2 + 4)) ** 2;
}

test('the normal distribution is that of the library', () => {
  for (let z = -9; z <= 9; z += 0.037) {
    expect(Math.abs(normalBelow(z) - normal.cdf(z, 0, 1))).toBeLessThan(1e-12);
  }
  // Far out, where the library's difference from 1 has no digits left: Q(5), Q(8), as published tables have them.
  expect(normalBelow(-5) / 2.866515719e-7).toBeCloseTo(1, 8);
  expect(normalBelow(-8) / 6.220960574e-16).toBeCloseTo(1, 7);
});

describe('with the rate known and fixed', () => {
  /** Time runs 100 times as fast, so that neither the clock nor the weekdays have a say. */
  const FAST = 100;
  const fast = { ...plainTime(START), at: (moment: number) => (FAST * (moment - START)) / 86_400_000 };
  const quantile = (level: number, sigma: number, remaining: number, p: number) =>
    dayReached(
      surfaceOf(outlook({ time: fast, level: level / FAST, scatter: sigma ** 2 / FAST })),
      remaining,
      p,
    )!;

  test.each([0.02, 0.1, 0.25, 0.5, 0.75, 0.9, 0.98])(
    'the %d quantile is that of Birnbaum and Saunders',
    (p) => {
      fc.assert(
        fc.property(
          fc.double({ min: 0.5, max: 12, noNaN: true }),
          fc.double({ min: 0.1, max: 3, noNaN: true }),
          fc.double({ min: 50, max: 1500, noNaN: true }),
          (level, sigma, remaining) => {
            const [alpha, beta] = [sigma / Math.sqrt(remaining * level), remaining / level];
            const closed = birnbaumSaunders(p, alpha, beta);
            fc.pre(closed < MOST_DAYS * 0.99 && closed > remaining / 20);
            // A hundredth of a day of weekdays is left in it.
            expect(Math.abs(quantile(level, sigma, remaining, p) - closed)).toBeLessThan(
              0.002 * closed + 0.01,
            );
          },
        ),
      );
    },
  );
});

test('worked by hand: half sure of 4 h a day, half of 8', () => {
  // No scatter to speak of: by day 50, 200 h or 400 h. Of 300 h even chances from 37.5 to 75 days.
  const [slow, quick] = [4, 8].map((level) => outlook({ weight: 0.5, level, scatter: 0.01 }));
  const surface = surfaceOf(slow!, quick!);
  expect(chanceReached(surface, 300, 50)).toBeCloseTo(0.5, 6);
  expect(dayReached(surface, 300, 0.1)!).toBeGreaterThan(36);
  expect(dayReached(surface, 300, 0.1)!).toBeLessThan(37.5);
  expect(dayReached(surface, 300, 0.9)!).toBeGreaterThan(75);
  expect(dayReached(surface, 300, 0.9)!).toBeLessThan(77);
});

describe('against a simulation that knows nothing of the formulas', () => {
  /** Gains over some days, day by day: σ² of scatter, a rate that is not sure and wanders. */
  function simulated(of: Outlook, days: number, random: () => number): number {
    const gauss = () => Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random());
    let rate = of.level + Math.sqrt(of.levelVariance) * gauss();
    let hours = 0;
    // Small steps: the rate wanders within a day too.
    const step = 0.25;
    for (let day = 0; day < days; day += step) {
      hours += rate * step + Math.sqrt(of.scatter * step) * gauss();
      rate += Math.sqrt(of.wander * step) * gauss();
    }
    return hours;
  }

  test.each([
    ['scatter', { level: 20, scatter: 9 }, 40],
    ['a rate that is not sure', { level: 20, scatter: 1, levelVariance: 4 }, 40],
    ['a rate that wanders', { level: 20, scatter: 1, wander: 0.05 }, 60],
  ])('%s: one in ten less, one in ten more', (_, of, days) => {
    const random = seedrandom('crossing');
    const one = outlook(of);
    const gains = Array.from({ length: 4000 }, () => simulated(one, days, random)).sort((a, b) => a - b);
    const surface = surfaceOf(one);
    for (const share of [0.1, 0.5, 0.9]) {
      const found = hoursReached(surface, days, 1 - share);
      const below = gains.filter((hours) => hours < Math.min(found, 24 * days - 1e-6)).length / gains.length;
      // What the clock does not allow, the forecast cuts off at day and night.
      if (found < 24 * days * 0.98) expect(Math.abs(below - share)).toBeLessThan(0.025);
    }
  });

  test('growth and a change to come', () => {
    const random = seedrandom('growth');
    const gauss = () => Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random());
    const growth = { perDay: 0.001, levelVariance: 0.01, covariance: 0, slopeVariance: 0 };
    const grows = outlook({ level: 8, scatter: 0.02, growth });
    const days = 100;
    const gains = Array.from({ length: 4000 }, () => {
      const level = Math.log(8) + 0.1 * gauss();
      let hours = 0;
      for (let day = 0.5; day < days; day++) {
        // The slope fades over a thousand days.
        const rate = Math.exp(level + 0.001 * 1000 * (1 - Math.exp(-day / 1000)));
        hours += rate * (1 + Math.sqrt(0.02) * gauss());
      }
      return hours;
    }).sort((a, b) => a - b);
    for (const share of [0.1, 0.5, 0.9]) {
      const found = hoursReached(surfaceOf(grows), days, 1 - share);
      expect(found / gains[Math.round(share * gains.length)]!).toBeCloseTo(1, 1);
    }
    // It stands still, and starts again once in 100 days on the average, at 10 h a day.
    const restarts = outlook({ level: 0.01, scatter: 0.01, change: { perDay: 0.01, toLevel: 10 } });
    const reached = Array.from({ length: 4000 }, () => -100 * Math.log(1 - random()) + 20).filter(
      (day) => day <= 90,
    ).length;
    expect(Math.abs(chanceReached(surfaceOf(restarts), 200, 90) - reached / 4000)).toBeLessThan(0.12);
  });
});

describe('always', () => {
  const outlooks = fc
    .array(
      fc.record({
        weight: fc.double({ min: 0.05, max: 1, noNaN: true }),
        level: fc.double({ min: 0.2, max: 20, noNaN: true }),
        levelVariance: fc.double({ min: 0, max: 4, noNaN: true }),
        scatter: fc.double({ min: 0.01, max: 60, noNaN: true }),
        wander: fc.double({ min: 0, max: 0.02, noNaN: true }),
      }),
      { minLength: 1, maxLength: 4 },
    )
    .map((found) => {
      const total = found.reduce((sum, { weight }) => sum + weight, 0);
      return found.map((one) => outlook({ ...one, weight: one.weight / total }));
    });
  const hours = fc.double({ min: 0.5, max: 3000, noNaN: true });
  const chance = fc.constantFrom(0.1, 0.5, 0.9);

  test('the day found is the first on which the chance is reached', () => {
    fc.assert(
      fc.property(outlooks, hours, chance, (mixture, remaining, wanted) => {
        const surface = surfaceOf(...mixture);
        const day = dayReached(surface, remaining, wanted);
        // A plain walk over the days, to say where it is first reached.
        let first: number | null = null;
        for (let t = remaining / 24; t <= MOST_DAYS && first === null; t *= 1.01) {
          if (chanceReached(surface, remaining, t) >= wanted) first = t;
        }
        if (day === null) expect(first === null || first > MOST_DAYS * 0.5).toBe(true);
        else if (day > remaining / 24 + 1e-6) {
          expect(Math.abs(chanceReached(surface, remaining, day) - wanted)).toBeLessThan(1e-4);
          if (first !== null) expect(day).toBeLessThanOrEqual(first * 1.001 + 1e-6);
        }
      }),
    );
  });

  test('more hours never take fewer days', () => {
    fc.assert(
      fc.property(outlooks, hours, hours, chance, (mixture, a, b, wanted) => {
        const surface = surfaceOf(...mixture);
        const less = dayReached(surface, Math.min(a, b), wanted);
        const more = dayReached(surface, Math.max(a, b), wanted);
        if (more !== null) expect(less!).toBeLessThanOrEqual(more + 1e-5 * (1 + more));
      }),
    );
  });

  test('what is not run within ten years has no day', () => {
    expect(dayReached(surfaceOf(outlook({ level: 0.1, scatter: 0.01 })), 400, 0.9)).toBeNull();
    // A rate that wanders so much that nine in ten is never reached, however long one waits.
    const adrift = outlook({ level: 1, levelVariance: 1, scatter: 1, wander: 0.05 });
    expect(dayReached(surfaceOf(adrift), 400, 0.9)).toBeNull();
    expect(dayReached(surfaceOf(adrift), 400, 0.1)).toBeGreaterThan(0);
  });
});
