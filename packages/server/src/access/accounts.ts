import { Inject, Injectable } from '@nestjs/common';
import type {
  AcceptInvitation,
  AccountView,
  ChangeAccount,
  ChangePassword,
  FirstLead,
  InvitationView,
  Invite,
  NewInvitationView,
  SignIn,
} from '@entretien/contracts';
import { admitPassword, normalLogin } from '@entretien/core/access';
import { DAY_MS, formatInstant, type Problem } from '@entretien/core/basics';
import { v7 as newId } from 'uuid';
import { conflict, impossible, notFound, ProblemError } from '../common/problem.js';
import { CLOCK, type Clock } from '../common/tokens.js';
import { PeopleService } from '../people/people.js';
import { Database } from '../persistence/database.js';
import { AccountEntity, InvitationEntity } from '../persistence/entities/access.entity.js';
import { SitesService } from '../sites/sites.service.js';
import { actorNow } from './actor.js';
import { Audit } from './audit.js';
import { hashPassword, isPassword } from './passwords.js';
import { Sessions } from './sessions.js';
import { hashOfSecret, newSecret } from './tokens.js';

/** An invitation that nobody took for so long is over. */
const INVITED_MS = 7 * DAY_MS;

type Whose = Pick<AccountEntity, 'role' | 'name' | 'personId' | 'customerId' | 'seesPrices'>;

/** Who may sign in, how they became one, and what they may. */
@Injectable()
export class Accounts {
  /** Makes the first lead; new at every start, and nowhere but in this process and on its console. */
  private readonly firstCode = newSecret();

  constructor(
    private readonly database: Database,
    private readonly people: PeopleService,
    private readonly sites: SitesService,
    private readonly sessions: Sessions,
    private readonly audit: Audit,
    @Inject(CLOCK) private readonly clock: Clock,
  ) {}

  /** What the console says while there is no account; null once there is one. */
  codeOfFirst(): string | null {
    return this.sessions.areOn() ? null : this.firstCode;
  }

  async first({ code, login, password, name, personId }: FirstLead): Promise<AccountEntity> {
    this.refuseSecondFirst();
    if (hashOfSecret(code) !== hashOfSecret(this.firstCode)) throw wrongCode();
    const whose = { role: 'lead', name: name.trim(), customerId: null, seesPrices: 1 } as const;
    const account = await this.prepared(login, password, whose.name);
    return this.database.transact(() => {
      // Somebody else may have been faster while the password was hashed.
      this.refuseSecondFirst();
      const made = this.make(account, { ...whose, personId: this.personOf(personId, whose.name) });
      this.audit.note('first lead', made.name, { accountId: made.id, name: made.name });
      return made;
    });
  }

  /** For whoever runs the server and can sign in no more: the code of an invitation as lead. */
  newLead(): string {
    return this.invite({ id: newId(), role: 'lead', name: 'New lead' }).code;
  }

  invite(sent: Invite): NewInvitationView {
    const isCustomer = sent.role === 'customer';
    if (isCustomer && sent.customerId === undefined)
      throw impossible({ code: 'whose', field: 'customerId', sentence: 'Say whose sites they see.' });
    const personId =
      isCustomer || sent.personId === undefined ? null : this.people.require(sent.personId.toLowerCase());
    if (personId !== null) this.refuseSecondAccount(personId);
    const code = newSecret();
    const now = this.clock();
    const row = {
      id: sent.id.toLowerCase(),
      codeHash: hashOfSecret(code),
      name: sent.name.trim(),
      role: sent.role,
      personId,
      customerId: isCustomer ? this.sites.requireCustomer(sent.customerId!) : null,
      seesPrices: sent.seesPrices ? 1 : 0,
      createdAt: now,
      expiresAt: now + INVITED_MS,
      endedAt: null,
    };
    this.database.transact(() => {
      if (this.database.find(InvitationEntity, row.id))
        throw conflict(
          'id-already-used',
          'It was sent before.',
          'That invitation is there already; its code was told then.',
        );
      this.database.insert(InvitationEntity, row);
      this.audit.note('invited', `${row.name} as ${row.role}`);
    });
    return { ...toInvitation(row), code };
  }

  invitations(): InvitationView[] {
    return this.database
      .findAll(
        InvitationEntity,
        'WHERE "ended_at" IS NULL AND "expires_at" > ? ORDER BY "created_at"',
        this.clock(),
      )
      .map(toInvitation);
  }

