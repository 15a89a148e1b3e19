import { KEPT_HEADER } from '../sw/answer-to.js';

/** How soon the server is asked again after the device answered for it; each time that is in vain it waits longer. */
const [FIRST_MS, MOST_MS] = [4000, 60_000];

let wait = FIRST_MS;
let timer: ReturnType<typeof setTimeout> | null = null;
let askAgain: () => void = () => undefined;

/** What is to be done when the server may have an answer of its own by now. */
export function onAskAgain(listener: () => void): () => void {
  askAgain = listener;
  return () => {
    askAgain = () => undefined;
    if (timer !== null) clearTimeout(timer);
    timer = null;
    wait = FIRST_MS;
  };
}

/**
 * Looks at who answered. What the device has kept may be older than what was sent meanwhile: a connection that is
 * back for the page can be away for the worker for a moment longer. Without any connection nobody need be asked:
 * everything is, as soon as it is back.
 */
export function noteAnswer(headers: Headers): void {
  if (!headers.has(KEPT_HEADER)) {
    wait = FIRST_MS;
    return;
  }
  if (timer !== null || !navigator.onLine) return;
  timer = setTimeout(() => {
    timer = null;
    wait = Math.min(MOST_MS, wait * 2);
    askAgain();
  }, wait);
}
