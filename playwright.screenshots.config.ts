import { defineConfig } from '@playwright/test'
import tests from './playwright.config'

/** Makes docs/screenshots anew from the demo data: npm run screenshots. */
export default defineConfig({ ...tests, testDir: 'tests/screenshots', workers: 1, reporter: [['list']] })
