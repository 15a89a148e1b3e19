import { defineConfig } from '@playwright/test';
import { desk, phone, sharedConfig } from './shared.config.js';

export default defineConfig(sharedConfig, {
  testDir: './tests',
  reporter: [['list'], ['json']],
  projects: [
    { name: 'desk', use: { viewport: desk } },
    { name: 'phone', use: { viewport: phone, hasTouch: true, isMobile: true } },
  ],
});
