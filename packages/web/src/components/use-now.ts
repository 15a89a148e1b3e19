import { useSyncExternalStore } from 'react';
import { currentInstant } from '../data/clock.js';

const MINUTE_MS = 60_000;

let now = currentInstant();
const listeners = new Set<() => void>();
let timer: ReturnType<typeof setInterval> | undefined;

function tick(): void {
  now = currentInstant();
  for (const listener of listeners) listener();
}

function subscribe(listener: () => void): () => void {
  listeners.add(listener);
  timer ??= setInterval(tick, MINUTE_MS);
  return () => {
    listeners.delete(listener);
    if (listeners.size > 0) return;
    clearInterval(timer);
    timer = undefined;
  };
}

function snapshot(): number {
  // While nobody listened the clock stood still: it is set when somebody looks again.
  if (timer === undefined) now = currentInstant();
  return now;
}

/** Now, to the minute: what is shown moves on by itself. */
export function useNow(): number {
  return useSyncExternalStore(subscribe, snapshot);
}
