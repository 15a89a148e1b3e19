import { Inject, Injectable, type CanActivate, type ExecutionContext } from '@nestjs/common';
import { normalLogin } from '@entretien/core/access';
import type { Request } from 'express';
import { ProblemError } from '../common/problem.js';
import { CLOCK, type Clock } from '../common/tokens.js';

/** For how long tries count, and how many there are: from one address, and for one account from anywhere. */
const TRIED_MS = 15 * 60_000;
const LIMITS = { address: 20, account: 10 } as const;
/** So many counts are kept at most; whoever fills them up waits with everybody else. */
const MOST_KEPT = 50_000;

/** Counts tries to get in. */
@Injectable()
export class Tries {
  private readonly counts = new Map<string, { readonly until: number; tries: number }>();

  constructor(@Inject(CLOCK) private readonly clock: Clock) {}

  /** Counts one, and says whether it is one too many. */
  isTooMany({ ip = '', body }: Request): boolean {
    const { login } = (body ?? {}) as { readonly login?: unknown };
    const ofAddress = this.count(`address ${ip}`);
    const ofAccount = typeof login === 'string' ? this.count(accountKey(login)) : 0;
    return ofAddress > LIMITS.address || ofAccount > LIMITS.account;
  }

  /** Somebody got in: that was no guess. What else was tried from there still counts. */
  forgive({ ip = '' }: Request, login: string): void {
    const address = this.counts.get(`address ${ip}`);
    if (address) address.tries -= 1;
    this.counts.delete(accountKey(login));
  }

  private count(whose: string): number {
    const now = this.clock();
    let count = this.counts.get(whose);
    if (!count || count.until <= now) {
      if (this.counts.size >= MOST_KEPT) this.forget(now);
      if (this.counts.size >= MOST_KEPT) return Infinity;
      this.counts.set(whose, (count = { until: now + TRIED_MS, tries: 0 }));
    }
    return (count.tries += 1);
  }

  private forget(now: number): void {
    for (const [whose, { until }] of this.counts) if (until <= now) this.counts.delete(whose);
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
