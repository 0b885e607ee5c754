/** Facts of a copy are told as the kernel itself tells them. */
import { expect, test } from '@jest/globals';
import {
  LazyFacts,
  Ledger,
  MovedFacts,
  movedCurve,
  PartEvaluator,
  transformOf,
  type Step,
  type Vec3,
} from '@helb/core';
import { loadKernel } from './load.ts';
import { block, designOf, extruded, round } from './sample-parts.ts';

const kernel = await loadKernel();

test('of a bored block that is turned and moved: faces, edges, corners, bends, box and curves', async () => {
  const steps: Record<string, Step> = { ...block(41, 27, 9), b: round(4.5, {}, [13, 11]), c: extruded('b', '50 mm', { name: 'Bore', result: 'cut' }) }; // prettier-ignore
  const design = designOf(steps);
  const [body] = (await new PartEvaluator(kernel).evaluate(design, Ledger.of(design), 'p')).bodies;
  const half = Math.sqrt(0.5);
  const to = transformOf({ at: [7, -3, 21.5], turn: [half * 0.6, half * 0.8, 0, half] });
  const { solid } = kernel.placed(body!.solid, to);
  const [told, asked] = [new MovedFacts(body!.facts, to, solid, kernel), new LazyFacts(kernel, solid)];
  const near = (v: unknown): unknown => (typeof v === 'number' ? expect.closeTo(v, 6) : Array.isArray(v) ? v.map(near) : v !== null && typeof v === 'object' ? Object.fromEntries(Object.entries(v).map(([k, x]) => [k, near(x)])) : v); // prettier-ignore
  for (const group of ['faces', 'edges', 'corners', 'bends', 'box', 'center', 'volume', 'area', 'valid'] as const)
    expect([group, told[group]]).toEqual([group, near(asked[group])]);
  const curves = kernel.curves(body!.solid).map((c) => movedCurve(to, c));
  const ends = (c: { from: Vec3; to: Vec3; middle: Vec3 }) => [c.from, c.middle, c.to];
  expect(curves.map(ends)).toEqual(near(kernel.curves(solid).map(ends)));
  expect(curves.flatMap((c) => (c.kind === 'ellipse' ? [c.center, c.normal] : []))).toEqual(near(kernel.curves(solid).flatMap((c) => (c.kind === 'ellipse' ? [c.center, c.normal] : [])))); // prettier-ignore
  kernel.free(solid);
});
