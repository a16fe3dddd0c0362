import { defineConfig } from '@playwright/test'

export default defineConfig({
  testDir: 'e2e',
  outputDir: '.out/playwright',
  // One browser and one server a core; the tests of a file run one after another.
  workers: 2,
  fullyParallel: false,
  retries: 0,
  timeout: 120_000,
  expect: { timeout: 15_000 },
  forbidOnly: !!process.env.CI,
  reporter: [['list'], ['json', { outputFile: '.out/playwright.json' }]],
  use: {
    viewport: { width: 1280, height: 800 },
    browserName: 'chromium',
    locale: 'en-GB',
    launchOptions: {
      executablePath: process.env.CHROMIUM ?? '/usr/bin/chromium',
      args: [
        '--no-sandbox',
        '--disable-quic',
        '--no-first-run',
        '--disable-background-networking',
        '--disable-component-update',
        '--disable-sync',
        '--disable-gpu',
      ],
    },
    screenshot: 'only-on-failure',
  },
})
