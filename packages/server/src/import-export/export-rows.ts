import type { LogbookEntryView } from '@entretien/contracts';
import { formatInstant, writeLocal, type DecimalSign } from '@entretien/core/basics';
import { readingText } from '@entretien/core/facts';
import type { CounterKind, ReadingSource } from '@entretien/core/hours';
import { BYTE_ORDER_MARK, csv } from './csv.js';

/** What the rows of an export speak of, by id. */
export interface ExportNames {
  readonly units: Readonly<Record<string, { tag: string; siteName: string; timeZone: string }>>;
  readonly people: Readonly<Record<string, string>>;
}

export interface RawReading {
  readonly id: string;
  readonly compressorId: string;
  readonly takenAt: number;
  readonly hours: number;
  readonly counts: string;
  readonly source: string;
  readonly note: string | null;
}

export interface RawEntry {
  readonly id: string;
  readonly kind: string;
  readonly compressorId: string | null;
  readonly at: number;
  readonly recordedAt: number;
  readonly by: string;
  /** Null for a reading, whose figures are beside it. */
  readonly text: string | null;
  readonly lead: string | null;
  readonly note: string | null;
  readonly hours: number | null;
  readonly counts: CounterKind | null;
  readonly source: ReadingSource | null;
  readonly marks: string | null;
  readonly voidedHow: LogbookEntryView['voidedHow'] | null;
}

/** A fact as the logbook shows it. */
export function toEntryView(row: RawEntry, { units, people }: ExportNames): LogbookEntryView {
  const { id, kind, compressorId, at, recordedAt, by, text, note, hours, counts, source, voidedHow } = row;
  const unit = compressorId === null ? undefined : units[compressorId];
  return {
    id,
    kind,
    compressorId,
    tag: unit?.tag ?? '',
    siteName: unit?.siteName ?? '',
    timeZone: unit?.timeZone ?? 'UTC',
    at: formatInstant(at),
    recordedAt: formatInstant(recordedAt),
    by,
    byName: people[by] ?? 'Technician',
    text: text ?? readingText({ hours: hours!, counts: counts!, source: source! }),
    voided: voidedHow !== null,
    ...(voidedHow === null ? {} : { voidedHow }),
    ...(row.marks === null ? {} : { marks: JSON.parse(row.marks) as string[] }),
    ...(note === null ? {} : { note }),
  };
}

const READINGS = ['Unit', 'Site', 'Date', 'Hours', 'Counter', 'Source', 'Note', 'Id'];
/** Moments as clock and calendar at the machine have them, with the zone that they are of. */
const LOGBOOK = ['Date', 'Unit', 'Site', 'Kind', 'What', 'Note', 'By', 'Recorded', 'Stands', 'Zone', 'Id'];

function readingCells(
  { compressorId, takenAt, hours, counts, source, note, id }: RawReading,
  names: ExportNames,
) {
  const { tag, siteName } = names.units[compressorId]!;
  return [tag, siteName, formatInstant(takenAt), hours, counts, source, note ?? '', id];
}

function logbookCells(row: RawEntry, names: ExportNames) {
  const { tag, siteName, kind, text, note, byName, voided, timeZone, id } = toEntryView(row, names);
  const [at, recordedAt] = [writeLocal(row.at, timeZone), writeLocal(row.recordedAt, timeZone)];
  return [at, tag, siteName, kind, text, note ?? '', byName, recordedAt, voided ? 'no' : 'yes', timeZone, id];
}

/** How rows become a list: what it begins and ends with, and what a row is in it. */
export interface ExportShape {
  head(decimal: DecimalSign): string;
  readonly foot: string;
  row(
    row: unknown,
    names: ExportNames,
    at: { readonly index: number; readonly decimal: DecimalSign },
  ): string;
}

const line = (cells: (string | number)[], decimal: DecimalSign) => `${csv([cells], decimal)}\r\n`;

export const exportShapes = {
  'readings-csv': {
    head: (decimal) => BYTE_ORDER_MARK + line(READINGS, decimal),
    foot: '',
    row: (row, names, { decimal }) => line(readingCells(row as RawReading, names), decimal),
  },
  'logbook-csv': {
    head: (decimal) => BYTE_ORDER_MARK + line(LOGBOOK, decimal),
    foot: '',
    row: (row, names, { decimal }) => line(logbookCells(row as RawEntry, names), decimal),
  },
  'logbook-json': {
    head: () => '[',
    foot: '\n]\n',
    row: (row, names, { index }) =>
      `${index > 0 ? ',' : ''}\n${JSON.stringify(toEntryView(row as RawEntry, names))}`,
  },
} as const satisfies Record<string, ExportShape>;
