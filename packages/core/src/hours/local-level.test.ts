import fc from 'fast-check';
import { filterLevel, logLikelihood, type Gains } from './index.js';

const gains = (days: number[], gained: number[]): Gains => ({ days, gained, count: days.length });

describe('the Kalman filter', () => {
  test('worked by hand: two intervals, a rate believed beforehand', () => {
    // Believed: 4 h/day, variance 0.5 (in units of σ²); wander λ = 0.1.
    // 10 days, 50 h: S = 0.5·100 + 0.1·1000/3 + 10 = 93.3333, e = 50 − 40 = 10,
    //   K = (0.5·10 + 0.1·100/2)/S = 10/93.3333 = 0.107143, m = 4 + 1.071429 = 5.071429,
    //   P = 0.5 + 0.1·10 − K²S = 1.5 − 1.071429 = 0.428571.
    // 5 days, 20 h: S = 0.428571·25 + 0.1·125/3 + 5 = 19.880952, e = 20 − 25.357143 = −5.357143,
    //   K = (0.428571·5 + 0.1·25/2)/S = 3.392857/19.880952 = 0.170659,
    //   m = 5.071429 − 0.914243 = 4.157186, P = 0.428571 + 0.5 − 0.579022 = 0.349549.
    const filtered = filterLevel(gains([10, 5], [50, 20]), 0.1, { level: 4, variance: 0.5 });
    expect(filtered.level).toBeCloseTo(4.157186, 5);
    expect(filtered.variance).toBeCloseTo(0.349549, 5);
    expect(filtered.foreseen).toBe(2);
    // Σe²/S = 100/93.3333 + 28.698980/19.880952 = 1.071429 + 1.443542.
    expect(filtered.squares).toBeCloseTo(2.514971, 5);
    // ln 93.3333 + ln 19.880952 = 4.536177 + 2.989762.
    expect(filtered.logSpread).toBeCloseTo(7.525939, 5);
    // σ² = 4: −½(2·ln(8π) + 7.525939 + 2.514971/4) = −½(6.448342 + 7.525939 + 0.628743).
    expect(logLikelihood(filtered, 4)).toBeCloseTo(-7.301512, 5);
  });

  test('worked by hand: nothing believed, the first interval sets the level', () => {
    // 4 days, 12 h: m = 3, P = 1/4 + 0.3·4/3 = 0.65.
    // 2 days, 10 h: S = 0.65·4 + 0.3·8/3 + 2 = 5.4, e = 10 − 6 = 4, K = (0.65·2 + 0.3·4/2)/5.4 = 1.9/5.4,
    //   m = 3 + 4·1.9/5.4 = 4.407407, P = 0.65 + 0.6 − 1.9²/5.4 = 0.581481.
    const filtered = filterLevel(gains([4, 2], [12, 10]), 0.3, null);
    expect(filtered.level).toBeCloseTo(4.407407, 6);
    expect(filtered.variance).toBeCloseTo(0.581481, 6);
    expect(filtered.foreseen).toBe(1);
  });

  test('a start that knows next to nothing comes to the same as one that knows nothing', () => {
    const series = gains([7, 3, 20, 11], [30, 9, 70, 60]);
    const vague = filterLevel(series, 0.02, { level: 0, variance: 1e9 });
    const diffuse = filterLevel(series, 0.02, null);
    expect(vague.level).toBeCloseTo(diffuse.level, 5);
    expect(vague.variance).toBeCloseTo(diffuse.variance, 5);
  });

  test('a rate that does not wander is the average of all readings', () => {
    const filtered = filterLevel(gains([10, 30, 5], [20, 90, 25]), 0, null);
    expect(filtered.level).toBeCloseTo(135 / 45, 9);
    expect(filtered.variance).toBeCloseTo(1 / 45, 9);
  });
});

/**
 * The same likelihood without any filter: the gains are one draw of a multivariate normal, whose covariance
 * follows from the integral of a wandering rate. Over [a, b] and [c, d], with a rate of variance P₀ at 0 that
 * wanders by λ: Cov = P₀(b−a)(d−c) + λ∬min(s, u) ds du, and on the diagonal the scatter b − a as well.
 */
function directLikelihood(
  { days, gained }: Gains,
  wander: number,
  level: number,
  variance: number,
  sigma2: number,
) {
  const ends: number[] = [];
  let end = 0;
  for (let i = 0; i < days.length; i++) ends.push((end += days[i]!));
  const covariance = ends.map((b, i) =>
    ends.map((d, j) => {
      const [di, dj] = [days[i]!, days[j]!];
      const scatter = i === j ? di : 0;
      // ∬min over two intervals that do not overlap: the length of the later × the mean moment of the earlier;
      // over one and the same: a·Δ² + Δ³/3.
      const start = b - di;
      const both = i === j ? start * di ** 2 + di ** 3 / 3 : di * dj * (i < j ? b - di / 2 : d - dj / 2);
      return sigma2 * (variance * di * dj + wander * both + scatter);
    }),
  );
  const error = Array.from({ length: days.length }, (_, i) => gained[i]! - level * days[i]!);
  // Cholesky's factor L: ln|C| = 2Σ ln Lᵢᵢ, and |L⁻¹e|² is the quadratic form.
  const factor = covariance.map((row) => row.map(() => 0));
  let [logDeterminant, quadratic] = [0, 0];
  const solved: number[] = [];
  for (let i = 0; i < error.length; i++) {
    for (let j = 0; j <= i; j++) {
      let rest = covariance[i]![j]!;
      for (let k = 0; k < j; k++) rest -= factor[i]![k]! * factor[j]![k]!;
      factor[i]![j] = i === j ? Math.sqrt(rest) : rest / factor[j]![j]!;
    }
    let rest = error[i]!;
    for (let k = 0; k < i; k++) rest -= factor[i]![k]! * solved[k]!;
    solved.push(rest / factor[i]![i]!);
    logDeterminant += 2 * Math.log(factor[i]![i]!);
    quadratic += solved[i]! ** 2;
  }
  return -0.5 * (error.length * Math.log(2 * Math.PI) + logDeterminant + quadratic);
}

test('the likelihood by the filter is that of the multivariate normal, written out', () => {
  const series = fc.array(
    fc.record({
      days: fc.double({ min: 0.5, max: 60, noNaN: true }),
      rate: fc.double({ min: 0, max: 24, noNaN: true }),
    }),
    { minLength: 1, maxLength: 7 },
  );
  const positive = fc.double({ min: 0.001, max: 2, noNaN: true });
  fc.assert(
    fc.property(series, positive, positive, positive, (steps, wander, variance, sigma2) => {
      const some = gains(
        steps.map((step) => step.days),
        steps.map((step) => step.days * step.rate),
      );
      const filtered = filterLevel(some, wander, { level: 6, variance });
      const direct = directLikelihood(some, wander, 6, variance, sigma2);
      expect(logLikelihood(filtered, sigma2)).toBeCloseTo(
        direct,
        4 - Math.ceil(Math.log10(1 + Math.abs(direct))),
      );
    }),
  );
});
