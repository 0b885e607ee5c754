import { chosen } from './groups.mjs';

export default {
  mutate: [...chosen().altered, '!**/*.test.ts', '!**/sample-*.ts'],
  testRunner: 'jest',
  testRunnerNodeArgs: ['--experimental-vm-modules'],
  jest: { configFile: 'tooling/mutants/jest.mjs', enableFindRelatedTests: false },
  coverageAnalysis: 'perTest',
  concurrency: 2,
  timeoutMS: 10_000,
  // Modules loaded again for each alteration are never let go of.
  maxTestRunnerReuse: 100,
  reporters: ['progress-append-only', 'clear-text', 'json'],
  clearTextReporter: { allowColor: false, logTests: false, reportTests: false },
  jsonReporter: { fileName: `.helb/mutants-${process.env.HELB_MUTANTS}.json` },
  tempDirName: '.helb/mutants',
  ignorePatterns: ['.helb', 'packages/*/dist', 'docs', 'e2e', 'bench'],
  thresholds: { high: 90, low: 85, break: 85 },
};
