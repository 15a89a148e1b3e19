import {
  Inject,
  Injectable,
  type CallHandler,
  type ExecutionContext,
  type NestInterceptor,
} from '@nestjs/common';
import { Reflector } from '@nestjs/core';
import type { Request } from 'express';
import { tap, type Observable } from 'rxjs';
import { CLOCK, type Clock } from '../common/tokens.js';
import { CompressorRegister } from '../compressors/compressor-register.js';
import { Database } from '../persistence/database.js';
import { PersonEntity } from '../persistence/entities/person.entity.js';
import { PartEntity } from '../persistence/entities/part.entity.js';
import { SitesService } from '../sites/sites.service.js';
import { standingNow } from './actor.js';
import { Audit } from './audit.js';
import { AUDITED, type Audited } from './noted-as.js';

/** Notes what was done by a route that says so, if it was; while there are no accounts there is nobody to name. */
@Injectable()
export class AuditInterceptor implements NestInterceptor {
  constructor(
    private readonly reflector: Reflector,
    private readonly audit: Audit,
    private readonly database: Database,
    private readonly sites: SitesService,
    private readonly register: CompressorRegister,
    @Inject(CLOCK) private readonly clock: Clock,
  ) {}

  intercept(context: ExecutionContext, next: CallHandler): Observable<unknown> {
    const what = this.reflector.get<Audited | undefined>(AUDITED, context.getHandler());
    if (!what || standingNow().access === 'off') return next.handle();
    const request = context.switchToHttp().getRequest<Request>();
    return next.handle().pipe(tap(() => this.audit.note(what, this.aboutOf(request))));
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
}
