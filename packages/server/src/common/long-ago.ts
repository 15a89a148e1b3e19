import type { Instant } from '@entretien/core/basics';
import { impossible } from './problem.js';

/** Nobody puts down by hand what happened before: it is a slip of the year. */
const EARLIEST = Date.UTC(1980, 0, 1);

/** Refuses a moment of work that lies too far back to be one. */
export function refuseLongAgo(at: Instant, field: string): void {
  if (at >= EARLIEST) return;
  const sentence = 'That lies before 1980. Is the year a slip?';
  throw impossible({ code: 'too-long-ago', field, sentence });
}
