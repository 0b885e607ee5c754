/** Regions of every kind of curve, however they are turned: held against outlines of many short straight lines. */
import { describe, expect, test } from '@jest/globals';
import type { SketchGeometry } from '../schema.ts';
import { findRegion } from './find-region.ts';
import { isInside, pointInside } from './loop.ts';
import { pointAt, type Vec2 } from './primitives.ts';
import { findRegions, mergeRegions, refOf, regionAt, type Region, type RegionMap } from './regions.ts';
import { sideOfLine } from './side.ts';

const line = (from: string, to: string) => ({ kind: 'line' as const, from, to });
const circle = (center: string, radius: number) => ({ kind: 'circle' as const, center, radius });
const arc = (center: string, from: string, to: string) => ({ kind: 'arc' as const, center, from, to });
const ellipse = (center: string, major: string, minor: number) => ({ kind: 'ellipse' as const, center, major, minor });
const sketch = (points: Record<string, Vec2>, curves: SketchGeometry['curves']): SketchGeometry => ({ points: structuredClone(points), curves, constraints: {} }); // prettier-ignore

/** Each with the number of its regions. */
const SHAPES: readonly (readonly [string, number, SketchGeometry])[] = [
  ['two lines across a circle', 4, sketch({ m: [3, 2], a: [-12, 1], b: [20, 4], c: [1, -14], d: [6, 17] }, { o: circle('m', 9), u: line('a', 'b'), v: line('c', 'd') })],
  ['a line that touches a circle, in a frame', 2, sketch({ m: [0, 0], a: [-10, 5], b: [10, 5], c: [10, -9], d: [-10, -9] }, { o: circle('m', 5), t: line('a', 'b'), r: line('b', 'c'), f: line('c', 'd'), l: line('d', 'a') })],
  ['two circles that touch inside, a third that crosses both', 6, sketch({ m: [0, 0], n: [4, 0], k: [0, 9] }, { a: circle('m', 10), b: circle('n', 6), c: circle('k', 7) })],
  ['two circles that touch outside', 2, sketch({ m: [0, 0], n: [16, 0] }, { a: circle('m', 10), b: circle('n', 6) })],
  ['an ellipse across a circle', 5, sketch({ m: [0, 0], j: [12, 3] }, { e: ellipse('m', 'j', 4), o: circle('m', 7) })],
  ['two ellipses that cross', 5, sketch({ m: [0, 0], j: [11, 2], n: [1, 1], k: [0, 13] }, { e: ellipse('m', 'j', 4), o: ellipse('n', 'k', 3) })],
  ['a line across an ellipse', 2, sketch({ m: [1, 2], j: [9, -3], a: [-14, -3], b: [15, 6] }, { e: ellipse('m', 'j', 5), u: line('a', 'b') })],
  ['half an ellipse closed by a line', 1, sketch({ m: [0, 0], j: [8, 0], a: [8, 0], b: [-8, 0] }, { e: { kind: 'elliptical_arc', center: 'm', major: 'j', minor: 5, from: 'a', to: 'b' }, u: line('b', 'a') })],
  ['a wave across a line that closes it, and a line across both', 4, sketch({ a: [0, 0], b: [4, 9], c: [9, -8], d: [14, 7], e: [20, 0], p: [-2, -12], q: [12, 14] }, { w: { kind: 'spline', fit: 'control', points: ['a', 'b', 'c', 'd', 'e'] }, u: line('a', 'e'), v: line('p', 'q') })],
  ['a wave through points across a circle', 2, sketch({ m: [10, 0], a: [-6, 0], b: [4, 5], c: [12, -5], d: [26, 3] }, { w: { kind: 'spline', fit: 'through', points: ['a', 'b', 'c', 'd'] }, o: circle('m', 8) })],
  ['arcs that close, one bent in', 1, sketch({ a: [-10, 0], b: [10, 0], m: [0, 0], n: [0, -20] }, { o: arc('m', 'b', 'a'), u: arc('n', 'b', 'a') })],
  ['holes in holes, and one beside', 5, sketch({ m: [0, 0], n: [30, 0], j: [5, 0] }, { a: circle('m', 12), b: circle('m', 9), e: ellipse('m', 'j', 2), d: circle('n', 4), f: circle('n', 3) })],
  ['an edge drawn over itself', 1, sketch({ a: [0, 0], b: [9, 0], c: [9, 6], d: [0, 6], e: [3, 0], f: [7, 0] }, { l1: line('a', 'b'), l2: line('b', 'c'), l3: line('c', 'd'), l4: line('d', 'a'), l5: line('e', 'f') })],
  ['arcs of one circle over each other', 1, sketch({ m: [0, 0], a: [5, 0], b: [0, 5], c: [-5, 0], d: [0, -5] }, { p: arc('m', 'a', 'c'), q: arc('m', 'b', 'd'), r: arc('m', 'd', 'a') })],
]; // prettier-ignore

const TURNS = [0, 0.3, Math.PI / 2, 2, Math.PI, 4.4];
const turnedBy = (angle: number) => ([x, y]: Vec2): Vec2 => [Math.cos(angle) * x - Math.sin(angle) * y + 5, Math.sin(angle) * x + Math.cos(angle) * y - 7]; // prettier-ignore
const moved = (s: SketchGeometry, to: (p: Vec2) => Vec2): SketchGeometry => ({
  ...s,
  points: Object.fromEntries(Object.entries(s.points).map(([id, p]) => [id, to(p)])),
});

