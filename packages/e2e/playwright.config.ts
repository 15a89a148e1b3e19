import { defineConfig } from '@playwright/test';
import { desk, phone, sharedConfig } from './shared.config.js';

/** On the phone only what differs there is tested: what is tagged @phone. */
export default defineConfig(sharedConfig, {
  testDir: './tests',
  reporter: [['list'], ['json']],
  projects: [
    { name: 'desk', use: { viewport: desk }, grepInvert: /@phone-only/ },
    { name: 'phone', use: { viewport: phone, hasTouch: true, isMobile: true }, grep: /@phone/ },
  ],
});
