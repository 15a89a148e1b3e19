import { randomUUID } from 'node:crypto';
import { Catch, HttpException, Inject, type ArgumentsHost, type ExceptionFilter } from '@nestjs/common';
import type { Request, Response } from 'express';
import type { Logger } from 'pino';
import { LOGGER } from './tokens.js';
import { ProblemError } from './problem.js';

/** Turns whatever goes wrong into a problem document that a technician understands. */
@Catch()
export class ProblemFilter implements ExceptionFilter {
  constructor(@Inject(LOGGER) private readonly logger: Logger) {}

  catch(error: unknown, host: ArgumentsHost): void {
    const http = host.switchToHttp();
    const response = http.getResponse<Response>();
    if (response.headersSent) return;
    const problem = problemOf(error);
    if (problem.status === 503) response.set('Retry-After', '2');
    if (problem.status >= 500) {
      const { method, url } = http.getRequest<Request>();
      this.logger.error({ err: error, method, url, incident: problem.incident }, 'request failed');
    }
    response
      .status(problem.status)
      .set('Content-Type', 'application/problem+json; charset=utf-8')
      .send(JSON.stringify(problem.toDetails()));
  }
}

function problemOf(error: unknown): ProblemError {
  if (error instanceof ProblemError) return error;
  const incident = randomUUID();
  const stored = storageProblemOf(error, incident);
  if (stored !== null) return stored;
  const status = statusOf(error);
  switch (status) {
    case 400:
      return new ProblemError(400, 'not-json', 'That could not be read.', 'The body is not valid JSON.');
    case 404:
      return new ProblemError(404, 'no-such-place', 'There is nothing at this address.');
    case 405:
      return new ProblemError(405, 'method-not-allowed', 'This address does not do that.');
    case 413:
      return new ProblemError(
        413,
        'too-large',
        'That is too much at once.',
        'The body is larger than 2 MB. Shorten the text or send it in parts.',
      );
    default:
      return status >= 400 && status < 500
        ? new ProblemError(status, 'refused', 'That was refused.')
        : new ProblemError(
            500,
            'internal',
            'Something went wrong on our side.',
            `Nothing was changed. Try again; if it stays, tell whoever runs the server: ${incident}.`,
            undefined,
            incident,
          );
  }
}

/** What the disk or the database has to say, in a sentence that leads somewhere. */
function storageProblemOf(error: unknown, incident: string): ProblemError | null {
  const code = String((error as { code?: unknown } | null)?.code);
  const title = 'It could not be written.';
  if (/^SQLITE_(BUSY|LOCKED)/.test(code)) {
    return new ProblemError(
      503,
      'busy',
      title,
      'The database is busy. Try again in a moment.',
      undefined,
      incident,
    );
  }
  if (/^SQLITE_FULL|^ENOSPC|^EDQUOT/.test(code)) {
    const detail = 'The disk of the server is full. Make room on it and try again; nothing was changed.';
    return new ProblemError(507, 'disk-full', title, detail, undefined, incident);
  }
  if (/^SQLITE_(READONLY|CANTOPEN|PERM)|^EACCES|^EROFS|^EPERM/.test(code)) {
    const detail = 'The server may not write to its data folder. Look at its rights; nothing was changed.';
    return new ProblemError(507, 'not-writable', title, detail, undefined, incident);
  }
  if (/^SQLITE_(CORRUPT|IOERR|NOTADB)|^EIO/.test(code)) {
    const detail = 'The disk or the database is damaged. Stop the server and put a backup back.';
    return new ProblemError(507, 'damaged', title, detail, undefined, incident);
  }
  return null;
}

function statusOf(error: unknown): number {
  if (error instanceof HttpException) return error.getStatus();
  const status = (error as { status?: unknown } | null)?.status;
  return typeof status === 'number' ? status : 500;
}
