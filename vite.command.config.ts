import { defineConfig } from 'vite'

/** The command line as one small bundle, so that `./hallway check` starts at once. */
export default defineConfig({
  resolve: { tsconfigPaths: true },
  // Zod inside, as its many files cost more to find than to run; everything else stays a package
  ssr: { noExternal: ['zod'] },
  build: {
    ssr: true,
    outDir: 'build/command',
    target: 'node20',
    copyPublicDir: false,
    rollupOptions: {
      // beside the command line what it does on threads of their own
      input: { hallway: 'server/command/main.ts', 'off-thread': 'app/off-thread-entry.ts' },
      output: { entryFileNames: '[name].js', chunkFileNames: '[name]-[hash].js' },
    },
  },
})
