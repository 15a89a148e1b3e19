import { Inject, Injectable, type CanActivate, type ExecutionContext } from '@nestjs/common';
import { normalLogin } from '@entretien/core/access';
import type { Request } from 'express';
import { Counts } from '../common/counts.js';
import { ProblemError } from '../common/problem.js';
import { CLOCK, type Clock } from '../common/tokens.js';

/** For how long tries count, and how many there are: from one address, and for one account from anywhere. */
const TRIED_MS = 15 * 60_000;
const LIMITS = { address: 20, account: 10 } as const;
/** Counts tries to get in. */
@Injectable()
export class Tries {
  private readonly counts: Counts;

  constructor(@Inject(CLOCK) clock: Clock) {
    this.counts = new Counts(TRIED_MS, clock);
  }

  /** Counts one, and says whether it is one too many. */
  isTooMany({ ip = '', body }: Request): boolean {
    const { login } = (body ?? {}) as { readonly login?: unknown };
    const ofAddress = this.counts.add(`address ${ip}`);
    const ofAccount = typeof login === 'string' ? this.counts.add(accountKey(login)) : 0;
    return ofAddress > LIMITS.address || ofAccount > LIMITS.account;
  }

  /** Somebody got in: that was no guess. What else was tried from there still counts. */
  forgive({ ip = '' }: Request, login: string): void {
    this.counts.takeBack(`address ${ip}`);
    this.counts.drop(accountKey(login));
  }
}

function accountKey(login: string): string {
  return `account ${normalLogin(login).slice(0, 100)}`;
}

/** After too many tries, even the right password has to wait. */
@Injectable()
export class TriesGuard implements CanActivate {
  constructor(private readonly tries: Tries) {}

  canActivate(context: ExecutionContext): boolean {
    if (!this.tries.isTooMany(context.switchToHttp().getRequest<Request>())) return true;
    throw new ProblemError(
      429,
      'too-many-tries',
      'Too many tries.',
      'Too many tries to sign in. Wait a quarter of an hour, or ask a lead.',
    );
  }
}
