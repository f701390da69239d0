import { defineConfig } from '@playwright/test';

export default defineConfig({
  // browser: on the demo; first-day and two-people: on an empty database, each file once; several: several processes of each kind;
  // past: a small demo with three months of work behind it; large: a demo eight times as large
  testDir: 'tests',
  testMatch: ['{browser,first-day,two-people,several,past,large}/*.spec.ts'],
  workers: 1,
  // Long enough for a machine that stalls: what is slow shows in the benchmarks, not here.
  timeout: 180_000,
  expect: { timeout: 45_000 },
  reporter: [
    ['list'],
    ['json', { outputFile: process.env.GATEPOST_TEST_REPORT ?? 'test-results/browser.json' }],
  ],
  use: {
    baseURL: process.env.GATEPOST_TEST_URL,
    viewport: { width: 1280, height: 800 },
    trace: 'retain-on-failure',
    launchOptions: {
      executablePath: '/usr/bin/chromium',
      args: [
        ...['--headless', '--no-sandbox', '--disable-gpu', '--disable-quic', '--no-first-run'],
        ...['--disable-background-networking', '--disable-component-update', '--disable-sync'],
      ],
    },
  },
});
