import { Injectable } from '@nestjs/common';
import type { Instant } from '@entretien/core/basics';
import type { CounterKind, HourLog, HourReading, MeterChange } from '@entretien/core/hours';
import { Database } from '../persistence/database.js';
import {
  METER_CHANGES_OF_UNIT,
  NOTED_READINGS,
  READING_COLUMNS,
  stands,
} from '../persistence/hour-facts-sql.js';

const OF_COUNTER = `FROM "reading" WHERE "compressor_id" = ? AND "counts" = ? AND ${stands('reading')}`;
/** Enough of what was read before to tell a habit by. */
const HABIT_READINGS = 12;

// One statement for what is on both sides: a figure that comes in waits for each.
const READ = together(
  `SELECT ${READING_COLUMNS} ${OF_COUNTER} AND "taken_at" <= ? ORDER BY "taken_at" DESC, "hours" DESC LIMIT ${HABIT_READINGS}`,
  `SELECT ${READING_COLUMNS} ${OF_COUNTER} AND "taken_at" >= ? ORDER BY "taken_at", "hours" LIMIT 1`,
);
const NOTED = together(
  `${NOTED_READINGS} AND "done_at" <= ? ORDER BY "done_at" DESC, "hours" DESC LIMIT 1`,
  `${NOTED_READINGS} AND "done_at" >= ? ORDER BY "done_at", "hours" LIMIT 1`,
);

function together(...queries: readonly string[]): string {
  return queries.map((query) => `SELECT * FROM (${query})`).join(' UNION ALL ');
}

/**
 * The part of a unit's hour log that a new figure at a moment must agree with: what was read in the time before
 * and next after it on either counter, and every meter change. Read by index, so that the cost does not grow with
 * the length of the history.
 */
@Injectable()
export class NeighbouringFigures {
  constructor(private readonly database: Database) {}

  /** @param counts which counter the new figure is of: loaded hours are bounded by total hours, too */
  around(compressorId: string, at: Instant, counts: CounterKind = 'total'): HourLog {
    const counters = counts === 'total' ? (['total'] as const) : (['total', 'loaded'] as const);
    const read = (of: CounterKind) =>
      this.database.all<HourReading>(READ, compressorId, of, at, compressorId, of, at);
    const noted = this.database.all<HourReading>(NOTED, compressorId, at, compressorId, at);
    return {
      readings: [...counters.flatMap(read), ...noted],
      meterChanges: this.database.all<MeterChange>(METER_CHANGES_OF_UNIT, compressorId),
    };
  }
}
