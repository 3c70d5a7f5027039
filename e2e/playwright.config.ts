import { defineConfig } from '@playwright/test';

// Debian's Chromium, without what it asks of hosts elsewhere at every start.
export default defineConfig({
  testDir: 'specs',
  workers: 2,
  fullyParallel: true,
  // A shared machine may stall once; a test that needed its second try is told as flaky.
  retries: process.env.CI ? 1 : 0,
  timeout: 60_000,
  expect: { timeout: 10_000 },
  reporter: 'line',
  use: {
    viewport: { width: 1280, height: 800 },
    launchOptions: {
      executablePath: '/usr/bin/chromium',
      args: [
        '--no-sandbox',
        '--disable-gpu',
        '--disable-quic',
        '--no-first-run',
        '--disable-background-networking',
        '--disable-component-update',
        '--disable-sync',
      ],
    },
  },
});
