/** Builds what runs: command line and server for Node, the interface for the browser. */
import { build } from 'esbuild';
import { execFileSync } from 'node:child_process';

/** Our own packages are taken in; everything from the registry stays outside. */
const ownOnly = {
  name: 'own-packages-only',
  setup(b) {
    b.onResolve({ filter: /^[^./]/ }, ({ path }) => (path.startsWith('@helb/') ? undefined : { path, external: true }));
  },
};

export async function buildNode() {
  await build({
    entryPoints: {
      'packages/cli/dist/main': 'packages/cli/src/main.ts',
      'packages/server/dist/main': 'packages/server/src/main.ts',
      'packages/server/dist/index': 'packages/server/src/index.ts',
      'packages/server/dist/desk-thread': 'packages/server/src/designs/desk-thread.ts',
    },
    outdir: '.',
    outExtension: { '.js': '.mjs' },
    bundle: true,
    platform: 'node',
    format: 'esm',
    target: 'node20',
    sourcemap: true,
    conditions: ['source'],
    plugins: [ownOnly],
    logLevel: 'warning',
  });
}

if (import.meta.filename === process.argv[1]) {
  await buildNode();
  execFileSync('npx', ['vite', 'build', '--logLevel', 'warn'], { cwd: 'packages/web', stdio: 'inherit' });
}
