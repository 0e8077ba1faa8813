import { defineConfig } from 'vitest/config'

export default defineConfig({
  resolve: { tsconfigPaths: true },
  test: {
    include: ['core/**/*.test.ts', 'server/**/*.test.ts', 'tests/reference/**/*.test.ts'],
    coverage: { include: ['core/**/*.ts'], exclude: ['**/*.test.ts'] },
  },
})
