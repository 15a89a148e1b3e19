import { createHash } from 'node:crypto';
import type Sqlite from 'better-sqlite3';
import type { ImportedRowView, ImportResultView } from '@entretien/contracts';
import type { DayNumber, Instant, Problem } from '@entretien/core/basics';
import { formatInstant, localDayAt } from '@entretien/core/basics';
import {
  readImportRow,
  readingMarks,
  readingProblem,
  type HourReading,
  type ImportedRow,
  type ImportMapping,
} from '@entretien/core/hours';
import { ReadingWindows } from './reading-windows.js';
import { isInRanges, type RowRange } from './row-ranges.js';

/** Rows written in one transaction: others wait for no more than these. */
export const CHUNK_ROWS = 5000;
/** Rows that a preview looks at, and rows that an answer lists. */
const [MOST_PREVIEWED, MOST_LISTED, MOST_REFUSALS_LISTED] = [50_000, 1000, 10_000];

/** What a run needs to know of a unit. */
export interface ImportCompressor {
  readonly id: string;
  readonly tag: string;
  readonly timeZone: string;
  readonly commissionedDay: DayNumber;
}

export interface ImportOrder {
  readonly mode: 'preview' | 'commit';
  readonly mapping: ImportMapping;
  /** The rows that are not wanted. */
  readonly leaveOut: readonly RowRange[];
  readonly units: readonly ImportCompressor[];
  readonly by: string;
  readonly now: Instant;
}

interface Candidate {
  readonly row: number;
  readonly unit: ImportCompressor;
  readonly read: ImportedRow;
}

const FACT = `INSERT INTO "fact" ("id", "kind", "compressor_id", "at", "recorded_at", "by", "note") VALUES (?, 'reading', ?, ?, ?, ?, ?)`;
const READING = `INSERT INTO "reading" ("seq", "id", "recorded_at", "by", "note", "marks", "compressor_id", "taken_at", "hours", "counts", "source") VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?, 'imported')`;
const WORDS = 'INSERT INTO "fact_text" ("rowid", "words") VALUES (?, ?)';

/**
 * Takes a list of readings in, row by row: understands it, judges it against what is on record and against the
 * rest of the list, and stores it under an id made of its content, so that the same row is never stored twice.
 * A preview does all of it but the storing.
 */
export class ImportRun {
  private readonly windows: ReadingWindows;
  private readonly insertFact: Sqlite.Statement;
  private readonly insertReading: Sqlite.Statement;
  private readonly insertText: Sqlite.Statement;
  private readonly isStored: Sqlite.Statement;
  private readonly byName = new Map<string, ImportCompressor | 'ambiguous'>();
  private readonly rows: ImportedRowView[] = [];
  private readonly touched = new Map<string, number>();
  private readonly counts = { stored: 0, known: 0, refused: 0, leftOut: 0 };
  private chunk: Candidate[] = [];
  private listed = 0;
  private row = 1;

  constructor(
    private readonly database: Sqlite.Database,
    private readonly order: ImportOrder,
  ) {
    this.windows = new ReadingWindows(database);
    this.insertFact = database.prepare(FACT);
    this.insertReading = database.prepare(READING);
    this.insertText = database.prepare(WORDS);
    this.isStored = database.prepare('SELECT 1 FROM "fact" WHERE "id" = ?');
    for (const unit of order.units) {
      const tag = unit.tag.trim().toLowerCase();
      this.byName.set(tag, this.byName.has(tag) ? 'ambiguous' : unit);
      this.byName.set(unit.id, unit);
    }
  }

  /** Whether there is no point in reading on. */
  get isFull(): boolean {
    return this.order.mode === 'preview' && this.row > MOST_PREVIEWED;
  }

  /** The next row below the header. */
  take(cells: readonly string[]): void {
    this.row += 1;
    const row = this.row;
    if (isInRanges(row, this.order.leaveOut)) {
      this.counts.leftOut += 1;
      return;
    }
    const read = readImportRow(cells, this.order.mapping);
    if (!read.ok) return this.refuse(row, read.problem, cells);
    const unit = this.byName.get(read.value.unit.toLowerCase());
    if (unit === undefined || unit === 'ambiguous')
      return this.refuse(row, unknownCompressor(read.value.unit, unit), cells);
    this.chunk.push({ row, unit, read: read.value });
    if (this.chunk.length >= CHUNK_ROWS) this.flush();
  }

