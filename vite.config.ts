import { reactRouter } from '@react-router/dev/vite'
import { defineConfig } from 'vite'

export default defineConfig({
  plugins: [reactRouter()],
  resolve: { tsconfigPaths: true },
  worker: { format: 'es' },
  optimizeDeps: {
    exclude: ['knex', 'mysql2', 'pino'],
    include: ['@chakra-ui/react', '@conform-to/react', '@conform-to/zod/v4', 'next-themes', 'zod'],
  },
})
