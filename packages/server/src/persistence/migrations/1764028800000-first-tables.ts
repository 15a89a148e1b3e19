import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Sites, people, compressors with their plates and plans, readings, meter changes, services. */
export class FirstTables1764028800000 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    const fact = `"id" text PRIMARY KEY NOT NULL, "recorded_at" integer NOT NULL, "by" text NOT NULL, "note" text, "marks" text NOT NULL`;
    const unitFact = `${fact}, "compressor_id" text NOT NULL`;
    const statements = [
      `CREATE TABLE "person" ("id" text PRIMARY KEY NOT NULL, "recorded_at" integer NOT NULL, "name" text NOT NULL, "initials" text NOT NULL)`,
      `CREATE TABLE "site" (${fact}, "name" text NOT NULL, "time_zone" text NOT NULL, "altitude_m" real, "address" text, "contact" text)`,
      `CREATE TABLE "site_change" (${fact}, "site_id" text NOT NULL, "changes" text NOT NULL)`,
      `CREATE INDEX "site_change_by_site" ON "site_change" ("site_id", "recorded_at")`,
      `CREATE TABLE "compressor" (${fact}, "plate" text NOT NULL)`,
      `CREATE TABLE "plate_change" (${unitFact}, "changed_at" integer NOT NULL, "changes" text NOT NULL)`,
      `CREATE INDEX "plate_change_by_unit" ON "plate_change" ("compressor_id", "changed_at")`,
      `CREATE TABLE "plan_content" ("id" text PRIMARY KEY NOT NULL, "tasks" text NOT NULL)`,
      `CREATE TABLE "plan_version" ("compressor_id" text NOT NULL, "version" integer NOT NULL, "effective_at" integer NOT NULL, "recorded_at" integer NOT NULL, "by" text NOT NULL, "content_id" text NOT NULL, PRIMARY KEY ("compressor_id", "version"))`,
      `CREATE TABLE "reading" (${unitFact}, "taken_at" integer NOT NULL, "hours" real NOT NULL, "counts" text NOT NULL, "source" text NOT NULL)`,
      `CREATE INDEX "reading_by_unit" ON "reading" ("compressor_id", "taken_at", "hours", "counts", "source", "recorded_at")`,
      `CREATE TABLE "meter_change" (${unitFact}, "changed_at" integer NOT NULL, "old_final_hours" real NOT NULL, "new_start_hours" real NOT NULL, "reason" text NOT NULL)`,
      `CREATE INDEX "meter_change_by_unit" ON "meter_change" ("compressor_id", "changed_at")`,
      `CREATE TABLE "service" (${unitFact}, "done_at" integer NOT NULL, "hours" real, "tasks" text NOT NULL, "plan_version" integer NOT NULL)`,
      `CREATE INDEX "service_by_unit" ON "service" ("compressor_id", "done_at")`,
    ];
    for (const statement of statements) await runner.query(statement);
  }

  async down(runner: QueryRunner): Promise<void> {
    const tables = [
      'service',
      'meter_change',
      'reading',
      'plan_version',
      'plan_content',
      'plate_change',
      'compressor',
      'site_change',
      'site',
      'person',
    ];
    for (const table of tables) await runner.query(`DROP TABLE "${table}"`);
  }
}
