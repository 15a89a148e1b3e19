import type { MigrationInterface, QueryRunner } from 'typeorm';

const FACT = `"seq" integer PRIMARY KEY REFERENCES "fact" ("seq"), "id" text NOT NULL UNIQUE, "recorded_at" integer NOT NULL, "by" text NOT NULL, "note" text, "marks" text NOT NULL CHECK (json_valid("marks")), "compressor_id" text NOT NULL REFERENCES "compressor" ("id")`;
const TABLES = ['follow_up', 'brought_back', 'model_note'] as const;

/** Second looks at what was opened or fitted, machines that stood, and what is known of a model. */
export class Notebook1765065600000 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    await runner.query(
      `CREATE TABLE "follow_up" (${FACT}, "looked_at" integer NOT NULL CHECK (typeof("looked_at") = 'integer'), "of" text NOT NULL CHECK ("of" IN ('joint', 'belt')), "found" text NOT NULL CHECK ("found" IN ('sound', 'not-sound')))`,
    );
    await runner.query(`CREATE INDEX "follow_up_by_unit" ON "follow_up" ("compressor_id", "looked_at")`);
    await runner.query(
      `CREATE TABLE "brought_back" (${FACT}, "done_at" integer NOT NULL CHECK (typeof("done_at") = 'integer'), "steps" text NOT NULL CHECK (json_valid("steps")))`,
    );
    await runner.query(`CREATE INDEX "brought_back_by_unit" ON "brought_back" ("compressor_id", "done_at")`);
    await runner.query(
      `CREATE TABLE "model_note" (${FACT}, "model_key" text NOT NULL, "about" text NOT NULL, "text" text NOT NULL CHECK (length("text") > 0))`,
    );
    await runner.query(`CREATE INDEX "model_note_by_model" ON "model_note" ("model_key")`);
  }

  async down(runner: QueryRunner): Promise<void> {
    for (const table of TABLES) {
      await runner.query(`DELETE FROM "voided" WHERE "fact_id" IN (SELECT "id" FROM "${table}")`);
      await runner.query(`DROP TABLE "${table}"`);
      await runner.query('DELETE FROM "fact" WHERE "kind" = ?', [table.replace('_', '-')]);
    }
  }
}
