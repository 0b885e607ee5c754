import { Ledger, PartEvaluator, type Body, type Design, type SolidMesh, type Vec3 } from '@helb/core';
import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { flatTriangles, type Loop } from './flat-mesh.ts';
import { loadKernel } from './load.ts';
import { designOf, extruded, isClosed, outline, rectangle, type At } from './sample-parts.ts';

const kernel = await loadKernel();
const evaluator = new PartEvaluator(kernel);
const evaluated = (design: Design) => evaluator.evaluate(design, Ledger.of(design), 'p');
const QUALITY = { linear: 0.05, angular: 0.3 };

/** A regular polygon of `n` corners. */
const ring = ([x, y]: At, radius: number, n: number, z = 0): Loop => Array.from({ length: n }, (_, i): Vec3 => [x + radius * Math.cos((2 * Math.PI * i) / n), y + radius * Math.sin((2 * Math.PI * i) / n), z]); // prettier-ignore
const ringArea = (radius: number, n: number) => (n / 2) * radius ** 2 * Math.sin((2 * Math.PI) / n);

function areaOf(triangles: Uint32Array, points: Loop, towards: Vec3): number {
  let [sum, least] = [0, 0];
  for (let t = 0; t < triangles.length; t += 3) {
    const [a, b, c] = [points[triangles[t]!]!, points[triangles[t + 1]!]!, points[triangles[t + 2]!]!];
    const [u, v] = [b, c].map((p) => p.map((x, k) => x - a[k]!)) as [number[], number[]];
    const across = [u[1]! * v[2]! - u[2]! * v[1]!, u[2]! * v[0]! - u[0]! * v[2]!, u[0]! * v[1]! - u[1]! * v[0]!];
    const own = across.reduce((s, x, k) => s + x * towards[k]!, 0) / 2;
    least = Math.min(least, own);
    sum += own;
  }
  expect(least).toBeGreaterThanOrEqual(-1e-9);
  return sum;
}

describe('triangles of a flat face', () => {
  test('fill it but for its holes, whichever way the loops run and the face looks', () => {
    const plate: Loop = [[0, 0, 3], [100, 0, 3], [100, 60, 3], [0, 60, 3]]; // prettier-ignore
    fc.assert(
      fc.property(fc.integer({ min: 3, max: 40 }), fc.boolean(), fc.boolean(), fc.integer({ min: 4, max: 10 }), (corners, turned, below, radius) => {
        const holes = Array.from({ length: 15 }, (_, i) => ring([10 + 20 * (i % 5), 10 + 20 * Math.floor(i / 5)], radius - 0.5, corners, 3));
        const loops = [turned ? plate.toReversed() : plate, ...holes];
        const normal: Vec3 = [0, 0, below ? -1 : 1];
        const triangles = flatTriangles(loops, normal)!;
        expect(areaOf(triangles, loops.flat(), normal)).toBeCloseTo(6000 - 15 * ringArea(radius - 0.5, corners), 6);
      }),
      { numRuns: 40 },
    ); // prettier-ignore
  });

  test('are none where loops cross; a point on a straight side is a corner of some', () => {
    const square: Loop = [[0, 0, 0], [10, 0, 0], [10, 10, 0], [0, 10, 0]]; // prettier-ignore
    expect(flatTriangles([square, ring([10, 5], 2, 12)], [0, 0, 1])).toBeNull();
    const found = flatTriangles([[...square.slice(0, 1), [5, 0, 0], ...square.slice(1)]], [0, 0, 1])!;
    expect([found.length, new Set(found).size]).toEqual([9, 5]);
  });
});

/** Area of each face’s triangles, and how they look on the whole. */
function faceOf({ positions, normals, triangles, faceRanges }: SolidMesh, face: number): { area: number; along: Vec3 } {
  const [first, count] = [faceRanges[2 * face]!, faceRanges[2 * face + 1]!];
  const points = Array.from({ length: positions.length / 3 }, (_, p): Vec3 => [positions[3 * p]!, positions[3 * p + 1]!, positions[3 * p + 2]!]); // prettier-ignore
  const along: Vec3 = [0, 1, 2].map((k) => normals[3 * triangles[first]! + k]!) as unknown as Vec3;
  return { area: areaOf(triangles.slice(first, first + count), points, along), along };
}

