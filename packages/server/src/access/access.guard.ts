import { Inject, Injectable, type CanActivate, type ExecutionContext } from '@nestjs/common';
import { Reflector } from '@nestjs/core';
import type { NextFunction, Request, Response } from 'express';
import { Counts } from '../common/counts.js';
import { notFound, ProblemError } from '../common/problem.js';
import { isLoopbackHost } from '../common/request-guards.js';
import { Database } from '../persistence/database.js';
import { SitesService } from '../sites/sites.service.js';
import { CompressorRegister } from '../compressors/compressor-register.js';
import { CLOCK, type Clock } from '../common/tokens.js';
import { actAs, actorNow, requireRight } from './actor.js';
import { DEMAND, type Demand, type Own } from './may.js';
import type { Sessions } from './sessions.js';

export const SESSION_COOKIE = 'entretien-session';
const COOKIE = new RegExp(`(?:^|;\\s*)${SESSION_COOKIE}=([\\w-]{1,100})(?:;|$)`);

function secretOf(request: Request): string | undefined {
  return COOKIE.exec(request.headers.cookie ?? '')?.[1];
}

const MINUTE_MS = 60_000;
/** Whoever is not signed in has no business here but to sign in: a share of what an account may ask. */
const SHARE_OF_STRANGERS = 0.1;

/**
 * Finds out who stands behind a request, before anything else looks at it.
 *
 * @param mostAMinute requests of one account; Infinity where nothing is limited
 */
export function actorOfRequest(sessions: Sessions, clock: Clock, mostAMinute: number) {
  const counts = new Counts(MINUTE_MS, clock);
  return (request: Request, response: Response, next: NextFunction): void => {
    const standing = sessions.standingOf(secretOf(request));
    // Whoever does without accounts does so at this machine; by its name it is reached from anywhere.
    if (standing.access === 'off' && !isLoopbackHost(request))
      return next(
        new ProblemError(
          403,
          'no-accounts',
          'There are no accounts yet.',
          'Make the first lead at the machine itself.',
        ),
      );
    if (standing.access === 'on' && mostAMinute < Infinity) {
      const { actor } = standing;
      const most = actor ? mostAMinute : mostAMinute * SHARE_OF_STRANGERS;
      if (counts.add(actor ? `account ${actor.accountId}` : `address ${request.ip}`) > most) {
        response.set('Retry-After', '60');
        const detail = 'More was asked in a minute than one account may. Wait a minute; nothing is lost.';
        return next(new ProblemError(429, 'too-many-requests', 'Too much at once.', detail));
      }
    }
    actAs(standing, next);
  };
}

/** Lets through who may, by what the route asks; a route that asks nothing is shut. */
@Injectable()
export class AccessGuard implements CanActivate {
  constructor(
    private readonly reflector: Reflector,
    private readonly database: Database,
    private readonly sites: SitesService,
    private readonly register: CompressorRegister,
    @Inject(CLOCK) private readonly clock: Clock,
  ) {}

  canActivate(context: ExecutionContext): boolean {
    const demand = this.reflector.getAllAndOverride<Demand | undefined>(DEMAND, [
      context.getHandler(),
      context.getClass(),
    ]);
    if (!demand) throw new ProblemError(403, 'no-right', 'That is shut.', 'Nobody said who may do this.');
    const request = context.switchToHttp().getRequest<Request>();
    const right = typeof demand.right === 'function' ? demand.right(request) : demand.right;
    requireRight(right);
    const actor = actorNow();
    if (actor?.role === 'customer' && right === 'see-own' && demand.own) {
      const { parameter } = demand.own;
      const owner = this.ownerOf(demand.own, String(request.params[parameter]).toLowerCase());
      // Whose it is, is no business of anybody else; nor whether there is such a thing.
      if (owner === null || owner !== actor.customerId)
        throw notFound('not-yours', 'There is nothing of yours here by that address.');
    }
    return true;
  }

  /** Whose site it stands at; of a repair, whose it stood at then; of a visit, where it went. */
  private ownerOf({ kind }: Own, id: string): string | null {
    if (kind === 'visit') {
      const [visit] = this.database.all<{ siteId: string }>(
        'SELECT "site_id" AS "siteId" FROM "visit" WHERE "id" = ?',
        id,
      );
      return visit ? (this.sites.find(visit.siteId)?.customerId ?? null) : null;
    }
    const [about] =
      kind === 'repair'
        ? this.database.all<{ unit: string; at: number }>(
            'SELECT "compressor_id" AS "unit", "found_at" AS "at" FROM "repair" WHERE "id" = ?',
            id,
          )
        : [{ unit: id, at: this.clock() }];
    const unit = about && this.register.find(about.unit);
    if (!unit) return null;
    // Where it stood then: what was done at another’s site stays theirs when the machine is sold on.
    const { siteId } = this.register.plateOf(unit, about.at);
    return this.sites.find(siteId)?.customerId ?? null;
  }
}
