import { reactRouter } from '@react-router/dev/vite'
import { defineConfig } from 'vite'

export default defineConfig({
  plugins: [reactRouter()],
  resolve: { tsconfigPaths: true },
  worker: { format: 'es' },
  optimizeDeps: {
    exclude: ['fflate', 'knex', 'mysql2', 'pdfmake', 'pino', 'qrcode', 'tar-stream'],
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
