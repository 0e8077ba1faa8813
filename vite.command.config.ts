import { defineConfig } from 'vite'

/** The command line as one small bundle, so that `./hallway check` starts at once. */
export default defineConfig({
  resolve: { tsconfigPaths: true },
  // Zod inside, as its many files cost more to find than to run; everything else stays a package
  ssr: { noExternal: ['zod'] },
  build: {
    ssr: 'server/command/main.ts',
    outDir: 'build/command',
    target: 'node20',
    copyPublicDir: false,
    rollupOptions: { output: { entryFileNames: 'hallway.js', chunkFileNames: '[name]-[hash].js' } },
  },
})
