import type { Instant } from '@entretien/core/basics';
import type { HourReading, MeterChange } from '@entretien/core/hours';
import type { MeasuredFact, PutOff, ServiceRecord, StartingPointFact } from '@entretien/core/plan';
import { groupBy } from '../common/group-by.js';
import type { Database } from '../persistence/database.js';
import { METER_CHANGE_COLUMNS, READING_COLUMNS } from '../persistence/hour-facts-sql.js';

/** What happened on a unit. */
export interface UnitFacts {
  readonly readings: readonly HourReading[];
  readonly meterChanges: readonly MeterChange[];
  readonly services: readonly ServiceRecord[];
  readonly measurements: readonly MeasuredFact[];
  readonly putOffs: readonly PutOff[];
  readonly startingPoints: readonly StartingPointFact[];
}

/** What was ever recorded of a unit, and what of it stands today: mostly the same. */
export interface KnownFacts {
  readonly all: UnitFacts;
  readonly standing: UnitFacts;
}

/** Reads what happened on one unit. */
export function readFacts(database: Database, id: string): KnownFacts {
  const read = <Row>(sql: string, idColumn: string, order = '') =>
    database.all<Row>(`${sql} WHERE ${idColumn} = ? ${order}`, id);
  return knownFacts(
    {
      readings: read(READINGS, '"compressor_id"', 'ORDER BY "taken_at", "hours"'),
      meterChanges: read(METER_CHANGES, '"f"."compressor_id"'),
      services: read<RawService>(SERVICES, '"f"."compressor_id"', 'ORDER BY "done_at"').map(toService),
      measurements: read<RawMeasured>(MEASUREMENTS, FIGURES_OF_UNIT, 'ORDER BY "taken_at"').map(toMeasured),
      putOffs: read(PUT_OFFS, '"f"."compressor_id"'),
      startingPoints: read<RawStart>(STARTING_POINTS, '"f"."compressor_id"').flatMap(toStartingPoints),
    },
    read(VOIDED_READINGS, '"v"."compressor_id"'),
  );
}

/** Reads what happened on many units, in one pass over the tables. */
export function readAllFacts(database: Database, wanted: Iterable<string>): ReadonlyMap<string, KnownFacts> {
  const read = <Row extends { unit: string }>(sql: string) =>
    groupBy(database.all<Row>(sql), (row) => row.unit);
  const readings = read<HourReading & { unit: string }>(
    `${READINGS} ORDER BY "compressor_id", "taken_at", "hours"`,
  );
  const meterChanges = read<MeterChange & { unit: string }>(METER_CHANGES);
  const services = read<RawService & { unit: string }>(`${SERVICES} ORDER BY "f"."compressor_id", "done_at"`);
  const measurements = read<RawMeasured & { unit: string }>(
    `${MEASUREMENTS} WHERE "figure" IS NOT NULL ORDER BY "f"."compressor_id", "taken_at"`,
  );
  const putOffs = read<PutOff & { unit: string }>(PUT_OFFS);
  const startingPoints = read<RawStart & { unit: string }>(STARTING_POINTS);
  const voided = read<VoidedReading & { unit: string }>(VOIDED_READINGS);
  const all = new Map<string, KnownFacts>();
  for (const id of wanted) {
    const facts = {
      readings: readings.get(id) ?? [],
      meterChanges: meterChanges.get(id) ?? [],
      services: (services.get(id) ?? []).map(toService),
      measurements: (measurements.get(id) ?? []).map(toMeasured),
      putOffs: putOffs.get(id) ?? [],
      startingPoints: (startingPoints.get(id) ?? []).flatMap(toStartingPoints),
    };
    all.set(id, knownFacts(facts, voided.get(id) ?? []));
  }
  return all;
}

/** Readings come from an index that does not hold their ids: those that were voided are known by what they say. */
function knownFacts(facts: UnitFacts, voided: readonly VoidedReading[]): KnownFacts {
  const all = voided.length === 0 ? facts : { ...facts, readings: markVoided(facts.readings, voided) };
  const { readings: _readings, ...others } = all;
  const isWhole =
    voided.length === 0 && Object.values(others).every((kind) => (kind as readonly Voidable[]).every(stands));
  if (isWhole) return { all, standing: all };
  return {
    all,
    standing: {
      readings: all.readings.filter(stands),
      meterChanges: all.meterChanges.filter(stands),
      services: all.services.filter(stands),
      measurements: all.measurements.filter(stands),
      putOffs: all.putOffs.filter(stands),
      startingPoints: all.startingPoints.filter(stands),
    },
  };
}

