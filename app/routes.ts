import { index, type RouteConfig, route } from '@react-router/dev/routes'

export default [
  index('routes/sites.tsx'),
  route('import', 'routes/import.tsx'),
  route('unit', 'routes/unit.ts'),
  route('sites/:site', 'routes/site.tsx', [
    index('routes/board.tsx'),
    route('needs', 'routes/needs.tsx'),
    route('policy', 'routes/policy.tsx'),
    route('drawer', 'routes/drawer/drawer.tsx', [
      index('routes/drawer/cables.tsx'),
      route('add', 'routes/drawer/add-cable.tsx'),
      route('import', 'routes/drawer/import-table.tsx'),
      route('chip', 'routes/drawer/chip.tsx'),
      route('tags', 'routes/drawer/tags.tsx'),
      route('sessions', 'routes/drawer/sessions.tsx'),
      route('sessions/new', 'routes/drawer/new-session.tsx'),
      route('sessions/:session', 'routes/drawer/session.tsx'),
      route('catalogue', 'routes/drawer/catalogue.tsx'),
    ]),
    route('cables/:cable', 'routes/drawer/cable.tsx'),
    route('runs/new', 'routes/run/new-run.tsx'),
    route('runs/:run', 'routes/run/run.tsx'),
  ]),
  route('sites/:site/plan.json', 'routes/plan-file.ts'),
  route('sites/:site/drawer.csv', 'routes/drawer/drawer-file.ts'),
  route('sites/:site/catalogue.csv', 'routes/drawer/catalogue-file.ts'),
  route('sites/:site/drawer/tags.pdf', 'routes/drawer/tags-pdf.ts'),
  route('sites/:site/drawer/tags.svg', 'routes/drawer/tags-svg.ts'),
  route('sites/:site/drawer/sessions/:session/meter', 'routes/drawer/meter.ts'),
  route('*', 'routes/nowhere.tsx'),
] satisfies RouteConfig
