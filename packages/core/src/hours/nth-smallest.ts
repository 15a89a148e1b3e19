/** The n-th smallest of the first `count` figures, from 0 on; the figures are put about (Hoare 1961). */
export function nthSmallest(figures: Float64Array, count: number, n: number): number {
  let low = 0;
  let high = count - 1;
  while (low < high) {
    const pivot = figures[(low + high) >>> 1]!;
    let left = low;
    let right = high;
    while (left <= right) {
      while (figures[left]! < pivot) left += 1;
      while (figures[right]! > pivot) right -= 1;
      if (left > right) break;
      const held = figures[left]!;
      figures[left++] = figures[right]!;
      figures[right--] = held;
    }
    if (n <= right) high = right;
    else if (n >= left) low = left;
    else break;
  }
  return figures[n]!;
}
