import { AsyncLocalStorage } from 'node:async_hooks';
import { formatsOf, readFormatsFrom, usualFormats, type Formats } from '@entretien/core/basics';
import type { NextFunction, Request, Response } from 'express';

const reader = new AsyncLocalStorage<Formats>();
readFormatsFrom(() => reader.getStore() ?? usualFormats);

/**
 * What is only read is worded in the formats of whoever reads it, as the device says in a cookie: links to papers
 * carry nothing else. Where it says nothing, those of the workshop hold. What is recorded is worded in the usual ones: it is kept for everybody.
 *
 * @param usual the workshop’s, in one word
 */
export function formatsOfRequest(usual: () => string) {
  return (request: Request, _response: Response, next: NextFunction): void => {
    if (request.method !== 'GET') return next();
    const code = /(?:^|;\s*)entretien-formats=([a-z.-]{1,40})(?:;|$)/.exec(request.headers.cookie ?? '')?.[1];
    reader.run(formatsOf(code ?? usual()), next);
  };
}
