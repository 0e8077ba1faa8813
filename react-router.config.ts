import type { Config } from '@react-router/dev/config'

export default {
  ssr: true,
  // all of them at once: a page without a line cannot ask where another is
  routeDiscovery: { mode: 'initial' },
  // beside the command line's own bundle in build/command
  buildDirectory: 'build/app',
  future: {
    v8_middleware: true,
    v8_splitRouteModules: true,
    v8_viteEnvironmentApi: true,
    v8_passThroughRequests: true,
    v8_trailingSlashAwareDataRequests: true,
  },
} satisfies Config
