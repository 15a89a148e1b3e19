import type { MigrationInterface, QueryRunner } from 'typeorm';

const FACT = `"seq" integer PRIMARY KEY REFERENCES "fact" ("seq"), "id" text NOT NULL UNIQUE, "recorded_at" integer NOT NULL, "by" text NOT NULL, "note" text, "marks" text NOT NULL CHECK (json_valid("marks"))`;
const ROLE = `"role" text NOT NULL CHECK ("role" IN ('lead', 'technician', 'trainee', 'customer'))`;
const WHOSE = `"person_id" text REFERENCES "person" ("id"), "customer_id" text REFERENCES "customer" ("id"), "sees_prices" integer NOT NULL, CHECK (("role" = 'customer') = ("customer_id" IS NOT NULL))`;

/** Who may sign in, and what they may; whose sites are whose. */
export class Access1764892800000 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    const statements = [
      `CREATE TABLE "customer" (${FACT}, "name" text NOT NULL)`,
      `CREATE TABLE "account" ("id" text PRIMARY KEY NOT NULL, "login" text NOT NULL UNIQUE, "name" text NOT NULL, ${ROLE}, "password_hash" text NOT NULL, "created_at" integer NOT NULL, "closed_at" integer, ${WHOSE})`,
      `CREATE UNIQUE INDEX "account_of_person" ON "account" ("person_id") WHERE "closed_at" IS NULL`,
      `CREATE TABLE "session" ("id" text PRIMARY KEY NOT NULL, "token_hash" text NOT NULL UNIQUE, "account_id" text NOT NULL REFERENCES "account" ("id"), "started_at" integer NOT NULL, "seen_at" integer NOT NULL, "device" text NOT NULL)`,
      `CREATE INDEX "session_by_account" ON "session" ("account_id")`,
      `CREATE TABLE "invitation" ("id" text PRIMARY KEY NOT NULL, "code_hash" text NOT NULL UNIQUE, "name" text NOT NULL, ${ROLE}, "created_at" integer NOT NULL, "expires_at" integer NOT NULL, "ended_at" integer, ${WHOSE})`,
      `CREATE TABLE "passkey" ("id" text PRIMARY KEY NOT NULL, "account_id" text NOT NULL REFERENCES "account" ("id"), "public_key" text NOT NULL, "counter" integer NOT NULL, "transports" text NOT NULL CHECK (json_valid("transports")), "name" text NOT NULL, "added_at" integer NOT NULL)`,
      `CREATE INDEX "passkey_by_account" ON "passkey" ("account_id")`,
      `CREATE TABLE "audit" ("seq" integer PRIMARY KEY AUTOINCREMENT, "at" integer NOT NULL, "account_id" text REFERENCES "account" ("id"), "by_name" text NOT NULL, "what" text NOT NULL, "about" text NOT NULL)`,
      `CREATE TRIGGER "audit_stays" BEFORE UPDATE ON "audit" BEGIN SELECT RAISE(ABORT, 'The audit is only added to.'); END`,
      `CREATE TRIGGER "audit_stays_whole" BEFORE DELETE ON "audit" BEGIN SELECT RAISE(ABORT, 'The audit is only added to.'); END`,
    ];
    for (const statement of statements) await runner.query(statement);
  }

  async down(runner: QueryRunner): Promise<void> {
    for (const table of ['audit', 'passkey', 'invitation', 'session', 'account', 'customer'])
      await runner.query(`DROP TABLE "${table}"`);
    await runner.query(`DELETE FROM "fact" WHERE "kind" = 'customer'`);
  }
}
