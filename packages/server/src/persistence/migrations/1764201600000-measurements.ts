import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Measurements, each with the judgement made of it then. */
export class Measurements1764201600000 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    const statements = [
      `CREATE TABLE "measurement" ("id" text PRIMARY KEY NOT NULL, "recorded_at" integer NOT NULL, "by" text NOT NULL, "note" text, "marks" text NOT NULL, "compressor_id" text NOT NULL, "corrects" text, "check_code" text NOT NULL, "taken_at" integer NOT NULL, "figures" text NOT NULL, "hours" real, "is_baseline" boolean NOT NULL, "verdict" text NOT NULL, "judgement" text NOT NULL)`,
      `CREATE INDEX "measurement_by_unit" ON "measurement" ("compressor_id", "taken_at")`,
      `CREATE INDEX "measurement_by_check" ON "measurement" ("compressor_id", "check_code", "taken_at")`,
      `CREATE INDEX "measurement_by_verdict" ON "measurement" ("verdict", "taken_at")`,
    ];
    for (const statement of statements) await runner.query(statement);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('DROP TABLE "measurement"');
  }
}
