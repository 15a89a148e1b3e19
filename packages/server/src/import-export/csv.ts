import type { DecimalSign } from '@entretien/core/basics';
import Papa from 'papaparse';

/** What a spreadsheet would begin a formula with, also behind what it passes over: blanks, line breaks, zero-width marks. */
const FORMULA = /^[\s\p{Cc}\p{Cf}]*[=+\-@]|^[\t\r\n]/u;

/** Tells a spreadsheet that the letters are Unicode's; our own import passes over it. */
export const BYTE_ORDER_MARK = '\ufeff';

/**
 * Rows as RFC 4180 wants them. What a spreadsheet would take for a formula gets an apostrophe before it: a note
 * must not run on the machine of whoever opens the list. The library's own pattern misses notes of several lines.
 *
 * @param decimal the sign of whoever reads them: with a comma, columns are parted by semicolons, as spreadsheets
 * there expect
 */
export function csv(rows: readonly (readonly (string | number)[])[], decimal: DecimalSign = 'point'): string {
  const written =
    decimal === 'point'
      ? rows
      : rows.map((cells) =>
          cells.map((cell) => (typeof cell === 'number' ? String(cell).replace('.', ',') : cell)),
        );
  return Papa.unparse(written as (string | number)[][], {
    newline: '\r\n',
    delimiter: decimal === 'point' ? ',' : ';',
    escapeFormulae: FORMULA,
  });
}