const STEPS = 200;
/** The outline and holes of a region as many straight lines. */
function polygons(map: RegionMap, region: Region): Vec2[][] {
  const left = new Set(region.halves);
  const loops: Vec2[][] = [];
  for (const first of region.halves) {
    if (!left.has(first)) continue;
    const loop: Vec2[] = [];
    for (let h: number | undefined = first; h !== undefined;) {
      left.delete(h);
      const { primitive, t0, t1, to } = map.arrangement.halves[h]!;
      const steps = primitive.kind === 'line' ? 1 : STEPS;
      for (let k = 0; k < steps; k++) loop.push(pointAt(primitive, t0 + ((t1 - t0) * k) / steps) as Vec2);
      h = region.halves.find((n) => left.has(n) && map.arrangement.halves[n]!.from === to);
    }
    loops.push(loop);
  }
  return loops;
}
const shoelace = (loop: readonly Vec2[]) => loop.reduce((sum, [x, y], i) => { const [u, v] = loop[(i + 1) % loop.length]!; return sum + (x * v - u * y) / 2; }, 0); // prettier-ignore
function winding(loops: readonly (readonly Vec2[])[], [px, py]: Vec2): boolean {
  let odd = false;
  for (const loop of loops)
    loop.forEach(([x, y], i) => {
      const [u, v] = loop[(i + 1) % loop.length]!;
      if (y > py !== v > py && px < x + ((py - y) / (v - y)) * (u - x)) odd = !odd;
    });
  return odd;
}
const nearest = (loops: readonly (readonly Vec2[])[], p: Vec2) => Math.min(...loops.flat().map((q) => Math.hypot(q[0] - p[0], q[1] - p[1]))); // prettier-ignore

describe.each(SHAPES)('%s', (_, count, shape) => {
  const plain = findRegions(shape);

  test.each(TURNS)('turned by %d rad', (angle) => {
    const map = findRegions(moved(shape, turnedBy(angle)));
    expect(map.regions).toHaveLength(count);
    for (const region of map.regions) {
      const loops = polygons(map, region);
      expect(loops).toHaveLength(region.loops.length);
      const area = loops.reduce((sum, l) => sum + shoelace(l), 0);
      expect(Math.abs(region.area / area - 1)).toBeLessThan(5e-4);
      expect(region.area).toBeGreaterThan(0);
      expect(region.loops[0]!.area).toBeGreaterThan(0);
      for (const hole of region.loops.slice(1)) expect(hole.area).toBeLessThan(0);
      // The same region, by the same curves, as before it was turned.
      const same = plain.regions.filter((r) => r.outer.join() === region.outer.join());
      expect(same.some((r) => Math.abs(r.area - region.area) < 1e-7)).toBe(true);
      if (same.length === 1) expect(findRegion(refOf(same[0]!), map)).toEqual({ how: 'one', found: [region] });
      expect(isInside(region.loops, region.at)).toBe(true);
      expect(winding(loops, region.at)).toBe(true);
      expect(pointInside(region.loops)).toEqual(region.at);
      expect(regionAt(map, region.at)).toBe(region);
      const xs = loops[0]!.map((p) => p[0]);
      const ys = loops[0]!.map((p) => p[1]);
      const [x0, x1, y0, y1] = [Math.min(...xs), Math.max(...xs), Math.min(...ys), Math.max(...ys)];
      const wrong: Vec2[] = [];
      for (let i = 0; i < 11; i++)
        for (let j = 0; j < 11; j++) {
          const p: Vec2 = [x0 - 1 + ((x1 - x0 + 2) * (i + 0.37)) / 11, y0 - 1 + ((y1 - y0 + 2) * (j + 0.41)) / 11];
          if (isInside(region.loops, p) !== winding(loops, p) && nearest(loops, p) > 0.1) wrong.push(p);
        }
      expect(wrong).toEqual([]);
      // How far it lies to either side of lines through the middle of nowhere.
      for (const lean of [0, 0.7, 2.1]) {
        const along: Vec2 = [Math.cos(lean), Math.sin(lean)];
        const [least, most] = sideOfLine(region.loops[0]!, [2, 1], along);
        const away = loops[0]!.map((p) => along[0] * (p[1] - 1) - along[1] * (p[0] - 2));
        expect(Math.abs(least - Math.min(...away))).toBeLessThan(5e-3);
        expect(Math.abs(most - Math.max(...away))).toBeLessThan(5e-3);
      }
    }
    const [whole] = mergeRegions(map, map.regions);
    expect(whole).toBeDefined();
  });

  test('mirrored, each lies on the other side of every curve of its own direction', () => {
    const map = findRegions(moved(shape, ([x, y]) => [-x, y]));
    // Circles, ellipses and arcs run counter-clockwise whichever way they are drawn.
    const straight = Object.values(shape.curves).every((c) => c.kind === 'line' || c.kind === 'spline');
    const turnedOver = (outer: readonly string[]) => outer.map((c) => (c.startsWith('+') ? '-' : '+') + c.slice(1)).sort(); // prettier-ignore
    if (straight)
      expect(map.regions.map((r) => r.outer.join()).sort()).toEqual(plain.regions.map((r) => turnedOver(r.outer).join()).sort()); // prettier-ignore
    if (Object.values(shape.curves).every((c) => c.kind !== 'arc' && c.kind !== 'elliptical_arc'))
      expect(map.regions.map((r) => r.area.toFixed(6)).sort()).toEqual(plain.regions.map((r) => r.area.toFixed(6)).sort()); // prettier-ignore
  });
});
