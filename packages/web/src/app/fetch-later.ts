import { useEffect } from 'react';

const FETCHED_AFTER_MS = 3000;

/** What the frame opens only when it is asked for. */
const parts: readonly (() => Promise<unknown>)[] = [
  () => import('./OutboxDialog.js'),
  () => import('../data/refuse-malformed.js'),
  () => import('./PersonPanel.js'),
  () => import('./SayWho.js'),
  () => import('./KeysDialog.js'),
  () => import('./FindBox.js'),
];

/**
 * Fetches the parts of the frame after the page and before anybody asks: some are wanted just when nothing can be
 * fetched any more.
 */
export function useFetchLater(): void {
  useEffect(() => {
    const later = setTimeout(() => {
      for (const fetchPart of parts) void fetchPart().catch(() => undefined);
    }, FETCHED_AFTER_MS);
    return () => clearTimeout(later);
  }, []);
}
