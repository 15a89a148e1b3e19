import { formerChecks, formerPaths, inNamesOfToday } from '@entretien/contracts';
import type { NextFunction, Request, Response } from 'express';

/**
 * Reads what is asked and sent by the names of the release before: a path is answered with where it is now, fields
 * and codes are read as those of today.
 */
export function formerNames(request: Request, response: Response, next: NextFunction): void {
  const [path = '', query] = request.originalUrl.split('?');
  const parts = path.split('/');
  if (parts.some((part) => Object.hasOwn(formerPaths, part))) {
    const now = parts.map((part) => formerPaths[part] ?? part).join('/');
    response.redirect(308, query === undefined ? now : `${now}?${query}`);
    return;
  }
  if (typeof request.body === 'object' && request.body !== null) request.body = inNamesOfToday(request.body);
  const { check } = request.query;
  if (typeof check === 'string' && Object.hasOwn(formerChecks, check)) {
    response.redirect(308, request.originalUrl.replace(`check=${check}`, `check=${formerChecks[check]}`));
    return;
  }
  next();
}
