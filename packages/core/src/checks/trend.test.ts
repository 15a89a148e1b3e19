import fc from 'fast-check';
import jstat from 'jstat';
import alea from 'seedrandom/lib/alea.js';
import { beforeAfter, trendOf, type TrendPoint } from './index.js';

const points = (...pairs: readonly [number, number][]): TrendPoint[] =>
  pairs.map(([hours, value]) => ({ hours, value, uncertainty: 0.01 }));

describe('the trend of a check', () => {
  test('by hand: 0.3, 0.41, 0.49, 0.6 bar at 0, 1,000, 2,000 and 3,000 h reach 1 bar near 7,100 h', () => {
    // Mean 0.45 at 1,500 h; Sxy = 1,500·0.15 + 500·0.04 + 500·0.04 + 1,500·0.15 = 490; Sxx = 5e6: 9.8e-5 an hour.
    // (1 − 0.45)/9.8e-5 + 1,500 = 7,112 h.
    const trend = trendOf(points([0, 0.3], [1000, 0.41], [2000, 0.49], [3000, 0.6]), [], 1, 'higher')!;
    expect(trend.perHour).toBeCloseTo(9.8e-5, 9);
    // A straight line would reach it at 7,112 h; that most wear quickens and some slows moves it little.
    expect(trend.limitHours!.likely / 7112.2).toBeGreaterThan(0.95);
    expect(trend.limitHours!.likely / 7112.2).toBeLessThan(1.05);
    expect(trend.isForeseeable).toBe(true);
    expect(trend.limitHours!.early).toBeLessThan(trend.limitHours!.likely);
    expect(trend.limitHours!.late!).toBeGreaterThan(trend.limitHours!.likely);
  });

  test.each([
    ['as it is', 0.04, 0.84],
    ['forty times too small', 0.001, 0.8],
  ])(
    'its noise told %s: nine times in ten a simulated line crosses after the early hour, and as often before the late one',
    (_, uncertainty, least) => {
      const stated = uncertainty;
      // Noise of known size about a true line; the true crossing lies at 8,000 h.
      const normal = jstat.jStat.normal;
      const chance = alea('trend');
      let [after, before, limits] = [0, 0, 0];
      for (let run = 0; run < 400; run++) {
        const noisy = Array.from({ length: 8 }, (_, index): TrendPoint => {
          const hours = index * 500;
          const noise = 0.04 * normal.inv(0.0005 + 0.999 * chance(), 0, 1);
          return { hours, value: 0.2 + hours * 1e-4 + noise, uncertainty: stated };
        });
        const limit = trendOf(noisy, [], 1, 'higher')?.limitHours;
        if (!limit) continue;
        limits += 1;
        if (limit.early <= 8000) after += 1;
        if (limit.late === null || limit.late >= 8000) before += 1;
      }
      expect(limits).toBeGreaterThan(390);
      expect(after / limits).toBeGreaterThan(least);
      expect(before / limits).toBeGreaterThan(least);
    },
  );

  test('two measurements, or three at the same hours, are no trend', () => {
    expect(trendOf(points([0, 1], [100, 2]), [], 5, 'higher')).toBeNull();
    expect(trendOf(points([100, 1], [100, 2], [100, 3]), [], 5, 'higher')).toBeNull();
    expect(trendOf([], [], 5, 'higher')).toBeNull();
  });

  test('work begins it anew: what was before it does not count', () => {
    const all = points([0, 0.2], [1000, 0.9], [2000, 0.2], [2500, 0.22], [3000, 0.24]);
    const trend = trendOf(all, [1500], 1, 'higher')!;
    expect([trend.count, trend.fromHours]).toEqual([3, 2000]);
    expect(trend.perHour).toBeCloseTo(4e-5, 9);
  });

  test('going away from its limit it never reaches it; past it already, it is there', () => {
    const falling = points([0, 0.6], [1000, 0.5], [2000, 0.4]);
    expect(trendOf(falling, [], 1, 'higher')!.limitHours).toBeNull();
    expect(trendOf(falling, [], 0.5, 'lower')!.limitHours!.likely).toBe(2000);
    expect(trendOf(falling, [], 1, 'either')!.limitHours).toBeNull();
  });

  test('wear that quickens is not taken for a straight line, the less so once a cycle was seen', () => {
    // (h/4,000)³ of the way from 0.2 to 1: 0.2, 0.2125, 0.3 and 0.5375 bar at 0, 1,000, 2,000 and 3,000 h.
    const cubic = (from: number, until: number): [number, number][] =>
      Array.from({ length: until / 500 + 1 }, (_, index) => [
        from + index * 500,
        0.2 + 0.8 * ((index * 500) / 4000) ** 3,
      ]);
    const fresh = trendOf(points(...cubic(0, 3000)), [0], 1, 'higher')!;
    // By a straight line through all of them it would be some 6,700 h.
    expect(fresh.limitHours!.likely).toBeGreaterThan(3700);
    expect(fresh.limitHours!.likely).toBeLessThan(4300);
    const early = points(...cubic(0, 3500), ...cubic(3600, 1500));
    const blind = trendOf(points(...cubic(0, 1500)), [0], 1, 'higher')!.limitHours!;
    const learnt = trendOf(early, [0, 3600], 1, 'higher')!;
    expect(learnt.cycles).toBe(1);
    const width = (limit: { early: number; late: number | null }) => limit.late! - limit.early;
    expect(width(learnt.limitHours!)).toBeLessThan(0.7 * (blind.late === null ? Infinity : width(blind)));
    expect(learnt.limitHours!.early).toBeLessThan(3600 + 4000);
    expect(learnt.limitHours!.late!).toBeGreaterThan(3600 + 4000);
  });

  test('what has not changed yet cannot be foreseen by measuring, and says so', () => {
    const flat = trendOf(points([0, 0.2], [500, 0.21], [1000, 0.19], [1500, 0.2]), [0], 1, 'higher')!;
    expect(flat.isForeseeable).toBe(false);
    expect(flat.limitHours!.late === null || flat.limitHours!.late > 3 * flat.limitHours!.early).toBe(true);
  });

  test('early, likely and late are in order, never before the last measurement', () => {
    const value = fc.double({ min: 0, max: 1, noNaN: true });
    fc.assert(
      fc.property(fc.array(value, { minLength: 3, maxLength: 12 }), (values) => {
        const trend = trendOf(
          values.map((one, index) => ({ hours: index * 250, value: one, uncertainty: 0.02 })),
          [],
          1.2,
          'higher',
        );
        const limit = trend?.limitHours;
        if (!limit) return;
        expect(limit.early).toBeGreaterThanOrEqual(trend.toHours);
        expect(limit.early).toBeLessThanOrEqual(limit.likely);
        if (limit.late !== null) expect(limit.late).toBeGreaterThanOrEqual(limit.likely);
      }),
    );
  });

  test('a cycle that was measured eleven times teaches its shape and life closely', () => {
    // v = 4 + 2.6·(h/1600)², with some scatter; the limit of 6.62 comes 1,600 h after the work at 1,600 h.
    const measured = [
      [34, 3.9826],
      [205, 4.0168],
      [311, 4.0476],
      [490, 4.2134],
      [615, 4.3387],
      [795, 4.6184],
      [923, 4.8373],
      [1069, 5.1676],
      [1235, 5.5246],
      [1355, 5.8861],
      [1461, 6.1964],
      [1683, 3.9893],
      [1874, 4.0429],
      [2078, 4.2218],
      [2249, 4.4175],
    ] as const;
    const points = measured.map(([hours, value]) => ({ hours, value, uncertainty: 0.02 }));
    const { limitHours, at } = trendOf(points, [0, 1600], 6.62, 'higher')!;
    expect(limitHours!.early).toBeGreaterThan(3070);
    expect(limitHours!.late).toBeLessThan(3300);
    expect(at(2249).value).toBeCloseTo(4.42, 1);
    expect(at(2249).deviation).toBeLessThan(0.03);
  });
});

