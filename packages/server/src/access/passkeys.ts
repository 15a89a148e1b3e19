import { Inject, Injectable } from '@nestjs/common';
import type { PasskeyAnswer, PasskeyView } from '@entretien/contracts';
import { formatInstant } from '@entretien/core/basics';
import type { AuthenticationResponseJSON, RegistrationResponseJSON } from '@simplewebauthn/server';
import type { Request } from 'express';
import { impossible, notFound, ProblemError } from '../common/problem.js';
import { CLOCK, SETTINGS, type Clock } from '../common/tokens.js';
import type { Settings } from '../config.js';
import { Database } from '../persistence/database.js';
import { AccountEntity, PasskeyEntity } from '../persistence/entities/access.entity.js';
import { actorNow } from './actor.js';
import { Audit } from './audit.js';

/** Loaded when the first passkey is asked for: few starts of the server see one. */
const webauthn = () => import('@simplewebauthn/server');

/** How long an authenticator may take; and how many may be asked at once. */
const [CHALLENGE_MS, MOST_CHALLENGES] = [5 * 60_000, 1000];

interface Place {
  readonly rpID: string;
  readonly expectedOrigin: string;
}

/** Keys that stay in the device, and prove themselves by signing what we ask. */
@Injectable()
export class Passkeys {
  /** What was asked and not answered yet: each is good for one answer. */
  private readonly asked = new Map<string, number>();

  constructor(
    private readonly database: Database,
    private readonly audit: Audit,
    @Inject(SETTINGS) private readonly settings: Settings,
    @Inject(CLOCK) private readonly clock: Clock,
  ) {}

  /** Where passkeys belong to; null at a bare address, where browsers know none. */
  placeOf(request: Request): Place | null {
    const named = this.publicOf(request);
    const { hostname, origin } = named ?? new URL(`${request.protocol}://${request.headers.host ?? ''}`);
    const isName = /[a-z]/i.test(hostname) && !hostname.startsWith('[');
    return isName && (named || hostname === 'localhost') ? { rpID: hostname, expectedOrigin: origin } : null;
  }

  /** Whether what is sent goes encrypted, as far as the public address tells. */
  isEncrypted(request: Request): boolean {
    return this.publicOf(request)?.protocol === 'https:';
  }

  /** The public address, where the request came by it. */
  private publicOf({ headers }: Request): URL | null {
    const { publicUrl } = this.settings;
    const address = publicUrl === undefined ? null : new URL(publicUrl);
    return address?.host === headers.host ? address : null;
  }

  async registrationOptions(request: Request): Promise<object> {
    const { rpID } = this.requirePlace(request);
    const { accountId, name } = actorNow()!;
    const account = this.database.find(AccountEntity, accountId)!;
    const { generateRegistrationOptions } = await webauthn();
    const options = await generateRegistrationOptions({
      rpName: 'Entretien',
      rpID,
      userID: new TextEncoder().encode(accountId),
      userName: account.login,
      userDisplayName: name,
      attestationType: 'none',
      excludeCredentials: this.rowsOf(accountId).map(({ id }) => ({ id })),
      authenticatorSelection: { residentKey: 'required', userVerification: 'required' },
    });
    this.ask(options.challenge);
    return options;
  }

  async register(request: Request, { response, name }: PasskeyAnswer): Promise<PasskeyView> {
    const { rpID, expectedOrigin } = this.requirePlace(request);
    const { accountId } = actorNow()!;
    const { verifyRegistrationResponse } = await webauthn();
    const outcome = await verifyRegistrationResponse({
      response: response as RegistrationResponseJSON,
      expectedChallenge: (challenge) => this.takeBack(challenge),
      expectedOrigin,
      expectedRPID: rpID,
      requireUserVerification: true,
    }).catch(() => null);
    if (!outcome?.verified) throw notProved();
    const { credential } = outcome.registrationInfo;
    if (this.database.find(PasskeyEntity, credential.id)) throw notProved();
    const row = {
      id: credential.id,
      accountId,
      publicKey: Buffer.from(credential.publicKey).toString('base64url'),
      counter: credential.counter,
      transports: credential.transports ?? [],
      name: name?.trim() ?? 'Passkey',
      addedAt: this.clock(),
    };
    this.database.transact(() => {
      this.database.insert(PasskeyEntity, row);
      this.audit.note('passkey added', row.name);
    });
    return toView(row);
  }

  async signInOptions(request: Request): Promise<object> {
    const { rpID } = this.requirePlace(request);
    const { generateAuthenticationOptions } = await webauthn();
    const options = await generateAuthenticationOptions({ rpID, userVerification: 'required' });
    this.ask(options.challenge);
    return options;
  }

  /** Whose passkey answered; nobody’s is refused as a wrong password is. */
  async signIn(request: Request, { response }: PasskeyAnswer): Promise<AccountEntity> {
    const { rpID, expectedOrigin } = this.requirePlace(request);
    const answer = response as AuthenticationResponseJSON;
    const passkey = typeof answer.id === 'string' ? this.database.find(PasskeyEntity, answer.id) : undefined;
    if (!passkey) throw notProved();
    const { verifyAuthenticationResponse } = await webauthn();
    const outcome = await verifyAuthenticationResponse({
      response: answer,
      expectedChallenge: (challenge) => this.takeBack(challenge),
      expectedOrigin,
      expectedRPID: rpID,
      requireUserVerification: true,
      credential: {
        id: passkey.id,
        publicKey: new Uint8Array(Buffer.from(passkey.publicKey, 'base64url')),
        counter: passkey.counter,
      },
    }).catch(() => null);
    if (!outcome?.verified) throw notProved();
    const { newCounter } = outcome.authenticationInfo;
    this.database.run('UPDATE "passkey" SET "counter" = ? WHERE "id" = ?', newCounter, passkey.id);
    const account = this.database.find(AccountEntity, passkey.accountId);
    if (!account || account.closedAt !== null) throw notProved();
    return account;
  }

  list(): PasskeyView[] {
    return this.rowsOf(actorNow()!.accountId).map(toView);
  }

  remove(id: string): void {
    const row = this.database.find(PasskeyEntity, id);
    if (row?.accountId !== actorNow()!.accountId)
      throw notFound('no-such-passkey', 'There is no such passkey.');
    this.database.transact(() => {
      this.database.run('DELETE FROM "passkey" WHERE "id" = ?', id);
      this.audit.note('passkey removed', row.name);
    });
  }

  private rowsOf(accountId: string): PasskeyEntity[] {
    return this.database.findAll(PasskeyEntity, 'WHERE "account_id" = ? ORDER BY "added_at"', accountId);
  }

  private requirePlace(request: Request): Place {
    const place = this.placeOf(request);
    if (place) return place;
    throw impossible({
      code: 'no-name',
      sentence: 'Passkeys need a name, and this is a bare address: sign in with a password.',
    });
  }

  private ask(challenge: string): void {
    const now = this.clock();
    for (const [one, until] of this.asked)
      if (until < now || this.asked.size >= MOST_CHALLENGES) this.asked.delete(one);
    this.asked.set(challenge, now + CHALLENGE_MS);
  }

  private takeBack(challenge: string): boolean {
    const until = this.asked.get(challenge);
    this.asked.delete(challenge);
    return until !== undefined && until >= this.clock();
  }
}

function notProved(): ProblemError {
  return new ProblemError(401, 'not-known', 'That is not right.', 'This passkey is not known here.');
}

function toView({ id, name, addedAt }: PasskeyEntity): PasskeyView {
  return { id, name, addedAt: formatInstant(addedAt) };
}
