import type { MigrationInterface, QueryRunner } from 'typeorm';

const FACT = `"seq" integer PRIMARY KEY REFERENCES "fact" ("seq"), "id" text NOT NULL UNIQUE, "recorded_at" integer NOT NULL, "by" text NOT NULL, "note" text, "marks" text NOT NULL CHECK (json_valid("marks"))`;
const UNIT_FACT = `${FACT}, "compressor_id" text NOT NULL REFERENCES "compressor" ("id")`;
const CORRECTS = `"corrects" text REFERENCES "fact" ("id")`;
const json = (column: string, more = ' NOT NULL') =>
  `"${column}" text${more} CHECK (json_valid("${column}"))`;
const moment = (column: string) => `"${column}" integer NOT NULL CHECK (typeof("${column}") = 'integer')`;
const atLeast = (column: string, least: number, type = 'real') =>
  `"${column}" ${type} CHECK ("${column}" >= ${least})`;

/** A table as it becomes: its columns, and for a kind of fact its code and when such a fact happened. */
interface Table {
  readonly columns: string;
  readonly kind?: string;
  readonly at?: string;
  readonly unit?: string;
}

/** Of readings there are so many that the spine alone finds them by their id. */
const READING = UNIT_FACT.replace(' UNIQUE', '');

const TABLES: Readonly<Record<string, Table>> = {
  site: {
    kind: 'site',
    columns: `${FACT}, "name" text NOT NULL, "time_zone" text NOT NULL, "altitude_m" real, "address" text, "contact" text`,
  },
  site_change: {
    kind: 'site-change',
    columns: `${FACT}, "site_id" text NOT NULL REFERENCES "site" ("id"), ${json('changes')}`,
  },
  compressor: { kind: 'compressor', unit: 'id', columns: `${FACT}, ${json('plate')}` },
  plate_change: {
    kind: 'plate-change',
    at: 'changed_at',
    unit: 'compressor_id',
    columns: `${UNIT_FACT}, ${moment('changed_at')}, ${json('changes')}`,
  },
  reading: {
    kind: 'reading',
    at: 'taken_at',
    unit: 'compressor_id',
    columns: `${READING}, ${moment('taken_at')}, ${atLeast('hours', 0)} NOT NULL, "counts" text NOT NULL CHECK ("counts" IN ('total', 'loaded')), "source" text NOT NULL, ${CORRECTS}`,
  },
  meter_change: {
    kind: 'meter-change',
    at: 'changed_at',
    unit: 'compressor_id',
    columns: `${UNIT_FACT}, ${moment('changed_at')}, ${atLeast('old_final_hours', 0)} NOT NULL, ${atLeast('new_start_hours', 0)} NOT NULL, "reason" text NOT NULL, ${CORRECTS}`,
  },
  service: {
    kind: 'service',
    at: 'done_at',
    unit: 'compressor_id',
    columns: `${UNIT_FACT}, ${moment('done_at')}, ${atLeast('hours', 0)}, ${json('tasks')}, ${atLeast('plan_version', 1, 'integer')} NOT NULL, ${CORRECTS}`,
  },
  measurement: {
    kind: 'measurement',
    at: 'taken_at',
    unit: 'compressor_id',
    columns: `${UNIT_FACT}, ${CORRECTS}, "check_code" text NOT NULL, ${moment('taken_at')}, ${json('figures')}, ${atLeast('hours', 0)}, "is_baseline" boolean NOT NULL CHECK ("is_baseline" IN (0, 1)), "verdict" text NOT NULL CHECK ("verdict" IN ('good', 'watch', 'act', 'stop')), ${json('judgement')}, "figure" real, ${atLeast('uncertainty', 0)}, "discharge_c" real`,
  },
  put_off: {
    kind: 'put-off',
    at: 'put_off_at',
    unit: 'compressor_id',
    columns: `${UNIT_FACT}, ${CORRECTS}, "task" text NOT NULL, ${moment('put_off_at')}, "reason" text NOT NULL, ${atLeast('until_hours', 0)}, "until_on" text, "risk" text, CHECK ("until_hours" IS NOT NULL OR "until_on" IS NOT NULL)`,
  },
  starting_point: {
    kind: 'starting-point',
    at: 'set_at',
    unit: 'compressor_id',
    columns: `${UNIT_FACT}, ${CORRECTS}, ${moment('set_at')}, "basis" text NOT NULL CHECK ("basis" IN ('inspection', 'estimate')), ${json('points')}`,
  },
  withdrawal: {
    kind: 'withdrawal',
    unit: 'compressor_id',
    columns: `${UNIT_FACT}, "fact_id" text NOT NULL REFERENCES "fact" ("id"), "reason" text NOT NULL`,
  },
  vessel: { kind: 'vessel', columns: `${FACT}, "kind" text NOT NULL, ${json('details')}` },
  vessel_change: {
    kind: 'vessel-change',
    columns: `${FACT}, "vessel_id" text NOT NULL REFERENCES "vessel" ("id"), ${json('changes')}`,
  },
  vessel_examination: {
    kind: 'vessel-examination',
    // A day: the middle of it.
    at: `unixepoch("done_on" || 'T12:00:00Z') * 1000`,
    columns: `${FACT}, "vessel_id" text NOT NULL REFERENCES "vessel" ("id"), "kind" text NOT NULL, "done_on" text NOT NULL, "passed" boolean NOT NULL CHECK ("passed" IN (0, 1))`,
  },
  visit: {
    kind: 'visit',
    columns: `${FACT}, "site_id" text NOT NULL REFERENCES "site" ("id"), "planned_on" text NOT NULL, ${json('units')}`,
  },
  visit_step: {
    kind: 'visit-step',
    at: 'done_at',
    unit: 'compressor_id',
    columns: `${UNIT_FACT}, "visit_id" text NOT NULL REFERENCES "visit" ("id"), "kind" text NOT NULL, ${moment('done_at')}, "session" text NOT NULL, ${json('details')}, ${json('outcome', '')}`,
  },
  repair: {
    kind: 'repair',
    at: 'found_at',
    unit: 'compressor_id',
    columns: `${UNIT_FACT}, "kind" text NOT NULL, ${moment('found_at')}, "found" text NOT NULL, "station" text`,
  },
  repair_entry: {
    kind: 'repair-entry',
    at: 'at',
    unit: 'compressor_id',
    columns: `${UNIT_FACT}, "repair_id" text NOT NULL REFERENCES "repair" ("id"), "kind" text NOT NULL, ${moment('at')}, "words" text NOT NULL, ${atLeast('minutes', 0)}, "count" real, "part" text REFERENCES "part" ("id"), "check_code" text, ${json('figures', '')}, ${json('outcome', '')}`,
  },
  part: {
    kind: 'part',
    columns: `${FACT}, "number" text NOT NULL, "name" text NOT NULL, "part_class" text NOT NULL, "answers" text NOT NULL, ${json('fits')}, ${json('figures')}, ${atLeast('price_cents', 0, 'integer')}, "supplier" text`,
  },
  part_move: {
    kind: 'part-move',
    at: 'moved_at',
    columns: `${FACT}, "part_id" text NOT NULL REFERENCES "part" ("id"), ${moment('moved_at')}, "thousandths" integer NOT NULL CHECK (typeof("thousandths") = 'integer'), "used_in" text`,
  },
  plan_version: {
    // A unit's first plan is stored with its registration, before it.
    columns: `"compressor_id" text NOT NULL REFERENCES "compressor" ("id") DEFERRABLE INITIALLY DEFERRED, ${atLeast('version', 1, 'integer')} NOT NULL, ${moment('effective_at')}, "recorded_at" integer NOT NULL, "by" text NOT NULL, "content_id" text NOT NULL REFERENCES "plan_content" ("id"), "id" text, "note" text, PRIMARY KEY ("compressor_id", "version")`,
  },
  voided: {
    columns: `"fact_id" text PRIMARY KEY NOT NULL REFERENCES "fact" ("id"), "compressor_id" text NOT NULL REFERENCES "compressor" ("id"), "voided_at" integer NOT NULL, "by_fact" text NOT NULL REFERENCES "fact" ("id") DEFERRABLE INITIALLY DEFERRED, "how" text NOT NULL CHECK ("how" IN ('withdrawn', 'corrected'))`,
  },
  photo: {
    columns: `"id" text PRIMARY KEY NOT NULL, "visit_id" text NOT NULL REFERENCES "visit" ("id"), "recorded_at" integer NOT NULL, "by" text NOT NULL, "sent" text NOT NULL, "stored" text NOT NULL, "bytes" integer NOT NULL, "width_px" integer NOT NULL, "height_px" integer NOT NULL`,
  },
};

