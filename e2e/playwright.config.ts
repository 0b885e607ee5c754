import { defineConfig } from '@playwright/test';

const report = process.env.HELB_E2E_REPORT;

export default defineConfig({
  testDir: 'tests',
  // Long parts whose kinds of steps are met elsewhere too: by `npm run e2e:long`.
  grep: process.env.HELB_LONG ? /@long/ : undefined,
  grepInvert: process.env.HELB_LONG ? undefined : /@long/,
  outputDir: '../test-results',
  // Generous: software rendering and the kernel's first start share two cores.
  timeout: 180_000,
  expect: { timeout: 30_000 },
  // One server, one database, software rendering on two cores: one at a time.
  workers: 1,
  // The checks run behind them: one slow moment is not a fault, twice the same is.
  retries: process.env.CI ? 1 : 0,
  reporter: report ? [['list'], ['json', { outputFile: `../${report}` }]] : [['list']],
  use: {
    actionTimeout: 40_000,
    viewport: { width: 1280, height: 800 },
    // Views turn at once, so that no test waits for them.
    contextOptions: { reducedMotion: 'reduce' },
    launchOptions: {
      executablePath: '/usr/bin/chromium',
      args: [
        '--no-sandbox',
        '--use-angle=swiftshader',
        '--enable-unsafe-swiftshader',
        '--disable-background-networking',
        '--disable-component-update',
        '--disable-sync',
        '--no-first-run',
        // The page is composed beside software GL, not by it: a quarter of the time of a long test.
        '--disable-gpu-compositing',
      ],
    },
  },
});
