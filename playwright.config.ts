import { defineConfig } from '@playwright/test'

export default defineConfig({
  testDir: 'e2e',
  outputDir: '.out/playwright',
  workers: 1,
  fullyParallel: false,
  retries: 0,
  timeout: 120_000,
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
