/** npm run bench [-- sketch|dimensions|part|recipes|edits|page|load|large|kills|assembly|sheet|fit|crowd …]: one JSON object a line on standard output, nothing else. */
import { spawnSync } from 'node:child_process';
import { checkNode, ensureCommand, installPackages, buildIfStale, orExplain } from './setup.mjs';

const SUITES = [
  'sketch',
  'dimensions',
  'part',
  'recipes',
  'edits',
  'page',
  'load',
  'large',
  'kills',
  'assembly',
  'sheet',
  'fit',
  'crowd',
];
const wanted = process.argv.slice(2);
const unknown = wanted.find((name) => !SUITES.includes(name));
if (unknown) {
  console.error(`There is no bench called “${unknown}”; choose among ${SUITES.join(', ')}.`);
  process.exit(1);
}
const run = wanted.length > 0 ? wanted : SUITES;
await orExplain(async () => {
  checkNode();
  installPackages();
  if (['page', 'dimensions', 'load', 'large', 'kills', 'crowd'].some((name) => run.includes(name))) {
    ensureCommand('mariadbd', 'mariadb-server');
    ensureCommand('chromium', 'chromium');
    buildIfStale();
  }
});
for (const suite of run) {
  const { status } = spawnSync(process.execPath, ['tooling/run.mjs', `bench/${suite}.ts`], {
    stdio: ['ignore', 'inherit', 2],
  });
  if (status !== 0) process.exit(status ?? 1);
}
