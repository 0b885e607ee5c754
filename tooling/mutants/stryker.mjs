import { fileURLToPath } from 'node:url';
import { chosen } from './groups.mjs';

export default {
  mutate: [...chosen().altered, '!**/*.test.ts', '!**/sample-*.ts'],
  plugins: [fileURLToPath(new URL('./runner.mjs', import.meta.url))],
  testRunner: 'one-process',
  coverageAnalysis: 'perTest',
  concurrency: 2,
  timeoutMS: 10_000,
  reporters: ['progress-append-only', 'clear-text', 'json'],
  clearTextReporter: { allowColor: false, logTests: false, reportTests: false },
  jsonReporter: { fileName: `.helb/mutants-${process.env.HELB_MUTANTS}.json` },
  tempDirName: '.helb/mutants',
  ignorePatterns: ['.helb', 'packages/*/dist', 'docs', 'e2e', 'bench'],
  thresholds: { high: 90, low: 85, break: 85 },
};
