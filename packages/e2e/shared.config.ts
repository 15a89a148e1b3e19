import { resolve } from 'node:path';
import type { PlaywrightTestConfig } from '@playwright/test';
import { ZONE } from './clock.js';

export const desk = { width: 1280, height: 800 };
export const phone = { width: 390, height: 844 };

/** Debian's Chromium without a window, and the demonstration data that every test starts from. */
export const sharedConfig: PlaywrightTestConfig = {
  outputDir: resolve(import.meta.dirname, '../../test-results'),
  globalSetup: resolve(import.meta.dirname, 'template.ts'),
  fullyParallel: true,
  workers: 2,
  retries: 0,
  // These bounds end what hangs; they measure nothing, and a busy machine is met often.
  timeout: 360_000,
  expect: { timeout: 60_000 },
  use: {
    // What a service worker fetches cannot be intercepted; the tests of a lost connection let it in.
    serviceWorkers: 'block',
    locale: 'en-GB',
    timezoneId: ZONE,
    contextOptions: { reducedMotion: 'reduce' },
    actionTimeout: 120_000,
    launchOptions: {
      executablePath: '/usr/bin/chromium-headless-shell',
      args: [
        '--no-sandbox',
        '--disable-gpu',
        '--disable-background-networking',
        '--disable-component-update',
        '--disable-sync',
        '--no-first-run',
        // Letters stand where the page puts them, as on a screen of today.
        '--font-render-hinting=none',
      ],
    },
  },
};
