import base from '../../jest.config.mjs';
import { chosen } from './groups.mjs';

export default {
  ...base,
  rootDir: '../..',
  setupFiles: [...base.setupFiles, '<rootDir>/tooling/mutants/no-shrinking.mjs'],
  testMatch: chosen().tests.map((folder) => `<rootDir>/${folder}/**/*.test.ts`),
};
