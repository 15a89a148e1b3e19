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
  // As it is now: what is changed in the file afterwards would be another list than the one that was checked.
  const kept = new File([await file.arrayBuffer()], file.name, { type: file.type || 'text/csv' });
  return { file: kept, columns, sample, delimiter };
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

const SOURCES = 'entretien-list-sources';
const MOST_SOURCES = 20;

type Sources = readonly (readonly [titles: string, options: ImportOptions])[];

/** What a source is known by: the titles of its columns, in their order. */
const titlesOf = ({ columns }: Pick<ChosenList, 'columns'>) => columns.join('\n');

function sources(): Sources {
  try {
    const kept: unknown = JSON.parse(localStorage.getItem(SOURCES) ?? '[]');
    return Array.isArray(kept) ? (kept as Sources) : [];
  } catch {
    return [];
  }
}

/** How a list with these columns was read the last time; null where none was. */
export function rememberedOptions(list: Pick<ChosenList, 'columns'>): ImportOptions | null {
  return sources().find(([titles]) => titles === titlesOf(list))?.[1] ?? null;
}

/** Keeps on this device how a list was read, for the next one from the same source. */
export function rememberOptions(list: Pick<ChosenList, 'columns'>, options: ImportOptions): void {
  const others = sources().filter(([titles]) => titles !== titlesOf(list));
  try {
    localStorage.setItem(
      SOURCES,
      JSON.stringify([[titlesOf(list), options], ...others].slice(0, MOST_SOURCES)),
    );
  } catch {
    // A full device: the next time it is asked again.
  }
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
