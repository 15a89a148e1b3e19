import { createParamDecorator, type ExecutionContext } from '@nestjs/common';
import type { Request } from 'express';

/** Who is meant while nobody has said a name: the person every installation starts with. */
export const DEFAULT_PERSON_ID = '00000000-0000-4000-8000-000000000001';

/**
 * Who stands behind a request, decided in this one place: the `by` of the fact itself, else the person
 * chosen on the page (header `Entretien-Person`), else the default person. Accounts will decide it here.
 */
export function personOf(request: Request): string {
  const body: unknown = request.body;
  const by = body !== null && typeof body === 'object' ? (body as { by?: unknown }).by : undefined;
  const chosen = typeof by === 'string' ? by : request.get('Entretien-Person');
  return chosen?.toLowerCase() ?? DEFAULT_PERSON_ID;
}

/** The id of the person behind the request. */
export const RequestPerson = createParamDecorator((_data: unknown, context: ExecutionContext) =>
  personOf(context.switchToHttp().getRequest<Request>()),
);
