import type { MigrationInterface, QueryRunner } from 'typeorm';

const FACT = `"id" text PRIMARY KEY NOT NULL, "recorded_at" integer NOT NULL, "by" text NOT NULL, "note" text, "marks" text NOT NULL`;
const UNIT_FACT = `${FACT}, "compressor_id" text NOT NULL`;

/** Visits with their steps and photos, repairs, parts. */
export class Visits1764374400000 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    const statements = [
      `CREATE TABLE "visit" (${FACT}, "site_id" text NOT NULL, "planned_on" text NOT NULL, "units" text NOT NULL)`,
      `CREATE INDEX "visit_by_day" ON "visit" ("planned_on", "id")`,
      `CREATE TABLE "visit_step" (${UNIT_FACT}, "visit_id" text NOT NULL, "kind" text NOT NULL, "done_at" integer NOT NULL, "session" text NOT NULL, "details" text NOT NULL, "outcome" text)`,
      `CREATE INDEX "visit_step_by_visit" ON "visit_step" ("visit_id", "compressor_id", "done_at")`,
      `CREATE TABLE "photo" ("id" text PRIMARY KEY NOT NULL, "visit_id" text NOT NULL, "recorded_at" integer NOT NULL, "by" text NOT NULL, "sent" text NOT NULL, "stored" text NOT NULL, "bytes" integer NOT NULL, "width_px" integer NOT NULL, "height_px" integer NOT NULL)`,
      `CREATE INDEX "photo_by_visit" ON "photo" ("visit_id")`,
      `CREATE TABLE "repair" (${UNIT_FACT}, "kind" text NOT NULL, "found_at" integer NOT NULL, "found" text NOT NULL, "station" text)`,
      `CREATE INDEX "repair_by_unit" ON "repair" ("compressor_id", "found_at")`,
      `CREATE TABLE "repair_entry" (${UNIT_FACT}, "repair_id" text NOT NULL, "kind" text NOT NULL, "at" integer NOT NULL, "words" text NOT NULL, "minutes" real, "count" real, "part" text, "check_code" text, "figures" text, "outcome" text)`,
      `CREATE INDEX "repair_entry_by_repair" ON "repair_entry" ("repair_id", "at")`,
      `CREATE TABLE "part" (${FACT}, "number" text NOT NULL, "name" text NOT NULL, "part_class" text NOT NULL, "answers" text NOT NULL, "fits" text NOT NULL, "figures" text NOT NULL, "price_cents" integer, "supplier" text)`,
      `CREATE TABLE "part_move" (${FACT}, "part_id" text NOT NULL, "moved_at" integer NOT NULL, "thousandths" integer NOT NULL, "used_in" text)`,
      `CREATE INDEX "part_move_by_part" ON "part_move" ("part_id", "moved_at")`,
      `CREATE TABLE "logbook" ("fact_id" text NOT NULL UNIQUE, "kind" text NOT NULL, "compressor_id" text, "at" integer NOT NULL, "recorded_at" integer NOT NULL, "by" text NOT NULL, "said" text NOT NULL, "note" text)`,
      `CREATE INDEX "logbook_by_time" ON "logbook" ("at", "fact_id")`,
      `CREATE INDEX "logbook_by_unit" ON "logbook" ("compressor_id", "at", "fact_id")`,
      `CREATE VIRTUAL TABLE "logbook_text" USING fts5("words", content='', tokenize="unicode61 remove_diacritics 2", prefix='2 3')`,
    ];
    for (const statement of statements) await runner.query(statement);
  }

  async down(runner: QueryRunner): Promise<void> {
    for (const table of [
      'logbook_text',
      'logbook',
      'part_move',
      'part',
      'repair_entry',
      'repair',
      'photo',
      'visit_step',
      'visit',
    ]) {
      await runner.query(`DROP TABLE "${table}"`);
    }
  }
}