const SPINE = [
  `CREATE TABLE "fact" ("seq" integer PRIMARY KEY, "id" text NOT NULL UNIQUE, "kind" text NOT NULL CHECK ("kind" <> ''), "compressor_id" text, ${moment('at')}, ${moment('recorded_at')}, "by" text NOT NULL, "note" text, "text" text, "lead" text)`,
  `CREATE VIRTUAL TABLE "fact_text" USING fts5("words", content='', tokenize="unicode61 remove_diacritics 2", prefix='2 3')`,
  `CREATE TABLE "wording" ("version" integer PRIMARY KEY)`,
  `CREATE TABLE "kept_order" ("id" integer PRIMARY KEY CHECK ("id" = 1), "build" text NOT NULL, "seq" integer NOT NULL, "learnt_at" integer, "judged_at" integer NOT NULL, ${json('places')})`,
];

const INDEXES = [
  `CREATE INDEX "fact_by_time" ON "fact" ("at")`,
  `CREATE INDEX "fact_by_unit" ON "fact" ("compressor_id", "at")`,
  `CREATE INDEX "fact_by_kind" ON "fact" ("kind", "at") WHERE "kind" <> 'reading'`,
];

/**
 * One table of all facts, to which the tables of the kinds are tied by their place; foreign keys and checks as a
 * second line behind what the application asks for. The logbook of before is a part of it now.
 */
