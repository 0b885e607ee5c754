/**
 * Runs the tests of the chosen group on one altered program after another, in one process: all is built once, and loaded
 * anew in a moment for each alteration, so that nothing one of them keeps reaches the next. Jest takes seconds to load it.
 */
import { declareClassPlugin, PluginKind } from '@stryker-mutator/api/plugin';
import { determineHitLimitReached, DryRunStatus, TestStatus, toMutantRunResult } from '@stryker-mutator/api/test-runner'; // prettier-ignore
import { build } from 'esbuild';
import { expect } from 'expect';
import { readdirSync, readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { join, resolve } from 'node:path';
import { pathToFileURL } from 'node:url';
import { Script } from 'node:vm';
import { collecting } from './collecting.mjs';
import { chosen } from './groups.mjs';

/** Where the altered program asks which alteration is at work, and counts what was reached. */
const altered = (globalThis.__stryker__ ??= {});

/** Tests read files beside them; the built program lies elsewhere. */
const ownPlaces = {
  name: 'own-places',
  setup: (bundling) =>
    bundling.onLoad({ filter: /\.test\.ts$/ }, ({ path }) => ({
      contents: readFileSync(path, 'utf8').replaceAll('import.meta.url', JSON.stringify(pathToFileURL(path).href)),
      loader: 'ts',
    })),
};

const testFiles = () =>
  chosen().tests.flatMap((folder) =>
    readdirSync(folder, { recursive: true })
      .filter((file) => file.endsWith('.test.ts'))
      .map((file) => resolve(join(folder, file))),
  );

async function built() {
  const files = ['tooling/fixed-cases.mjs', 'tooling/mutants/no-shrinking.mjs', ...testFiles()];
  const { outputFiles } = await build({
    stdin: { contents: files.map((file) => `import ${JSON.stringify(resolve(file))};`).join('\n'), resolveDir: '.' },
    bundle: true,
    write: false,
    platform: 'node',
    format: 'cjs',
    target: 'node20',
    conditions: ['source'],
    external: ['@jest/globals'],
    plugins: [ownPlaces],
    logLevel: 'error',
  });
  return new Script(`(function (require) { ${outputFiles[0].text}\n})`, { filename: 'tests.cjs' }).runInThisContext();
}

class Runner {
  static inject = [];

  capabilities() {
    return { reloadEnvironment: true };
  }

  async init() {
    this.program = await built();
  }

  async dryRun({ coverageAnalysis }) {
    const outcome = await this.run(() => true, { all: true });
    return coverageAnalysis === 'off' ? outcome : { ...outcome, mutantCoverage: altered.mutantCoverage };
  }

  async mutantRun({ activeMutant, mutantActivation, testFilter, hitLimit, disableBail }) {
    const wanted = testFilter && new Set(testFilter);
    Object.assign(altered, { hitLimit, hitCount: hitLimit ? 0 : undefined });
    const activate = () => (altered.activeMutant = activeMutant.id);
    if (mutantActivation === 'static') activate();
    try {
      const outcome = await this.run((name) => !wanted || wanted.has(name), { all: disableBail, loaded: activate });
      return toMutantRunResult(outcome, disableBail);
    } finally {
      altered.activeMutant = undefined;
    }
  }

  async run(wanted, { all, loaded }) {
    const { globals, tests } = collecting(expect);
    const require = createRequire(resolve('package.json'));
    // What tests compute while they are loaded may fail as they may.
    const load = { name: 'loading', before: [], body: () => this.program((name) => (name === '@jest/globals' ? globals : require(name))) }; // prettier-ignore
    const results = [await resultOf(load)];
    if (results[0].status === TestStatus.Failed) return { status: DryRunStatus.Complete, tests: results };
    loaded?.();
    for (const test of tests.filter((t) => wanted(t.name))) {
      altered.currentTestId = test.name;
      results.push(await resultOf(test));
      altered.currentTestId = undefined;
      const endless = determineHitLimitReached(altered.hitCount, altered.hitLimit);
      if (endless) return endless;
      if (results.at(-1).status === TestStatus.Failed && !all) break;
    }
    return { status: DryRunStatus.Complete, tests: results };
  }
}

async function resultOf({ name, body, before }) {
  const began = performance.now();
  const result = (more) => ({ id: name, name, timeSpentMs: performance.now() - began, ...more });
  try {
    for (const hook of before) await hook();
    await body();
    return result({ status: TestStatus.Success });
  } catch (error) {
    return result({
      status: TestStatus.Failed,
      failureMessage: error instanceof Error ? error.message : String(error),
    });
  }
}

export const strykerPlugins = [declareClassPlugin(PluginKind.TestRunner, 'one-process', Runner)];
