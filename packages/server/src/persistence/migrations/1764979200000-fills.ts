import type { MigrationInterface, QueryRunner } from 'typeorm';

const FACT = `"seq" integer PRIMARY KEY REFERENCES "fact" ("seq"), "id" text NOT NULL UNIQUE, "recorded_at" integer NOT NULL, "by" text NOT NULL, "note" text, "marks" text NOT NULL CHECK (json_valid("marks")), "compressor_id" text NOT NULL REFERENCES "compressor" ("id")`;
const MOMENTS = `"started_at" integer NOT NULL CHECK (typeof("started_at") = 'integer'), "ended_at" integer NOT NULL CHECK (typeof("ended_at") = 'integer')`;
const PRESSURES = `"from_bar" real NOT NULL CHECK ("from_bar" >= 0), "to_bar" real NOT NULL, "connector_bar" integer NOT NULL, "settled_bar" real NOT NULL`;

/** Cylinders that were filled. */
export class Fills1764979200000 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    await runner.query(
      `CREATE TABLE "fill" (${FACT}, "vessel_id" text NOT NULL REFERENCES "vessel" ("id"), ${MOMENTS}, ${PRESSURES}, "ambient_c" real NOT NULL, "wall_c" real, "outcome" text NOT NULL CHECK ("outcome" IN ('full', 'stopped')), "tag" text NOT NULL, "volume_l" real NOT NULL, "air_l" real NOT NULL CHECK ("air_l" >= 0))`,
    );
    await runner.query(`CREATE INDEX "fill_by_unit" ON "fill" ("compressor_id", "ended_at")`);
    await runner.query(`CREATE INDEX "fill_by_vessel" ON "fill" ("vessel_id", "ended_at")`);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query(`DELETE FROM "voided" WHERE "fact_id" IN (SELECT "id" FROM "fill")`);
    await runner.query('DROP TABLE "fill"');
    await runner.query(`DELETE FROM "fact" WHERE "kind" = 'fill'`);
  }
}
