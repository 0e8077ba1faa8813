import { defineConfig } from '@playwright/test'
import { chromium, PORT } from './tests/support/browser'

export default defineConfig({
  testDir: 'tests/browser',
  outputDir: 'test-results/browser',
  // two cores: one for the browser, one for the server and its database
  workers: 1,
  forbidOnly: Boolean(process.env.CI),
  timeout: 120_000,
  // a busy machine answers later, and no worse
  expect: { timeout: 15_000 },
  reporter: process.env.CI ? [['line'], ['json', { outputFile: 'test-results/browser.json' }]] : [['list']],
  use: {
    baseURL: `http://127.0.0.1:${PORT}`,
    viewport: { width: 1280, height: 800 },
    launchOptions: chromium,
  },
  webServer: {
    command: `./hallway demo --port ${PORT}`,
    url: `http://127.0.0.1:${PORT}/health`,
    env: { HALLWAY_HOME: 'test-results/home', HALLWAY_LOG: 'error' },
    gracefulShutdown: { signal: 'SIGTERM', timeout: 10_000 },
    timeout: 180_000,
    reuseExistingServer: false,
  },
})
