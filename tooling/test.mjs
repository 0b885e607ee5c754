/** npm test: unit tests, then interface tests with types, lint, layers and the core’s tests behind them; ends with the counts. */
import { spawn } from 'node:child_process';
import { existsSync, mkdirSync, readFileSync, rmSync } from 'node:fs';
import { relative } from 'node:path';
import { buildIfStale, checkNode, ensureCommand, installPackages, orExplain } from './setup.mjs';

await orExplain(async () => {
  checkNode();
  installPackages();
  ensureCommand('mariadbd', 'mariadb-server');
  ensureCommand('chromium', 'chromium');
});
mkdirSync('.helb', { recursive: true, mode: 0o700 });

let passed = 0;
/** By name, so that the end of a long output tells them. */
const failures = [];

async function run(script, args = [], env = {}) {
  console.log(`\n— ${script}`);
  const own = spawn('npm', ['run', '--silent', script, '--', ...args], { stdio: 'inherit', env: { ...process.env, ...env } }); // prettier-ignore
  return (await new Promise((done) => own.on('close', done))) === 0;
}

/** Run behind all else: page tests leave some of two cores unused. What it says is only shown where it fails. */
async function behind(script, args = []) {
  let said = '';
  const own = spawn('nice', ['-n', '19', 'npm', 'run', '--silent', script, '--', ...args]);
  for (const stream of [own.stdout, own.stderr]) stream.on('data', (data) => (said += data));
  const ok = (await new Promise((done) => own.on('close', done))) === 0;
  console.log(`\n— ${[script, ...args.slice(0, 1)].join(' ')}${ok ? ' passed' : `\n${said}`}`);
  return ok;
}

/** Types, lint and layers count as one when they fail; that they pass is not a test. The core’s tests need nothing but time. */
async function checks() {
  for (const script of ['types', 'lint', 'layers']) if (!(await behind(script))) failures.push(script);
  const report = '.helb/core-report.json';
  const ok = await behind('unit', ['packages/core/', '--json', `--outputFile=${report}`, '--maxWorkers=1', '--testTimeout=180000']); // prettier-ignore
  countUnit(ok, readReport(report));
}

function countUnit(ok, unit) {
  passed += unit?.numPassedTests ?? 0;
  const before = failures.length;
  for (const file of unit?.testResults ?? []) {
    const fallen = file.assertionResults.filter((a) => a.status === 'failed');
    for (const { fullName } of fallen) failures.push(`${relative('.', file.name)}: ${fullName}`);
    if (file.status === 'failed' && fallen.length === 0) failures.push(`${relative('.', file.name)} could not be run`);
  }
  if (!ok && failures.length === before) failures.push('unit tests');
}

/** @param suites of Playwright’s report */
const failedPages = (suites = []) =>
  suites.flatMap((suite) => [
    ...failedPages(suite.suites),
    ...(suite.specs ?? []).filter((spec) => !spec.ok).map((spec) => `${suite.file}: ${spec.title}`),
  ]);

function readReport(file) {
  if (!existsSync(file)) return null;
  const report = JSON.parse(readFileSync(file, 'utf8'));
  rmSync(file);
  return report;
}

const unitReport = '.helb/unit-report.json';
const withoutCore = ['--testPathIgnorePatterns=/node_modules/', '--testPathIgnorePatterns=/packages/core/'];
const unitOk = await run('unit', [...withoutCore, '--json', `--outputFile=${unitReport}`]);
countUnit(unitOk, readReport(unitReport));

let built = true;
try {
  buildIfStale();
} catch {
  built = false;
  failures.push('build');
}
const checked = checks();
if (built) {
  const e2eReport = '.helb/e2e-report.json';
  const e2eOk = await run('e2e', [], { HELB_E2E_REPORT: e2eReport });
  const report = readReport(e2eReport);
  passed += (report?.stats.expected ?? 0) + (report?.stats.flaky ?? 0);
  const pages = failedPages(report?.suites);
  failures.push(...pages);
  if (!e2eOk && pages.length === 0) failures.push('page tests');
}

await checked;
if (failures.length > 0) console.log(`\nFailed:\n${failures.map((name) => `  ${name}`).join('\n')}`);
console.log(`\n${passed} passed, ${failures.length} failed`);
process.exit(failures.length === 0 ? 0 : 1);
