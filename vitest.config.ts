import { availableParallelism } from 'node:os'
import { defineConfig } from 'vitest/config'

export default defineConfig({
  test: {
    // every core: by itself Vitest leaves one idle, which is half of a small machine
    maxWorkers: availableParallelism(),
    coverage: { include: ['core/**/*.ts'], exclude: ['**/*.test.ts'] },
    projects: [
      {
        test: {
          name: 'core',
          include: ['core/**/*.test.ts', 'app/**/*.test.ts', 'tests/reference/**/*.test.ts'],
          // what they test keeps nothing that could tell, so it is read once and not once a file
          isolate: false,
          pool: 'threads',
          // properties over many made-up plans
          testTimeout: 180_000,
        },
      },
      {
        test: {
          name: 'server',
          include: ['server/**/*.test.ts'],
          globalSetup: ['tests/support/private-database.ts'],
          testTimeout: 180_000,
          hookTimeout: 180_000,
        },
      },
      {
        // long; not part of every run
        test: { name: 'endurance', include: ['tests/endurance/**/*.test.ts'], hookTimeout: 180_000 },
      },
      {
        test: { name: 'command', include: ['tests/command/**/*.test.ts'], testTimeout: 180_000, hookTimeout: 180_000 },
      },
    ],
  },
})
