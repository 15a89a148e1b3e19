import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Controllers and meters that are asked for what they show, and what of it was refused. */
export class Devices1765411200000 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    const whole = (name: string, rule: string) => `"${name}" integer NOT NULL CHECK (${rule})`;
    await runner.query(
      `CREATE TABLE "device" ("id" text PRIMARY KEY NOT NULL, "compressor_id" text NOT NULL REFERENCES "compressor" ("id"), "name" text NOT NULL CHECK (length("name") > 0), "host" text NOT NULL, ${whole('port', '"port" BETWEEN 1 AND 65535')}, ${whole('unit_number', '"unit_number" BETWEEN 0 AND 255')}, ${whole('every_seconds', '"every_seconds" >= 1')}, "registers" text NOT NULL, ${whole('is_on', '"is_on" IN (0, 1)')}, "changed_at" integer NOT NULL, "by" text NOT NULL, "answered_at" integer)`,
    );
    await runner.query('CREATE INDEX "device_by_unit" ON "device" ("compressor_id")');
    await runner.query(
      `CREATE TABLE "device_refusal" ("id" text PRIMARY KEY NOT NULL, "device_id" text NOT NULL REFERENCES "device" ("id"), "what" text NOT NULL, "code" text NOT NULL, "sentence" text NOT NULL, "first_at" integer NOT NULL, "last_at" integer NOT NULL, ${whole('times', '"times" >= 1')}, "seen_at" integer)`,
    );
    await runner.query('CREATE INDEX "device_refusal_by_device" ON "device_refusal" ("device_id")');
  }

  async down(runner: QueryRunner): Promise<void> {
    for (const table of ['device_refusal', 'device']) await runner.query(`DROP TABLE "${table}"`);
  }
}