test('a plate with many holes is closed, each of its faces in its place and looking outwards', async () => {
  const plate = rectangle(0, 0, 72, 72);
  const drilled = outline([]) as { points: object; curves: object };
  const centers = Array.from({ length: 36 }, (_, i): At => [12 * (i % 6) + 6, 12 * Math.floor(i / 6) + 6]);
  Object.assign(drilled.points, Object.fromEntries(centers.map((at, i) => [`c${i}`, at])));
  Object.assign(drilled.curves, Object.fromEntries(centers.map((_, i) => [`o${i}`, { kind: 'circle', center: `c${i}`, radius: 3 }]))); // prettier-ignore
  const { bodies } = await evaluated(designOf({ s: outline(plate), e: extruded('s', '5 mm'), t: drilled as never, h: extruded('t', '9 mm', { result: 'cut', name: 'Drill' }) })); // prettier-ignore
  const [body] = bodies as [Body];
  const mesh = kernel.mesh(body.solid, QUALITY);
  expect(isClosed(mesh)).toBe(true);
  expect(body.facts.faces).toHaveLength(6 + 36);
  for (const [f, { normal, area, center, radius }] of body.facts.faces.entries()) {
    if (normal) {
      const own = faceOf(mesh, f);
      // What round holes leave is a little larger where they have facets.
      expect(Math.abs(own.area / area - 1)).toBeLessThan(0.01);
      expect(own.along.map((x, k) => x * normal[k]!).reduce((a, b) => a + b)).toBeCloseTo(1, 6);
      continue;
    }
    const [first, count] = [mesh.faceRanges[2 * f]!, mesh.faceRanges[2 * f + 1]!];
    expect(count).toBeGreaterThan(0);
    for (const p of mesh.triangles.subarray(first, first + count)) {
      const away = Math.hypot(mesh.positions[3 * p]! - center[0], mesh.positions[3 * p + 1]! - center[1]);
      expect(away).toBeCloseTo(radius!, 4);
    }
  }
  expect([...mesh.edgeRanges].filter((_, i) => i % 2 === 1).every((count) => count >= 2)).toBe(true);
});

test('a toothed outline, the top of which two faces with many edges share, is closed too', async () => {
  const teeth = Array.from({ length: 40 }, (_, i): At[] => [[3 * i, 0], [3 * i + 1, -4], [3 * i + 2, -4]]).flat(); // prettier-ignore
  const comb: At[] = [...teeth, [120, 0], [120, 30], [0, 30]];
  const { bodies } = await evaluated(
    designOf({
      s: outline(comb),
      e: extruded('s', '5 mm'),
      t: outline(rectangle(0, 15, 120, 1)),
      h: extruded('t', '2 mm', { result: 'cut', name: 'Groove' }),
    }),
  );
  const [body] = bodies as [Body];
  const mesh = kernel.mesh(body.solid, QUALITY);
  expect(isClosed(mesh)).toBe(true);
  for (const [f, { area }] of body.facts.faces.entries()) expect(faceOf(mesh, f).area).toBeCloseTo(area, 3);
});

test('two faces full of holes that share an edge meet along it', async () => {
  const rows = (across: number, down: number) => Array.from({ length: across * down }, (_, i): At => [6 + 10 * (i % across), 5 + 9 * Math.floor(i / across)]); // prettier-ignore
  const holes = (plane: string, at: readonly At[]) => ({ ...outline([], { name: `On ${plane}`, plane: { datum: plane } } as never), points: Object.fromEntries(at.map((p, i) => [`c${i}`, [...p]])), curves: Object.fromEntries(at.map((_, i) => [`o${i}`, { kind: 'circle', center: `c${i}`, radius: 2 }])) }); // prettier-ignore
  const { bodies } = await evaluated(
    designOf({
      s: outline(rectangle(0, 0, 102, 40)),
      e: extruded('s', '40 mm'),
      f: holes('floor', rows(10, 4)) as never,
      g: extruded('f', '1 mm', { result: 'cut', name: 'Below' }),
      w: holes('wall', rows(10, 4)) as never,
      x: extruded('w', '1 mm', { result: 'cut', name: 'In front', way: 'symmetric' } as never),
    }),
  );
  const [body] = bodies as [Body];
  expect(body.facts.faces).toHaveLength(6 + 2 * 80);
  expect(isClosed(kernel.mesh(body.solid, QUALITY))).toBe(true);
});
