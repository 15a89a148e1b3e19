import {
  dateOrders,
  readWrittenMoment,
  err,
  ok,
  type DateOrder,
  type Instant,
  type Result,
} from '../basics/index.js';
import type { CounterKind } from './hour-log.js';

/** How a list of readings is to be read: which column is what, and how figures and dates are written. */
export interface ImportMapping {
  /** Column numbers from 0; null where there is none. */
  readonly unit: number;
  readonly date: number;
  readonly time: number | null;
  readonly hours: number;
  readonly counts: number | null;
  readonly note: number | null;
  readonly decimal: 'point' | 'comma';
  readonly dateOrder: DateOrder;
  readonly timeZone: string;
}

/** A row as it was understood, before it is judged. */
export interface ImportedRow {
  /** Tag or id. */
  readonly unit: string;
  readonly takenAt: Instant;
  readonly hours: number;
  readonly counts: CounterKind;
  readonly note: string | null;
}

const LONGEST_NOTE = 2000;
const MOST_HOURS = 1_000_000;

/** Reads one row of a list; the problem names the column in words. */
export function readImportRow(cells: readonly string[], mapping: ImportMapping): Result<ImportedRow> {
  const cell = (column: number | null) => (column === null ? '' : (cells[column] ?? '').trim());
  const unit = unescaped(cell(mapping.unit));
  if (unit === '') return err('no-unit', 'No unit is named.', 'unit');
  const moment = [cell(mapping.date), cell(mapping.time)].filter((part) => part !== '').join(' ');
  if (moment === '') return err('no-date', 'No date is given.', 'takenAt');
  const takenAt = readWrittenMoment(moment, mapping.dateOrder, mapping.timeZone);
  if (!takenAt.ok) return err(takenAt.problem.code, takenAt.problem.sentence, 'takenAt');
  const hours = readFigure(cell(mapping.hours), mapping.decimal);
  if (!hours.ok) return hours;
  const counts = readCounter(cell(mapping.counts));
  if (counts === null) {
    return err('no-counter', 'The counter is neither total nor loaded.', 'counts');
  }
  const note = unescaped(cell(mapping.note));
  if (note.length > LONGEST_NOTE) {
    return err('note-too-long', `The note is longer than ${LONGEST_NOTE} characters.`, 'note');
  }
  return ok({
    unit,
    takenAt: takenAt.value,
    hours: hours.value,
    counts,
    note: note === '' ? null : note,
  });
}

/** Our own export puts an apostrophe before what a spreadsheet would take for a formula. */
function unescaped(text: string): string {
  return /^'[=+\-@\t\r]/.test(text) ? text.slice(1) : text;
}

/** Reads a figure by the decimal sign stated; the other sign may only group thousands. */
function readFigure(text: string, decimal: ImportMapping['decimal']): Result<number> {
  const [point, group] = decimal === 'comma' ? [',', '.'] : ['.', ','];
  const bare = text.replace(/\s*h(?:ours)?$/i, '').replace(/[\s'’\u00a0\u202f]/g, '');
  const [whole = '', ...rest] = bare.split(point);
  const grouped = new RegExp(`^\\d{1,3}(\\${group}\\d{3})+$`);
  const digits = grouped.test(whole) ? whole.replaceAll(group, '') : whole;
  const shown = `“${text.slice(0, 24)}”`;
  if (text === '') return err('no-figure', 'No hours are given.', 'hours');
  if (rest.length > 1 || !/^\d+$/.test(digits) || (rest.length === 1 && !/^\d*$/.test(rest[0]!))) {
    return err('not-a-number', `${shown} is no figure with a decimal ${decimal}.`, 'hours');
  }
  const hours = Number(rest.length === 1 ? `${digits}.${rest[0]}` : digits);
  if (!(hours <= MOST_HOURS)) {
    return err('out-of-range', `${shown} is more than any meter counts.`, 'hours');
  }
  return ok(hours);
}

function readCounter(text: string): CounterKind | null {
  const word = text.toLowerCase();
  if (word === '' || /^(total|run|running)/.test(word)) return 'total';
  return /^load/.test(word) ? 'loaded' : null;
}

const NAMES: Readonly<Record<'unit' | 'date' | 'time' | 'hours' | 'counts' | 'note', RegExp>> = {
  unit: /^(unit|tag|machine|compressor|asset|set)\b|\btag$/i,
  date: /date|taken|read ?(at|on)|^when|^day/i,
  time: /^time|\btime$|o.?clock/i,
  hours: /hour|^h$|meter|counter ?(figure|reading)|figure/i,
  counts: /counts|counter|^kind|^type/i,
  note: /note|remark|comment/i,
};

/**
 * A first guess at how a list is to be read, from the names of its columns and some of its rows; shown to be
 * confirmed, never taken for granted.
 *
 * @returns null for a column that could not be found
 */
export function guessImport(
  header: readonly string[],
  rows: readonly (readonly string[])[],
): Omit<ImportMapping, 'timeZone' | 'unit' | 'date' | 'hours'> &
  Record<'unit' | 'date' | 'hours', number | null> {
  const taken = new Set<number>();
  const find = (name: keyof typeof NAMES) => {
    const index = header.findIndex((title, column) => !taken.has(column) && NAMES[name].test(title.trim()));
    if (index < 0) return null;
    taken.add(index);
    return index;
  };
  const [unit, date, time] = [find('unit'), find('date'), find('time')];
  const [hours, counts, note] = [find('hours'), find('counts'), find('note')];
  const column = (index: number | null) =>
    index === null ? [] : rows.map((row) => (row[index] ?? '').trim()).filter((text) => text !== '');
  return {
    unit,
    date,
    time,
    hours,
    counts,
    note,
    decimal: guessDecimal(column(hours)),
    dateOrder: guessOrder(column(date)),
  };
}

/** The last sign in a figure is its decimal sign, unless exactly three digits follow it in every figure. */
function guessDecimal(figures: readonly string[]): ImportMapping['decimal'] {
  let commas = 0;
  for (const figure of figures) {
    const match = /([.,])(\d+)\s*h?$/.exec(figure);
    if (match && match[2]!.length !== 3) commas += match[1] === ',' ? 1 : -1;
  }
  return commas > 0 ? 'comma' : 'point';
}

/** The order under which most dates can be read; of two that fit alike, day before month. */
function guessOrder(dates: readonly string[]): DateOrder {
  const readable = (order: DateOrder) =>
    dates.filter((date) => readWrittenMoment(date, order, 'UTC').ok).length;
  return dateOrders.reduce((best, order) => (readable(order) > readable(best) ? order : best));
}
