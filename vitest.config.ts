import { defineConfig } from 'vitest/config'

export default defineConfig({
  test: {
    coverage: { include: ['core/**/*.ts'], exclude: ['**/*.test.ts'] },
    projects: [
      {
        test: {
          name: 'core',
          include: ['core/**/*.test.ts', 'app/**/*.test.ts', 'tests/reference/**/*.test.ts'],
          // properties over many made-up plans
          testTimeout: 60_000,
        },
      },
      {
        test: {
          name: 'server',
          include: ['server/**/*.test.ts'],
          globalSetup: ['tests/support/private-database.ts'],
          testTimeout: 60_000,
          hookTimeout: 40_000,
        },
      },
      {
        // long; not part of every run
        test: { name: 'endurance', include: ['tests/endurance/**/*.test.ts'], hookTimeout: 60_000 },
      },
      {
        test: { name: 'command', include: ['tests/command/**/*.test.ts'], testTimeout: 60_000, hookTimeout: 60_000 },
      },
    ],
  },
})
