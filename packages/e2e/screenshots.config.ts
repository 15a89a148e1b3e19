import { defineConfig } from '@playwright/test';
import { desk, sharedConfig } from './shared.config.js';

export default defineConfig(sharedConfig, {
  testDir: './screenshots',
  testMatch: '*.shots.ts',
  reporter: 'list',
  use: { viewport: desk, colorScheme: 'light' },
});
