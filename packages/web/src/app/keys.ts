import { useKeys } from '../components/use-keys.js';
import { usePreferences } from '../data/preferences.js';

/** The keys of a desk, and what they do. */
export const keyHelp: readonly (readonly [string, string])[] = [
  ['n', 'New reading, on a unit’s page'],
  ['m', 'Measure, on a unit’s page'],
  ['/', 'Find a unit'],
  ['[ and ]', 'Previous and next unit'],
  ['h', 'Rulers in hours or days'],
  ['?', 'All shortcuts'],
];

export const FIND_BOX_ID = 'find-a-unit';

/** The keys that work everywhere. */
export function useShellKeys({ onShowKeys }: { readonly onShowKeys: () => void }): void {
  const toggleRuler = usePreferences((preferences) => preferences.toggleRuler);
  useKeys({
    '/': () => document.getElementById(FIND_BOX_ID)?.focus(),
    h: toggleRuler,
    '?': onShowKeys,
  });
}
