/**
 * npm run mutants [-- GROUP…]: would the tests notice if the code were wrong? Naming, caching, regions and upgrades are
 * altered one place at a time, and their tests run on each. On demand: some minutes a group.
 */
import { spawnSync } from 'node:child_process';
import { GROUPS } from './groups.mjs';

const asked = process.argv.slice(2);
const unknown = asked.filter((name) => !(name in GROUPS));
if (unknown.length > 0) {
  console.error(`There is no group ${unknown.join(', ')}; there are ${Object.keys(GROUPS).join(', ')}.`);
  process.exit(2);
}
let failed = false;
for (const group of asked.length > 0 ? asked : Object.keys(GROUPS)) {
  console.log(`\n— ${group}`);
  const own = spawnSync('npx', ['stryker', 'run', 'tooling/mutants/stryker.mjs'], { stdio: 'inherit', env: { ...process.env, HELB_MUTANTS: group } }); // prettier-ignore
  failed ||= own.status !== 0;
}
process.exit(failed ? 1 : 0);
