import type { IncomingMessage, ServerResponse } from 'node:http';
import type { NextFunction, Request, Response } from 'express';
import { malformed, ProblemError } from './problem.js';

const LOOPBACK = new Set(['127.0.0.1', 'localhost', '[::1]', '::1']);

/** Whether an address is this machine itself. */
export function isLoopback(host: string): boolean {
  return LOOPBACK.has(host) || /^127\.\d{1,3}\.\d{1,3}\.\d{1,3}$/.test(host);
}

/** Whether a request was sent to this machine by itself, and not by a name. */
export function isLoopbackHost({ headers }: Pick<Request, 'headers'>): boolean {
  return isLoopback((headers.host ?? '').replace(/:\d+$/, ''));
}

/**
 * Refuses what does not come from our own page: a foreign Host (another name pointed at this machine), a
 * foreign Origin, and bodies that a plain form could send across sites.
 */
export function requestGuards(publicUrl: string | undefined) {
  const publicHost = publicUrl === undefined ? undefined : new URL(publicUrl).host;
  return (request: Request, _response: Response, next: NextFunction): void => {
    const host = request.headers.host ?? '';
    if (host !== publicHost && !isLoopbackHost(request)) {
      return next(new ProblemError(421, 'foreign-host', 'This address is not ours.'));
    }
    const { origin } = request.headers;
    if (origin !== undefined && !sameHost(origin, host, publicHost)) {
      return next(new ProblemError(403, 'foreign-origin', 'Another site may not ask for this.'));
    }
    // Lists and photos are sent as they are; a plain form cannot send those types across sites either.
    const wanted = bodyTypeOf(request.path);
    if (hasBody(request) && !request.is([...wanted])) {
      return next(
        new ProblemError(
          415,
          'not-json',
          'That could not be read.',
          `Send the body as ${wanted.join(' or ')}.`,
        ),
      );
    }
    next();
  };
}

function bodyTypeOf(path: string): readonly string[] {
  if (path === '/readings/import') return ['text/csv'];
  if (path === '/settings/logo') return ['image/*'];
  if (/^\/compressors\/[^/]+\/papers$/.test(path)) return ['application/pdf', 'audio/*'];
  return [/^\/(visits|compressors)\/[^/]+\/photos$/.test(path) ? 'image/*' : 'application/json'];
}

function sameHost(origin: string, host: string, publicHost: string | undefined): boolean {
  try {
    const from = new URL(origin).host;
    return from === host || from === publicHost;
  } catch {
    return false;
  }
}

function hasBody({ method, headers }: Request): boolean {
  const length = headers['content-length'];
  return (
    !['GET', 'HEAD', 'OPTIONS'].includes(method) &&
    ((length !== undefined && length !== '0') || headers['transfer-encoding'] !== undefined)
  );
}

/**
 * Lets so many requests with a body at once through: each holds memory until its last byte has come, and pictures
 * hold the threads that make them anew. The others are told to come again.
 */
export function atMost(most: number, isMeant: (request: Request) => boolean) {
  let underWay = 0;
  return (request: Request, response: Response, next: NextFunction): void => {
    if (!hasBody(request) || !isMeant(request)) return next();
    if (underWay >= most) {
      response.set('Retry-After', '2');
      return next(new ProblemError(503, 'busy', 'Too much at once.', 'Try again in a moment.'));
    }
    underWay += 1;
    response.once('close', () => (underWay -= 1));
    next();
  };
}

/** As deep as anything that we take is nested, and twice that. */
const DEEPEST = 24;

const [QUOTE, BACKSLASH] = ['"'.charCodeAt(0), '\\'.charCodeAt(0)];
const OPENING = new Set(['{', '['].map((sign) => sign.charCodeAt(0)));
const CLOSING = new Set(['}', ']'].map((sign) => sign.charCodeAt(0)));

/** Requests whose bodies are nested deeper than anything of ours. */
const tooDeep = new WeakSet<IncomingMessage>();

/** Looks at a body before it is parsed; what it finds is refused by {@link refuseDeepNesting} before anything walks it. */
export function lookForDeepNesting(request: IncomingMessage, _response: ServerResponse, body: Buffer): void {
  if (isNestedDeeper(body, DEEPEST)) tooDeep.add(request);
}

export function refuseDeepNesting(request: Request, _response: Response, next: NextFunction): void {
  if (!tooDeep.has(request)) return next();
  const detail = `It is nested more than ${DEEPEST} levels deep.`;
  next(new ProblemError(400, 'nested-too-deep', 'That could not be read.', detail));
}

function isNestedDeeper(body: Buffer, deepest: number): boolean {
  let depth = 0;
  let isText = false;
  for (let index = 0; index < body.length; index += 1) {
    const sign = body[index]!;
    if (isText) {
      if (sign === BACKSLASH) index += 1;
      else if (sign === QUOTE) isText = false;
    } else if (sign === QUOTE) isText = true;
    else if (OPENING.has(sign)) depth += 1;
    else if (CLOSING.has(sign)) depth -= 1;
    if (depth > deepest) return true;
  }
  return false;
}

/**
 * Refuses fields named like what every object has: the reader of contracts would pass over them in silence. Walks
 * what is no deeper than {@link refuseDeepNesting} lets through.
 */
export function refuseInheritedNames(request: Request, _response: Response, next: NextFunction): void {
  const waiting: unknown[] = [request.body];
  while (waiting.length > 0) {
    const part = waiting.pop();
    if (typeof part !== 'object' || part === null) continue;
    for (const [name, value] of Object.entries(part)) {
      if (!Array.isArray(part) && name in Object.prototype) {
        return next(malformed([{ field: name, message: `There is no field “${name}” here.` }]));
      }
      waiting.push(value);
    }
  }
  next();
}
