/** The page as a designer's hands and eyes use it. */
import { expect, test as base, type Page } from '@playwright/test';
import { readFile } from 'node:fs/promises';
import { join } from 'node:path';
import { HelbServer } from '../helb-server.ts';

export const test = base.extend<{ workplace: Workplace }, { helb: HelbServer }>({
  helb: [
    async ({}, use) => {
      const helb = new HelbServer();
      await helb.start();
      await use(helb);
      await helb.stop();
    },
    { scope: 'worker', timeout: 90_000 },
  ],
  workplace: async ({ page, helb }, use) => {
    const faults: string[] = [];
    page.on('pageerror', (error) => faults.push(error.message));
    await use(new Workplace(page, helb));
    expect(faults).toEqual([]);
  },
});
export { expect };

export class Workplace {
  constructor(
    readonly page: Page,
    readonly helb: HelbServer,
  ) {}

  readonly stage = () => this.page.getByTestId('stage');
  readonly caption = () => this.page.getByTestId('caption');
  readonly saved = () => this.page.getByTestId('saved');
  readonly recipe = () => this.page.getByRole('region', { name: 'Recipe' });
  readonly ledger = () => this.page.getByRole('region', { name: 'Ledger' });
  readonly step = (name: string) => this.page.locator(`[data-step="${name}"]`);
  readonly row = (path: string) => this.page.locator(`[data-ledger="${path}"]`);
  readonly verb = (name: string | RegExp) =>
    this.page.getByRole('toolbar', { name: 'Verbs' }).getByRole('button', { name });

  /** A copy of a demo design of this test's own, opened. */
  async openDemo(name = 'roof-vent-opener'): Promise<void> {
    const api = `${this.helb.url}/api/projects`;
    const projects = (await (await this.page.request.get(api)).json()) as { id: string; name: string }[];
    const project = projects.find((p) => p.name === 'Glasshouse');
    const demo = await readFile(join(import.meta.dirname, `../../demo/${name}.helb.json`), 'utf8');
    const made = await this.page.request.post(`${api}/${project!.id}/designs`, {
      data: demo,
      headers: { 'content-type': 'application/json' },
    });
    await this.page.goto(`${this.helb.url}/designs/${((await made.json()) as { id: string }).id}`);
    await expect(this.caption()).toContainText('kg');
  }

  /** A new project with one empty design, opened. */
  async newDesign(name: string): Promise<void> {
    await this.page.goto(this.helb.url);
    await this.page.getByLabel('Name of a new project').fill(`Project of ${name}`);
    await this.page.keyboard.press('Enter');
    await this.page.getByLabel('Name of a new design').fill(name);
    await this.page.keyboard.press('Enter');
    await expect(this.page.getByRole('button', { name: 'floor plane' })).toBeVisible();
  }

  async allSaved(): Promise<void> {
    await expect(this.saved()).toContainText('Saved');
  }

  /** Wait until what a stage tells of its view stays the same. */
  async standsStill(stage = this.stage(), told: 'data-plane' | 'data-space' = 'data-space'): Promise<void> {
    let before: string | null = null;
    let still = 0;
    await expect
      .poll(
        async () => {
          const now = await stage.getAttribute(told);
          still = now !== null && now === before ? still + 1 : 0;
          before = now;
          return still;
        },
        { intervals: [100] },
      )
      .toBeGreaterThanOrEqual(3);
  }

  /** Wait until the view stands still on the open sketch. */
  async viewSettled(): Promise<void> {
    await this.standsStill(this.stage(), 'data-plane');
  }

  /** Where a place of the open sketch (mm) is on the screen. */
  async at(u: number, v: number): Promise<[number, number]> {
    const box = (await this.stage().boundingBox())!;
    const [x, y, scale] = (await this.stage().getAttribute('data-plane'))!.split(' ').map(Number);
    return [box.x + x! + u * scale!, box.y + y! - v * scale!];
  }

  /** Where a place in space (mm) is on the screen. */
  async inSpace(x: number, y: number, z: number, stage = this.stage()): Promise<[number, number]> {
    const box = (await stage.boundingBox())!;
    const [o, ...ends] = (await stage.getAttribute('data-space'))!.split(' ').map((p) => p.split(',').map(Number));
    const at = (i: 0 | 1) => o![i]! + [x, y, z].reduce((sum, c, k) => sum + c * (ends[k]![i]! - o![i]!), 0);
    return [box.x + at(0), box.y + at(1)];
  }

  /** Wait until the view stands still, then click what is seen at a place in space. */
  async pick(place: [number, number, number], options: { modifiers?: 'Shift'[] } = {}): Promise<void> {
    // A view that is turned at once is still drawn a moment later.
    await this.standsStill();
    const [x, y] = await this.inSpace(...place);
    await this.page.mouse.move(x - 4, y - 3);
    await this.page.mouse.move(x, y);
    for (const key of options.modifiers ?? []) await this.page.keyboard.down(key);
    await this.page.mouse.down();
    await this.page.mouse.up();
    for (const key of options.modifiers ?? []) await this.page.keyboard.up(key);
  }

  async point(u: number, v: number): Promise<void> {
    const [x, y] = await this.at(u, v);
    await this.page.mouse.move(x - 4, y - 3);
    await this.page.mouse.move(x, y);
  }

  async click(u: number, v: number, options: { modifiers?: 'Shift'[] } = {}): Promise<void> {
    await this.point(u, v);
    for (const key of options.modifiers ?? []) await this.page.keyboard.down(key);
    await this.page.mouse.down();
    await this.page.mouse.up();
    for (const key of options.modifiers ?? []) await this.page.keyboard.up(key);
  }

