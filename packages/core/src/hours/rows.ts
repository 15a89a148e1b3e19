/** Room for every stretch of a machine's past, or every interval of it: sixty intervals, two horizons. */
export const ROW_LENGTH = 128;

const rows: Float64Array[] = [];
let taken = 0;

/**
 * A row of figures to reckon in, with what was reckoned last still in it. Thousands of machines are fitted in a row,
 * each with some forty such rows: they are made once. No row outlives the fit that took it.
 */
export function takeRow(): Float64Array {
  if (taken === rows.length) rows.push(new Float64Array(ROW_LENGTH));
  return rows[taken++]!;
}

/** Gives every row back: the next fit begins. */
export function freeRows(): void {
  taken = 0;
}
