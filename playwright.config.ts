import { defineConfig } from '@playwright/test';

export default defineConfig({
  testDir: 'tests/browser',
  outputDir: 'tests/.out/browser',
  // Waiting ends when the thing is there; the limits only bound a run on a busy machine.
  timeout: 300_000,
  expect: { timeout: 40_000 },
  // A second try where nobody watches; what needed one is named at the end.
  retries: process.env.CI ? 2 : 0,
  workers: 1,
  fullyParallel: false,
  reporter: process.env.PLAYWRIGHT_JSON_OUTPUT_NAME ? [['list'], ['json']] : [['list']],
  use: {
    baseURL: `http://127.0.0.1:${process.env.NETTING_PORT}`,
    viewport: { width: 1280, height: 800 },
    screenshot: 'only-on-failure',
    actionTimeout: 60_000,
    navigationTimeout: 60_000,
    launchOptions: {
      executablePath: process.env.CHROMIUM ?? '/usr/bin/chromium',
      args: ['--no-sandbox', '--disable-gpu', '--disable-dev-shm-usage', '--disable-background-networking'],
    },
  },
});
