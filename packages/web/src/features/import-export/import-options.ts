import { guessImport, type ImportMapping } from '@entretien/core/hours';
import Papa from 'papaparse';

/** A list that was chosen: its columns, some of its rows, and how it is likely to be read. */
export interface ChosenList {
  readonly file: File;
  readonly columns: readonly string[];
  readonly sample: readonly (readonly string[])[];
  readonly delimiter: 'comma' | 'semicolon' | 'tab';
}

/** How a list is read, as the form states it: columns by their titles, '' for none. */
export interface ImportOptions {
  readonly unitColumn: string;
  readonly dateColumn: string;
  readonly timeColumn: string;
  readonly hoursColumn: string;
  readonly countsColumn: string;
  readonly noteColumn: string;
  readonly decimal: ImportMapping['decimal'];
  readonly dateOrder: ImportMapping['dateOrder'];
  readonly timeZone: string;
}

const SAMPLE_BYTES = 64 * 1024;
const SAMPLE_ROWS = 60;

/** Looks at the beginning of a list; null when it has no columns at all. */
export async function openList(file: File): Promise<ChosenList | null> {
  const text = await file.slice(0, SAMPLE_BYTES).text();
  const { data, meta } = Papa.parse<string[]>(text, { skipEmptyLines: 'greedy', preview: SAMPLE_ROWS });
  const [columns, ...sample] = data;
  if (!columns || columns.length < 2 || text.includes('\0')) return null;
  const delimiter = meta.delimiter === ';' ? 'semicolon' : meta.delimiter === '\t' ? 'tab' : 'comma';
  return { file, columns, sample, delimiter };
}

/** A first guess, to be confirmed. */
export function guessOptions({ columns, sample }: ChosenList, timeZone: string): ImportOptions {
  const guess = guessImport(columns, sample);
  const title = (index: number | null) => (index === null ? '' : (columns[index] ?? ''));
  return {
    unitColumn: title(guess.unit),
    dateColumn: title(guess.date),
    timeColumn: title(guess.time),
    hoursColumn: title(guess.hours),
    countsColumn: title(guess.counts),
    noteColumn: title(guess.note),
    decimal: guess.decimal,
    dateOrder: guess.dateOrder,
    timeZone,
  };
}

/** The columns without which a list cannot be read, and that are still to be named. */
export function missingColumns(options: ImportOptions): string[] {
  return [
    options.unitColumn === '' ? 'the unit' : '',
    options.dateColumn === '' ? 'the date' : '',
    options.hoursColumn === '' ? 'the hours' : '',
  ].filter(Boolean);
}

/** Row numbers as the server takes them: `3,7-9`. */
export function rowRanges(rows: readonly number[]): string {
  const sorted = [...rows].sort((a, b) => a - b);
  const ranges: string[] = [];
  for (let i = 0; i < sorted.length;) {
    let end = i;
    while (end + 1 < sorted.length && sorted[end + 1] === sorted[end]! + 1) end += 1;
    ranges.push(end === i ? `${sorted[i]}` : `${sorted[i]}-${sorted[end]}`);
    i = end + 1;
  }
  return ranges.join(',');
}

export function importQuery(
  mode: 'preview' | 'commit',
  options: ImportOptions,
  delimiter: ChosenList['delimiter'],
  leaveOut: readonly number[],
): string {
  const query = new URLSearchParams({ mode, delimiter, ...options });
  if (leaveOut.length > 0) query.set('leaveOut', rowRanges(leaveOut));
  return query.toString();
}
