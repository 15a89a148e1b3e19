import {
  Injectable,
  UseInterceptors,
  type CallHandler,
  type ExecutionContext,
  type NestInterceptor,
} from '@nestjs/common';
import type { Request } from 'express';
import { tap, type Observable } from 'rxjs';

/** What the audit tells of. */
export type Audited =
  | 'signed in'
  | 'sign-in refused'
  | 'signed out'
  | 'first lead'
  | 'invited'
  | 'invitation withdrawn'
  | 'account made'
  | 'rights changed'
  | 'account closed'
  | 'session ended'
  | 'password changed'
  | 'passkey added'
  | 'passkey removed'
  | 'customer changed'
  | 'site changed'
  | 'plan changed'
  | 'stock changed'
  | 'device changed'
  | 'people changed'
  | 'settings changed'
  | 'exported'
  | 'backed up'
  | 'name removed'
  | 'restored';

/** Whoever notes it; the routes do not know whom they are noted by. */
export abstract class Noted {
  abstract noteRequest(what: Audited, request: Request): void;
}

/** What of a route the audit tells, once it was done: what it was about is found by the ids in its address. */
export function NotedAs(what: Audited) {
  @Injectable()
  class Noting implements NestInterceptor {
    constructor(private readonly noted: Noted) {}

    intercept(context: ExecutionContext, next: CallHandler): Observable<unknown> {
      const request = context.switchToHttp().getRequest<Request>();
      return next.handle().pipe(tap(() => this.noted.noteRequest(what, request)));
    }
  }
  return UseInterceptors(Noting);
}
