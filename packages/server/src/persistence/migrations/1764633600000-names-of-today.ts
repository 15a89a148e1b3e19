import { createHash } from 'node:crypto';
import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Names of fields in stored JSON. It is written without spaces, and a quote within a text has a stroke before it. */
const fields = [
  ['words', 'text'],
  ['told', 'informed'],
  ['holdingBar', 'maintainingValveBar'],
  ['takesG', 'moistureCapacityG'],
  ['cartridgeTakesG', 'moistureCapacityG'],
] as const;
const checks = [
  ['loaded-share', 'leak-load-cycle'],
  ['loaded-hours', 'load-factor'],
] as const;

/** Tables with JSON in which those names may stand; that of plans is apart: it goes by the hash of its text. */
const columns = [
  ['compressor', 'plate'],
  ['plate_change', 'changes'],
  ['visit_step', 'details'],
  ['visit_step', 'outcome'],
  ['repair_step', 'details'],
  ['repair_entry', 'outcome'],
  ['measurement', 'judgement'],
] as const;

type Renaming = readonly (readonly [former: string, today: string])[];

/** Fields and codes take the names that the field uses: in plates, plans, steps, repairs and measurements. */
export class NamesOfToday1764633600000 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`ALTER TABLE "repair_entry" RENAME COLUMN "words" TO "text"`);
    await runner.query(`ALTER TABLE "out_of_service" RENAME COLUMN "told" TO "informed"`);
    await rename(runner, fields, checks);
  }

  async down(runner: QueryRunner): Promise<void> {
    const back = ([former, today]: readonly [string, string]) => [today, former] as const;
    // Two former names became one: plates knew the longer of them, plans the shorter.
    await rename(runner, fields.slice(0, 3).map(back), checks.map(back));
    const takes = [['moistureCapacityG', 'cartridgeTakesG']] as const;
    await inColumn(runner, 'compressor', 'plate', takes, []);
    await inColumn(runner, 'plate_change', 'changes', takes, []);
    await inPlans(runner, [['moistureCapacityG', 'takesG']], []);
    await runner.query(`ALTER TABLE "repair_entry" RENAME COLUMN "text" TO "words"`);
    await runner.query(`ALTER TABLE "out_of_service" RENAME COLUMN "informed" TO "told"`);
  }
}

async function rename(runner: QueryRunner, names: Renaming, codes: Renaming): Promise<void> {
  for (const [table, column] of columns) await inColumn(runner, table, column, names, codes);
  for (const table of ['measurement', 'repair_entry']) {
    for (const [former, today] of codes) {
      await runner.query(`UPDATE "${table}" SET "check_code" = ? WHERE "check_code" = ?`, [today, former]);
    }
  }
  await inPlans(runner, names, codes);
}

async function inColumn(
  runner: QueryRunner,
  table: string,
  column: string,
  names: Renaming,
  codes: Renaming,
): Promise<void> {
  const pairs = [
    ...names.map(([former, today]) => [`"${former}":`, `"${today}":`]),
    ...codes.map(([former, today]) => [`"check":"${former}"`, `"check":"${today}"`]),
  ];
  const changed = pairs.reduce((inner) => `replace(${inner}, ?, ?)`, `"${column}"`);
  const holds = pairs.map(() => `instr("${column}", ?) > 0`).join(' OR ');
  await runner.query(`UPDATE "${table}" SET "${column}" = ${changed} WHERE ${holds}`, [
    ...pairs.flat(),
    ...pairs.map(([former]) => former),
  ]);
}

/** A plan is kept once by the hash of its text: a new text is a new one, and whoever followed the old follows it. */
async function inPlans(runner: QueryRunner, names: Renaming, codes: Renaming): Promise<void> {
  const plans = (await runner.query('SELECT "id", "plan" FROM "plan_content"')) as {
    readonly id: string;
    readonly plan: string;
  }[];
  for (const { id, plan } of plans) {
    const text = [
      ...names.map(([former, today]) => [`"${former}":`, `"${today}":`]),
      ...codes.map(([former, today]) => [`"${former}"`, `"${today}"`]),
    ].reduce((so, [former, today]) => so.replaceAll(former!, today!), plan);
    if (text === plan) continue;
    const hash = createHash('sha256').update(text).digest('hex');
    await runner.query('INSERT OR IGNORE INTO "plan_content" ("id", "plan") VALUES (?, ?)', [hash, text]);
    await runner.query('UPDATE "plan_version" SET "content_id" = ? WHERE "content_id" = ?', [hash, id]);
    await runner.query('DELETE FROM "plan_content" WHERE "id" = ?', [id]);
  }
}
