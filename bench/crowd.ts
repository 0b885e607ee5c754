/** An assembly of a thousand instances of twenty parts on the page: opened for the first time, and from stored pictures. */
import { addAssembly, addPart, addStep, applyEdit, emptyDesign, placeInstances, setMaterial, type Edit, type Instance, type Step } from '@helb/core'; // prettier-ignore
import type { Page } from '@playwright/test';
import { HelbServer } from '../e2e/helb-server.ts';
import { extruded, outline, rectangle } from '../packages/kernel/src/sample-parts.ts';
import { startBrowser } from './browser.ts';
import { report, within } from './measure.ts';

const [PARTS, INSTANCES, OPENED] = [20, 1000, 3];

let design = emptyDesign('Crowd');
function make(...edits: Edit[]): void {
  for (const edit of edits) {
    const made = applyEdit(design, edit);
    if (!made.ok) throw new Error(made.message);
    design = made.design;
  }
}
for (let k = 0; k < PARTS; k++) {
  const drilled = outline(rectangle(0, 0, 30, 20)) as Step & { points: Record<string, number[]>; curves: Record<string, object> }; // prettier-ignore
  for (let h = 0; h < 6; h++) {
    drilled.points[`m${h}`] = [4 + 4 * h, 10];
    drilled.curves[`o${h}`] = { kind: 'circle', center: `m${h}`, radius: 1 + 0.03 * k };
  }
  make(addPart(`p${k}`, `Part ${k}`), setMaterial(`p${k}`, 'steel'), addStep(`p${k}`, `s${k}`, drilled), addStep(`p${k}`, `e${k}`, extruded(`s${k}`, `${3 + k / 2} mm`))); // prettier-ignore
}
make(addAssembly('a', 'All'));
const placed = Array.from({ length: INSTANCES }, (_, i): [string, Instance] => [
  `i${i}`,
  {
    of: { part: `p${i % PARTS}` },
    home: { at: [(i % 40) * 34, Math.floor(i / 40) * 24, 0], turn: [0, 0, 0, 1] },
    ...(i === 0 ? { fixed: true } : {}),
  },
]);
for (let i = 0; i < INSTANCES; i += 200) make(placeInstances('a', placed.slice(i, i + 200)));

const helb = new HelbServer();
await helb.start();
const browser = await startBrowser();
try {
  const projects = (await (await fetch(`${helb.url}/api/projects`)).json()) as { id: string }[];
  const made = await fetch(`${helb.url}/api/projects/${projects[0]!.id}/designs`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify(design),
  });
  const { id } = (await made.json()) as { id: string };
  const context = await browser.newContext({ viewport: { width: 1280, height: 800 } });
  const times: number[] = [];
  for (let i = 0; i <= OPENED; i++) {
    const page = await context.newPage();
    times.push(await opened(page, `${helb.url}/designs/${id}/assembly/a`));
    // Until the kernel is up, and what was computed is left for the next visit.
    await page.waitForTimeout(15_000);
    await page.close();
  }
  report('crowd', 'opened for the first time, all parts shown', INSTANCES, times[0]!, 'ms');
  report('crowd', 'opened from stored pictures, all parts shown, median', INSTANCES, within(times.slice(1), 0.5), 'ms');
} finally {
  await browser.close();
  await helb.stop();
}

/** From the address to the first frame with every part on the stage, ms. */
async function opened(page: Page, address: string): Promise<number> {
  await page.goto(address);
  return page.evaluate(
    (parts) =>
      new Promise<number>((done) => {
        const look = () => {
          const weighed = Array.from(document.querySelectorAll('[data-part]')).filter((card) => card.textContent?.includes('kg')); // prettier-ignore
          if (weighed.length >= parts) requestAnimationFrame((now) => done(now));
          else requestAnimationFrame(look);
        };
        look();
      }),
    PARTS,
  );
}
