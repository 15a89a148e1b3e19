import type { Instant } from '@entretien/core/basics';
import type { HourReading, MeterChange } from '@entretien/core/hours';
import type { ServiceRecord } from '@entretien/core/plan';
import { groupBy } from '../common/group-by.js';
import type { Database } from '../persistence/database.js';
import { METER_CHANGE_COLUMNS, READING_COLUMNS } from '../persistence/hour-facts-sql.js';

/** What happened on a unit. */
export interface UnitFacts {
  readonly readings: readonly HourReading[];
  readonly meterChanges: readonly MeterChange[];
  readonly services: readonly ServiceRecord[];
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
    read(READINGS, '"compressor_id"', 'ORDER BY "taken_at", "hours"'),
    read(METER_CHANGES, '"f"."compressor_id"'),
    read<RawService>(SERVICES, '"f"."compressor_id"', 'ORDER BY "done_at"').map(toService),
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
  const voided = read<VoidedReading & { unit: string }>(VOIDED_READINGS);
  const all = new Map<string, KnownFacts>();
  for (const id of wanted) {
    const done = (services.get(id) ?? []).map(toService);
    all.set(id, knownFacts(readings.get(id) ?? [], meterChanges.get(id) ?? [], done, voided.get(id) ?? []));
  }
  return all;
}

/** Readings come from an index that does not hold their ids: those that were voided are known by what they say. */
function knownFacts(
  readings: readonly HourReading[],
  meterChanges: readonly MeterChange[],
  services: readonly ServiceRecord[],
  voided: readonly VoidedReading[],
): KnownFacts {
  const marked = voided.length === 0 ? readings : markVoided(readings, voided);
  const all = { readings: marked, meterChanges, services };
  const stands = ({ voidedAt }: { readonly voidedAt?: Instant | null | undefined }) => !voidedAt;
  const isWhole = [...meterChanges, ...services].every(stands) && voided.length === 0;
  if (isWhole) return { all, standing: all };
  return {
    all,
    standing: {
      readings: all.readings.filter(stands),
      meterChanges: meterChanges.filter(stands),
      services: services.filter(stands),
    },
  };
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

type RawService = Omit<ServiceRecord, 'tasks' | 'hours'> & { tasks: string; hours: number | null };

const READINGS = `SELECT "compressor_id" AS "unit", ${READING_COLUMNS} FROM "reading"`;
const JOIN_VOIDED = 'LEFT JOIN "voided" "v" ON "v"."fact_id" = "f"."id"';
const METER_CHANGES = `SELECT "f"."compressor_id" AS "unit", ${METER_CHANGE_COLUMNS}, "voided_at" AS "voidedAt" FROM "meter_change" "f" ${JOIN_VOIDED}`;
const SERVICES = `SELECT "f"."compressor_id" AS "unit", "done_at" AS "doneAt", "recorded_at" AS "recordedAt", "hours", "tasks", "voided_at" AS "voidedAt" FROM "service" "f" ${JOIN_VOIDED}`;
const VOIDED_READINGS =
  'SELECT "v"."compressor_id" AS "unit", "taken_at" AS "takenAt", "hours", "counts", "recorded_at" AS "recordedAt", "voided_at" AS "voidedAt" FROM "voided" "v" JOIN "reading" "r" ON "r"."id" = "v"."fact_id"';

function toService({ doneAt, recordedAt, voidedAt, hours, tasks }: RawService): ServiceRecord {
  return { doneAt, recordedAt, voidedAt, hours: hours ?? undefined, tasks: JSON.parse(tasks) as string[] };
}