interface Voidable {
  readonly voidedAt?: Instant | null | undefined;
}

function stands({ voidedAt }: Voidable): boolean {
  return !voidedAt;
}

function markVoided(
  readings: readonly HourReading[],
  voided: readonly VoidedReading[],
): readonly HourReading[] {
  const wrong = [...voided];
  return readings.map((reading) => {
    const index = wrong.findIndex((one) => same.every((field) => one[field] === reading[field]));
    if (index < 0) return reading;
    return { ...reading, voidedAt: wrong.splice(index, 1)[0]!.voidedAt };
  });
}

const same = ['takenAt', 'hours', 'counts', 'recordedAt'] as const;

interface VoidedReading {
  takenAt: number;
  hours: number;
  counts: string;
  recordedAt: number;
  voidedAt: number;
}

type RawMeasured = Omit<MeasuredFact, 'baseline'> & { baseline: number };
type RawStart = Omit<StartingPointFact, 'task' | 'hoursUsed' | 'countsFromOn'> & { points: string };
type RawService = Omit<ServiceRecord, 'tasks' | 'hours'> & { tasks: string; hours: number | null };

const READINGS = `SELECT "compressor_id" AS "unit", ${READING_COLUMNS} FROM "reading"`;
const JOIN_VOIDED = 'LEFT JOIN "voided" "v" ON "v"."fact_id" = "f"."id"';
const METER_CHANGES = `SELECT "f"."compressor_id" AS "unit", ${METER_CHANGE_COLUMNS}, "voided_at" AS "voidedAt" FROM "meter_change" "f" ${JOIN_VOIDED}`;
const SERVICES = `SELECT "f"."compressor_id" AS "unit", "done_at" AS "doneAt", "recorded_at" AS "recordedAt", "hours", "tasks", "voided_at" AS "voidedAt" FROM "service" "f" ${JOIN_VOIDED}`;
const MEASUREMENTS = `SELECT "f"."compressor_id" AS "unit", "check_code" AS "check", "taken_at" AS "takenAt", "recorded_at" AS "recordedAt", "figure" AS "value", "uncertainty", "is_baseline" AS "baseline", "discharge_c" AS "tempC", "voided_at" AS "voidedAt" FROM "measurement" "f" ${JOIN_VOIDED}`;
/** Only what has a figure, which is what the index of figures holds. */
const FIGURES_OF_UNIT = '"figure" IS NOT NULL AND "f"."compressor_id"';
const PUT_OFFS = `SELECT "f"."compressor_id" AS "unit", "task", "put_off_at" AS "putOffAt", "recorded_at" AS "recordedAt", "reason", "until_hours" AS "untilHours", "until_on" AS "untilOn", "risk", "voided_at" AS "voidedAt" FROM "put_off" "f" ${JOIN_VOIDED}`;
const STARTING_POINTS = `SELECT "f"."compressor_id" AS "unit", "set_at" AS "setAt", "recorded_at" AS "recordedAt", "basis", "points", "voided_at" AS "voidedAt" FROM "starting_point" "f" ${JOIN_VOIDED}`;
const VOIDED_READINGS =
  'SELECT "v"."compressor_id" AS "unit", "taken_at" AS "takenAt", "hours", "counts", "recorded_at" AS "recordedAt", "voided_at" AS "voidedAt" FROM "voided" "v" JOIN "reading" "r" ON "r"."id" = "v"."fact_id"';

function toService({ doneAt, recordedAt, voidedAt, hours, tasks }: RawService): ServiceRecord {
  return { doneAt, recordedAt, voidedAt, hours: hours ?? undefined, tasks: JSON.parse(tasks) as string[] };
}

function toMeasured(row: RawMeasured): MeasuredFact {
  return { ...row, baseline: row.baseline === 1 };
}

function toStartingPoints({ setAt, recordedAt, voidedAt, basis, points }: RawStart): StartingPointFact[] {
  const each = JSON.parse(points) as Pick<StartingPointFact, 'task' | 'hoursUsed' | 'countsFromOn'>[];
  return each.map((point) => ({ ...point, setAt, recordedAt, voidedAt, basis }));
}
