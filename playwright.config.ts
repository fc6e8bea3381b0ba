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
      args: [
        '--no-sandbox',
        '--disable-gpu',
        '--disable-background-networking',
        '--disable-component-update',
        '--disable-sync',
        '--no-first-run',
        '--disable-quic',
      ],
    },
  },
});
