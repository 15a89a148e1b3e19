import { Inject, Injectable } from '@nestjs/common';
import type { Request } from 'express';
import type { AuditEntryView } from '@entretien/contracts';
import { formatInstant } from '@entretien/core/basics';
import { CLOCK, type Clock } from '../common/tokens.js';
import { CompressorRegister } from '../compressors/compressor-register.js';
import { Database } from '../persistence/database.js';
import { AuditEntity } from '../persistence/entities/access.entity.js';
import { PartEntity } from '../persistence/entities/part.entity.js';
import { PersonEntity } from '../persistence/entities/person.entity.js';
import { SitesService } from '../sites/sites.service.js';
import { actorNow, standingNow } from './actor.js';
import type { Audited, Noted } from './noted-as.js';

/** Who did what of weight: only added to, by the table itself too. */
@Injectable()
export class Audit implements Noted {
  constructor(
    private readonly database: Database,
    private readonly sites: SitesService,
    private readonly register: CompressorRegister,
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

  /** What a request did; while there are no accounts there is nobody to name. */
  noteRequest(what: Audited, request: Request): void {
    if (standingNow().access === 'on') this.note(what, this.aboutOf(request));
  }

  /** What a request is about, as people call it: a unit, a site, a part; else by its own name, or its address. */
  private aboutOf({ path, body }: Request): string {
    const [, , collection = '', id = ''] = path.split('/');
    const name = this.nameOf(collection, id.toLowerCase()) ?? (body as { name?: unknown } | undefined)?.name;
    return typeof name === 'string' ? name : [collection, ...path.split('/').slice(4)].join(' ');
  }

  private nameOf(collection: string, id: string): string | undefined {
    if (collection === 'sites') return this.sites.find(id)?.name;
    if (collection === 'customers') return this.sites.customers().find((one) => one.id === id)?.name;
    if (collection === 'people') return this.database.find(PersonEntity, id)?.name;
    if (collection === 'parts') return this.database.find(PartEntity, id)?.name;
    const unit = collection === 'compressors' ? this.register.find(id) : undefined;
    return unit && this.register.plateOf(unit, this.clock()).tag;
  }

  /** The latest first, so many before a place. */
  list(before: number, most: number): AuditEntryView[] {
    return this.database
      .findAll(AuditEntity, 'WHERE "seq" < ? ORDER BY "seq" DESC LIMIT ?', before, most)
      .map(({ seq, at, byName, what, about }) => ({ seq, at: formatInstant(at), byName, what, about }));
  }
}
