import { chromium, type Browser } from 'playwright-core';

/** Debian's Chromium without a window, as the interface tests have it. */
export function launchBrowser(): Promise<Browser> {
  return chromium.launch({
    executablePath: '/usr/bin/chromium-headless-shell',
    args: ['--no-sandbox', '--disable-gpu', '--disable-background-networking', '--disable-component-update'],
  });
}
