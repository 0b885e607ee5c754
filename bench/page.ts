/** The page on a warm server: first picture of the demo, and the page's thread while it evaluates. */
import { HelbServer } from '../e2e/helb-server.ts';
import { applyEdit, differences, emptyDesign, emptyPart, Ledger, PartEvaluator, PartPainter, readDesign, setDimension, withDifferences } from '@helb/core'; // prettier-ignore
import { loadKernel } from '@helb/kernel';
import type { Page } from '@playwright/test';
import { readFileSync } from 'node:fs';
import { truss } from '../packages/core/src/sketch/sample-families.ts';
import { startBrowser, startFrameBrowser } from './browser.ts';
import { report, within } from './measure.ts';

const RUNS = 5;
/** Turns of a dial that count, after those that warm up. */
const [DIALS, WARM] = [12, 8];
const DRAGS = 3;
const median = (values: number[]) => values.sort((a, b) => a - b)[values.length >> 1]!;

const helb = new HelbServer();
await helb.start();
const browser = await startBrowser();
const frames = await startFrameBrowser();
try {
  const projects = (await (await fetch(`${helb.url}/api/projects`)).json()) as { id: string }[];
  const { designs } = (await (await fetch(`${helb.url}/api/projects/${projects[0]!.id}/designs`)).json()) as {
    designs: { id: string; name: string }[];
  };
  const demo = designs.find((d) => d.name === 'Roof-vent opener')!;
  const first: number[] = [];
  const longest: number[] = [];
  const dialed: number[] = [];
  for (let i = 0; i < RUNS; i++) {
    const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
    await page.goto(`${helb.url}/designs/${demo.id}`);
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
    if (i === 0) dialed.push(...(await dialsOnPage(page)));
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
  const drags: Drag[] = [];
  for (let i = 0; i < DRAGS; i++) drags.push(await drag(projects[0]!.id));
  const of = (what: (d: Drag) => number) => median(drags.map(what));
  const size = drags[0]!.constraints;
  report(
    'page',
    'frames a second while dragging, median',
    size,
    of((d) => d.rate),
    '1/s',
  );
  report(
    'page',
    'time between frames while dragging, median',
    size,
    of((d) => d.median),
    'ms',
  );
  report(
    'page',
    'time between frames while dragging, p95',
    size,
    of((d) => d.p95),
    'ms',
  );
  // Without a graphics card the browser itself needs long to put a frame together; this is the page's own share.
  report(
    'page',
    'work of the page a frame while dragging',
    size,
    of((d) => d.work),
    'ms',
  );
  report(
    'page',
    'frames a second of an empty canvas in this browser',
    size,
    of((d) => d.empty),
    '1/s',
  );
  report('page', 'first picture of the demo, median', RUNS, median(first), 'ms');
  report('page', 'first picture of the demo, worst', RUNS, Math.max(...first), 'ms');
  const inNode = await dialsInNode();
  report('page', 'one dial of the demo to its picture on the page, median', dialed.length, within(dialed, 0.5), 'ms');
  const [alone, followed] = [within(inNode.alone, 0.5), within(inNode.followed, 0.5)];
  report('page', 'the same in Node on one object, median', DIALS, alone, 'ms');
  report('page', 'the same in Node on a copy that follows, to one object', DIALS, followed / alone, 'ratio');
  report('page', 'longest task on the page while evaluating, median', RUNS, median(longest), 'ms');
} finally {
  await browser.close();
  await frames.close();
  await helb.stop();
}

/** A dial turned again and again: from the Enter that sets it until its picture has come, ms. */
async function dialsOnPage(page: Page): Promise<number[]> {
  const times: number[] = [];
  for (let i = 0; i < DIALS + WARM; i++) {
    const value = 500 + 5 * i;
    await page.locator('[data-ledger=vent_length] button', { hasText: 'mm' }).click();
    await page.keyboard.type(String(value));
    await page.evaluate(
      (shown) => {
        let pressed = 0;
        addEventListener('keydown', () => (pressed = performance.now()), { capture: true, once: true });
        const caption = document.querySelector('[data-testid=caption]')!;
        const taken = new Promise<number>((done) =>
          new MutationObserver((_, seen) => {
            if (!caption.textContent!.includes(shown)) return;
            seen.disconnect();
            done(performance.now() - pressed);
          }).observe(caption, { childList: true, subtree: true, characterData: true }),
        );
        Object.assign(window, { taken });
      },
      `× ${value / 5 + 12} mm`,
    );
    await page.keyboard.press('Enter');
    times.push(await page.evaluate(() => (window as unknown as { taken: Promise<number> }).taken));
    await page.waitForTimeout(400);
  }
  return times.slice(WARM);
}

/** The same edits, the part on the stage evaluated and painted, ms: on one object, and on a copy that follows as the worker's does. */
async function dialsInNode(): Promise<{ alone: number[]; followed: number[] }> {
  const kernel = await loadKernel();
  const ways = (['alone', 'followed'] as const).map((way) => ({ way, evaluator: new PartEvaluator(kernel), painter: new PartPainter(kernel) })); // prettier-ignore
  const read = readDesign(readFileSync('demo/roof-vent-opener.helb.json', 'utf8'));
  if (!read.ok) throw new Error(read.message);
  let { design } = read;
  let held = structuredClone(design);
  const times = { alone: [] as number[], followed: [] as number[] };
  for (let i = 0; i < DIALS + WARM; i++)
    for (const { way, evaluator, painter } of ways) {
      const start = performance.now();
      const made = applyEdit(design, setDimension('vent_length', `${500 + 2 * i + Number(way === 'alone')} mm`));
      if (!made.ok) throw new Error(made.message);
      const sent = structuredClone(differences(design, made.design));
      design = made.design;
      held = withDifferences(held, sent);
      const seen = way === 'alone' ? design : held;
      const outcome = await evaluator.evaluate(seen, Ledger.of(seen), design.partOrder[0]!);
      painter.paint(outcome);
      if (i >= WARM) times[way].push(performance.now() - start);
    }
  return times;
}

interface Drag {
  readonly constraints: number;
  /** Frames a second, and the time from one to the next, ms. */
  readonly rate: number;
  readonly median: number;
  readonly p95: number;
  /** What the page's thread does for a frame, ms. */
  readonly work: number;
  /** Frames a second where a page only moves a square about. */
  readonly empty: number;
}

/** Dragging in a sketch of 300 constraints, all of which move: time from frame to frame while the pointer moves. */
async function drag(project: string): Promise<Drag> {
  const { constraints, ...rest } = truss(149);
  // One member is let go, so that there is something to drag.
  const { d0_1: _, ...held } = constraints;
  const sketch = { kind: 'sketch', name: 'Truss', plane: { datum: 'floor' }, ...rest, constraints: held };
  const part = { ...emptyPart('Truss'), steps: { s: sketch }, stepOrder: ['s'] };
  const design = { ...emptyDesign('Drag'), parts: { p: part }, partOrder: ['p'] };
  const made = await fetch(`${helb.url}/api/projects/${project}/designs`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify(design),
  });
  const { id } = (await made.json()) as { id: string };
  const page = await frames.newPage({ viewport: { width: 1280, height: 800 } });
  await page.goto(`${helb.url}/designs/${id}`);
  await page.locator('[data-step=Truss]').getByRole('button', { name: 'the floor plane' }).waitFor();
  await page
    .locator('[data-step=Truss]')
    .getByRole('button', { name: /More for/ })
    .click();
  await page.getByRole('menuitem', { name: 'Open the sketch' }).click();
  await page.waitForTimeout(3000);
  const stage = page.getByTestId('stage');
  const [ox, oy, scale] = (await stage.getAttribute('data-plane'))!.split(' ').map(Number) as [number, number, number];
  const box = (await stage.boundingBox())!;
  const [x, y] = [box.x + ox + 5 * scale, box.y + oy - 5 * Math.sqrt(3) * scale];
  await page.mouse.move(x, y);
  await page.mouse.down();
  await page.evaluate(() => {
    const times: number[] = [];
    (window as unknown as { frames: number[] }).frames = times;
    const tick = (now: number) => {
      times.push(now);
      requestAnimationFrame(tick);
    };
    requestAnimationFrame(tick);
  });
  const devtools = await page.context().newCDPSession(page);
  await devtools.send('Performance.enable');
  const busy = async () =>
    (await devtools.send('Performance.getMetrics')).metrics.find((m) => m.name === 'TaskDuration')!.value * 1000;
  const before = await busy();
  for (let i = 0; i < 240; i++) {
    await page.mouse.move(x + 30 * Math.sin(i / 12), y + 10 * Math.cos(i / 9));
    await page.waitForTimeout(8);
  }
  const times = await page.evaluate(() => (window as unknown as { frames: number[] }).frames);
  const spent = (await busy()) - before;
  await page.mouse.up();
  const gaps = times.slice(1).map((t, i) => t - times[i]!);
  const at = (share: number) => [...gaps].sort((a, b) => a - b)[Math.floor(share * (gaps.length - 1))]!;
  await page.setContent('<canvas width="692" height="597"></canvas>');
  const empty = await page.evaluate(
    () =>
      new Promise<number>((done) => {
        const ctx = document.querySelector('canvas')!.getContext('2d', { willReadFrequently: true })!;
        const start = performance.now();
        let frames = 0;
        const tick = (now: number) => {
          ctx.clearRect(0, 0, 692, 597);
          ctx.fillRect(frames % 600, 100, 40, 40);
          if (now - start > 2000) done((1000 * frames) / (now - start));
          else {
            frames++;
            requestAnimationFrame(tick);
          }
        };
        requestAnimationFrame(tick);
      }),
  );
  await page.close();
  return {
    constraints: Object.keys(held).length,
    rate: (1000 * gaps.length) / (times.at(-1)! - times[0]!),
    median: at(0.5),
    p95: at(0.95),
    work: spent / gaps.length,
    empty,
  };
}
