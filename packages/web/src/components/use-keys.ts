import { useEffect, useEffectEvent } from 'react';
import { usePreferences } from '../data/preferences.js';

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
