import Papa from 'papaparse';

/** What a spreadsheet would begin a formula with, also behind what it passes over: blanks, line breaks, zero-width marks. */
const FORMULA = /^[\s\p{Cc}\p{Cf}]*[=+\-@]|^[\t\r\n]/u;

/** Tells a spreadsheet that the letters are Unicode's; our own import passes over it. */
export const BYTE_ORDER_MARK = '\ufeff';

/**
 * Rows as RFC 4180 wants them. What a spreadsheet would take for a formula gets an apostrophe before it: a note
 * must not run on the machine of whoever opens the list. The library's own pattern misses notes of several lines.
 */
export function csv(rows: readonly (readonly (string | number)[])[]): string {
  return Papa.unparse(rows as (string | number)[][], { newline: '\r\n', escapeFormulae: FORMULA });
}
