#!/usr/bin/env node
import { existsSync } from 'node:fs';

const built = new URL('../dist/main.mjs', import.meta.url);
if (!existsSync(built)) {
  console.error('Helb is not built yet; run “npm run build” once.');
  process.exit(1);
}
await import(built.href);
