/** npm test: types, lint, layers, unit tests, interface tests; ends with the counts. */
import { spawn } from 'node:child_process';
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

async function run(script, args = [], env = {}) {
  console.log(`\n— ${script}`);
  const own = spawn('npm', ['run', '--silent', script, '--', ...args], { stdio: 'inherit', env: { ...process.env, ...env } }); // prettier-ignore
  return (await new Promise((done) => own.on('close', done))) === 0;
}

/**
 * Types, lint and layers, one after the other and behind all else: page tests leave some of two cores unused. A check
 * counts as one when it fails; its passing is not a test.
 */
async function checks() {
  for (const script of ['types', 'lint', 'layers']) {
    let said = '';
    const own = spawn('nice', ['-n', '19', 'npm', 'run', '--silent', script]);
    for (const stream of [own.stdout, own.stderr]) stream.on('data', (data) => (said += data));
    const status = await new Promise((done) => own.on('close', done));
    console.log(`\n— ${script}${status === 0 ? ' passed' : `\n${said}`}`);
    if (status !== 0) failed++;
  }
}

function readReport(file) {
  if (!existsSync(file)) return null;
  const report = JSON.parse(readFileSync(file, 'utf8'));
  rmSync(file);
  return report;
}

const unitReport = '.helb/unit-report.json';
const unitOk = await run('unit', ['--json', `--outputFile=${unitReport}`]);
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
const checked = checks();
if (built) {
  const e2eReport = '.helb/e2e-report.json';
  const e2eOk = await run('e2e', [], { HELB_E2E_REPORT: e2eReport });
  const stats = readReport(e2eReport)?.stats;
  passed += (stats?.expected ?? 0) + (stats?.flaky ?? 0);
  failed += stats?.unexpected ?? 0;
  if (!e2eOk && !stats?.unexpected) failed++;
}

await checked;
console.log(`\n${passed} passed, ${failed} failed`);
process.exit(failed === 0 ? 0 : 1);
