/** Unit tests: the core and the kernel alone, the server with its real database. */
export default {
  testEnvironment: 'node',
  testEnvironmentOptions: { customExportConditions: ['source', 'node'] },
  testMatch: ['<rootDir>/packages/*/src/**/*.test.ts'],
  extensionsToTreatAsEsm: ['.ts'],
  transform: {
    '^.+\\.ts$': [
      '<rootDir>/tooling/test-transform.mjs',
      { jsc: { target: 'es2022', parser: { syntax: 'typescript' } }, module: { type: 'es6' } },
    ],
  },
  testTimeout: 60_000,
  // Copies of the project in which the code is altered on purpose.
  modulePathIgnorePatterns: ['<rootDir>/.helb/'],
  setupFiles: ['<rootDir>/tooling/fixed-cases.mjs'],
  // Both of two cores: by itself it would leave one to the terminal.
  maxWorkers: 2,
};
