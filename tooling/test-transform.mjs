/**
 * TypeScript for Jest. In the sandbox of a test each look-up of a global goes through the sandbox's object, which is many
 * times slower than in the program: so each module takes the globals of its hot loops once, at its head.
 */
import swc from '@swc/jest';

const GLOBALS = 'Array, Error, Float64Array, Int32Array, Infinity, JSON, Map, Math, NaN, Number, Object, Set, String';

export default {
  createTransformer: (options) => {
    const plain = swc.createTransformer(options);
    const headed = (source) => `const { ${GLOBALS} } = globalThis; ${source}`;
    return {
      ...plain,
      process: (source, path, jest) => plain.process(headed(source), path, jest),
      processAsync: (source, path, jest) => plain.processAsync(headed(source), path, jest),
    };
  },
};
