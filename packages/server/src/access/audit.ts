import { Inject, Injectable } from '@nestjs/common';
import type { AuditEntryView } from '@entretien/contracts';
import { formatInstant } from '@entretien/core/basics';
import { CLOCK, type Clock } from '../common/tokens.js';
import { Database } from '../persistence/database.js';
import { AuditEntity } from '../persistence/entities/access.entity.js';
import { actorNow } from './actor.js';
import type { Audited } from './noted-as.js';

/** Who did what of weight: only added to, by the table itself too. */
@Injectable()
export class Audit {
  constructor(
    private readonly database: Database,
    @Inject(CLOCK) private readonly clock: Clock,
  ) {}

  /** @param by who, where that is not whoever is signed in */
  note(
    what: Audited,
    about: string,
    by?: { readonly accountId: string | null; readonly name: string },
  ): void {
    const actor = actorNow();
    const { accountId, name } = by ?? {
      accountId: actor?.accountId ?? null,
      name: actor?.name ?? 'nobody signed in',
    };
    this.database.run(
      'INSERT INTO "audit" ("at", "account_id", "by_name", "what", "about") VALUES (?, ?, ?, ?, ?)',
      this.clock(),
      accountId,
      name,
      what,
      about.slice(0, 400),
    );
  }

  /** The latest first, so many before a place. */
  list(before: number, most: number): AuditEntryView[] {
    return this.database
      .findAll(AuditEntity, 'WHERE "seq" < ? ORDER BY "seq" DESC LIMIT ?', before, most)
      .map(({ seq, at, byName, what, about }) => ({ seq, at: formatInstant(at), byName, what, about }));
  }
}
