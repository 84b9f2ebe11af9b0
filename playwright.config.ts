import { defineConfig } from '@playwright/test'
import { BROWSER_ARGS, findChromium } from './scripts/steps.mjs'

export default defineConfig({
  testDir: 'tests/e2e',
  globalSetup: './tests/e2e/support/setup.ts',
  // A busy machine of two cores draws late; what must hold is the same.
  timeout: 120_000,
  expect: { timeout: 20_000 },
  workers: 2,
  fullyParallel: false,
  // What needs a second go is mended at its cause.
  retries: 0,
  use: {
    launchOptions: {
      executablePath: findChromium(),
      args: BROWSER_ARGS,
    },
    // What a browser keeps between pages is tried where that is what is tried (home.spec.ts): elsewhere each page asks the server itself.
    serviceWorkers: 'block',
    locale: 'en-GB',
    timezoneId: 'Europe/Lisbon',
    // Fades are waited for, and are a quarter of the time; the path by mouse has them.
    contextOptions: { reducedMotion: 'reduce' },
    screenshot: 'only-on-failure',
    actionTimeout: 20_000,
  },
})
