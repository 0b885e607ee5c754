/** Runs one TypeScript file: node tooling/run.mjs FILE [arguments]. */
import { build } from 'esbuild';
import { mkdirSync, rmSync } from 'node:fs';
import { resolve } from 'node:path';
import { pathToFileURL } from 'node:url';

const [file, ...args] = process.argv.slice(2);
mkdirSync('.helb', { recursive: true });
// Beside node_modules, so that packages are found from it.
const out = resolve(`.helb/run-${process.pid}.mjs`);
await build({
  entryPoints: [file],
  outfile: out,
  bundle: true,
  platform: 'node',
  format: 'esm',
  target: 'node20',
  conditions: ['source'],
  packages: 'bundle',
  external: ['replicad-opencascadejs', 'zod', 'immer', '@playwright/test', 'commander', 'mysql2', 'ws'],
  logLevel: 'warning',
});
process.argv = [process.argv[0], file, ...args];
try {
  await import(pathToFileURL(out).href);
} finally {
  rmSync(out, { force: true });
}
