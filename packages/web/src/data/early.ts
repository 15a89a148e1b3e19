declare global {
  interface Window {
    /** What was asked before the page’s own scripts were read; see `first-asks.ts`. */
    entretienEarly?: Record<string, Promise<Response>>;
  }
}

/** An answer that nobody wanted for so long is an old one. */
const FRESH_FOR_MS = 30_000;
const began = performance.now();

/**
 * The answer that is already under way to this address, once: whoever asks again wants a newer one.
 *
 * @param since milliseconds since the page's scripts began
 */
export function takeEarly(address: string, since = performance.now() - began): Promise<Response> | undefined {
  const early = window.entretienEarly;
  const answer = early?.[address];
  if (answer) delete early[address];
  return since < FRESH_FOR_MS ? answer : undefined;
}

/** What was asked before something was recorded no longer holds. */
export function dropEarly(): void {
  delete window.entretienEarly;
}
