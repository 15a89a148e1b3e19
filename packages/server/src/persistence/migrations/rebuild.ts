import type { QueryRunner } from 'typeorm';

/**
 * Makes a table anew with other words in its definition: what SQLite cannot alter, like a CHECK or NOT NULL. Its rows
 * and indexes stay.
 *
 * @param without columns that the new one does not have
 */
export async function rebuild(
  runner: QueryRunner,
  table: string,
  change: (sql: string) => string,
  without: readonly string[] = [],
): Promise<void> {
  const parts = (await runner.query(
    `SELECT "type", "sql" FROM "sqlite_master" WHERE "tbl_name" = ? AND "sql" IS NOT NULL`,
    [table],
  )) as { type: string; sql: string }[];
  const definition = parts.find(({ type }) => type === 'table')!.sql;
  const next = change(definition);
  if (next === definition) throw new Error(`The definition of ${table} is not the one to be changed.`);
  const columns = ((await runner.query(`PRAGMA table_info("${table}")`)) as { name: string }[])
    .map(({ name }) => name)
    .filter((name) => !without.includes(name))
    .map((name) => `"${name}"`)
    .join(', ');
  await runner.query(next.replace(`"${table}"`, `"${table}_anew"`));
  await runner.query(`INSERT INTO "${table}_anew" (${columns}) SELECT ${columns} FROM "${table}"`);
  await runner.query(`DROP TABLE "${table}"`);
  await runner.query(`ALTER TABLE "${table}_anew" RENAME TO "${table}"`);
  for (const { type, sql } of parts) if (type !== 'table') await runner.query(sql);
}
