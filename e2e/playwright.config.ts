import { defineConfig } from '@playwright/test';
import { join } from 'node:path';

const results = process.env['VISOGRAPH_RESULTS'] ?? join(import.meta.dirname, '../.visograph/test-results');

export default defineConfig({
  testDir: import.meta.dirname,
  outputDir: join(results, 'e2e'),
  workers: 2,
  fullyParallel: false,
  // Wide enough for a machine that is three times as slow: a step that fails has a reason.
  timeout: 150_000,
  // What fails is tried again to tell a fault from an accident; passing then is no pass.
  retries: 1,
  failOnFlakyTests: true,
  expect: { timeout: 20_000 },
  reporter: [['list'], ['json', { outputFile: join(results, 'playwright.json') }]],
  use: {
    viewport: { width: 1280, height: 800 },
    trace: 'off',
    // A step that waits for what never comes says so soon.
    actionTimeout: 30_000,
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
