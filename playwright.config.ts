import { availableParallelism } from 'node:os'
import { defineConfig } from '@playwright/test'
import { chromium } from './tests/support/browser'

export default defineConfig({
  testDir: 'tests/browser',
  // a site of thousands takes a minute, and is opened at night
  testIgnore: process.env.HALLWAY_NIGHT ? [] : ['**/large.spec.ts'],
  outputDir: 'test-results/browser',
  // a browser and its Hallway keep little more than one core busy, so two of them share a small machine
  workers: Math.max(2, Math.floor(availableParallelism() / 2)),
  fullyParallel: true,
  forbidOnly: Boolean(process.env.CI),
  timeout: 300_000,
  // a busy machine answers later, and no worse
  expect: { timeout: 40_000 },
  reporter: process.env.CI ? [['line'], ['json', { outputFile: 'test-results/browser.json' }]] : [['list']],
  use: { viewport: { width: 1280, height: 800 }, launchOptions: chromium },
})
