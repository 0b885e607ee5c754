/** Arrows only point down: web, cli and server upon core and kernel; kernel upon core; core upon nothing of ours. */
const own = (name) => `^packages/${name}/`;
module.exports = {
  forbidden: [
    {
      name: 'no-cycles',
      severity: 'error',
      from: {},
      to: { circular: true, viaOnly: { dependencyTypesNot: ['type-only'] } },
    },
    {
      name: 'core-stands-alone',
      severity: 'error',
      from: { path: own('core') },
      to: { path: '^packages/(kernel|cli|server|web)/' },
    },
    {
      name: 'core-has-no-interface-code',
      severity: 'error',
      from: { path: own('core'), pathNot: '\\.test\\.ts$' },
      to: { path: 'node_modules/(vue|three|koa|sequelize|replicad-opencascadejs|comlink)|^(fs|path|node:.*)$' },
    },
    {
      name: 'kernel-upon-core-only',
      severity: 'error',
      from: { path: own('kernel') },
      to: { path: '^packages/(cli|server|web)/' },
    },
    {
      name: 'cli-upon-core-and-kernel',
      severity: 'error',
      from: { path: own('cli') },
      to: { path: '^packages/(server|web)/' },
    },
    {
      name: 'server-upon-core-and-kernel',
      severity: 'error',
      from: { path: own('server') },
      to: { path: '^packages/(cli|web)/' },
    },
    {
      name: 'web-upon-core-and-kernel',
      severity: 'error',
      from: { path: own('web') },
      to: { path: '^packages/(cli|server)/' },
    },
    {
      name: 'page-thread-has-no-kernel',
      severity: 'error',
      from: { path: own('web'), pathNot: '\\.worker\\.ts$' },
      to: { path: '^packages/kernel/' },
    },
    {
      name: 'within-core-downwards',
      severity: 'error',
      from: { path: '^packages/core/src/(units|dimensions|sketch|solid)/' },
      to: {
        path: '^packages/core/src/(ledger|steps|part|inspect|document/(?!ids|limits))',
        dependencyTypesNot: ['type-only'],
      },
    },
  ],
  options: {
    tsConfig: { fileName: 'tsconfig.base.json' },
    tsPreCompilationDeps: true,
    doNotFollow: { path: 'node_modules' },
    exclude: { path: '(^|/)dist/' },
    enhancedResolveOptions: {
      conditionNames: ['source', 'import', 'default'],
      extensions: ['.ts', '.vue', '.js', '.mjs'],
    },
  },
};
