import { AsyncLocalStorage } from 'node:async_hooks';
import { hasRight, type Right, type Role } from '@entretien/core/access';
import { ProblemError } from '../common/problem.js';

/** Who is behind a request, once there are accounts. */
export interface Actor {
  readonly accountId: string;
  readonly sessionId: string;
  readonly role: Role;
  readonly name: string;
  /** Whose facts these are; null of a customer, who records none. */
  readonly personId: string | null;
  readonly customerId: string | null;
  readonly seesPrices: boolean;
}

/** What a request may do: rights are off while there are no accounts. */
export type Standing = { readonly access: 'off' } | { readonly access: 'on'; readonly actor: Actor | null };

const OFF: Standing = { access: 'off' };
const standings = new AsyncLocalStorage<Standing>();

/** Everything that follows from `work` is done by whoever stands behind it. */
export function actAs<Result>(standing: Standing, work: () => Result): Result {
  return standings.run(standing, work);
}

/** Who acts now; rights are off where nobody asked through the door: a script on the machine itself. */
export function standingNow(): Standing {
  return standings.getStore() ?? OFF;
}

export function actorNow(): Actor | null {
  const standing = standingNow();
  return standing.access === 'on' ? standing.actor : null;
}

export function mayNow(right: Right): boolean {
  const standing = standingNow();
  return standing.access === 'off' || hasRight(standing.actor?.role ?? null, right);
}

/** Refuses whoever has not the right; 401 where nobody is signed in, 403 where somebody is. */
export function requireRight(right: Right, detail?: string): void {
  if (mayNow(right)) return;
  if (actorNow() === null) throw signedOut();
  throw new ProblemError(
    403,
    'no-right',
    'That is not yours to do.',
    detail ?? 'Your role does not allow it. Ask a lead.',
  );
}

export function signedOut(): ProblemError {
  return new ProblemError(401, 'signed-out', 'You are signed out.', 'Sign in, and try again.');
}

/** Whether whoever reads may see what things cost. */
export function seesPrices(): boolean {
  return actorNow()?.seesPrices ?? true;
}
