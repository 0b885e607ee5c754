import base from '../../jest.config.mjs';
import { chosen } from './groups.mjs';

export default {
  ...base,
  rootDir: '../..',
  testMatch: chosen().tests.map((folder) => `<rootDir>/${folder}/**/*.test.ts`),
};
