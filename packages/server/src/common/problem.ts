import { malformedProblem, type FieldError, type ProblemDetails } from '@entretien/contracts';
import type { Problem } from '@entretien/core/basics';

/** A refusal that the sender can read and act on; becomes an RFC 9457 problem document. */
export class ProblemError extends Error {
  constructor(
    readonly status: number,
    readonly code: string,
    readonly title: string,
    readonly detail?: string,
    readonly errors?: readonly FieldError[],
    /** What it is found by in the log. */
    readonly incident?: string,
  ) {
    super(detail ?? title);
  }

  toDetails(): ProblemDetails {
    const { status, code, title, detail, errors, incident } = this;
    return {
      type: `/problems/${code}`,
      title,
      status,
      code,
      ...(detail === undefined ? {} : { detail }),
      ...(errors === undefined ? {} : { errors }),
      ...(incident === undefined ? {} : { instance: `urn:uuid:${incident}` }),
    };
  }
}

/** 422: understood, but it cannot be. */
export function impossible(problem: Problem): ProblemError {
  const errors = problem.field ? [{ field: problem.field, message: problem.sentence }] : undefined;
  return new ProblemError(422, problem.code, 'That cannot be.', problem.sentence, errors);
}

/** 400: what was sent does not have the right shape. */
export function malformed(errors: readonly FieldError[]): ProblemError {
  const { status, code, title, detail } = malformedProblem(errors);
  return new ProblemError(status, code, title, detail, errors);
}

export function notFound(code: string, detail: string): ProblemError {
  return new ProblemError(404, code, 'There is no such thing here.', detail);
}

export function conflict(code: string, title: string, detail: string): ProblemError {
  return new ProblemError(409, code, title, detail);
}