  finish(): Omit<ImportResultView, 'columns' | 'mapping'> & {
    readonly touched: ReadonlyMap<string, number>;
  } {
    this.flush();
    this.rows.sort((a, b) => a.row - b.row);
    return {
      mode: this.order.mode,
      ...this.counts,
      units: this.touched.size,
      rows: this.rows,
      isCut: this.isFull || this.listed < this.counts.stored + this.counts.known + this.counts.refused,
      touched: this.touched,
    };
  }

  /** Judges and stores what has been gathered, by time within each unit, whatever the order of the list. */
  private flush(): void {
    const chunk = this.chunk.sort((a, b) => a.read.takenAt - b.read.takenAt || a.row - b.row);
    this.chunk = [];
    const work = () => chunk.forEach((candidate) => this.judge(candidate));
    if (this.order.mode === 'commit') this.database.transaction(work).immediate();
    else work();
  }

  private judge({ row, unit, read }: Candidate): void {
    const { takenAt, hours, counts } = read;
    const id = contentId(unit.id, read);
    // The same figure typed by hand, or withdrawn after an earlier import, is not taken in again.
    if (this.windows.has(unit.id, takenAt, hours, counts) || this.isStored.get(id) !== undefined) {
      return this.list(row, unit, read, 'known', []);
    }
    const log = this.windows.around(unit.id, takenAt, counts);
    const reading: HourReading = { takenAt, hours, counts, source: 'imported', recordedAt: this.order.now };
    const problem = readingProblem(log, reading, { now: this.order.now, timeZone: unit.timeZone });
    if (problem) return this.list(row, unit, read, 'refused', [], problem);
    const marks: string[] = readingMarks(log, reading);
    if (localDayAt(takenAt, unit.timeZone) < unit.commissionedDay) marks.unshift('before-commissioning');
    if (this.order.mode === 'commit') {
      const { now, by } = this.order;
      const { note } = read;
      const seq = this.insertFact.run(id, unit.id, takenAt, now, by, note).lastInsertRowid;
      this.insertReading.run(seq, id, now, by, note, JSON.stringify(marks), unit.id, takenAt, hours, counts);
      if (note !== null) this.insertText.run(seq, note);
    }
    this.windows.add(unit.id, reading);
    this.touched.set(unit.id, (this.touched.get(unit.id) ?? 0) + 1);
    this.list(row, unit, read, 'stored', marks);
  }

  private refuse(row: number, problem: Problem, cells: readonly string[]): void {
    this.counts.refused += 1;
    if (this.rows.length >= MOST_REFUSALS_LISTED) return;
    this.listed += 1;
    const text = cells
      .filter((cell) => cell.trim() !== '')
      .join(' · ')
      .slice(0, 200);
    this.rows.push({
      row,
      outcome: 'refused',
      text,
      marks: [],
      reason: problem.sentence,
      code: problem.code,
    });
  }

  private list(
    row: number,
    unit: ImportCompressor,
    { takenAt, hours, counts }: ImportedRow,
    outcome: ImportedRowView['outcome'],
    marks: readonly string[],
    problem?: Problem,
  ): void {
    this.counts[outcome] += 1;
    const most = outcome === 'refused' ? MOST_REFUSALS_LISTED : MOST_LISTED;
    if (this.rows.length >= most) return;
    this.listed += 1;
    this.rows.push({
      row,
      outcome,
      tag: unit.tag,
      takenAt: formatInstant(takenAt),
      hours,
      counts,
      marks,
      ...(problem ? { reason: problem.sentence, code: problem.code } : {}),
    });
  }
}

function unknownCompressor(name: string, found: 'ambiguous' | undefined): Problem {
  const shown = `“${name.slice(0, 40)}”`;
  return found === 'ambiguous'
    ? { code: 'ambiguous-unit', sentence: `More than one unit carries the tag ${shown}. Name it by its id.` }
    : { code: 'no-such-unit', sentence: `No unit in the register carries the tag ${shown}.` };
}

/** A UUID made of what a reading says (version 8: of our own making). */
function contentId(compressorId: string, { takenAt, hours, counts }: ImportedRow): string {
  const hash = createHash('sha1')
    .update(`reading ${compressorId} ${takenAt} ${hours} ${counts}`)
    .digest('hex');
  return `${hash.slice(0, 8)}-${hash.slice(8, 12)}-8${hash.slice(13, 16)}-a${hash.slice(17, 20)}-${hash.slice(20, 32)}`;
}
