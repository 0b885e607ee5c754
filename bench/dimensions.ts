/** A ledger of thousands of linked dimensions: one changed, one renamed; and on the page opened, scrolled, searched. */
import {
  applyEdit,
  emptyDesign,
  influences,
  Ledger,
  numbersTypedTwice,
  renameDimension,
  setDimension,
  traceOf,
  type Design,
} from '@helb/core';
import type { Page } from '@playwright/test';
import { startFrameBrowser } from './browser.ts';
import { HelbServer } from '../e2e/helb-server.ts';
import { growth, report, time, within } from './measure.ts';

const SIZES = [500, 1000, 5000, 10_000];
const LARGE = 5000;
const RENAMES = 5;
const SCROLLED_S = 4;

/** Each uses two before it, so that all hang on the first and few on the last. */
function linked(count: number): Design {
  const ids = Array.from({ length: count }, (_, i) => `d${i}`);
  const value = (i: number) => (i < 10 ? `${i + 5} mm` : `$d${i >> 1} / 2 + $d${Math.floor(i / 3)} / 3 + 1 mm`);
  return {
    ...emptyDesign('Linked'),
    dimensions: Object.fromEntries(ids.map((id, i) => [id, { name: `length_${i}`, value: value(i) }])),
    dimensionOrder: ids,
  };
}

function edited(design: Design, edit: Parameters<typeof applyEdit>[1]): Design {
  const outcome = applyEdit(design, edit);
  if (!outcome.ok) throw new Error(outcome.message);
  return outcome.design;
}

function valuesOf(ledger: Ledger): void {
  for (const entry of ledger.entries) ledger.valueOfEntry(entry);
}

const valueAll = (design: Design) => valuesOf(Ledger.of(design));

const changes: { size: number; ms: number }[] = [];
for (const size of SIZES) {
  const runs = { warmUp: 10, runs: size > LARGE ? 10 : 40 };
  const start = linked(size);
  await time('dimensions', 'all from nothing', size, () => valuesOf(Ledger.fresh(start)), runs);
  for (const [what, at] of [
    ['one that all hang on changed', 5],
    ['one in the middle changed', size >> 4],
  ] as const) {
    let now = start;
    valueAll(now);
    report(
      'dimensions',
      `${what}: dimensions it touches`,
      size,
      traceOf(Ledger.of(now), `d${at}`).below.length + 1,
      '',
    );
    // The edit is made beforehand: this is what evaluating again costs.
    const versions = Array.from({ length: runs.warmUp + runs.runs }, (_, i) => ({
      ...now,
      dimensions: { ...now.dimensions, [`d${at}`]: { ...now.dimensions[`d${at}`]!, value: `${20 + i} mm` } },
    }));
    const ms = await time('dimensions', `${what}: evaluate again`, size, (i) => valueAll(versions[i]!), runs);
    if (at === 5) changes.push({ size, ms });
    await time(
      'dimensions',
      `${what}: the whole edit`,
      size,
      (i) => {
        now = edited(now, setDimension(`d${at}`, `${20 + i} mm`));
        valueAll(now);
      },
      runs,
    );
  }
  let named = start;
  valueAll(named);
  await time(
    'dimensions',
    'rename one that many use',
    size,
    (i) => {
      named = edited(named, renameDimension('d5', `renamed_${i}`));
      valueAll(named);
    },
    runs,
  );
  const fresh = Array.from({ length: runs.warmUp + runs.runs }, () => Ledger.fresh(named));
  for (const ledger of fresh) for (const entry of ledger.entries) ledger.valueOfEntry(entry);
  await time('dimensions', 'influence of all', size, (i) => influences(fresh[i]!), runs);
  await time('dimensions', 'numbers typed twice', size, (i) => numbersTypedTwice(fresh[i]!), runs);
}
report('dimensions', 'evaluate again: growth exponent', 0, growth(changes[0]!, changes.at(-1)!), '');

const helb = new HelbServer();
await helb.start();
const browser = await startFrameBrowser();
try {
  await onThePage();
} finally {
  await browser.close();
  await helb.stop();
}

async function onThePage(): Promise<void> {
  const projects = (await (await fetch(`${helb.url}/api/projects`)).json()) as { id: string }[];
  const made = await fetch(`${helb.url}/api/projects/${projects[0]!.id}/designs`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify(linked(LARGE)),
  });
  const { id } = (await made.json()) as { id: string };
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
  await page.addInitScript(watchLongTasks);
  await page.goto(`${helb.url}/designs/${id}`);
  await page.locator('[data-ledger=length_0]').waitFor();
  report('dimensions', 'page: ledger shown after', LARGE, await page.evaluate(() => performance.now()), 'ms');
  await page.waitForTimeout(4000);
  const devtools = await page.context().newCDPSession(page);
  await devtools.send('Performance.enable');
  const busy = async () =>
    (await devtools.send('Performance.getMetrics')).metrics.find((m) => m.name === 'TaskDuration')!.value * 1000;
  const before = await busy();
  const rate = await scrollRate(page);
  report('dimensions', 'page: frames a second while scrolling', LARGE, rate, '1/s');
  // Without a graphics card the browser itself needs long to put a frame together; this is the page's own share.
  const spent = (await busy()) - before;
  report('dimensions', 'page: work of the page a frame while scrolling', LARGE, spent / (rate * SCROLLED_S), 'ms');
  await longest(page);
  await page.getByLabel('Order').selectOption('influence');
  await page.waitForTimeout(800);
  report('dimensions', 'page: longest task when sorted by influence', LARGE, await longest(page), 'ms');
  await page.getByLabel('Order').selectOption('order');
  await page.getByLabel('Find a name or a value').pressSequentially('length_49', { delay: 60 });
  await page.waitForTimeout(500);
  report('dimensions', 'page: longest task while searching', LARGE, await longest(page), 'ms');
  const renamed: number[] = [];
  for (let i = 5; i < 5 + RENAMES; i++) {
    await page.getByLabel('Find a name or a value').fill(`length_${i}`);
    await page.locator(`[data-ledger=length_${i}]`).getByText(`length_${i}`, { exact: true }).dblclick();
    await page.keyboard.type(`renamed_${i}`);
    await longest(page);
    await page.keyboard.press('Enter');
    await page.waitForTimeout(800);
    renamed.push(await longest(page));
  }
  report('dimensions', 'page: longest task when renamed, median', LARGE, within(renamed, 0.5), 'ms');
  report('dimensions', 'page: longest task when renamed, at the first', LARGE, renamed[0]!, 'ms');
}

function watchLongTasks(): void {
  const seen: number[] = [];
  (window as unknown as { longTasks: number[] }).longTasks = seen;
  new PerformanceObserver((list) => seen.push(...list.getEntries().map((e) => e.duration))).observe({
    type: 'longtask',
  });
}

/** The longest since last asked, ms; 0 when none took over 50. */
function longest(page: Page): Promise<number> {
  return page.evaluate(() => {
    const { longTasks } = window as unknown as { longTasks: number[] };
    return Math.max(0, ...longTasks.splice(0));
  });
}

function scrollRate(page: Page): Promise<number> {
  return page.getByTestId('ledger-list').evaluate(
    (list, seconds) =>
      new Promise<number>((done) => {
        const start = performance.now();
        let frames = 0;
        const tick = (now: number) => {
          if (now - start > seconds * 1000) {
            done((1000 * frames) / (now - start));
            return;
          }
          frames++;
          list.scrollTop += 60;
          requestAnimationFrame(tick);
        };
        requestAnimationFrame(tick);
      }),
    SCROLLED_S,
  );
}