  withdraw(id: string): void {
    const invitation = this.database.find(InvitationEntity, id.toLowerCase());
    if (!invitation || invitation.endedAt !== null)
      throw notFound('no-such-invitation', 'There is no such invitation.');
    this.end(invitation.id);
    this.audit.note('invitation withdrawn', invitation.name);
  }

  /** What somebody was invited to, by the code; whoever has none learns nothing. */
  invitationOf(code: string): InvitationView {
    return toInvitation(this.waiting(code));
  }

  async accept({ code, login, password }: AcceptInvitation): Promise<AccountEntity> {
    const { name } = this.waiting(code);
    const account = await this.prepared(login, password, name);
    return this.database.transact(() => {
      const invitation = this.waiting(code);
      const isCustomer = invitation.role === 'customer';
      const personId = isCustomer ? null : this.personOf(invitation.personId ?? undefined, invitation.name);
      if (personId !== null) this.refuseSecondAccount(personId);
      const made = this.make(account, { ...invitation, personId });
      this.end(invitation.id);
      this.audit.note('account made', `${made.name} as ${made.role}`, {
        accountId: made.id,
        name: made.name,
      });
      return made;
    });
  }

  /** Who it is, by name and password; one sentence for whatever is wrong, and the same time. */
  async signIn({ login, password }: SignIn): Promise<AccountEntity> {
    const [account] = this.database.findAll(AccountEntity, 'WHERE "login" = ?', normalLogin(login));
    const isRight = await isPassword(account?.passwordHash ?? null, password);
    if (!isRight || !account || account.closedAt !== null) {
      this.audit.note('sign-in refused', account?.name ?? 'a name that is not known');
      throw new ProblemError(
        401,
        'not-known',
        'That is not right.',
        'The name or the password is not right.',
      );
    }
    return account;
  }

  list(): AccountView[] {
    return this.database
      .findAll(AccountEntity, 'ORDER BY "closed_at" IS NOT NULL, "name", "id"')
      .map(toAccount);
  }

  require(id: string): AccountEntity {
    const account = this.database.find(AccountEntity, id.toLowerCase());
    if (!account) throw notFound('no-such-account', 'There is no such account.');
    return account;
  }

  change(id: string, { role, customerId, seesPrices }: ChangeAccount): AccountView {
    return this.database.transact(() => {
      const before = this.requireOpen(id);
      const next = role ?? before.role;
      if ((next === 'customer') !== (before.role === 'customer'))
        throw impossible({
          code: 'another-kind',
          field: 'role',
          sentence:
            'A customer’s account stays one, and nobody of the workshop becomes one: close it, and send a new invitation.',
        });
      if (before.role === 'lead' && next !== 'lead') this.refuseLastLead(before);
      const owner =
        next === 'customer' && customerId !== undefined
          ? this.sites.requireCustomer(customerId)
          : before.customerId;
      const prices = seesPrices === undefined ? before.seesPrices : Number(seesPrices);
      this.database.run(
        'UPDATE "account" SET "role" = ?, "customer_id" = ?, "sees_prices" = ? WHERE "id" = ?',
        next,
        owner,
        prices,
        before.id,
      );
      this.sessions.forget();
      this.audit.note('rights changed', `${before.name}: ${next}`);
      return toAccount(this.require(id));
    });
  }

  /** They sign in no more; what they recorded stays theirs. */
  close(id: string): AccountView {
    return this.database.transact(() => {
      const account = this.requireOpen(id);
      if (account.role === 'lead') this.refuseLastLead(account);
      this.database.run('UPDATE "account" SET "closed_at" = ? WHERE "id" = ?', this.clock(), account.id);
      this.database.run('DELETE FROM "passkey" WHERE "account_id" = ?', account.id);
      this.sessions.endAll(account.id);
      this.audit.note('account closed', account.name);
      return toAccount(this.require(id));
    });
  }

