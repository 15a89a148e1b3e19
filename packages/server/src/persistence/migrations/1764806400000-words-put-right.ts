import type { MigrationInterface, QueryRunner } from 'typeorm';

/** What was said of a repair can be put right. */
export class WordsPutRight1764806400000 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`ALTER TABLE "repair_entry" ADD COLUMN "corrects" text REFERENCES "fact" ("id")`);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query(`ALTER TABLE "repair_entry" DROP COLUMN "corrects"`);
  }
}
