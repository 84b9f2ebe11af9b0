import { defineConfig } from '@playwright/test'
import { BROWSER_ARGS, findChromium } from './scripts/steps.mjs'

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
      args: BROWSER_ARGS,
    },
    locale: 'en-GB',
    timezoneId: 'Europe/Lisbon',
    screenshot: 'only-on-failure',
  },
})
