import type { MigrationInterface, QueryRunner } from 'typeorm';

/** What the fault finder was told of a repair, and which cause it was. */
export class FaultSearches1765324800000 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    await runner.query('ALTER TABLE "repair_entry" ADD COLUMN "cause" text');
    await runner.query('ALTER TABLE "repair_entry" ADD COLUMN "search" text');
  }

  async down(runner: QueryRunner): Promise<void> {
    for (const column of ['cause', 'search'])
      await runner.query(`ALTER TABLE "repair_entry" DROP COLUMN "${column}"`);
  }
}