describe('before and after', () => {
  const DAY = 86_400_000;
  const measured = (day: number, value: number, uncertainty = 2) => ({
    id: `m${day}`,
    at: day * DAY,
    value,
    uncertainty,
  });
  const work = (day: number) => ({ at: day * DAY, tasks: ['valves-all'] });

  test('the last before and the first after make the pair', () => {
    const [pair, ...more] = beforeAfter(
      [measured(1, 300), measured(9, 290), measured(10.2, 350), measured(15, 349)],
      [work(10)],
    );
    expect(more).toEqual([]);
    expect(pair).toMatchObject({
      before: { value: 290 },
      after: { value: 350 },
      change: 60,
      isBeyondNoise: true,
    });
    expect(pair!.noise).toBeCloseTo(Math.hypot(2, 2), 12);
  });

  test('a change within the noise of measuring is told as such: by hand, 5 with ±2 each is under 2·2.83', () => {
    const [pair] = beforeAfter([measured(9, 300), measured(11, 305)], [work(10)]);
    expect(pair).toMatchObject({ change: 5, isBeyondNoise: false });
    const [beyond] = beforeAfter([measured(9, 300), measured(11, 305.7)], [work(10)]);
    expect(beyond!.isBeyondNoise).toBe(true);
  });

  test('none without both sides, nor across other work, nor from a month away', () => {
    expect(beforeAfter([measured(9, 300)], [work(10)])).toEqual([]);
    expect(beforeAfter([measured(9, 300), measured(50, 350)], [work(10)])).toEqual([]);
    const both = beforeAfter([measured(9, 300), measured(14, 350)], [work(10), work(12)]);
    expect(both).toEqual([]);
  });
});
