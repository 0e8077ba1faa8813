import { index, type RouteConfig, route } from '@react-router/dev/routes'

export default [
  index('routes/sites.tsx'),
  route('import', 'routes/import.tsx'),
  route('unit', 'routes/unit.ts'),
  route('sites/:site', 'routes/site.tsx', [
    index('routes/board.tsx'),
    route('needs', 'routes/needs.tsx'),
    route('policy', 'routes/policy.tsx'),
    route('runs/new', 'routes/run/new-run.tsx'),
    route('runs/:run', 'routes/run/run.tsx'),
  ]),
  route('sites/:site/plan.json', 'routes/plan-file.ts'),
  route('*', 'routes/nowhere.tsx'),
] satisfies RouteConfig
