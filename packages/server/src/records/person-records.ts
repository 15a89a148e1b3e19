import { Inject, Injectable } from '@nestjs/common';
import type { RemovedNameView } from '@entretien/contracts';
import { DEFAULT_PERSON_ID } from '@entretien/contracts';
import { formatInstant } from '@entretien/core/basics';
import { Accounts } from '../access/accounts.js';
import { Audit } from '../access/audit.js';
import { conflict, notFound } from '../common/problem.js';
import { CLOCK, type Clock } from '../common/tokens.js';
import { Database } from '../persistence/database.js';
import { AccountEntity, AuditEntity } from '../persistence/entities/access.entity.js';
import type { FactColumns } from '../persistence/entities/columns.js';
import { PersonEntity } from '../persistence/entities/person.entity.js';
import { Spine } from '../persistence/spine.js';
import { StoredKinds } from '../persistence/stored-kinds.js';
import { SitesService } from '../sites/sites.service.js';

/** What is on record about somebody who works here, and their name taken off it. */
@Injectable()
export class PersonRecords {
  constructor(
    private readonly database: Database,
    private readonly kinds: StoredKinds,
    private readonly spine: Spine,
    private readonly sites: SitesService,
    private readonly accounts: Accounts,
    private readonly audit: Audit,
    @Inject(CLOCK) private readonly clock: Clock,
  ) {}

  /** Everything that stands under somebody’s name, and nothing that proves who they are. */
  everythingOf(personId: string): object {
    const person = this.require(personId);
    const accounts = this.accountsOf(person.id);
    const ids = JSON.stringify(accounts.map(({ id }) => id));
    const facts = this.kinds.all.map(({ kind, entity }) => [
      kind.kind,
      this.database.findAll<FactColumns>(entity, 'WHERE "by" = ? ORDER BY "seq"', person.id),
    ]);
    const ofAccounts = <Row>(columns: string, table: string) =>
      this.database.all<Row>(
        `SELECT ${columns} FROM "${table}" WHERE "account_id" IN (SELECT "value" FROM json_each(?))`,
        ids,
      );
    return {
      writtenAt: formatInstant(this.clock()),
      person: { id: person.id, name: person.name, initials: person.initials, recordedAt: person.recordedAt },
      accounts: accounts.map(({ passwordHash: _never, ...account }) => account),
      signedInOn: ofAccounts('"started_at" AS "startedAt", "seen_at" AS "seenAt", "device"', 'session'),
      passkeys: ofAccounts('"name", "added_at" AS "addedAt"', 'passkey'),
      audit: this.database.findAll(
        AuditEntity,
        'WHERE "account_id" IN (SELECT "value" FROM json_each(?)) ORDER BY "seq"',
        ids,
      ),
      facts: Object.fromEntries(facts.filter(([, rows]) => rows!.length > 0)),
    };
  }

  /**
   * Takes somebody’s name off everything, where the law asks for it: what they recorded stays, by somebody who is
   * called nothing. Their account is closed, their signature is no picture any more. Of a name of one word only whole
   * fields are found: within a sentence it could be any word.
   */
  removeName(personId: string): RemovedNameView {
    return this.database.transact(() => {
      const person = this.require(personId);
      const nobody = `Name removed ${person.id.slice(-4).toUpperCase()}`;
      if (person.name.startsWith('Name removed '))
        throw conflict('name-removed', 'It was done before.', 'This name was removed already.');
      for (const account of this.accountsOf(person.id)) {
        if (account.closedAt === null) this.accounts.close(account.id);
        this.database.run(
          `UPDATE "account" SET "name" = ?, "login" = ?, "password_hash" = '' WHERE "id" = ?`,
          nobody,
          `removed-${account.id}`,
          account.id,
        );
        this.database.run('DELETE FROM "session" WHERE "account_id" = ?', account.id);
      }
      this.database.run(
        'UPDATE "person" SET "name" = ?, "initials" = ? WHERE "id" = ?',
        nobody,
        '–',
        person.id,
      );
      this.database.run(
        `UPDATE "visit_step" SET "details" = json_set(json_remove("details", '$.strokes'), '$.name', ?) WHERE "kind" = 'sign' AND "by" = ?`,
        nobody,
        person.id,
      );
      const places = this.replaceIn(person.name, nobody);
      this.inTheAudit(person.name, nobody);
      this.audit.note('name removed', nobody);
      this.sites.forget();
      this.spine.wordAnew();
      return { id: person.id, name: nobody, places };
    });
  }

  /** @returns in how many fields of any table the name stood */
  private replaceIn(name: string, nobody: string): number {
    const isOneWord = !/\s/.test(name.trim());
    // Within JSON a name may be written otherwise; of one word it is looked for with its quotes.
    const [from, to] = [JSON.stringify(name), JSON.stringify(nobody)];
    const written = isOneWord
      ? [[from, to]]
      : [
          [name, nobody],
          [from.slice(1, -1), to.slice(1, -1)],
        ];
    let places = 0;
    for (const { table, column } of this.database.all<{ table: string; column: string }>(TEXT_COLUMNS)) {
      const replace = (condition: string, put: string, cells: readonly string[]) => {
        places += this.database.run(
          `UPDATE "${table}" SET "${column}" = ${put} WHERE ${condition}`,
          ...cells,
        ).changes;
      };
      replace(`"${column}" = ?`, '?', [nobody, name]);
      for (const [find, instead] of written)
        replace(`instr("${column}", ?) > 0`, `replace("${column}", ?, ?)`, [find!, instead!, find!]);
    }
    return places;
  }

  /** The audit is only added to, but for this: its lines stay, under no name. */
  private inTheAudit(name: string, nobody: string): void {
    const [trigger] = this.database.all<{ sql: string }>(
      `SELECT "sql" FROM "sqlite_master" WHERE "type" = 'trigger' AND "name" = 'audit_stays'`,
    );
    this.database.run('DROP TRIGGER "audit_stays"');
    this.database.run(
      'UPDATE "audit" SET "by_name" = replace("by_name", ?, ?), "about" = replace("about", ?, ?) WHERE "by_name" = ? OR instr("about", ?) > 0',
      ...[name, nobody, name, nobody, name, name],
    );
    this.database.run(trigger!.sql);
  }

  private accountsOf(personId: string): AccountEntity[] {
    return this.database.findAll(AccountEntity, 'WHERE "person_id" = ?', personId);
  }

  private require(personId: string): PersonEntity {
    const id = personId.toLowerCase();
    const person = id === DEFAULT_PERSON_ID ? undefined : this.database.find(PersonEntity, id);
    if (!person) throw notFound('unknown-person', 'Nobody here is known by that id.');
    return person;
  }
}

/** Every column of words, but for those of the tables that are cleared by themselves, or hold no words of people. */
const TEXT_COLUMNS = `SELECT "t"."name" AS "table", "c"."name" AS "column"
  FROM "sqlite_master" "t" JOIN pragma_table_info("t"."name") "c"
  WHERE "t"."type" = 'table' AND lower("c"."type") = 'text' AND "c"."name" <> 'id' AND "c"."name" NOT LIKE '%\\_id' ESCAPE '\\'
    AND "t"."name" NOT LIKE 'fact_text%' AND "t"."name" NOT LIKE 'sqlite%'
    AND "t"."name" NOT IN ('migrations', 'audit', 'account', 'person', 'session', 'passkey')`;
