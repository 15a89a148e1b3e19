import jstat from 'jstat';
import { DAY } from './seed.js';

const phi = (x: number) => jstat.jStat.normal.cdf(x, 0, 1);

/** F(x) of the inverse Gaussian with mean μ and shape λ (Chhikara & Folks). */
function inverseGaussian(x: number, mean: number, shape: number): number {
  const root = Math.sqrt(shape / x);
  const second = phi(-root * (x / mean + 1));
  return phi(root * (x / mean - 1)) + (second === 0 ? 0 : Math.exp((2 * shape) / mean) * second);
}

/** The plain way: the rate since commissioning, known and fixed, and the scatter about it. */
export function gaussianDays(
  at: readonly number[],
  hours: readonly number[],
  remaining: number,
): { readonly early: number; readonly likely: number; readonly late: number } {
  const last = at.length - 1;
  const rate = (hours[last]! - hours[0]!) / ((at[last]! - at[0]!) / DAY);
  let scatter = 0;
  for (let i = 1; i <= last; i++) {
    const days = (at[i]! - at[i - 1]!) / DAY;
    scatter += (hours[i]! - hours[i - 1]! - rate * days) ** 2 / days / last;
  }
  const [mean, shape] = [remaining / rate, remaining ** 2 / Math.max(scatter, 1e-9)];
  const quantile = (p: number) => {
    let [low, high] = [0, 20 * mean];
    for (let step = 0; step < 60; step++) {
      const middle = (low + high) / 2;
      if (inverseGaussian(middle, mean, shape) < p) low = middle;
      else high = middle;
    }
    return (low + high) / 2;
  };
  return { early: quantile(0.1), likely: quantile(0.5), late: quantile(0.9) };
}
