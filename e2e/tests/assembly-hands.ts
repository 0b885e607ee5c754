/** Hands for an assembly: parts made ready, frames picked, parts dragged. */
import { addDimension, addPart, addStep, applyEdit, emptyDesign, setMaterial, writeDesign, type Design, type Edit, type Step } from '../../packages/core/src/index.ts'; // prettier-ignore
import { expect, type Workplace } from './workplace.ts';

type At = [number, number];

/** A plate from the floor with bores of Ø10. */
function plate(part: string, corners: [At, At], bores: readonly At[], thickness: string, pitch?: string): Edit[] {
  const [[x0, y0], [x1, y1]] = corners;
  const outline: At[] = [[x0, y0], [x1, y0], [x1, y1], [x0, y1]]; // prettier-ignore
  const id = (k: string) => `${part}_${k}`;
  const curves: Record<string, unknown> = {};
  outline.forEach((_, i) => (curves[`l${i}`] = { kind: 'line', from: `p${i}`, to: `p${(i + 1) % 4}` }));
  const points: Record<string, At> = Object.fromEntries(outline.map((p, i) => [`p${i}`, p]));
  bores.forEach((b, i) => {
    points[`m${i}`] = b;
    curves[`o${i}`] = { kind: 'circle', center: `m${i}`, radius: 5 };
  });
  const fixed = Object.fromEntries([...outline.keys()].map((i) => [`f${i}`, { kind: 'fixed', of: [`p${i}`] }]));
  const constraints = {
    ...fixed,
    ...(bores.length > 0 ? { g0: { kind: 'fixed', of: ['m0'] } } : {}),
    ...Object.fromEntries(bores.map((_, i) => [`d${i}`, { kind: 'diameter', of: [`o${i}`], value: '10 mm' }])),
    ...(pitch
      ? { h: { kind: 'horizontal', of: ['m0', 'm1'] }, w: { kind: 'distance', of: ['m0', 'm1'], value: pitch } }
      : {}),
  };
  return [
    addStep(part, id('s'), {
      kind: 'sketch',
      name: 'Outline',
      plane: { datum: 'floor' },
      points,
      curves,
      constraints,
    } as Step),
    addStep(part, id('e'), { kind: 'extrude', name: 'Plate', profile: { sketch: id('s'), regions: [{ outer: [...[0, 1, 2, 3].map((i) => `l${i}`), ...bores.map((_, i) => `o${i}`)] }] }, way: 'one_way', distance: thickness, result: 'new_body' } as Step), // prettier-ignore
  ];
}

export function sample(name = 'Fit'): Design {
  const edits: Edit[] = [
    addDimension('thk', { name: 'plate_thk', value: '10 mm' }),
    addDimension('pitch', { name: 'base_pitch', value: '40 mm' }),
    addDimension('cpitch', { name: 'cap_pitch', value: '41.5 mm' }),
    addPart('base', 'Base'),
    ...plate('base', [[0, 0], [80, 40]], [[20, 20], [60, 20]], '$thk', '$pitch'), // prettier-ignore
    addPart('pin', 'Pin'),
    setMaterial('pin', 'steel'),
    addStep('pin', 'ps', { kind: 'sketch', name: 'Disc', plane: { datum: 'floor' }, points: { c: [0, 0] }, curves: { o: { kind: 'circle', center: 'c', radius: 5 } }, constraints: { d: { kind: 'diameter', of: ['o'], value: '10 mm' }, k: { kind: 'coincident', of: ['c', 'origin'] } } } as Step), // prettier-ignore
    addStep('pin', 'pe', { kind: 'extrude', name: 'Shank', profile: { sketch: 'ps', regions: 'all' }, way: 'one_way', distance: '40 mm', result: 'new_body' } as Step), // prettier-ignore
    addPart('cap', 'Cap'),
    ...plate('cap', [[0, 0], [80, 40]], [[20, 20], [61.5, 20]], '6 mm', '$cpitch'), // prettier-ignore
  ];
  return edits.reduce((design, edit) => {
    const outcome = applyEdit(design, edit);
    if (!outcome.ok) throw new Error(outcome.message);
    return outcome.design;
  }, emptyDesign(name));
}

export class AssemblyHands {
  constructor(private readonly w: Workplace) {}

  readonly stage = () => this.w.page.getByTestId('assembly-stage');
  readonly instance = (name: string) => this.w.page.locator(`[data-instance="${name}"]`);
  get state() {
    return this.w.page.getByTestId('together-state');
  }

  /** A design; if none is given, a bored plate, a pin and a cap whose bores are out by 1.5 mm. */
  async openDesign(text = writeDesign(sample())): Promise<void> {
    const { page, helb } = this.w;
    const api = `${helb.url}/api/projects`;
    const projects = (await (await page.request.get(api)).json()) as { id: string; name: string }[];
    const project = projects.find((p) => p.name === 'Glasshouse')!;
    const made = await page.request.post(`${api}/${project.id}/designs`, { data: text, headers: { 'content-type': 'application/json' } }); // prettier-ignore
    await page.goto(`${helb.url}/designs/${((await made.json()) as { id: string }).id}`);
    await expect(this.w.caption()).toBeVisible();
  }

  /** Where an instance stands, mm. */
  async placeOf(name: string): Promise<number[]> {
    const told = (await this.stage().getAttribute('data-poses')) ?? '';
    const own = told.split('; ').find((t) => t.startsWith(`${name}: `));
    return own ? own.slice(name.length + 2).split(' ').slice(0, 3).map((n) => Number(n) + 0) : []; // prettier-ignore
  }

  /** Where a place in an instance that is not turned is on the screen. */
  async pixelOf(name: string, local: readonly number[]): Promise<[number, number]> {
    await this.w.standsStill(this.stage());
    const [x, y, z] = (await this.placeOf(name)).map((n, i) => n + local[i]!) as [number, number, number];
    return this.w.inSpace(x, y, z, this.stage());
  }

  /** Pick a level round edge by its centre and radius, on its side towards the viewer. */
  async pickRim(name: string, [x, y, z]: readonly [number, number, number], radius: number): Promise<void> {
    const [px, py] = await this.pixelOf(name, [x + radius * 0.6, y - radius * 0.8, z]);
    await this.clickAt(px, py);
  }

  /** Click what is seen at a place of an instance that is not turned. */
  async click(name: string, place: readonly [number, number, number], key?: 'Shift'): Promise<void> {
    const [x, y] = await this.pixelOf(name, place);
    if (key) await this.w.page.keyboard.down(key);
    await this.clickAt(x, y);
    if (key) await this.w.page.keyboard.up(key);
  }

  private async clickAt(x: number, y: number): Promise<void> {
    const { mouse } = this.w.page;
    await mouse.move(x - 4, y - 3);
    await mouse.move(x, y);
    await mouse.down();
    await mouse.up();
  }

  /** Drag a place of a part by so many pixels. */
  async dragPart(
    name: string,
    [dx, dy]: readonly [number, number],
    at: readonly number[] = [40, 10, 6],
  ): Promise<void> {
    const [x, y] = await this.pixelOf(name, at);
    const { mouse } = this.w.page;
    await mouse.move(x, y);
    await mouse.down();
    await mouse.move(x + dx / 2, y + dy / 2);
    await mouse.move(x + dx, y + dy);
    await mouse.up();
  }
}
