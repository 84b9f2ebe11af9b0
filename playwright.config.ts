import { defineConfig } from '@playwright/test'
import { BROWSER_ARGS, findChromium } from './scripts/steps.mjs'

export default defineConfig({
  testDir: 'tests/e2e',
  globalSetup: './tests/e2e/support/setup.ts',
  // A busy machine of two cores draws late; what must hold is the same.
  timeout: 240_000,
  expect: { timeout: 20_000 },
  workers: 2,
  fullyParallel: false,
  // A second go is counted and said aloud at the end of `npm test`: what needs it often is a defect.
  retries: 1,
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
  },
})