  /** Drag a box of the open sketch, from corner to corner (mm). */
  async box([u0, v0]: [number, number], [u1, v1]: [number, number]): Promise<void> {
    const { mouse } = this.page;
    const [from, to] = [await this.at(u0, v0), await this.at(u1, v1)];
    await mouse.move(...from);
    await mouse.down();
    await mouse.move((from[0] + to[0]) / 2, (from[1] + to[1]) / 2);
    await mouse.move(...to);
    await mouse.up();
  }

  /** Click on the stage at a share of its width and height. */
  async clickStage(x: number, y: number): Promise<void> {
    const box = (await this.stage().boundingBox())!;
    await this.page.mouse.move(box.x + box.width * x - 3, box.y + box.height * y);
    await this.page.mouse.move(box.x + box.width * x, box.y + box.height * y);
    await this.page.mouse.down();
    await this.page.mouse.up();
  }

  /** Scroll the ledger until a row is there: rows out of sight are not made. */
  async reveal(path: string): Promise<void> {
    const list = this.page.getByTestId('ledger-list');
    await list.evaluate((el) => el.scrollTo(0, 0));
    await expect
      .poll(async () => {
        if ((await this.row(path).count()) > 0) return true;
        await list.evaluate((el) => el.scrollBy(0, el.clientHeight * 0.8));
        return false;
      })
      .toBe(true);
  }

  /** Set a dimension in the ledger. */
  async setInLedger(path: string, expression: string): Promise<void> {
    await this.reveal(path);
    await this.row(path)
      .getByRole('button', { name: new RegExp(`^${path.replaceAll('.', '\\.')}:`) })
      .click();
    const field = this.ledger().getByLabel(`Expression of ${path}`);
    await field.fill(expression);
    await field.press('Enter');
  }

  /** A new dimension by the ledger's menu, such as “Number of the design”, under this name. */
  async make(what: string, name: string): Promise<void> {
    await this.ledger().getByRole('button', { name: 'New', exact: true }).click();
    await this.page.getByRole('menuitem', { name: what }).click();
    await this.page.getByLabel('Name of the dimension').fill(name);
    await this.page.keyboard.press('Enter');
  }

  /** A new design with an empty sketch open on the floor plane. */
  async newSketch(name: string): Promise<void> {
    await this.newDesign(name);
    await this.page.getByRole('button', { name: 'floor plane' }).click();
    await this.viewSettled();
  }

  /** Escape until no drawing tool is in hand. */
  async putDown(): Promise<void> {
    const inHand = this.page.getByRole('toolbar', { name: 'Verbs' }).locator('[aria-pressed="true"]');
    while ((await inHand.count()) > 0) await this.page.keyboard.press('Escape');
  }

  /** A verb from the list that Space opens. */
  async choose(verb: string): Promise<void> {
    await this.page.keyboard.press('Space');
    await this.page.getByLabel('Find a verb').fill(verb);
    await this.page
      .getByRole('option', { name: new RegExp(`^${verb}( |$)`, 'i') })
      .first()
      .click();
  }

  /** Keep the step that is being tried. */
  async keep(step: string): Promise<void> {
    await expect(this.step(step).getByText('new ·')).toBeVisible();
    // Out of the number that is open, if one is.
    await this.stage().focus();
    await this.page.keyboard.press('Enter');
    await expect(this.step(step).getByText('new ·')).toHaveCount(0);
    await expect(this.step(step).getByRole('alert')).toHaveCount(0);
  }

  /** Draw with a tool from the list, click by click. */
  async draw(tool: string, ...clicks: [number, number][]): Promise<void> {
    await this.putDown();
    await this.choose(tool);
    for (const [u, v] of clicks) await this.click(u, v);
  }

  /** Something from the Change menu. */
  async change(name: string): Promise<void> {
    await this.verb('Change').click();
    await this.page.getByRole('menuitem', { name: new RegExp(`^${name}`) }).click();
  }

  /** Pick entities at these places, then give the first dimension that fits this value. */
  async dimension(value: string, ...places: [number, number][]): Promise<void> {
    await this.putDown();
    for (const [u, v] of places) await this.click(u, v);
    await this.page.keyboard.press('d');
    const field = this.stage().getByRole('combobox');
    await field.fill(value);
    await field.press('Enter');
    await expect(field).toHaveCount(0);
  }

  /** A plate 60 × 40 × 10 about the origin, from a sketch on the floor of a new design. */
  async newPlate(name: string): Promise<void> {
    await this.newSketch(name);
    await this.draw('Centred rectangle', [0, 0]);
    await this.point(20, 15);
    await this.page.keyboard.type('60');
    await this.page.keyboard.press('Tab');
    await this.page.keyboard.type('40');
    await this.page.keyboard.press('Enter');
    await this.putDown();
    await this.page.keyboard.press('x');
    await this.page.getByLabel('Extrude 1: distance').press('Enter');
    await this.page.keyboard.press('Enter');
    await expect(this.caption()).toContainText('60 × 40 × 10 mm');
  }

  /** Take the proposed set that settles the open sketch. */
  async settleAll(): Promise<void> {
    await this.putDown();
    const show = this.page.getByRole('button', { name: 'Show freedoms' });
    if (await show.isVisible()) await show.click();
    await this.page.getByRole('button', { name: 'Settle all' }).click();
    await expect(this.page.getByText('Together these settle the sketch')).toBeVisible();
    await this.page.getByRole('button', { name: 'Add these' }).click();
  }
}