  /** Another password for whoever is signed in; every other browser of theirs is signed out. */
  async changePassword({ before, password }: ChangePassword): Promise<void> {
    const actor = actorNow()!;
    const account = this.requireOpen(actor.accountId);
    if (!(await isPassword(account.passwordHash, before)))
      throw impossible({ code: 'not-known', field: 'before', sentence: 'That is not your password so far.' });
    this.refuseWeak(password, [account.login, account.name]);
    const hashed = await hashPassword(password);
    this.database.transact(() => {
      this.database.run('UPDATE "account" SET "password_hash" = ? WHERE "id" = ?', hashed, account.id);
      this.sessions.endAll(account.id, actor.sessionId);
      this.audit.note('password changed', account.name);
    });
  }

  private async prepared(login: string, password: string, name: string) {
    const normal = normalLogin(login);
    this.refuseLoginInUse(normal);
    this.refuseWeak(password, [normal, name]);
    return { login: normal, passwordHash: await hashPassword(password) };
  }

  private make(
    account: { readonly login: string; readonly passwordHash: string },
    whose: Whose,
  ): AccountEntity {
    this.refuseLoginInUse(account.login);
    const { role, name, personId, customerId, seesPrices } = whose;
    const made = {
      ...account,
      ...{ role, name, personId, customerId, seesPrices },
      id: newId(),
      createdAt: this.clock(),
      closedAt: null,
    };
    this.database.insert(AccountEntity, made);
    this.sessions.forget();
    return made;
  }

  /** The person of the register whose account it is: one on record, or one who is added with it. */
  private personOf(known: string | undefined, name: string): string {
    return known === undefined
      ? this.people.add({ id: newId(), name }).id
      : this.people.require(known.toLowerCase());
  }

  private requireOpen(id: string): AccountEntity {
    const account = this.require(id);
    if (account.closedAt !== null)
      throw conflict(
        'account-closed',
        'It is closed.',
        `${account.name}’s account is closed: send a new invitation.`,
      );
    return account;
  }

  private refuseSecondFirst(): void {
    if (this.sessions.areOn())
      throw conflict('not-the-first', 'There are accounts already.', 'Ask a lead for an invitation.');
  }

  private refuseLastLead({ id }: AccountEntity): void {
    const others = this.database.all(
      `SELECT 1 FROM "account" WHERE "role" = 'lead' AND "closed_at" IS NULL AND "id" <> ? LIMIT 1`,
      id,
    );
    if (others.length === 0)
      throw conflict(
        'last-lead',
        'Somebody has to lead.',
        'That is the last lead: make somebody else one first.',
      );
  }

  private refuseSecondAccount(personId: string): void {
    const [other] = this.database.findAll(
      AccountEntity,
      'WHERE "person_id" = ? AND "closed_at" IS NULL',
      personId,
    );
    if (other) throw conflict('has-an-account', 'They have one.', `${other.name} has an account already.`);
  }

  private refuseLoginInUse(login: string): void {
    if (this.database.all('SELECT 1 FROM "account" WHERE "login" = ?', login).length > 0)
      throw impossible({
        code: 'login-in-use',
        field: 'login',
        sentence: 'Somebody signs in with that name already.',
      });
  }

  private refuseWeak(password: string, own: readonly string[]): void {
    const outcome = admitPassword(password, own);
    if (!outcome.ok) throw impossible(outcome.problem satisfies Problem);
  }

  private waiting(code: string): InvitationEntity {
    const [invitation] = this.database.findAll(InvitationEntity, 'WHERE "code_hash" = ?', hashOfSecret(code));
    if (!invitation || invitation.endedAt !== null || invitation.expiresAt <= this.clock()) throw wrongCode();
    return invitation;
  }

  private end(invitationId: string): void {
    this.database.run('UPDATE "invitation" SET "ended_at" = ? WHERE "id" = ?', this.clock(), invitationId);
  }
}

function wrongCode(): ProblemError {
  return new ProblemError(
    403,
    'wrong-code',
    'That leads nowhere.',
    'This address was used before, has run out, or is not whole. Ask for a new one.',
  );
}

export function toAccount(account: AccountEntity): AccountView {
  const { id, role, name, login, personId, customerId, seesPrices, createdAt, closedAt } = account;
  return {
    id,
    role,
    name,
    login,
    personId,
    customerId,
    seesPrices: seesPrices === 1,
    createdAt: formatInstant(createdAt),
    closedAt: closedAt === null ? null : formatInstant(closedAt),
  };
}

function toInvitation({ id, role, name, expiresAt, customerId, personId }: InvitationEntity): InvitationView {
  return { id, role, name, expiresAt: formatInstant(expiresAt), customerId, personId };
}