export class Spine1764460800000 implements MigrationInterface {
  // Tables that others point at can only be replaced while nobody looks at where they point.
  readonly transaction = false;

  async up(runner: QueryRunner): Promise<void> {
    const query = (sql: string) => runner.query(sql) as Promise<Record<string, string>[]>;
    // Told to have been done only after it was: ended in between, it has been done all the same.
    const [done] = await query(`SELECT 1 FROM "sqlite_master" WHERE "name" = 'fact'`);
    if (done) return;
    const indexes = await query(
      `SELECT "name", "sql" FROM "sqlite_master" WHERE "type" = 'index' AND "sql" IS NOT NULL AND "tbl_name" IN (${Object.keys(
        TABLES,
      )
        .map((name) => `'${name}'`)
        .join(', ')})`,
    );
    await query('PRAGMA foreign_keys = OFF');
    await query('BEGIN IMMEDIATE');
    try {
      for (const statement of SPINE) await query(statement);
      for (const { name } of indexes) await query(`DROP INDEX "${name}"`);
      for (const table of Object.keys(TABLES))
        await query(`ALTER TABLE "${table}" RENAME TO "before_${table}"`);
      await query(gatherFacts());
      for (const [table, { columns, kind }] of Object.entries(TABLES)) {
        await query(`CREATE TABLE "${table}" (${columns})`);
        const names = (await query(`PRAGMA table_info("before_${table}")`)).map(({ name }) => `"${name}"`);
        const from =
          kind === undefined
            ? `SELECT ${names.join(', ')} FROM "before_${table}"`
            : `SELECT "f"."seq", ${names.map((name) => `"b".${name}`).join(', ')} FROM "fact" "f" JOIN "before_${table}" "b" ON "b"."id" = "f"."id" WHERE "f"."kind" = '${kind}' ORDER BY "f"."seq"`;
        const into = kind === undefined ? names : ['"seq"', ...names];
        await query(`INSERT INTO "${table}" (${into.join(', ')}) ${from}`);
      }
      for (const table of Object.keys(TABLES)) await query(`DROP TABLE "before_${table}"`);
      await query('DROP TABLE "logbook"');
      await query('DROP TABLE "logbook_text"');
      for (const statement of [...indexes.map(({ sql }) => sql!), ...INDEXES]) await query(statement);
      await query('COMMIT');
    } catch (error) {
      // A full disk has undone it already.
      await query('ROLLBACK').catch(() => undefined);
      throw error;
    } finally {
      await query('PRAGMA foreign_keys = ON');
    }
  }

  down(): Promise<void> {
    return Promise.reject(
      new Error('What came before the table of all facts is brought back from a backup.'),
    );
  }
}

/** All facts in the order in which they became known. */
function gatherFacts(): string {
  const kinds = Object.entries(TABLES).flatMap(([table, { kind, at = 'recorded_at', unit }]) =>
    kind === undefined
      ? []
      : [
          `SELECT "id", '${kind}' AS "kind", ${unit === undefined ? 'NULL' : `"${unit}"`} AS "unit", ${at.includes('(') ? at : `"${at}"`} AS "at", "recorded_at" AS "recorded", "by", "note" FROM "before_${table}"`,
        ],
  );
  const plans = `SELECT "id", 'plan-version', "compressor_id", "effective_at", "recorded_at", "by", "note" FROM "before_plan_version" WHERE "id" IS NOT NULL`;
  return `INSERT OR IGNORE INTO "fact" ("id", "kind", "compressor_id", "at", "recorded_at", "by", "note") SELECT * FROM (${[...kinds, plans].join(' UNION ALL ')}) ORDER BY "recorded", "id"`;
}
