import type { Instant } from '@entretien/core/basics';
import { futureProblem } from '@entretien/core/hours';
import { impossible } from './problem.js';

/** Nobody puts down by hand what happened before: it is a slip of the year. */
const EARLIEST = Date.UTC(1980, 0, 1);

/** Refuses a moment of work that lies too far back to be one. */
export function refuseLongAgo(at: Instant, field: string): void {
  if (at >= EARLIEST) return;
  const sentence = 'That lies before 1980. Is the year a slip?';
  throw impossible({ code: 'too-long-ago', field, sentence });
}

/** Refuses a moment that has not come yet, in the words of a zone. */
export function refuseAhead(at: Instant, field: string, context: { now: Instant; timeZone: string }): void {
  const future = futureProblem(at, field, context);
  if (future) throw impossible(future);
}
