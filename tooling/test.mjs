/** npm test: types, lint, layers, unit tests, interface tests; ends with the counts. */
import { spawnSync } from 'node:child_process';
import { existsSync, mkdirSync, readFileSync, rmSync } from 'node:fs';
import { buildIfStale, checkNode, ensureCommand, installPackages, orExplain } from './setup.mjs';

await orExplain(async () => {
  checkNode();
  installPackages();
  ensureCommand('mariadbd', 'mariadb-server');
  ensureCommand('chromium', 'chromium');
});
mkdirSync('.helb', { recursive: true, mode: 0o700 });

let passed = 0;
let failed = 0;

function run(script, args = [], env = {}) {
  console.log(`\n— ${script}`);
  return (
    spawnSync('npm', ['run', '--silent', script, '--', ...args], { stdio: 'inherit', env: { ...process.env, ...env } })
      .status === 0
  );
}

/** A check counts as one when it fails; its passing is not a test. */
function check(script) {
  if (!run(script)) failed++;
}

function readReport(file) {
  if (!existsSync(file)) return null;
  const report = JSON.parse(readFileSync(file, 'utf8'));
  rmSync(file);
  return report;
}

check('types');
check('lint');
check('layers');

const unitReport = '.helb/unit-report.json';
const unitOk = run('unit', ['--json', `--outputFile=${unitReport}`]);
const unit = readReport(unitReport);
passed += unit?.numPassedTests ?? 0;
failed += (unit?.numFailedTests ?? 0) + (unit?.numRuntimeErrorTestSuites ?? 0);
if (!unitOk && !(unit?.numFailedTests || unit?.numRuntimeErrorTestSuites)) failed++;

let built = true;
try {
  buildIfStale();
} catch {
  built = false;
  failed++;
}
if (built) {
  const e2eReport = '.helb/e2e-report.json';
  const e2eOk = run('e2e', [], { HELB_E2E_REPORT: e2eReport });
  const stats = readReport(e2eReport)?.stats;
  passed += (stats?.expected ?? 0) + (stats?.flaky ?? 0);
  failed += stats?.unexpected ?? 0;
  if (!e2eOk && !stats?.unexpected) failed++;
}

console.log(`\n${passed} passed, ${failed} failed`);
process.exit(failed === 0 ? 0 : 1);
