import type { MigrationInterface, QueryRunner } from 'typeorm';
import { rebuild } from './rebuild.js';

const PHOTO = `"visit_id" text NOT NULL REFERENCES "visit" ("id"),`;
const OWNED = `"visit_id" text REFERENCES "visit" ("id"), "compressor_id" text REFERENCES "compressor" ("id"), "caption" text CHECK (("visit_id" IS NULL) <> ("compressor_id" IS NULL)),`;
const FIGURE = `"value" real NOT NULL`;
const ANYTHING = `"value" text NOT NULL CHECK (json_valid("value"))`;
const BASES = `("basis" IN ('inspection', 'estimate'))`;
const WITH_STICKER = `("basis" IN ('inspection', 'estimate', 'sticker'))`;

/** What its sticker says of a machine counts, photos belong to machines too, parts change, settings can be texts. */
export class TakingOver1764720000000 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    await rebuild(runner, 'starting_point', (sql) => sql.replace(BASES, WITH_STICKER));
    await rebuild(runner, 'photo', (sql) => sql.replace(PHOTO, OWNED));
    await runner.query(`CREATE INDEX "photo_by_unit" ON "photo" ("compressor_id")`);
    await rebuild(runner, 'setting', (sql) => sql.replace(FIGURE, ANYTHING));
    await runner.query(
      `CREATE TABLE "part_change" ("seq" integer PRIMARY KEY REFERENCES "fact" ("seq"), "id" text NOT NULL UNIQUE, "recorded_at" integer NOT NULL, "by" text NOT NULL, "note" text, "marks" text NOT NULL CHECK (json_valid("marks")), "part_id" text NOT NULL REFERENCES "part" ("id"), "changes" text NOT NULL CHECK (json_valid("changes")))`,
    );
    await runner.query(`CREATE INDEX "part_change_by_part" ON "part_change" ("part_id")`);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query(`DROP TABLE "part_change"`);
    await runner.query(`DELETE FROM "fact" WHERE "kind" = 'part-change'`);
    await runner.query(`DELETE FROM "setting" WHERE "name" NOT LIKE 'isolation%'`);
    await rebuild(runner, 'setting', (sql) => sql.replace(ANYTHING, FIGURE));
    await runner.query(`DROP INDEX "photo_by_unit"`);
    await runner.query(`DELETE FROM "photo" WHERE "visit_id" IS NULL`);
    await runner.query(`UPDATE "starting_point" SET "basis" = 'estimate' WHERE "basis" = 'sticker'`);
    await rebuild(runner, 'photo', (sql) => sql.replace(OWNED, PHOTO), ['compressor_id', 'caption']);
    await rebuild(runner, 'starting_point', (sql) => sql.replace(WITH_STICKER, BASES));
  }
}
