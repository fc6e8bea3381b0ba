import { CHROMIUM_FLAGS } from './scripts/run/chromiumFlags';
import { defineConfig } from '@playwright/test';

export default defineConfig({
  testDir: 'tests/e2e',
  timeout: 90_000,
  expect: { timeout: 20_000 },
  workers: 1,
  forbidOnly: true,
  outputDir: 'test-results',
  use: {
    baseURL: process.env.OCULON_TEST_ADDRESS ?? 'http://localhost:4180',
    viewport: { width: 1280, height: 800 },
    launchOptions: {
      executablePath: process.env.OCULON_CHROMIUM ?? '/usr/bin/chromium',
      args: CHROMIUM_FLAGS,
    },
  },
});
