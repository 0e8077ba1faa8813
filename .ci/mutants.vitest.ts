import { defineConfig } from 'vitest/config'

/** The tests that small faults are held against, as `npm run mutants` names them. */
export default defineConfig({
  test: {
    include: (process.env.HALLWAY_MUTANTS ?? 'core/**/*.test.ts').split(','),
    setupFiles: ['tests/support/laws.ts'],
    testTimeout: 60_000,
  },
})
