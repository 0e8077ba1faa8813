import { defineConfig } from 'vitest/config'

/** The tests that small faults are held against: all that read the core, wherever they stand, but those that read sources or ask other programs. */
export default defineConfig({
  test: {
    include: ['core/**/*.test.ts', 'app/**/*.test.ts', 'tests/reference/{order,faults,pathways,intervals}.test.ts'],
    setupFiles: ['tests/support/laws.ts'],
    testTimeout: 60_000,
  },
})
