import { defineConfig } from '@playwright/test'
import { findChromium } from './scripts/steps.mjs'

export default defineConfig({
  testDir: 'tests/e2e',
  globalSetup: './tests/e2e/support/setup.ts',
  timeout: 120_000,
  // A busy machine of two cores draws late; what must hold is the same.
  expect: { timeout: 20_000 },
  workers: 2,
  fullyParallel: false,
  retries: 0,
  use: {
    launchOptions: {
      executablePath: findChromium(),
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
    locale: 'en-GB',
    timezoneId: 'Europe/Lisbon',
    screenshot: 'only-on-failure',
  },
})
