import { DEFAULT_PERSON_ID } from '@entretien/contracts';
import { createParamDecorator, type ExecutionContext } from '@nestjs/common';
import type { Request } from 'express';
import { signedOut, standingNow } from '../access/actor.js';
import { ProblemError } from './problem.js';

/**
 * Who stands behind a request, decided in this one place: whoever is signed in, whatever is sent besides. Without
 * accounts, the `by` of the fact itself, else the person chosen on the page (header `Entretien-Person`), else the
 * default person.
 */
export function personOf(request: Request): string {
  const standing = standingNow();
  if (standing.access === 'on') {
    if (standing.actor === null) throw signedOut();
    // A customer records nothing; whatever let one come here was wrong.
    if (standing.actor.personId === null) throw new ProblemError(403, 'no-right', 'That is not yours to do.');
    return standing.actor.personId;
  }
  const body: unknown = request.body;
  const by = body !== null && typeof body === 'object' ? (body as { by?: unknown }).by : undefined;
  const chosen = typeof by === 'string' ? by : request.get('Entretien-Person');
  return chosen?.toLowerCase() ?? DEFAULT_PERSON_ID;
}

/** The id of the person behind the request. */
export const RequestPerson = createParamDecorator((_data: unknown, context: ExecutionContext) =>
  personOf(context.switchToHttp().getRequest<Request>()),
);
