/** Steps after which nothing is left to halve in a double. */
const STEPS = 60;

/** The figure between two at which something that only grows passes its mark: halved until it is found. */
export function halve(low: number, high: number, isBelow: (figure: number) => boolean): number {
  for (let step = 0; step < STEPS; step++) {
    const middle = (low + high) / 2;
    if (isBelow(middle)) low = middle;
    else high = middle;
  }
  return (low + high) / 2;
}
