declare global {
  interface Window {
    /** What was asked before the page’s own scripts were read; see `first-asks.ts`. */
    entretienEarly?: Record<string, Promise<Response>>;
  }
}

/** The answer that is already under way to this address, once: whoever asks again wants a newer one. */
export function takeEarly(address: string): Promise<Response> | undefined {
  const early = window.entretienEarly;
  const answer = early?.[address];
  if (answer) delete early[address];
  return answer;
}
