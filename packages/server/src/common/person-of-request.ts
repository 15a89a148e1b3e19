import { DEFAULT_PERSON_ID } from '@entretien/contracts';
import { createParamDecorator, type ExecutionContext } from '@nestjs/common';
import type { Request } from 'express';

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
