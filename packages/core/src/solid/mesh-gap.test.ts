import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { HERE, placedAt, turnOf, type Pose } from '../space/pose.ts';
import { unit, type Vec3 } from '../space/vector.ts';
import { meshGap, MeshTree } from './mesh-gap.ts';
import { nearestPlaces, triangleGap } from './triangle-gap.ts';

/** A box from its corner, of twelve triangles. */
function box([w, d, h]: Vec3): MeshTree {
  const positions = new Float32Array(8 * 3);
  for (let i = 0; i < 8; i++) positions.set([i & 1 ? w : 0, i & 2 ? d : 0, i & 4 ? h : 0], i * 3);
  const quads = [[0, 2, 3, 1], [4, 5, 7, 6], [0, 1, 5, 4], [2, 6, 7, 3], [0, 4, 6, 2], [1, 3, 7, 5]]; // prettier-ignore
  const triangles = new Uint32Array(quads.flatMap(([a, b, c, d2]) => [a!, b!, c!, a!, c!, d2!]));
  return new MeshTree({ positions, triangles });
}
const at = (x: number, y: number, z: number): Pose => ({ ...HERE, at: [x, y, z] });
const far = (p: Vec3, q: Vec3) => Math.hypot(p[0] - q[0], p[1] - q[1], p[2] - q[2]);

describe('how near meshes come', () => {
  const [a, b] = [box([10, 10, 10]), box([4, 4, 4])];

  test('face to face, edge to edge, corner to corner; through each other; too far to matter', () => {
    expect(meshGap(a, b, at(13, 3, 3), 100)!.gap).toBeCloseTo(3, 12);
    expect(meshGap(a, b, at(13, 14, 3), 100)!.gap).toBeCloseTo(5, 12);
    expect(meshGap(a, b, at(11, 12, 12), 100)!.gap).toBeCloseTo(3, 12);
    expect(meshGap(a, b, at(9, 3, 3), 100)!.gap).toBe(0);
    expect(meshGap(a, b, at(13, 3, 3), 2.9)).toBeNull();
  });

  test('a corner turned towards a face is nearest where it is', () => {
    const turned: Pose = { at: [20, 5, 5], turn: turnOf([0, 0, 1], Math.PI / 4) };
    const found = meshGap(a, b, turned, 100)!;
    expect(found.gap).toBeCloseTo(10 - 2 * Math.SQRT2, 12);
    expect(found.on[0][0]).toBeCloseTo(10, 12);
    expect(found.on[1][1]).toBeCloseTo(5 + 2 * Math.SQRT2, 12);
  });

  const number = fc.double({ min: -12, max: 12, noNaN: true });
  const place = fc.tuple(number, number, number);
  test('it is the least over all pairs of triangles, however begun, and its places are so far apart', () => {
    fc.assert(
      fc.property(
        place,
        place,
        fc.double({ min: -3, max: 3, noNaN: true }),
        fc.nat(11),
        fc.nat(11),
        (to, axis, angle, i, j) => {
          const other: Pose = { at: to, turn: turnOf(unit(axis) ?? [0, 0, 1], angle) };
          let least = Infinity;
          const moved = new Float64Array(9);
          for (let t = 0; t < b.count; t++) {
            for (let c = 0; c < 3; c++)
              moved.set(
                placedAt(other, [...b.corners.subarray(t * 9 + c * 3, t * 9 + c * 3 + 3)] as unknown as Vec3),
                c * 3,
              );
            for (let s = 0; s < a.count; s++) least = Math.min(least, triangleGap(a.corners, s * 9, moved, 0));
          }
          const found = meshGap(a, b, other, 100, [i, j])!;
          expect(Math.abs(found.gap - least)).toBeLessThan(1e-9);
          if (found.gap > 0) expect(far(...found.on)).toBeCloseTo(found.gap, 9);
        },
      ),
      { numRuns: 200 },
    );
  });

  test('two triangles: the same either way round, moved along or turned', () => {
    fc.assert(
      fc.property(fc.array(place, { minLength: 6, maxLength: 6 }), (p) => {
        const [one, other] = [Float64Array.from(p.slice(0, 3).flat()), Float64Array.from(p.slice(3).flat())];
        const gap = triangleGap(one, 0, other, 0);
        const [x, y, z, u, v, w] = nearestPlaces as unknown as [number, number, number, number, number, number];
        if (gap > 0) expect(far([x, y, z], [u, v, w])).toBeCloseTo(gap, 9);
        expect(Math.abs(triangleGap(other, 0, one, 0) - gap)).toBeLessThan(1e-9);
        // No place of either is nearer to a place of the other.
        for (const [r, s] of [
          [0.2, 0.3],
          [0.5, 0.5],
          [0, 1],
        ]) {
          // prettier-ignore
          const inside = (t: Float64Array): Vec3 => [0, 1, 2].map((k) => t[k]! + r! * (t[3 + k]! - t[k]!) + s! * (t[6 + k]! - t[k]!)) as unknown as Vec3; // prettier-ignore
          expect(far(inside(one), inside(other))).toBeGreaterThanOrEqual(gap - 1e-9);
        }
      }),
    );
  });
});
