import { availableParallelism } from 'node:os'
import { defineConfig } from 'vitest/config'
import { LongestFirst } from './.ci/longest-first'

// laws are tried as often as HALLWAY_LAWS says, on the cases of HALLWAY_SEED
const setupFiles = ['tests/support/laws.ts']

export default defineConfig({
  test: {
    // every core: by itself Vitest leaves one idle, which is half of a small machine
    maxWorkers: availableParallelism(),
    sequence: { sequencer: LongestFirst },
    coverage: { include: ['core/**/*.ts'], exclude: ['**/*.test.ts'] },
    projects: [
      {
        test: {
          name: 'core',
          include: ['core/**/*.test.ts', 'app/**/*.test.ts', 'tests/reference/**/*.test.ts'],
          // what they test keeps nothing that could tell, so it is read once and not once a file
          isolate: false,
          pool: 'threads',
          setupFiles,
          // properties over many made-up plans
          testTimeout: 180_000,
          // reading a solver may take a busy machine longer than ten seconds
          hookTimeout: 180_000,
        },
      },
      {
        test: {
          name: 'server',
          include: ['server/**/*.test.ts'],
          // modules are read once for each of the workers, which is most of the time of a short file
          isolate: false,
          globalSetup: ['tests/support/private-database.ts'],
          setupFiles,
          testTimeout: 180_000,
          hookTimeout: 180_000,
        },
      },
      {
        // long; not part of every run
        test: { name: 'endurance', include: ['tests/endurance/**/*.test.ts'], setupFiles, hookTimeout: 180_000 },
      },
      {
        // what takes long, reads large packages or asks a clock
        test: {
          name: 'night',
          include: ['tests/night/**/*.test.ts'],
          setupFiles,
          testTimeout: 600_000,
          hookTimeout: 180_000,
        },
      },
      {
        test: {
          name: 'command',
          include: ['tests/command/**/*.test.ts'],
          setupFiles,
          testTimeout: 180_000,
          hookTimeout: 180_000,
        },
      },
    ],
  },
})
