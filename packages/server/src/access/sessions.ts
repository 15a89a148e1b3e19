import { Inject, Injectable } from '@nestjs/common';
import type { SessionView } from '@entretien/contracts';
import { DAY_MS, formatInstant } from '@entretien/core/basics';
import { v7 as newId } from 'uuid';
import { notFound } from '../common/problem.js';
import { CLOCK, type Clock } from '../common/tokens.js';
import { Database } from '../persistence/database.js';
import { AccountEntity, SessionEntity } from '../persistence/entities/access.entity.js';
import { actorNow, type Actor, type Standing } from './actor.js';
import { hashOfSecret, newSecret } from './tokens.js';

/** A session that nobody used for so long is over, and every one after so long. */
const [IDLE_MS, LONGEST_MS] = [30 * DAY_MS, 180 * DAY_MS];
/** When it was last used is noted no oftener: reading must not write each time. */
const NOTED_EVERY_MS = 60 * 60_000;
const SECRET = /^[\w-]{43}$/;

/** Browsers that are signed in. Looked up with every request, and therefore kept in memory once read. */
@Injectable()
export class Sessions {
  private readonly known = new Map<string, { readonly session: SessionEntity; readonly actor: Actor }>();
  private isOn: boolean | null = null;

  constructor(
    private readonly database: Database,
    @Inject(CLOCK) private readonly clock: Clock,
  ) {}

  /** Whether there are accounts: the first turns rights on, for good. */
  areOn(): boolean {
    return (this.isOn ??= this.database.all('SELECT 1 FROM "account" LIMIT 1').length > 0);
  }

  /** An account was made, changed or closed: nothing that was known holds. */
  forget(): void {
    this.isOn = null;
    this.known.clear();
  }

  begin(accountId: string, device: string): { readonly secret: string; readonly session: SessionEntity } {
    const secret = newSecret();
    const now = this.clock();
    const session = {
      id: newId(),
      tokenHash: hashOfSecret(secret),
      accountId,
      startedAt: now,
      seenAt: now,
      device: device.slice(0, 200),
    };
    this.database.insert(SessionEntity, session);
    return { secret, session };
  }

  /** Who stands behind a token; nobody behind one that is none, was ended, or is too old. */
  standingOf(secret: string | undefined): Standing {
    if (!this.areOn()) return { access: 'off' };
    if (secret === undefined || !SECRET.test(secret)) return { access: 'on', actor: null };
    const tokenHash = hashOfSecret(secret);
    const found = this.known.get(tokenHash) ?? this.read(tokenHash);
    if (!found) return { access: 'on', actor: null };
    const now = this.clock();
    const { session, actor } = found;
    if (now - session.seenAt > IDLE_MS || now - session.startedAt > LONGEST_MS) {
      this.end(session.id);
      return { access: 'on', actor: null };
    }
    if (now - session.seenAt > NOTED_EVERY_MS) {
      session.seenAt = now;
      this.database.run('UPDATE "session" SET "seen_at" = ? WHERE "id" = ?', now, session.id);
    }
    return { access: 'on', actor };
  }

  private read(tokenHash: string) {
    const [session] = this.database.findAll(SessionEntity, 'WHERE "token_hash" = ?', tokenHash);
    const account = session && this.database.find(AccountEntity, session.accountId);
    if (!session || !account || account.closedAt !== null) return undefined;
    const { id: accountId, role, name, personId, customerId, seesPrices } = account;
    const actor = {
      accountId,
      sessionId: session.id,
      role,
      name,
      personId,
      customerId,
      seesPrices: role !== 'customer' || seesPrices === 1,
    };
    const found = { session, actor };
    this.known.set(tokenHash, found);
    return found;
  }

  of(accountId: string): SessionView[] {
    const own = actorNow()?.sessionId;
    return this.database
      .findAll(SessionEntity, 'WHERE "account_id" = ? ORDER BY "seen_at" DESC', accountId)
      .map(({ id, startedAt, seenAt, device }) => ({
        id,
        accountId,
        startedAt: formatInstant(startedAt),
        seenAt: formatInstant(seenAt),
        device,
        isThis: id === own,
      }));
  }

  require(id: string): SessionEntity {
    const session = this.database.find(SessionEntity, id);
    if (!session) throw notFound('no-such-session', 'That session has ended.');
    return session;
  }

  /** Ends one, at once. */
  end(id: string): void {
    this.database.run('DELETE FROM "session" WHERE "id" = ?', id);
    this.known.clear();
  }

  /** Ends all of an account, but for one. */
  endAll(accountId: string, but = ''): void {
    this.database.run('DELETE FROM "session" WHERE "account_id" = ? AND "id" <> ?', accountId, but);
    this.known.clear();
  }
}
