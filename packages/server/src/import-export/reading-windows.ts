import type Sqlite from 'better-sqlite3';
import type { Instant } from '@entretien/core/basics';
import type { CounterKind, HourLog, HourReading, MeterChange } from '@entretien/core/hours';
import {
  METER_CHANGES_OF_UNIT,
  NOTED_READINGS,
  READING_COLUMNS,
  stands,
} from '../persistence/hour-facts-sql.js';

/** What was read before that a habit can be told by, as when readings are recorded one by one. */
const EARLIER = 12;
/** Readings kept in memory at most: some thirty megabytes. */
const MOST_KEPT = 300_000;

interface Window {
  readonly readings: Record<CounterKind, HourReading[]>;
  readonly meterChanges: readonly MeterChange[];
}

const READINGS = `SELECT ${READING_COLUMNS} FROM "reading" WHERE "compressor_id" = ? AND ${stands('reading')}
  UNION ALL ${NOTED_READINGS}
  ORDER BY 1, 2`;

/**
 * The readings of the units that a list is about, in memory and by time, so that each of its rows can be
 * judged against both neighbours without asking the database for them.
 */
export class ReadingWindows {
  private readonly windows = new Map<string, Window>();
  private readonly readReadings: Sqlite.Statement;
  private readonly readChanges: Sqlite.Statement;
  private kept = 0;

  constructor(database: Sqlite.Database) {
    this.readReadings = database.prepare(READINGS);
    this.readChanges = database.prepare(METER_CHANGES_OF_UNIT);
  }

  /** The part of a unit's log that a figure at a moment must agree with. */
  around(compressorId: string, at: Instant, counts: CounterKind): HourLog {
    const { readings, meterChanges } = this.windowOf(compressorId);
    const near = (of: CounterKind) => {
      const place = placeOf(readings[of], at);
      return readings[of].slice(Math.max(0, place - EARLIER), place + 1);
    };
    return {
      readings: counts === 'total' ? near('total') : [...near('total'), ...near('loaded')],
      meterChanges,
    };
  }

  /** Whether the very same figure is on record for that moment. */
  has(compressorId: string, at: Instant, hours: number, counts: CounterKind): boolean {
    const list = this.windowOf(compressorId).readings[counts];
    for (let i = placeOf(list, at) - 1; i >= 0 && list[i]!.takenAt === at; i--) {
      if (list[i]!.hours === hours) return true;
    }
    return false;
  }

  add(compressorId: string, reading: HourReading): void {
    const list = this.windowOf(compressorId).readings[reading.counts];
    list.splice(placeOf(list, reading.takenAt), 0, reading);
    this.kept += 1;
  }

  private windowOf(compressorId: string): Window {
    let window = this.windows.get(compressorId);
    if (window) return window;
    if (this.kept > MOST_KEPT) this.windows.clear();
    if (this.windows.size === 0) this.kept = 0;
    const all = this.readReadings.all(compressorId, compressorId) as HourReading[];
    window = {
      readings: {
        total: all.filter(({ counts }) => counts === 'total'),
        loaded: all.filter(({ counts }) => counts === 'loaded'),
      },
      meterChanges: this.readChanges.all(compressorId) as MeterChange[],
    };
    this.windows.set(compressorId, window);
    this.kept += all.length;
    return window;
  }
}

/** The place after the last reading taken at or before a moment. */
function placeOf(readings: readonly HourReading[], at: Instant): number {
  let [low, high] = [0, readings.length];
  while (low < high) {
    const middle = (low + high) >>> 1;
    if (readings[middle]!.takenAt <= at) low = middle + 1;
    else high = middle;
  }
  return low;
}
