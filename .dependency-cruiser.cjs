/** Import rules: core <- contract <- server, web. A feature is reached only through its index.ts. */
module.exports = {
  forbidden: [
    { name: 'no-cycles', severity: 'error', from: {}, to: { circular: true, viaOnly: { dependencyTypesNot: ['type-only'] } } },
    {
      name: 'core-stands-alone',
      severity: 'error',
      from: { path: '^packages/core/src' },
      to: { path: '^(packages/contract|apps|demo|e2e)' },
    },
    { name: 'contract-knows-only-core', severity: 'error', from: { path: '^packages/contract/src' }, to: { path: '^(apps|demo|e2e)' } },
    { name: 'web-and-server-apart', severity: 'error', from: { path: '^apps/web/src' }, to: { path: '^(apps/server|apps/standins|demo)' } },
    { name: 'server-knows-no-web', severity: 'error', from: { path: '^apps/server/src' }, to: { path: '^(apps/web|apps/standins|demo)' } },
    {
      name: 'platform-knows-no-feature',
      severity: 'error',
      from: { path: '^apps/server/src/platform', pathNot: '[.]test[.]ts$' },
      to: { path: '^apps/server/src/features' },
    },
    {
      name: 'feature-only-through-index',
      severity: 'error',
      from: { path: '^apps/server/src/features/([^/]+)/', pathNot: '[.]test[.]ts$' },
      to: {
        path: '^apps/server/src/features/([^/]+)/',
        pathNot: ['^apps/server/src/features/$1/', '^apps/server/src/features/[^/]+/index[.]ts$'],
      },
    },
    {
      name: 'radix-only-in-ui',
      severity: 'error',
      from: { path: '^apps/web/src', pathNot: '^apps/web/src/ui/' },
      to: { path: 'node_modules/radix-ui' },
    },
    {
      name: 'ui-knows-no-feature',
      severity: 'error',
      from: { path: '^apps/web/src/ui/' },
      to: { path: '^apps/web/src/(features|shell)/' },
    },
    {
      name: 'ui-calls-no-api',
      severity: 'error',
      from: { path: '^apps/web/src/ui/' },
      to: {
        path: '^apps/web/src/(api|parts)/|^apps/web/src/lib/(queries|placements|use-live|use-answer)[.]|node_modules/@tanstack/react-query',
        dependencyTypesNot: ['type-only'],
      },
    },
    {
      name: 'api-and-parts-know-no-feature',
      severity: 'error',
      from: { path: '^apps/web/src/(api|parts|lib)/' },
      to: { path: '^apps/web/src/(features|shell)/' },
    },
    {
      name: 'small-entries-stay-small',
      severity: 'error',
      from: { path: '^apps/web/src/(ask|room)/' },
      to: { path: '(node_modules/(react-router|@tanstack|@dnd-kit|date-holidays)|^apps/web/src/(features|shell)/)' },
    },
  ],
  options: {
    doNotFollow: { path: 'node_modules' },
    exclude: { path: '^(packages/[^/]+|apps/[^/]+|demo)/dist/' },
    tsPreCompilationDeps: true,
    tsConfig: { fileName: 'tsconfig.tests.json' },
  },
};
