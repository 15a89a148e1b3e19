import { useEffect, useEffectEvent } from 'react';
import { usePreferences } from './preferences.js';

/** The keys of a desk, and what they do. */
export const keyHelp: readonly (readonly [string, string])[] = [
  ['n', 'New reading, on a unit’s page'],
  ['m', 'Measure, on a unit’s page'],
  ['/', 'Find a unit'],
  ['[ and ]', 'Previous and next unit'],
  ['h', 'Rulers in hours or days'],
  ['?', 'All keys'],
];

export const FIND_BOX_ID = 'find-a-unit';

/** Whether somebody is typing, or a dialog is open: letters are letters then. */
function isBusy(target: EventTarget | null): boolean {
  const element = target as HTMLElement | null;
  return (
    element?.closest('input, textarea, select, [contenteditable=true], [role=menu]') !== null ||
    document.querySelector('[role=dialog]') !== null
  );
}

/** Listens to single keys while nobody is typing, unless they are switched off. */
export function useKeys(actions: Readonly<Record<string, () => void>>): void {
  const letterKeys = usePreferences((preferences) => preferences.letterKeys);
  const onKey = useEffectEvent((event: KeyboardEvent) => {
    const action = actions[event.key];
    if (!action || event.ctrlKey || event.metaKey || event.altKey || isBusy(event.target)) return;
    event.preventDefault();
    action();
  });
  useEffect(() => {
    if (!letterKeys) return;
    const listener = (event: KeyboardEvent) => onKey(event);
    document.addEventListener('keydown', listener);
    return () => document.removeEventListener('keydown', listener);
  }, [letterKeys]);
}

/** The keys that work everywhere. */
export function useShellKeys({ onShowKeys }: { readonly onShowKeys: () => void }): void {
  const toggleRuler = usePreferences((preferences) => preferences.toggleRuler);
  useKeys({
    '/': () => document.getElementById(FIND_BOX_ID)?.focus(),
    h: toggleRuler,
    '?': onShowKeys,
  });
}
