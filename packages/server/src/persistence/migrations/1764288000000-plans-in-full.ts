import type { MigrationInterface, QueryRunner } from 'typeorm';

const FACT = `"id" text PRIMARY KEY NOT NULL, "recorded_at" integer NOT NULL, "by" text NOT NULL, "note" text, "marks" text NOT NULL`;
const UNIT_FACT = `${FACT}, "compressor_id" text NOT NULL, "corrects" text`;

/** Plans with choices and factors, putting off, starting points, vessels; the figures that plans go by. */
export class PlansInFull1764288000000 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    const statements = [
      `ALTER TABLE "plan_content" RENAME COLUMN "tasks" TO "plan"`,
      `UPDATE "plan_content" SET "plan" = '{"tasks":' || "plan" || '}'`,
      `ALTER TABLE "plan_version" ADD COLUMN "id" text`,
      `ALTER TABLE "plan_version" ADD COLUMN "note" text`,
      `CREATE UNIQUE INDEX "plan_version_id" ON "plan_version" ("id") WHERE "id" IS NOT NULL`,
      `CREATE TABLE "put_off" (${UNIT_FACT}, "task" text NOT NULL, "put_off_at" integer NOT NULL, "reason" text NOT NULL, "until_hours" real, "until_on" text, "risk" text)`,
      `CREATE INDEX "put_off_by_unit" ON "put_off" ("compressor_id", "put_off_at")`,
      `CREATE TABLE "starting_point" (${UNIT_FACT}, "set_at" integer NOT NULL, "basis" text NOT NULL, "points" text NOT NULL)`,
      `CREATE INDEX "starting_point_by_unit" ON "starting_point" ("compressor_id", "set_at")`,
      `CREATE TABLE "vessel" (${FACT}, "kind" text NOT NULL, "details" text NOT NULL)`,
      `CREATE TABLE "vessel_change" (${FACT}, "vessel_id" text NOT NULL, "changes" text NOT NULL)`,
      `CREATE INDEX "vessel_change_by_vessel" ON "vessel_change" ("vessel_id")`,
      `CREATE TABLE "vessel_examination" (${FACT}, "vessel_id" text NOT NULL, "kind" text NOT NULL, "done_on" text NOT NULL, "passed" boolean NOT NULL)`,
      `CREATE INDEX "vessel_examination_by_vessel" ON "vessel_examination" ("vessel_id", "done_on")`,
      `ALTER TABLE "measurement" ADD COLUMN "figure" real`,
      `ALTER TABLE "measurement" ADD COLUMN "uncertainty" real`,
      `ALTER TABLE "measurement" ADD COLUMN "discharge_c" real`,
      `UPDATE "measurement" SET "figure" = json_extract("judgement", '$.figure.value'), "uncertainty" = json_extract("judgement", '$.figure.uncertainty'), "discharge_c" = CASE WHEN "check_code" = 'discharge-temperature' THEN json_extract("figures", '$.tempC') END`,
      `CREATE INDEX "measurement_figures" ON "measurement" ("compressor_id", "taken_at", "check_code", "figure", "uncertainty", "is_baseline", "discharge_c", "recorded_at", "id") WHERE "figure" IS NOT NULL`,
    ];
    for (const statement of statements) await runner.query(statement);
  }

  async down(runner: QueryRunner): Promise<void> {
    const statements = [
      `DROP INDEX "measurement_figures"`,
      ...['figure', 'uncertainty', 'discharge_c'].map(
        (column) => `ALTER TABLE "measurement" DROP COLUMN "${column}"`,
      ),
      ...['vessel_examination', 'vessel_change', 'vessel', 'starting_point', 'put_off'].map(
        (table) => `DROP TABLE "${table}"`,
      ),
      `DROP INDEX "plan_version_id"`,
      `ALTER TABLE "plan_version" DROP COLUMN "note"`,
      `ALTER TABLE "plan_version" DROP COLUMN "id"`,
      `UPDATE "plan_content" SET "plan" = json_extract("plan", '$.tasks')`,
      `ALTER TABLE "plan_content" RENAME COLUMN "plan" TO "tasks"`,
    ];
    for (const statement of statements) await runner.query(statement);
  }
}
