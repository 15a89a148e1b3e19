/** What the core wants of a reading, and of a meter change: the columns under its own names. */
export const READING_COLUMNS =
  '"taken_at" AS "takenAt", "hours", "counts", "source", "recorded_at" AS "recordedAt"';
export const METER_CHANGE_COLUMNS =
  '"changed_at" AS "changedAt", "old_final_hours" AS "oldFinalHours", "new_start_hours" AS "newStartHours", "reason", "recorded_at" AS "recordedAt"';

/** The condition that a row of a table has neither been withdrawn nor put right. */
export function stands(table: string): string {
  return `NOT EXISTS (SELECT 1 FROM "voided" WHERE "fact_id" = "${table}"."id")`;
}

/** Figures noted with services of a unit, as readings. */
export const NOTED_READINGS = `SELECT "done_at" AS "takenAt", "hours", 'total' AS "counts", 'typed' AS "source", "recorded_at" AS "recordedAt" FROM "service" WHERE "compressor_id" = ? AND "hours" IS NOT NULL AND ${stands('service')}`;

/** Meter changes of a unit that stand. */
export const METER_CHANGES_OF_UNIT = `SELECT ${METER_CHANGE_COLUMNS} FROM "meter_change" WHERE "compressor_id" = ? AND ${stands('meter_change')}`;
