import { resolve } from 'node:path';
import type { PlaywrightTestConfig } from '@playwright/test';

export const desk = { width: 1280, height: 800 };
export const phone = { width: 390, height: 844 };

/** Debian's Chromium, and the demonstration data that every server starts from. */
export const sharedConfig: PlaywrightTestConfig = {
  outputDir: resolve(import.meta.dirname, '../../test-results'),
  globalSetup: resolve(import.meta.dirname, 'fresh-server.ts'),
  fullyParallel: true,
  workers: 2,
  retries: 0,
  timeout: 60_000,
  expect: { timeout: 10_000 },
  use: {
    // What a service worker fetches cannot be intercepted; the tests of a lost connection let it in.
    serviceWorkers: 'block',
    locale: 'en-GB',
    timezoneId: 'Europe/Zurich',
    actionTimeout: 15_000,
    launchOptions: {
      executablePath: '/usr/bin/chromium',
      args: [
        '--no-sandbox',
        '--disable-gpu',
        '--disable-background-networking',
        '--disable-component-update',
        '--disable-sync',
        '--no-first-run',
      ],
    },
  },
};
