import { defineConfig } from '@playwright/test';

const LONG = ['**/the-way.spec.ts', '**/own.spec.ts', '**/looks.spec.ts', '**/files.spec.ts'];

/** Browser tests in Debian's Chromium, against a server of their own on the throwaway cluster. */
export default defineConfig({
  testDir: '.',
  // the longest first, so that no worker waits for another at the end
  projects: process.env['ZESTING_SHOTS']
    ? [{ name: 'pictures', testMatch: '**/screenshots.ts' }]
    : [
        { name: 'long', testMatch: LONG },
        { name: 'rest', testMatch: '**/*.spec.ts', testIgnore: LONG },
      ],
  outputDir: '../test-results',
  // a slow machine is no fault: what is waited for comes or does not, and only what does not come costs this time
  timeout: 600_000,
  expect: { timeout: 90_000 },
  workers: 2,
  // told once more where it fails: what holds then is told apart from what holds at once, by name (tools/test.mjs)
  retries: 1,
  forbidOnly: true,
  reporter: [['list'], ['json']],
  use: {
    actionTimeout: 90_000,
    viewport: { width: 1280, height: 800 },
    locale: 'en-GB',
    timezoneId: 'Europe/London',
    // recording every step costs a third of the time: asked for when a failure is looked into
    trace: process.env['ZESTING_TRACE'] ? 'retain-on-failure' : 'off',
    screenshot: 'only-on-failure',
    launchOptions: {
      executablePath: process.env['ZESTING_BROWSER'] ?? '/usr/bin/chromium',
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
