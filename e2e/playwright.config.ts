import { defineConfig } from '@playwright/test';
import { join } from 'node:path';

const results = process.env['VISOGRAPH_RESULTS'] ?? join(import.meta.dirname, '../.visograph/test-results');

export default defineConfig({
  testDir: import.meta.dirname,
  outputDir: join(results, 'e2e'),
  workers: 2,
  fullyParallel: false,
  timeout: 60_000,
  // A step that failed once on a busy machine is tried again and listed as flaky.
  retries: 1,
  expect: { timeout: 8_000 },
  reporter: [['list'], ['json', { outputFile: join(results, 'playwright.json') }]],
  use: {
    viewport: { width: 1280, height: 800 },
    trace: 'off',
    // A step that waits for what never comes says so soon.
    actionTimeout: 20_000,
    launchOptions: {
      executablePath: process.env['CHROMIUM'] ?? '/usr/bin/chromium',
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
