import fc from 'fast-check';
import jstat from 'jstat';
import { crossingDay, gainVariance, MOST_DAYS, surfaceOf, Z90, type Growth } from './index.js';

const normal = jstat.jStat.normal;

/** Nothing is uncertain about the rate: the law is Birnbaum and Saunders'. */
const fixedRate = (level: number, sigma: number): Growth => ({
  level,
  levelVariance: 0,
  scatter: sigma ** 2,
  wander: 0,
});

/** Quantile of Birnbaum & Saunders (1969): β/4·(αz + √((αz)² + 4))². */
function birnbaumSaunders(p: number, alpha: number, beta: number): number {
  const az = alpha * normal.inv(p, 0, 1);
  return (beta / 4) * (az + Math.sqrt(az ** 2 + 4)) ** 2;
}

const quantile = (growth: Growth, remaining: number, p: number) =>
  crossingDay(surfaceOf(growth, normal.inv(p, 0, 1)), remaining)!;

test('0.9 of the normal distribution lies below Z90', () => {
  expect(normal.cdf(Z90, 0, 1)).toBeCloseTo(0.9, 12);
});

describe('with the rate known and fixed', () => {
  test.each([0.02, 0.1, 0.25, 0.5, 0.75, 0.9, 0.98])(
    'the %d quantile is that of Birnbaum and Saunders',
    (p) => {
      fc.assert(
        fc.property(
          fc.double({ min: 0.5, max: 20, noNaN: true }),
          fc.double({ min: 0.1, max: 10, noNaN: true }),
          fc.double({ min: 5, max: 1500, noNaN: true }),
          (level, sigma, remaining) => {
            const [alpha, beta] = [sigma / Math.sqrt(remaining * level), remaining / level];
            const closed = birnbaumSaunders(p, alpha, beta);
            fc.pre(closed < MOST_DAYS * 0.99);
            expect(quantile(fixedRate(level, sigma), remaining, p) / closed).toBeCloseTo(1, 6);
          },
        ),
      );
    },
  );

  test('its median, mean and variance are the published ones', () => {
    // β = 100 days, α = 0.3: d = 400 h at 4 h a day, σ = α√(dm) = 12.
    const [alpha, beta] = [0.3, 100];
    const growth = fixedRate(4, alpha * Math.sqrt(400 * 4));
    expect(quantile(growth, 400, 0.5)).toBeCloseTo(beta, 6);
    // Moments as integrals over the quantile function: E[Tᵏ] = ∫ t(p)ᵏ dp.
    const steps = 20_000;
    let [first, second] = [0, 0];
    for (let i = 0; i < steps; i++) {
      const t = quantile(growth, 400, (i + 0.5) / steps);
      first += t / steps;
      second += t ** 2 / steps;
    }
    // β(1 + α²/2) = 104.5 and (αβ)²(1 + 5α²/4) = 1001.25 (Birnbaum & Saunders 1969).
    expect(first).toBeCloseTo(104.5, 1);
    expect((second - first ** 2) / 1001.25).toBeCloseTo(1, 2);
  });

  test('where α is small it is the inverse Gaussian', () => {
    // μ = d/m, shape d²/σ² (Chhikara & Folks): F(x) = Φ(√(λ/x)(x/μ−1)) + e^{2λ/μ}Φ(−√(λ/x)(x/μ+1)).
    const [level, sigma, remaining] = [8, 2, 800];
    const [mean, shape] = [remaining / level, remaining ** 2 / sigma ** 2];
    const cdf = (x: number) => {
      const root = Math.sqrt(shape / x);
      const tail = normal.cdf(-root * (x / mean + 1), 0, 1);
      return normal.cdf(root * (x / mean - 1), 0, 1) + (tail === 0 ? 0 : Math.exp((2 * shape) / mean) * tail);
    };
    for (const p of [0.1, 0.5, 0.9]) {
      expect(cdf(quantile(fixedRate(level, sigma), remaining, p))).toBeCloseTo(p, 2);
    }
  });
});

describe('with a rate that is not sure and wanders', () => {
  const growths = fc.record({
    level: fc.double({ min: 0.2, max: 20, noNaN: true }),
    levelVariance: fc.double({ min: 0, max: 4, noNaN: true }),
    scatter: fc.double({ min: 0.01, max: 60, noNaN: true }),
    wander: fc.double({ min: 0, max: 0.02, noNaN: true }),
  });
  const hours = fc.double({ min: 0.5, max: 3000, noNaN: true });

  test('the day found is the first that satisfies the law', () => {
    fc.assert(
      fc.property(growths, hours, fc.constantFrom(-Z90, Z90), (growth, remaining, z) => {
        const day = crossingDay(surfaceOf(growth, z), remaining);
        const used = (t: number) => growth.level * t - z * Math.sqrt(gainVariance(growth, t));
        // A plain walk over the days, to say where the hours are first used up.
        let first: number | null = null;
        for (let t = 0.25; t <= MOST_DAYS && first === null; t *= 1.01) if (used(t) >= remaining) first = t;
        if (day === null) {
          expect(first).toBeNull();
        } else {
          expect(Math.abs(used(day) - remaining)).toBeLessThan(1e-4 * (1 + remaining));
          if (first !== null) expect(day).toBeLessThanOrEqual(first + 1e-6);
        }
      }),
    );
  });

  test('more hours never take fewer days', () => {
    fc.assert(
      fc.property(growths, hours, hours, fc.constantFrom(-Z90, Z90), (growth, a, b, z) => {
        const surface = surfaceOf(growth, z);
        const [less, more] = [crossingDay(surface, Math.min(a, b)), crossingDay(surface, Math.max(a, b))];
        if (more !== null) expect(less!).toBeLessThanOrEqual(more + 1e-6);
      }),
    );
  });

  test('what is not used up within ten years has no day', () => {
    expect(crossingDay(surfaceOf(fixedRate(0.1, 0.1), Z90), 400)).toBeNull();
    // A rate that wanders so much that nine in ten is never reached, however long one waits.
    const adrift = { level: 1, levelVariance: 1, scatter: 1, wander: 0.05 };
    expect(crossingDay(surfaceOf(adrift, Z90), 400)).toBeNull();
    expect(crossingDay(surfaceOf(adrift, -Z90), 400)).toBeGreaterThan(0);
  });
});
