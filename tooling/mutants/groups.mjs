/** What is altered, and the tests that must notice: those of its own folders, which load in a moment. */
const core = 'packages/core/src';

export const GROUPS = {
  // What faces and edges measure is asked of the kernel, and held by its own tests.
  names: { altered: [`${core}/names/!(facts|moved-facts|body).ts`], tests: [`${core}/names`] },
  regions: { altered: [`${core}/sketch/regions/**/*.ts`], tests: [`${core}/sketch/regions`] },
  upgrades: { altered: [`${core}/upgrade/**/*.ts`], tests: [`${core}/upgrade`] },
  caching: {
    altered: ['evaluate', 'results', 'known'].map((file) => `${core}/evaluation/${file}.ts`),
    tests: [`${core}/evaluation`],
  },
};

/** Set by `npm run mutants`. */
export const chosen = () => GROUPS[process.env.HELB_MUTANTS];
