import { reactRouter } from '@react-router/dev/vite'
import { defineConfig } from 'vite'
import { compression } from 'vite-plugin-compression2'

export default defineConfig({
  // zipped once, as small as can be, and not for each browser anew
  plugins: [
    reactRouter(),
    // what only the server reads lies in no such folder, and stays as it is
    compression({ include: /assets\/[^/]+\.(js|css|svg)$/, threshold: 1000, algorithms: ['gzip', 'brotliCompress'] }),
  ],
  resolve: { tsconfigPaths: true },
  worker: { format: 'es' },
  // inside what is built for the server, as their some two thousand files cost more to find than to run: a start waits for them
  ssr: {
    noExternal: [/^@(chakra-ui|ark-ui|zag-js|emotion|internationalized|conform-to|tanstack|floating-ui)\//, 'zod'],
  },
  environments: {
    client: {
      build: {
        // few files: a browser asks for six at a time, and the first paint waits for the styles among them
        rolldownOptions: {
          output: {
            codeSplitting: {
              groups: [
                {
                  name: 'framework',
                  test: /node_modules\/(react|react-dom|scheduler|react-router|cookie|set-cookie-parser|@chakra-ui|@emotion|@ark-ui|@zag-js|next-themes|stylis)\//,
                },
                { name: 'forms', test: /node_modules\/(zod|@conform-to)\// },
                // packages have a folder of that name as well
                {
                  name: 'trade',
                  test: /^(?!.*node_modules)(?!.*\/core\/(survey\/|identity\/|bench\/|tags\/|remedy\/|order\/|plan\/policy-choices)).*\/core\//,
                },
                // what draws charts is large, and fetched where there is one
                { name: 'site', test: /\/app\/(ui\/(?!charts)|theme|site-copy|open-copy|in-slices)/ },
              ],
            },
          },
        },
      },
    },
  },
  optimizeDeps: {
    exclude: ['knex', 'mysql2', 'pdfmake', 'pino', 'qrcode', 'tar-stream'],
    include: [
      '@chakra-ui/react',
      '@chakra-ui/react/theme',
      '@conform-to/react',
      '@conform-to/zod/v4',
      '@tanstack/react-table',
      '@tanstack/react-virtual',
      'next-themes',
      'papaparse',
      'zod',
    ],
  },
})
