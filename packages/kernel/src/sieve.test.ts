/** A plate of a hundred holes that are copies of one another: what later steps, files and pictures make of it. */
import { applyEdit, Ledger, PartEvaluator, setDimension, type Design, type Step } from '@helb/core';
import { beforeAll, expect, test } from '@jest/globals';
import { loadKernel } from './load.ts';
import type { OcctKernel } from './occt-kernel.ts';
import { designOf, edgeNear, extruded, faceLooking, isClosed, outline, rectangle, round } from './sample-parts.ts';

const [N, PITCH, R, T] = [10, 12, 4, 6];
const HOLE = Math.PI * R ** 2 * T;
const steps: Record<string, Step> = {
  s: outline(rectangle(0, 0, N * PITCH, N * PITCH)),
  e: extruded('s', `${T} mm`),
  t: { ...round(R, {}, [PITCH / 2, PITCH / 2]), name: 'Hole' } as Step,
  h: extruded('t', '9 mm', { name: 'Drill', result: 'cut' }),
  r: { kind: 'pattern', name: 'Grid', what: 'steps', steps: ['h'], layout: 'grid', axis: { datum: 'x' }, count: `${N}`, pitch: `${PITCH} mm`, second_axis: { datum: 'y' }, second_count: `${N}`, second_pitch: `${PITCH} mm` } as Step, // prettier-ignore
};

let kernel: OcctKernel;
let evaluator: PartEvaluator;
beforeAll(async () => {
  kernel = await loadKernel();
  evaluator = new PartEvaluator(kernel);
});
const made = async (design: Design) => {
  const outcome = await evaluator.evaluate(design, Ledger.of(design), 'p');
  expect(outcome.steps.map((s) => [s.status, s.message])).toEqual(outcome.steps.map(() => ['ok', null]));
  expect(outcome.bodies).toHaveLength(1);
  return outcome.bodies[0]!;
};
/** Volume and soundness as one finds them who knows nothing of how it was made. */
const readBack = (body: { solid: Parameters<OcctKernel['bulk']>[0] }) => {
  const file = kernel.exportStep([{ name: 'Sieve', color: '#9DBFB8', opacity: 1, solids: [body.solid] }]);
  const { solids, others } = kernel.readStep(file);
  expect([solids.length, others, kernel.isValid(solids[0]!)]).toEqual([1, 0, true]);
  return { ...kernel.bulk(solids[0]!), faces: kernel.faces(solids[0]!).length };
};

test('it is measured, written and drawn as what it is', async () => {
  const body = await made(designOf(steps));
  const volume = (N * PITCH) ** 2 * T - N * N * HOLE;
  expect(body.facts.volume).toBeCloseTo(volume, 6);
  expect(body.facts.center.map((c) => +c.toFixed(9))).toEqual([60, 60, T / 2]);
  expect(new Set(body.faceNames.flat().map((n) => n.text)).size).toBe(6 + N * N);
  const back = readBack(body);
  expect([back.faces, back.volume / volume]).toEqual([6 + N * N, expect.closeTo(1, 9)]);
  const mesh = kernel.mesh(body.solid, { linear: 0.02, angular: 0.1 });
  let six = 0;
  const at = (p: number) => [...mesh.positions.subarray(3 * p, 3 * p + 3)] as [number, number, number];
  for (let t = 0; t < mesh.triangles.length; t += 3) {
    const [a, b, c] = [0, 1, 2].map((k) => at(mesh.triangles[t + k]!)) as [number, number, number][];
    six += a![0] * (b![1] * c![2] - b![2] * c![1]) + a![1] * (b![2] * c![0] - b![0] * c![2]) + a![2] * (b![0] * c![1] - b![1] * c![0]); // prettier-ignore
  }
  expect(isClosed(mesh)).toBe(true);
  expect(Math.abs(six / 6 / volume - 1)).toBeLessThan(1e-3);
  // Each wall has its own place.
  const walls = kernel.faces(body.solid).filter((f) => f.kind === 'cylinder');
  expect(new Set(walls.map((f) => f.center.map((c) => c.toFixed(3)).join())).size).toBe(N * N);
});

test('one rim of them is bevelled, another hole is plugged, a groove is cut into its side', async () => {
  const plain = await made(designOf(steps));
  const rim = edgeNear(plain, [3.5 * PITCH, 2.5 * PITCH + R, T]);
  const bevelled = { ...steps, c: { kind: 'chamfer', name: 'Rim', edges: [rim], distance: '1 mm' } as Step };
  const cone = (Math.PI / 3) * (R ** 2 + R * (R + 1) + (R + 1) ** 2) - Math.PI * R ** 2;
  const volume = (N * PITCH) ** 2 * T - N * N * HOLE;
  expect((await made(designOf(bevelled))).facts.volume).toBeCloseTo(volume - cone, 5);
  const side = faceLooking(plain, [1, 0, 0]);
  const more = {
    ...bevelled,
    q: { ...outline(rectangle(2, 1, 20, 2)), plane: { face: side }, name: 'Slot' } as Step,
    g: extruded('q', '-1.5 mm', { name: 'Groove', result: 'cut' }),
    u: { ...round(R, {}, [7.5 * PITCH, 4.5 * PITCH]), name: 'Plug' } as Step,
    v: extruded('u', `${T} mm`, { name: 'Fill', result: 'join' }),
  };
  const body = await made(designOf(more));
  expect(body.facts.volume).toBeCloseTo(volume - cone - 20 * 2 * 1.5 + HOLE, 5);
  expect(readBack(body).volume).toBeCloseTo(body.facts.volume, 3);
});

test('a wider pitch, fewer holes and a thicker plate follow', async () => {
  let design = designOf(steps);
  for (const [ref, value] of [
    ['r.count', '7'],
    ['r.pitch', '15 mm'],
    ['e.distance', '8 mm'],
  ] as const) {
    // prettier-ignore
    const now = applyEdit(design, setDimension(ref, value));
    if (!now.ok) throw new Error(now.message);
    design = now.design;
  }
  const body = await made(design);
  expect(body.facts.volume).toBeCloseTo((N * PITCH) ** 2 * 8 - 7 * N * (HOLE / T) * 8, 5);
  expect(readBack(body).faces).toBe(6 + 7 * N);
});
