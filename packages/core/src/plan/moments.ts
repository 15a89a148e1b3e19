import type { Instant } from '../basics/index.js';

/** The earlier of two moments; null is none, and gives way. */
export function earlier(a: Instant | null, b: Instant | null): Instant | null {
  if (a === null) return b;
  return b === null ? a : Math.min(a, b);
}

/** The later of two moments; null is never, and rules. */
export function later(a: Instant | null, b: Instant | null): Instant | null {
  return a === null || b === null ? null : Math.max(a, b);
}
