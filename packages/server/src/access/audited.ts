import {
  Injectable,
  SetMetadata,
  type CallHandler,
  type ExecutionContext,
  type NestInterceptor,
} from '@nestjs/common';
import { Reflector } from '@nestjs/core';
import type { Request } from 'express';
import { tap, type Observable } from 'rxjs';
import { standingNow } from './actor.js';
import { Audit, type Audited } from './audit.js';

const AUDITED = 'entretien:audited';

interface Noted {
  readonly what: Audited;
  readonly about: (request: Request) => string;
}

/** What of a route the audit tells, once it was done. */
export function NotedAs(what: Audited, about: Noted['about'] = ({ path }) => path.replace(/^\/api\//, '')) {
  return SetMetadata(AUDITED, { what, about } satisfies Noted);
}

/** Notes what was done by a route that says so, if it was; while there are no accounts there is nobody to name. */
@Injectable()
export class AuditInterceptor implements NestInterceptor {
  constructor(
    private readonly reflector: Reflector,
    private readonly audit: Audit,
  ) {}

  intercept(context: ExecutionContext, next: CallHandler): Observable<unknown> {
    const noted = this.reflector.get<Noted | undefined>(AUDITED, context.getHandler());
    if (!noted || standingNow().access === 'off') return next.handle();
    const request = context.switchToHttp().getRequest<Request>();
    return next.handle().pipe(tap(() => this.audit.note(noted.what, noted.about(request))));
  }
}
