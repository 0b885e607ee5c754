/** Arrows only point down: web, cli and server upon core and kernel; kernel upon core; core upon nothing of ours. */
const own = (name) => `^packages/${name}/`;
/** Folders of the core, each upon those before it only; types count as well, so that none goes round in a circle. */
const CORE = [
  ['ids', 'units', 'space'],
  ['references', 'dimensions', 'standards', 'mechanism'],
  ['sketch'],
  ['solid'],
  ['names'],
  ['slots'],
  ['steps'],
  ['document'],
  ['upgrade', 'ledger'],
  ['part'],
  ['assembly'],
  ['evaluation'],
  ['commands'],
  ['files', 'readings', 'requirements', 'brief'],
  ['variants', 'exchange', 'inspect', 'fit'],
  ['sheet', 'cutting'],
  ['flex'],
];
const coreDownwards = CORE.flatMap((level, i) =>
  level.map((folder) => ({
    name: `core-${folder}-downwards`,
    severity: 'error',
    from: { path: `^packages/core/src/${folder}/`, pathNot: '\\.test\\.ts$' },
    to: {
      path: `^packages/core/src/(${[...CORE.slice(i).flat(), 'index\\.ts'].filter((f) => f !== folder).join('|')})`,
    },
  })),
);

module.exports = {
  forbidden: [
    {
      name: 'no-cycles',
      severity: 'error',
      from: {},
      to: { circular: true, viaOnly: { dependencyTypesNot: ['type-only'] } },
    },
    {
      name: 'no-cycles-in-core',
      severity: 'error',
      from: { path: own('core') },
      to: { circular: true },
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
    ...coreDownwards,
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
