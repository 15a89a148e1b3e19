import { useSyncExternalStore } from 'react';

/** What a browser hands over that can put the page among the device’s own programs. */
interface InstallEvent extends Event {
  prompt(): Promise<{ readonly outcome: 'accepted' | 'dismissed' }>;
}

let offered: InstallEvent | null = null;
const listeners = new Set<() => void>();

function put(event: InstallEvent | null): void {
  offered = event;
  listeners.forEach((listener) => listener());
}

/** Listens for the browser’s offer: it makes it once, whatever page is open then. */
export function waitForInstall(): void {
  window.addEventListener('beforeinstallprompt', (event) => {
    // Our own page says when; the browser’s bar would stand over the work.
    event.preventDefault();
    put(event as InstallEvent);
  });
  window.addEventListener('appinstalled', () => put(null));
}

function subscribe(listener: () => void): () => void {
  listeners.add(listener);
  return () => listeners.delete(listener);
}

/** Asks the device to take the page in; null where its browser offered nothing. */
export function useInstall(): (() => Promise<void>) | null {
  const event = useSyncExternalStore(subscribe, () => offered);
  if (event === null) return null;
  return async () => {
    await event.prompt();
    // An offer is good for one time.
    put(null);
  };
}

/** Whether it was opened from among the device’s own programs. */
export function isInstalled(): boolean {
  return window.matchMedia('(display-mode: standalone)').matches;
}
