import type { MigrationInterface, QueryRunner } from 'typeorm';

const correcting = ['reading', 'meter_change', 'service'];

/** Corrections and withdrawals of facts; what the fleet teaches about use. */
export class Corrections1764115200000 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    for (const table of correcting) await runner.query(`ALTER TABLE "${table}" ADD COLUMN "corrects" text`);
    const statements = [
      `CREATE TABLE "withdrawal" ("id" text PRIMARY KEY NOT NULL, "recorded_at" integer NOT NULL, "by" text NOT NULL, "note" text, "marks" text NOT NULL, "compressor_id" text NOT NULL, "fact_id" text NOT NULL, "reason" text NOT NULL)`,
      `CREATE INDEX "withdrawal_by_unit" ON "withdrawal" ("compressor_id")`,
      `CREATE TABLE "voided" ("fact_id" text PRIMARY KEY NOT NULL, "compressor_id" text NOT NULL, "voided_at" integer NOT NULL, "by_fact" text NOT NULL, "how" text NOT NULL)`,
      `CREATE INDEX "voided_by_unit" ON "voided" ("compressor_id")`,
      `CREATE TABLE "fleet_prior" ("fixed_at" integer PRIMARY KEY NOT NULL, "machines" integer NOT NULL, "prior" text NOT NULL)`,
    ];
    for (const statement of statements) await runner.query(statement);
  }

  async down(runner: QueryRunner): Promise<void> {
    for (const table of ['fleet_prior', 'voided', 'withdrawal']) await runner.query(`DROP TABLE "${table}"`);
    for (const table of correcting) await runner.query(`ALTER TABLE "${table}" DROP COLUMN "corrects"`);
  }
}
