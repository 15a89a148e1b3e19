/** Rows from one number to another, both among them. */
export type RowRange = readonly [from: number, to: number];

/** Reads `3,7-9` as the ranges 3 to 3 and 7 to 9: sorted, joined where they touch, and never counted out. */
export function rowRanges(text: string): readonly RowRange[] {
  const sent = text
    .split(',')
    .map((part) => part.split('-').map(Number))
    .map(([from, to]): RowRange => [from ?? 0, to ?? from ?? 0])
    .filter(([from, to]) => from > 0 && to >= from)
    .sort((a, b) => a[0] - b[0]);
  const joined: [number, number][] = [];
  for (const [from, to] of sent) {
    const last = joined.at(-1);
    if (last && from <= last[1] + 1) last[1] = Math.max(last[1], to);
    else joined.push([from, to]);
  }
  return joined;
}

/** Whether a row is in one of some ranges, as {@link rowRanges} gives them. */
export function isInRanges(row: number, ranges: readonly RowRange[]): boolean {
  let [low, high] = [0, ranges.length - 1];
  while (low <= high) {
    const middle = (low + high) >> 1;
    const [from, to] = ranges[middle]!;
    if (row < from) high = middle - 1;
    else if (row > to) low = middle + 1;
    else return true;
  }
  return false;
}
