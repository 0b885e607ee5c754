/** The page on a warm server: first picture of the demo, and the page's thread while it evaluates. */
import { chromium } from '@playwright/test';
import { HelbServer } from '../e2e/helb-server.ts';
import config from '../e2e/playwright.config.ts';
import { report } from './measure.ts';

const RUNS = 5;
const median = (values: number[]) => values.sort((a, b) => a - b)[values.length >> 1]!;

const helb = new HelbServer();
await helb.start();
const browser = await chromium.launch(config.use!.launchOptions);
try {
  const projects = (await (await fetch(`${helb.url}/api/projects`)).json()) as { id: string }[];
  const { designs } = (await (await fetch(`${helb.url}/api/projects/${projects[0]!.id}/designs`)).json()) as {
    designs: { id: string }[];
  };
  const first: number[] = [];
  const longest: number[] = [];
  for (let i = 0; i < RUNS; i++) {
    const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
    await page.goto(`${helb.url}/designs/${designs[0]!.id}`);
    await page.locator('[data-testid=caption]:has-text("kg")').waitFor();
    first.push(await page.evaluate(() => performance.now()));
    await page.locator('[data-testid=stage]').waitFor();
    // The kernel is up when a number that changes also changes the picture.
    const set = async (value: number, shown: string) => {
      await page.locator('[data-ledger=vent_length] button', { hasText: 'mm' }).click();
      await page.keyboard.type(String(value));
      await page.keyboard.press('Enter');
      await page.locator(`[data-testid=caption]:has-text("${shown}")`).waitFor();
    };
    await set(700, '× 152 mm');
    await page.waitForTimeout(3000);
    await page.evaluate(() => {
      const seen: number[] = [];
      (window as unknown as { longTasks: number[] }).longTasks = seen;
      new PerformanceObserver((list) => seen.push(...list.getEntries().map((e) => e.duration))).observe({
        type: 'longtask',
      });
    });
    await set(800, '× 172 mm');
    await set(620, '× 136 mm');
    longest.push(Math.max(0, ...(await page.evaluate(() => (window as unknown as { longTasks: number[] }).longTasks))));
    await page.close();
  }
  report('page', 'first picture of the demo, median', RUNS, median(first), 'ms');
  report('page', 'first picture of the demo, worst', RUNS, Math.max(...first), 'ms');
  report('page', 'longest task on the page while evaluating, median', RUNS, median(longest), 'ms');
} finally {
  await browser.close();
  await helb.stop();
}
