import { defineConfig } from '@playwright/test'
import tests from './playwright.config'
import { PORT } from './tests/support/browser'

/** Makes docs/screenshots anew from the demo data: npm run screenshots. */
const home = 'test-results/screenshots'

export default defineConfig({
  ...tests,
  testDir: 'tests/screenshots',
  reporter: [['list']],
  webServer: {
    ...(tests.webServer as object),
    // always from the demo data alone
    command: `rm -rf ${home} && exec ./hallway demo --port ${PORT}`,
    url: `http://127.0.0.1:${PORT}/health`,
    env: { HALLWAY_HOME: home, HALLWAY_LOG: 'error' },
  },
})
