/** What round shapes that run through each other measure, in closed form: their edges are neither straight nor round. */
import { Ledger, PartEvaluator, transformOf, type Pose, type Step, type Vec3 } from '@helb/core';
import { describe, expect, test } from '@jest/globals';
import { loadKernel } from './load.ts';
import { designOf, evaluated, extruded, outline, rectangle, round } from './sample-parts.ts';

const through = (sketch: string, length: string, more: Partial<Step> = {}): Step => extruded(sketch, length, { name: `Through ${sketch}`, way: 'symmetric', ...more }); // prettier-ignore
const bar = (radius: number): Record<string, Step> => ({ s: { ...round(radius), plane: { datum: 'wall' } }, e: through('s', '60 mm') }); // prettier-ignore
const half = { ...outline([], { name: 'Half', plane: { datum: 'wall' } }), points: { c: [0, 0], a: [0, -20], b: [0, 20] }, curves: { r: { kind: 'arc', center: 'c', from: 'a', to: 'b' }, l: { kind: 'line', from: 'b', to: 'a' } } } as unknown as Step; // prettier-ignore
const ball: Record<string, Step> = { s: half, e: { kind: 'revolve', name: 'Ball', profile: { sketch: 's', regions: 'all' }, axis: { sketch: 's', line: 'y_axis' }, way: 'whole', result: 'new_body' } as Step }; // prettier-ignore
const crossed = (radius: number, result: string, plane: string, at: readonly [number, number] = [0, 0]): Record<string, Step> => ({ t: { ...round(radius, { name: 'Across' }, at), plane: { datum: plane } } as Step, f: through('t', '90 mm', { result }) }); // prettier-ignore

/** ∫ over one bar’s width of 4 √(r² − x²) √(R² − x²): what bars of radii r and R share. x = r sin t makes it smooth. */
function sharedByBars(r: number, R: number): number {
  const n = 4000;
  let sum = 0;
  for (let i = 0; i < n; i++) {
    const t = -Math.PI / 2 + (Math.PI * (i + 0.5)) / n;
    sum += 4 * (r * Math.cos(t)) ** 2 * Math.sqrt(R * R - (r * Math.sin(t)) ** 2) * (Math.PI / n);
  }
  return sum;
}

describe('volumes', () => {
  test.each<[string, Record<string, Step>, number]>([
    ['two equal bars share (Steinmetz)', { ...bar(10), ...crossed(10, 'common', 'side') }, (16 / 3) * 1000],
    ['a thin bar shares with a thick one', { ...bar(10), ...crossed(4, 'common', 'side') }, sharedByBars(4, 10)],
    ['a bar keeps, bored across', { ...bar(10), ...crossed(4, 'cut', 'side') }, Math.PI * 6000 - sharedByBars(4, 10)],
    ['a ball keeps, bored through its poles', { ...ball, ...crossed(8, 'cut', 'floor') }, (4 / 3) * Math.PI * 336 ** 1.5],
    ['a ball keeps, bored across', { ...ball, ...crossed(8, 'cut', 'side') }, (4 / 3) * Math.PI * 336 ** 1.5],
    ['a ball and a bar aside share (Viviani)', { ...ball, ...crossed(10, 'common', 'side', [10, 0]) }, (16_000 / 3) * (Math.PI - 4 / 3)],
    ['the same along the poles', { ...ball, ...crossed(10, 'common', 'floor', [10, 0]) }, (16_000 / 3) * (Math.PI - 4 / 3)],
  ])('%s', async (_, steps, volume) => {
    const { steps: made, bodies } = await evaluated(designOf(steps));
    expect(made.map((s) => s.message)).toEqual(made.map(() => null));
    expect(bodies.reduce((sum, b) => sum + b.facts.volume, 0) / volume).toBeCloseTo(1, 7);
  }); // prettier-ignore
});

test('areas: of the walls of two equal bars that cross, and of the window in a ball', async () => {
  const areas = async (steps: Record<string, Step>, kind: string) => {
    const [body] = (await evaluated(designOf(steps))).bodies;
    return body!.facts.faces.reduce((sum, f) => sum + (f.kind === kind ? f.area : 0), 0);
  };
  expect(await areas({ ...bar(10), ...crossed(10, 'common', 'side') }, 'cylinder')).toBeCloseTo(1600, 4);
  // Viviani’s two windows: 4R²(π/2 − 1).
  expect(await areas({ ...ball, ...crossed(10, 'common', 'side', [10, 0]) }, 'sphere')).toBeCloseTo(1600 * (Math.PI / 2 - 1), 4); // prettier-ignore
});

test('a ball whose pole dips into a turned block is cut from it and leaves a cap there, though faces merged break it', async () => {
  const kernel = await loadKernel();
  const evaluator = new PartEvaluator(kernel);
  const made = (steps: Record<string, Step>) => evaluator.evaluate(designOf(steps), Ledger.of(designOf(steps)), 'p');
  const [block] = (await made({ s: outline(rectangle(-10, -7, 20, 14)), e: extruded('s', '12 mm') })).bodies;
  const [round6] = (await made({ ...ball, s: { ...half, points: { c: [0, 0], a: [0, -6], b: [0, 6] } } as unknown as Step })).bodies; // prettier-ignore
  const stands = (at: Vec3, turn: Pose['turn']) => transformOf({ at, turn });
  const bar = kernel.placed(block!.solid, stands([7.574969384621348, 1.3471650571316318, 9.004472800998238], [0.5730141375557242, 0.3864308499028017, 0.30039229515431765, 0.6573358847777818])).solid; // prettier-ignore
  const tool = kernel.placed(round6!.solid, stands([4.588938738028023, 6.661823350778697, 10.874965438561034], [-0.17984151945819457, -0.12128201846552701, -0.09427866304403937, 0.9716271062349608])).solid; // prettier-ignore
  // Its middle lies 5.231244 mm off the block’s side: a cap of πh²(3R − h)/3.
  const h = 6 - 5.231244;
  const cap = (Math.PI * h * h * (18 - h)) / 3;
  for (const [kind, one, other, volume] of [['cut', bar, tool, 3360 - cap], ['cut', tool, bar, 288 * Math.PI - cap], ['common', bar, tool, cap], ['join', bar, tool, 3360 + 288 * Math.PI - cap]] as const) {
    const outcome = kernel.combine(kind, [one], [other]);
    expect(outcome.map(({ solid }) => kernel.isValid(solid))).toEqual([true]);
    expect(kernel.bulk(outcome[0]!.solid).volume).toBeCloseTo(volume, 3);
    // Every face of it still tells where it came from.
    expect(outcome[0]!.faces.every((parents) => parents.length > 0)).toBe(true);
    kernel.free(outcome[0]!.solid);
  } // prettier-ignore
  kernel.free(bar);
  kernel.free(tool);
});
