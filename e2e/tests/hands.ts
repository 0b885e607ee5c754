/** What hands do again and again when a part is made: shapes of typed sizes, slots filled, choices taken. */
import { expect, test as base, type Workplace } from './workplace.ts';

type Place = [number, number];

export { expect };
/** With hands, and short patience: what is waited for here comes at once. */
export const test = base.extend<{ hands: Hands }>({
  hands: async ({ page, workplace }, use) => {
    page.setDefaultTimeout(10_000);
    await use(new Hands(workplace));
  },
});

export class Hands {
  constructor(private readonly w: Workplace) {}

  /** Type into a number that is open. */
  async give(label: string, value: string): Promise<void> {
    const field = this.w.page.getByRole('textbox', { name: label, exact: true }).or(this.w.page.getByRole('combobox', { name: label, exact: true })); // prettier-ignore
    await field.fill(value);
    await field.press('Enter');
  }

  /** Type into a number of a step's sentence. */
  async number(step: string, slot: string, value: string): Promise<void> {
    const open = this.w.page.getByLabel(`${step}: ${slot}`, { exact: true });
    const closed = this.w.step(step).getByRole('button', { name: new RegExp(`^${step}, ${slot}`) });
    await open.or(closed.first()).first().waitFor();
    if (!(await open.isVisible())) await closed.first().click();
    await open.fill(value);
    await open.press('Enter');
  }

  /** Take another choice in a step's sentence. */
  async turn(step: string, from: string | RegExp, to: string): Promise<void> {
    await this.w.step(step).getByRole('button', { name: from }).first().click();
    await this.item(to);
  }

  async more(step: string, action: string): Promise<void> {
    await this.w.page.getByRole('button', { name: `More for ${step}` }).click();
    await this.item(action);
  }

  /** Give a slot other picks. */
  async pickFor(step: string, slot: RegExp, ...places: [number, number, number][]): Promise<void> {
    await this.w.step(step).getByRole('button', { name: slot }).click();
    for (const place of places) await this.w.pick(place);
    await this.w.page.getByRole('button', { name: 'Done' }).click();
  }

  /** @param to where the pointer is while the sizes are typed */
  async rectangle(at: Place, to: Place, width: string, height: string, tool = 'Rectangle'): Promise<void> {
    await this.w.draw(tool, at);
    await this.w.point(...to);
    await this.type(width, 'Tab');
    await this.type(height, 'Enter');
    await this.w.putDown();
  }

  async circle(at: Place, across: string): Promise<void> {
    await this.w.draw('Circle', at);
    await this.w.point(at[0] + 4, at[1] + 2);
    await this.type(across, 'Enter');
    await this.w.putDown();
  }

  /** An ellipse about the origin: half its length towards a place, then half its breadth. */
  async ellipse(long: Place, short: Place): Promise<void> {
    await this.w.draw('Ellipse', [0, 0]);
    for (const [u, v] of [long, short]) {
      await this.w.point(u, v);
      await this.type(String(u || v), 'Enter');
    }
    await this.w.putDown();
  }

  /** Wait until all is computed. */
  async computed(): Promise<void> {
    await this.w.allSaved();
    // What takes less is not shown to be computed.
    await this.w.page.waitForTimeout(500);
    await expect(this.w.page.getByText(/^Computing/)).toHaveCount(0, { timeout: 90_000 });
  }

  look(from: string): Promise<void> {
    return this.w.page.getByRole('button', { name: `Look from ${from}`, exact: true }).click();
  }

  async sketchOn(datum: 'floor' | 'wall' | 'side'): Promise<void> {
    await this.w.verb(`Sketch on ${datum}`).click();
    await this.w.viewSettled();
  }

  async sketchOnFace(place: [number, number, number]): Promise<void> {
    await this.w.pick(place);
    await this.w.page.keyboard.press('k');
    await this.w.viewSettled();
  }

  /** A plane so far above the floor, with a sketch open on it. */
  async sketchAbove(name: string, height: string): Promise<void> {
    await this.w.choose('Datum plane');
    await this.w.stage().getByRole('button', { name: 'floor plane' }).click();
    await this.number(name, 'distance', height);
    await this.w.keep(name);
    await this.w.stage().getByRole('button', { name }).click();
    await this.w.page.keyboard.press('k');
    await this.w.viewSettled();
  }

  /** Bring edges that show behind the sketch into it. */
  async borrow(...places: Place[]): Promise<void> {
    await this.w.change('Borrow edges and faces');
    for (const [u, v] of places) await this.w.click(u, v);
    await this.w.page.getByRole('button', { name: 'Done' }).click();
  }

  /** A bar of these sizes swept 25 mm up and round a bend to 30, 50, in a new design. */
  async bentBar(width: string, height: string): Promise<void> {
    const { w } = this;
    await w.newSketch('Handle');
    await this.rectangle([0, 0], [8, 5], width, height, 'Centred rectangle');
    await w.page.keyboard.press('Enter');
    await this.sketchOn('wall');
    await w.draw('Line', [0, 0], [0, 25]);
    await w.page.keyboard.press('a');
    await w.click(30, 50);
    await w.putDown();
    await w.page.keyboard.press('Enter');
    await this.look('upper right front');
    await w.page.keyboard.press('f');
    await w.choose('Sweep');
    await w.pick([3, 0, 0]);
    await w.pick([0, 0, 15]);
    await w.keep('Sweep 1');
  }

  /** Lettering 8 mm high about to be embossed on a drum 36 mm across, in a new design. */
  async letteredDrum(text: string, height: string): Promise<void> {
    const { w } = this;
    await w.newSketch('Drum');
    await this.circle([0, 0], '36');
    await w.page.keyboard.press('x');
    await this.number('Extrude 1', 'distance', height);
    await w.keep('Extrude 1');
    await this.sketchOn('wall');
    await w.draw('Text', [-14, 10]);
    await w.point(14, 10);
    await w.page.keyboard.press('Tab');
    await this.type(text, 'Tab');
    await this.type('8', 'Enter');
    await w.putDown();
    await w.page.keyboard.press('Enter');
    await this.look('upper right front');
    await w.page.keyboard.press('f');
    await w.choose('Emboss');
    await w.pick([18 * Math.SQRT1_2, -18 * Math.SQRT1_2, 4]);
  }

  /** Of an open menu. */
  private async item(name: string): Promise<void> {
    await this.w.page.getByRole('menuitem', { name, exact: true }).click();
    await this.w.stage().focus();
  }

  private async type(text: string, then: 'Tab' | 'Enter'): Promise<void> {
    await this.w.page.keyboard.type(text);
    await this.w.page.keyboard.press(then);
  }
}
