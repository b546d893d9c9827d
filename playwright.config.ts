import { defineConfig } from '@playwright/test'

export default defineConfig({
  testDir: 'tests/e2e',
  globalSetup: './tests/e2e/setup.ts',
  // Two cores: while one journey waits for its page, another goes on. Beside other checks (./test) one at a time is quicker.
  workers: 2,
  fullyParallel: true,
  // Generous: in ./test two other things go on beside the browser, on two cores.
  timeout: 180_000,
  expect: { timeout: 20_000 },
  reporter: [['list']],
  use: {
    viewport: { width: 1280, height: 800 },
    timezoneId: 'America/Halifax',
    locale: 'en-CA',
    screenshot: 'only-on-failure',
    actionTimeout: 30_000,
    launchOptions: {
      executablePath: '/usr/bin/chromium-headless-shell',
      args: [
        '--no-sandbox',
        '--disable-gpu',
        '--disable-background-networking',
        '--disable-component-update',
        '--disable-sync',
        // Letters where the type sets them, not on whole pixels: as on a screen.
        '--font-render-hinting=none',
      ],
    },
  },
})
