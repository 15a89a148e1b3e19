import type { ProblemDetails } from '@entretien/contracts';
import { usePreferences } from './preferences.js';
import { dropEarly, takeEarly } from './early.js';
import { noteAnswer } from './kept-answers.js';

/** A refusal by the server, in its own words. */
export class ApiProblem extends Error {
  constructor(readonly problem: ProblemDetails) {
    super(problem.detail ?? problem.title);
  }

  /** The sentence that belongs beside a field, where there is one. */
  forField(field: string): string | undefined {
    return this.problem.errors?.find((error) => error.field === field)?.message;
  }
}

/** The server could not be reached at all. */
export class Unreachable extends Error {
  constructor() {
    super('The server does not answer. What you typed is still here; try again in a moment.');
  }
}

const signedOut = new Set<() => void>();

/** Calls back when the server says that nobody is signed in. */
export function onSignedOut(listener: () => void): () => void {
  signedOut.add(listener);
  return () => signedOut.delete(listener);
}

async function call<Result>(
  path: string,
  init: RequestInit,
  personId = usePreferences.getState().personId,
): Promise<Result> {
  const headers = new Headers(init.headers);
  if (personId !== null) headers.set('Entretien-Person', personId);
  let response: Response;
  try {
    if (init.method !== 'GET') dropEarly();
    const early = takeEarly(`/api${path}`);
    response = await (early ?? fetch(`/api${path}`, { ...init, headers }));
  } catch {
    throw new Unreachable();
  }
  noteAnswer(response.headers);
  const body: unknown = await response.json().catch(() => null);
  if (response.ok) return body as Result;
  if (response.status === 401 && (body as ProblemDetails | null)?.code === 'signed-out')
    signedOut.forEach((listener) => listener());
  throw new ApiProblem(problemIn(body, response.status));
}

function problemIn(body: unknown, status: number): ProblemDetails {
  return (body ?? { title: 'Something went wrong.', status }) as ProblemDetails;
}

export function getJson<Result>(path: string): Promise<Result> {
  return call<Result>(path, { method: 'GET' });
}

/** @param personId who did it, where that is not the person at work now */
export function postJson<Result>(path: string, body: object, personId?: string | null): Promise<Result> {
  const init = {
    method: 'POST',
    headers: { 'Content-Type': 'application/json' },
    body: JSON.stringify(body),
  };
  return call<Result>(path, init, personId);
}

/** Saves something; in the place of the version that it was based on, where it has versions. */
export function putJson<Result>(path: string, body: object, basedOn?: number): Promise<Result> {
  const match = basedOn === undefined ? {} : { 'If-Match': `"${basedOn}"` };
  return call<Result>(path, {
    method: 'PUT',
    headers: { 'Content-Type': 'application/json', ...match },
    body: JSON.stringify(body),
  });
}

/** Takes something away. */
export function deleteAt(path: string): Promise<null> {
  return call<null>(path, { method: 'DELETE' });
}

/** Sends a photo as it is. */
export function postBytes<Result>(path: string, bytes: Blob, personId?: string | null): Promise<Result> {
  const init = { method: 'POST', headers: { 'Content-Type': bytes.type || 'image/jpeg' }, body: bytes };
  return call<Result>(path, init, personId);
}

/** The bytes of a file that the server keeps; the device’s own copy where there is no connection. */
export async function getBytes(path: string): Promise<ArrayBuffer> {
  let response: Response;
  try {
    response = await fetch(`/api${path}`);
  } catch {
    throw new Unreachable();
  }
  if (response.ok) return response.arrayBuffer();
  const body: unknown = await response.json().catch(() => null);
  throw new ApiProblem(problemIn(body, response.status));
}

/** Puts a picture in its place. */
export function putPicture<Result>(path: string, picture: Blob): Promise<Result> {
  const headers = { 'Content-Type': picture.type || 'image/png' };
  return call<Result>(path, { method: 'PUT', headers, body: picture });
}

/** Sends a list as it is. */
export function postList<Result>(path: string, list: Blob): Promise<Result> {
  return call<Result>(path, { method: 'POST', headers: { 'Content-Type': 'text/csv' }, body: list });
}

/** What to tell a person about whatever went wrong. */
export function sentenceOf(error: unknown): string {
  return error instanceof Error ? error.message : 'Something went wrong. Try again.';
}
