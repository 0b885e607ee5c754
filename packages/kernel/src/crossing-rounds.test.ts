/** What round shapes that run through each other measure, in closed form: their edges are neither straight nor round. */
import { HERE, Ledger, PartEvaluator, transformOf, type BooleanKind, type Pose, type SolidHandle, type Step, type Vec3 } from '@helb/core'; // prettier-ignore
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

describe('a whole ring', () => {
  const ring: Record<string, Step> = { ...ball, s: { ...round(3, {}, [9, 0]), plane: { datum: 'wall' } } as Step };
  const rod: Record<string, Step> = { s: round(4), e: extruded('s', '30 mm') };
  const plate: Record<string, Step> = { s: outline(rectangle(-20, -20, 40, 40)), e: extruded('s', '2 mm', { way: 'symmetric' }) }; // prettier-ignore
  const slanting: Pose = { at: [1.35, 1.55, 0.3], turn: [0.39406739009042946, 0.4597585676852838, -0.6735897021853706, -0.42380404035015695] }; // prettier-ignore
  const inside: Record<string, Step> = { s: outline(rectangle(-20, -20, 40, 40)), e: extruded('s', '20 mm', { way: 'symmetric' }) }; // prettier-ignore

  test.each<[string, Record<string, Step>, Pose, number | null]>([
    ['a slanting rod', rod, slanting, null],
    // Between z = ±1 of a tube of radius 3 about a circle of radius 9: Pappus, of the strip of the disc.
    ['a plate through its middle', plate, HERE, 2 * Math.PI * 9 * 2 * (Math.sqrt(8) + 9 * Math.asin(1 / 3))],
    ['a block round all of it', inside, HERE, 2 * Math.PI ** 2 * 9 * 9],
    ['another ring', ring, { at: [7, 2, 1], turn: slanting.turn }, null],
  ])('and %s: joined, cut and in common agree, each time anew, and lose nothing', async (_, steps, pose, shared) => {
    const kernel = await loadKernel();
    const evaluator = new PartEvaluator(kernel);
    const made = async (of: Record<string, Step>) => (await evaluator.evaluate(designOf(of), Ledger.of(designOf(of)), 'p')).bodies[0]!; // prettier-ignore
    const [a, other] = [await made(ring), await made(steps)];
    const b = kernel.placed(other.solid, transformOf(pose)).solid;
    const [va, vb] = [a.facts.volume, other.facts.volume];
    const held = kernel.held;
    const volume = (kind: BooleanKind, one: SolidHandle, tool: SolidHandle): number => {
      const outcome = kernel.combine(kind, [one], [tool]);
      expect(outcome.every(({ solid }) => kernel.isValid(solid))).toBe(true);
      expect(outcome.every(({ faces }) => faces.every((parents) => parents.length > 0))).toBe(true);
      const sum = outcome.reduce((total, { solid }) => total + kernel.bulk(solid).volume, 0);
      for (const { solid } of outcome) kernel.free(solid);
      return sum;
    };
    for (let again = 0; again < 2; again++) {
      const common = volume('common', a.solid, b);
      if (shared !== null) expect(common).toBeCloseTo(shared, 3);
      expect(common).toBeGreaterThan(1);
      for (const [kind, one, tool, without] of [['cut', a.solid, b, va], ['cut', b, a.solid, vb], ['join', a.solid, b, va + vb], ['join', b, a.solid, va + vb]] as const)
        expect([kind, volume(kind, one, tool)]).toEqual([kind, expect.closeTo(without - common, 2)]);
    } // prettier-ignore
    expect(kernel.held).toBe(held);
  }); // prettier-ignore
});
