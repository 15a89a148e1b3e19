import type { MigrationInterface, QueryRunner } from 'typeorm';

const FACT = `"seq" integer PRIMARY KEY REFERENCES "fact" ("seq"), "id" text NOT NULL UNIQUE, "recorded_at" integer NOT NULL, "by" text NOT NULL, "note" text, "marks" text NOT NULL CHECK (json_valid("marks")), "site_id" text NOT NULL REFERENCES "site" ("id")`;
const TABLES = ['point_withdrawal', 'point_work', 'point_change', 'point'] as const;

/** Points of use and what is done at them, and the papers of machines. */
export class PointsAndPapers1765152000000 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    const point = '"point_id" text NOT NULL REFERENCES "point" ("id")';
    const json = (name: string) => `"${name}" text NOT NULL CHECK (json_valid("${name}"))`;
    await runner.query(`CREATE TABLE "point" (${FACT}, ${json('details')})`);
    await runner.query(`CREATE TABLE "point_change" (${FACT}, ${point}, ${json('changes')})`);
    await runner.query('CREATE INDEX "point_change_by_point" ON "point_change" ("point_id")');
    await runner.query(
      `CREATE TABLE "point_work" (${FACT}, ${point}, "done_at" integer NOT NULL CHECK (typeof("done_at") = 'integer'), "tag" text NOT NULL, ${['tasks', 'looks', 'judgements', 'steps'].map(json).join(', ')})`,
    );
    await runner.query('CREATE INDEX "point_work_by_point" ON "point_work" ("point_id", "done_at")');
    await runner.query(
      `CREATE TABLE "point_withdrawal" (${FACT}, ${point}, "work_id" text NOT NULL REFERENCES "point_work" ("id"), "reason" text NOT NULL CHECK (length("reason") > 0))`,
    );
    await runner.query('CREATE INDEX "point_withdrawal_by_work" ON "point_withdrawal" ("work_id")');
    await runner.query(
      `CREATE TABLE "paper" ("id" text PRIMARY KEY NOT NULL, "compressor_id" text NOT NULL REFERENCES "compressor" ("id"), "kind" text NOT NULL, "title" text NOT NULL CHECK (length("title") > 0), "type" text NOT NULL, "recorded_at" integer NOT NULL, "by" text NOT NULL, "stored" text NOT NULL, "bytes" integer NOT NULL CHECK ("bytes" > 0), "pages" integer, "aside_at" integer, "aside_by" text)`,
    );
    await runner.query('ALTER TABLE "fill" ADD COLUMN "co_ppm" real CHECK ("co_ppm" >= 0)');
    await runner.query('CREATE INDEX "paper_by_unit" ON "paper" ("compressor_id")');
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('ALTER TABLE "fill" DROP COLUMN "co_ppm"');
    await runner.query('DROP TABLE "paper"');
    for (const table of TABLES) {
      await runner.query(`DROP TABLE "${table}"`);
      await runner.query('DELETE FROM "fact" WHERE "kind" = ?', [table.replace('_', '-')]);
    }
  }
}
