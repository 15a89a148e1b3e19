/** What went wrong, as a value: a stable code for programs, a sentence for people. */
export interface Problem {
  readonly code: string;
  readonly sentence: string;
  /** The field the sentence belongs beside, where there is one. */
  readonly field?: string;
}

/** Either a value, or the problem that stood in its way. */
export type Result<T> =
  { readonly ok: true; readonly value: T } | { readonly ok: false; readonly problem: Problem };

export function ok<T>(value: T): Result<T> {
  return { ok: true, value };
}

export function err(code: string, sentence: string, field?: string): Result<never> {
  return { ok: false, problem: field === undefined ? { code, sentence } : { code, sentence, field } };
}
