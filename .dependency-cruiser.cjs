/** Imports run one way: app -> server -> core, and nowhere in a circle. */
module.exports = {
  forbidden: [
    {
      name: 'no-circle',
      severity: 'error',
      from: {},
      to: { circular: true },
    },
    {
      name: 'no-folder-circle',
      comment: 'The rooms of the trade stand on one another: no folder of core leads back to itself through another.',
      severity: 'error',
      scope: 'folder',
      from: { path: '^core/[^/]+$' },
      to: { circular: true, path: '^core/[^/]+$' },
    },
    {
      name: 'core-stands-alone',
      comment:
        'The trade knows no screen, no database, no server and no Node; schemas, statistics and queues are packages that know none either.',
      severity: 'error',
      from: { path: '^core/', pathNot: '\\.test\\.ts$' },
      to: { pathNot: ['^core/', '^node_modules/(zod|simple-statistics|jstat|flatqueue|@noble/hashes)/'] },
    },
    {
      name: 'server-knows-no-screen',
      severity: 'error',
      from: { path: '^server/', pathNot: '\\.test\\.ts$' },
      to: { path: ['^app/', '^node_modules/(react|react-dom|@chakra-ui)/'] },
    },
    {
      name: 'interface-parts-know-no-server',
      comment: 'Only routes (their loaders and actions), the entry and .server files may reach the server.',
      severity: 'error',
      from: { path: '^app/(ui|theme)/' },
      to: { path: '^server/' },
    },
    {
      name: 'no-tests-in-code',
      severity: 'error',
      from: { path: '^(core|server|app)/', pathNot: '\\.test\\.ts$' },
      to: { path: '^tests/' },
    },
    {
      name: 'no-unresolved',
      severity: 'error',
      from: {},
      to: { couldNotResolve: true, pathNot: '^\\./\\+types/|\\?url$|^virtual:' },
    },
  ],
  options: {
    doNotFollow: { path: 'node_modules' },
    exclude: { path: ['\\+types', '\\.test\\.tsx?$'] },
    tsPreCompilationDeps: true,
    tsConfig: { fileName: 'tsconfig.json' },
    enhancedResolveOptions: { exportsFields: ['exports'], conditionNames: ['import', 'require', 'node', 'default'] },
  },
}
