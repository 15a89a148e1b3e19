import type { MigrationInterface, QueryRunner } from 'typeorm';

const FACT = `"seq" integer PRIMARY KEY REFERENCES "fact" ("seq"), "id" text NOT NULL UNIQUE, "recorded_at" integer NOT NULL, "by" text NOT NULL, "note" text, "marks" text NOT NULL CHECK (json_valid("marks")), "compressor_id" text NOT NULL REFERENCES "compressor" ("id")`;
const moment = (column: string) => `"${column}" integer NOT NULL CHECK (typeof("${column}") = 'integer')`;

/** Isolation as a thing of the unit, out of service and back, and how the guard is set. */
export class Isolation1764547200000 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    const statements = [
      // Steps that are on record were told under the rules of before.
      `ALTER TABLE "visit_step" ADD COLUMN "rules" integer NOT NULL DEFAULT 1`,
      `CREATE INDEX "visit_step_of_isolation" ON "visit_step" ("compressor_id", "done_at") WHERE "kind" IN ('isolate', 'restart')`,
      `ALTER TABLE "repair_entry" ADD COLUMN "opens" text CHECK (json_valid("opens"))`,
      `ALTER TABLE "repair_entry" ADD COLUMN "session" text`,
      `CREATE TABLE "repair_step" (${FACT}, "repair_id" text NOT NULL REFERENCES "repair" ("id"), "kind" text NOT NULL CHECK ("kind" IN ('isolate', 'restart')), ${moment('done_at')}, "session" text NOT NULL, "details" text NOT NULL CHECK (json_valid("details")))`,
      `CREATE INDEX "repair_step_by_unit" ON "repair_step" ("compressor_id", "done_at")`,
      `CREATE TABLE "out_of_service" (${FACT}, ${moment('since')}, "scope" text NOT NULL CHECK ("scope" IN ('unit', 'breathing', 'point', 'side')), "place" text, "ground" text NOT NULL, "why" text NOT NULL, "finding" text REFERENCES "repair" ("id"), "to_show" text, "told" text)`,
      `CREATE INDEX "out_of_service_by_unit" ON "out_of_service" ("compressor_id", "since")`,
      `CREATE TABLE "return_to_service" (${FACT}, ${moment('at')}, "ends" text NOT NULL REFERENCES "fact" ("id"), "shown_by" text REFERENCES "fact" ("id"), "decided_by" text, "reason" text)`,
      `CREATE INDEX "return_to_service_by_unit" ON "return_to_service" ("compressor_id", "at")`,
      `CREATE TABLE "setting" ("name" text PRIMARY KEY NOT NULL, "value" real NOT NULL)`,
    ];
    for (const statement of statements) await runner.query(statement);
  }

  async down(runner: QueryRunner): Promise<void> {
    const statements = [
      ...['setting', 'return_to_service', 'out_of_service', 'repair_step'].map(
        (name) => `DROP TABLE "${name}"`,
      ),
      `DELETE FROM "fact" WHERE "kind" IN ('repair-step', 'out-of-service', 'return-to-service')`,
      `DROP INDEX "visit_step_of_isolation"`,
      `ALTER TABLE "visit_step" DROP COLUMN "rules"`,
      `ALTER TABLE "repair_entry" DROP COLUMN "opens"`,
      `ALTER TABLE "repair_entry" DROP COLUMN "session"`,
    ];
    for (const statement of statements) await runner.query(statement);
  }
}
