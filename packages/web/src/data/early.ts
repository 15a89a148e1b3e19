declare global {
  interface Window {
    /** What was asked before the page’s own scripts were read; see `first-asks.ts`. */
    entretienEarly?: Record<string, Promise<Response>>;
  }
}

/** An answer that nobody wanted for so long is an old one. */
const FRESH_FOR_MS = 30_000;

/**
 * The answer that is already under way to this address, once: whoever asks again wants a newer one.
 *
 * @param now milliseconds since the page began
 */
export function takeEarly(address: string, now = performance.now()): Promise<Response> | undefined {
  const early = window.entretienEarly;
  const answer = early?.[address];
  if (answer) delete early[address];
  return now < FRESH_FOR_MS ? answer : undefined;
}

/** What was asked before something was recorded no longer holds. */
export function dropEarly(): void {
  delete window.entretienEarly;
}
