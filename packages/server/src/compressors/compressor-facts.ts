import type { Instant } from '@entretien/core/basics';
import type { HourReading, MeterChange } from '@entretien/core/hours';
import type { MeasuredFact, Deferral, ServiceRecord, StartingPointFact } from '@entretien/core/plan';
import { LOOKED_AT } from '@entretien/core/visit';
import type { Database } from '../persistence/database.js';
import { METER_CHANGE_COLUMNS } from '../persistence/hour-facts-sql.js';

/** What happened on a unit. */
export interface CompressorFacts {
  readonly readings: readonly HourReading[];
  readonly meterChanges: readonly MeterChange[];
  readonly services: readonly ServiceRecord[];
  readonly measurements: readonly MeasuredFact[];
  readonly deferrals: readonly Deferral[];
  readonly startingPoints: readonly StartingPointFact[];
}

/** What was ever recorded of a unit, and what of it stands today: mostly the same. */
export interface KnownFacts {
  readonly all: CompressorFacts;
  readonly standing: CompressorFacts;
}

/** Reads what happened on one unit. */
export function readFacts(database: Database, id: string): KnownFacts {
  const read = <Row>(sql: string) => database.all<Row>(sql, id);
  const all: CompressorFacts = {
    readings: readReadings(database, id),
    meterChanges: read(METER_CHANGES),
    services: read<RawService>(SERVICES).map(toService),
    measurements: read<RawMeasured>(MEASUREMENTS).map(toMeasured),
    deferrals: read(DEFERRALS),
    startingPoints: read<RawStart>(STARTING_POINTS).flatMap(toStartingPoints),
  };
  const kinds = Object.values(all) as (readonly Voidable[])[];
  if (kinds.every((kind) => kind.every(stands))) return { all, standing: all };
  const standing = Object.entries(all).map(([kind, facts]) => [kind, (facts as Voidable[]).filter(stands)]);
  return { all, standing: Object.fromEntries(standing) as CompressorFacts };
}

/**
 * The many readings of a unit come as one text: the driver takes four times as long to hand over a million
 * rows cell by cell. SQLite writes a figure with 17 digits, so that it is read back as the same number.
 */
function readReadings(database: Database, id: string): HourReading[] {
  const [row] = database.all<{ readings: string }>(READINGS, id);
  const voided = new Map(
    database
      .all<{ seq: number; voidedAt: number }>(VOIDED_READINGS, id)
      .map(({ seq, voidedAt }) => [seq, voidedAt]),
  );
  return (JSON.parse(row!.readings) as RawReading[]).map(
    ([takenAt, hours, counts, source, recordedAt, seq]) => {
      const voidedAt = voided.get(seq);
      const reading = { takenAt, hours, counts, source, recordedAt };
      return voidedAt === undefined ? reading : { ...reading, voidedAt };
    },
  );
}

type RawReading = [number, number, HourReading['counts'], HourReading['source'], number, number];

interface Voidable {
  readonly voidedAt?: Instant | null | undefined;
}

function stands({ voidedAt }: Voidable): boolean {
  return !voidedAt;
}

type RawMeasured = Omit<MeasuredFact, 'baseline'> & { baseline: number };
type RawStart = Omit<StartingPointFact, 'task' | 'hoursUsed' | 'hoursThen' | 'countsFromOn'> & {
  points: string;
};
type RawService = Omit<ServiceRecord, 'tasks' | 'hours'> & {
  tasks: string;
  marks: string;
  hours: number | null;
};

const READINGS = `SELECT json_group_array(json_array("taken_at", "hours", "counts", "source", "recorded_at", "seq")) AS "readings" FROM (SELECT * FROM "reading" WHERE "compressor_id" = ? ORDER BY "taken_at", "hours")`;
const JOIN_VOIDED = 'LEFT JOIN "voided" "v" ON "v"."fact_id" = "f"."id"';
const OF_UNIT = 'WHERE "f"."compressor_id" = ?';
const METER_CHANGES = `SELECT ${METER_CHANGE_COLUMNS}, "voided_at" AS "voidedAt" FROM "meter_change" "f" ${JOIN_VOIDED} ${OF_UNIT}`;
const SERVICES = `SELECT "done_at" AS "doneAt", "recorded_at" AS "recordedAt", "hours", "tasks", "marks", "voided_at" AS "voidedAt" FROM "service" "f" ${JOIN_VOIDED} ${OF_UNIT} ORDER BY "done_at"`;
/** Only what has a figure, which is what the index of figures holds. */
const MEASUREMENTS = `SELECT "check_code" AS "check", "taken_at" AS "takenAt", "recorded_at" AS "recordedAt", "figure" AS "value", "uncertainty", "is_baseline" AS "baseline", "discharge_c" AS "tempC", "voided_at" AS "voidedAt" FROM "measurement" "f" ${JOIN_VOIDED} ${OF_UNIT} AND "figure" IS NOT NULL ORDER BY "taken_at"`;
const DEFERRALS = `SELECT "task", "put_off_at" AS "deferredAt", "recorded_at" AS "recordedAt", "reason", "until_hours" AS "untilHours", "until_on" AS "untilOn", "risk", "voided_at" AS "voidedAt" FROM "put_off" "f" ${JOIN_VOIDED} ${OF_UNIT}`;
const STARTING_POINTS = `SELECT "set_at" AS "setAt", "recorded_at" AS "recordedAt", "basis", "points", "voided_at" AS "voidedAt" FROM "starting_point" "f" ${JOIN_VOIDED} ${OF_UNIT}`;
const VOIDED_READINGS =
  'SELECT "r"."seq", "voided_at" AS "voidedAt" FROM "voided" "v" JOIN "fact" "f" ON "f"."id" = "v"."fact_id" JOIN "reading" "r" ON "r"."seq" = "f"."seq" WHERE "v"."compressor_id" = ?';

function toService({ doneAt, recordedAt, voidedAt, hours, tasks, marks }: RawService): ServiceRecord {
  const all = JSON.parse(tasks) as string[];
  // What was looked at only is not done.
  const done = marks === '[]' ? all : all.filter((code) => !marks.includes(`"${LOOKED_AT}${code}"`));
  return { doneAt, recordedAt, voidedAt, hours: hours ?? undefined, tasks: done };
}

function toMeasured(row: RawMeasured): MeasuredFact {
  return { ...row, baseline: row.baseline === 1 };
}

function toStartingPoints({ setAt, recordedAt, voidedAt, basis, points }: RawStart): StartingPointFact[] {
  const each = JSON.parse(points) as Pick<
    StartingPointFact,
    'task' | 'hoursUsed' | 'hoursThen' | 'countsFromOn'
  >[];
  return each.map((point) => ({ ...point, setAt, recordedAt, voidedAt, basis }));
}
