import type { MigrationInterface, QueryRunner } from 'typeorm';

/** What lies in a kit, how long it takes to come, and where else it is to be had. */
export class PartsInFull1765238400000 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    await runner.query('ALTER TABLE "part" ADD COLUMN "contents" text');
    await runner.query(
      'ALTER TABLE "part" ADD COLUMN "lead_days" integer CHECK ("lead_days" BETWEEN 0 AND 365)',
    );
    await runner.query('ALTER TABLE "part" ADD COLUMN "second_source" text');
  }

  async down(runner: QueryRunner): Promise<void> {
    for (const column of ['contents', 'lead_days', 'second_source'])
      await runner.query(`ALTER TABLE "part" DROP COLUMN "${column}"`);
  }
}
