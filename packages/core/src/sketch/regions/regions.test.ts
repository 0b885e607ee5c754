import { describe, expect, test } from '@jest/globals';
import type { SketchGeometry } from '../schema.ts';
import { findRegion } from './find-region.ts';
import { findRegions, mergeRegions, refOf, regionAt, touchingPoint, withHolesOpen } from './regions.ts';

const line = (from: string, to: string) => ({ kind: 'line' as const, from, to });
const circle = (center: string, radius: number) => ({ kind: 'circle' as const, center, radius });

function square(size: number): SketchGeometry {
  return {
    points: { a: [0, 0], b: [size, 0], c: [size, size], d: [0, size] },
    curves: { bottom: line('a', 'b'), right: line('b', 'c'), top: line('c', 'd'), left: line('d', 'a') },
    constraints: {},
  };
}

const areas = (s: SketchGeometry) =>
  findRegions(s)
    .regions.map((r) => r.area)
    .sort((x, y) => x - y);

describe('regions', () => {
  test('a square with two holes is three regions, with exact areas', () => {
    const s = square(100);
    s.points.h = [30, 30];
    s.points.i = [70, 70];
    s.curves.one = circle('h', 10);
    s.curves.two = circle('i', 5);
    const found = areas(s);
    expect(found).toHaveLength(3);
    expect(found[0]).toBeCloseTo(Math.PI * 25, 9);
    expect(found[1]).toBeCloseTo(Math.PI * 100, 9);
    expect(found[2]).toBeCloseTo(10000 - Math.PI * 125, 8);
  });

  test('two overlapping circles are two crescents and a lens', () => {
    const s: SketchGeometry = {
      points: { m: [0, 0], n: [10, 0] },
      curves: { a: circle('m', 10), b: circle('n', 10) },
      constraints: {},
    };
    // Lens of two circles of radius r at distance r: 2r²(π/3 − √3/4).
    const lens = 2 * 100 * (Math.PI / 3 - Math.sqrt(3) / 4);
    const found = areas(s);
    expect(found).toHaveLength(3);
    expect(found[0]).toBeCloseTo(lens, 9);
    expect(found[1]).toBeCloseTo(Math.PI * 100 - lens, 9);
    const map = findRegions(s);
    const refs = map.regions.map((r) => refOf(r).outer.join());
    expect(new Set(refs).size).toBe(3);
    expect(mergeRegions(map, map.regions)).toHaveLength(1);
    expect(withHolesOpen(map)).toEqual(map.regions);
    expect(mergeRegions(map, map.regions)[0]!.area).toBeCloseTo(2 * Math.PI * 100 - lens, 8);
  });

  test('a crossing line parts a square in two, and picking both takes the line away', () => {
    const s = square(10);
    s.points.p = [4, -3];
    s.points.q = [4, 13];
    s.curves.cut = line('p', 'q');
    const map = findRegions(s);
    expect(map.regions.map((r) => r.area).sort((x, y) => x - y)).toEqual([40, 60]);
    const [whole] = mergeRegions(map, map.regions);
    expect(whole!.area).toBeCloseTo(100, 9);
    expect(whole!.loops[0]!.pieces).toHaveLength(4);
  });

  test('islands nest: a ring within a ring', () => {
    const s: SketchGeometry = {
      points: { c: [0, 0] },
      curves: { a: circle('c', 40), b: circle('c', 30), d: circle('c', 20), e: circle('c', 10) },
      constraints: {},
    };
    const found = areas(s);
    expect(found).toHaveLength(4);
    [100, 300, 500, 700].forEach((n, i) => expect(found[i]).toBeCloseTo(Math.PI * n, 8));
    // With holes open every second of them is filled.
    const filled = withHolesOpen(findRegions(s)).map((r) => r.area);
    expect(filled.sort((x, y) => x - y)).toEqual([300, 700].map((n) => expect.closeTo(Math.PI * n, 8)));
  });

  test('a stadium of lines and arcs has its exact area', () => {
    const s: SketchGeometry = {
      points: { a: [-10, -5], b: [10, -5], c: [10, 5], d: [-10, 5], l: [-10, 0], r: [10, 0] },
      curves: {
        bottom: line('a', 'b'),
        top: line('c', 'd'),
        right: { kind: 'arc', center: 'r', from: 'b', to: 'c' },
        left: { kind: 'arc', center: 'l', from: 'd', to: 'a' },
      },
      constraints: {},
    };
    expect(areas(s)[0]).toBeCloseTo(200 + Math.PI * 25, 9);
  });

  test('construction lines bound nothing; an open outline reports its ends and a near gap', () => {
    const s = square(10);
    s.curves.left = { ...line('d', 'a'), construction: true };
    const map = findRegions(s);
    expect(map.regions).toHaveLength(0);
    expect(map.openEnds).toHaveLength(2);
    s.points.d2 = [-0.05, 10];
    s.curves.left = line('d2', 'a');
    s.points.d = [0, 10];
    expect(findRegions(s).gaps[0]!.size).toBeCloseTo(0.05, 9);
  });

  test('a circle touching the outline from inside makes the outline touch itself', () => {
    const s = square(100);
    s.points.h = [50, 10];
    s.curves.hole = circle('h', 10);
    const map = findRegions(s);
    const outside = map.regions.find((r) => r.area > 5000)!;
    expect(touchingPoint(outside, map.arrangement)).toEqual([50, 0]);
  });

  test('a reference finds its region again after the outline moved, and after it gained a hole', () => {
    const s = square(100);
    const ref = refOf(findRegions(s).regions[0]!);
    const wide: SketchGeometry = {
      ...s,
      points: { ...s.points, b: [250, 0], c: [250, 100], h: [60, 50] },
      curves: { ...s.curves, hole: circle('h', 20) },
    };
    const finding = findRegion(ref, findRegions(wide));
    expect(finding.how === 'one' && finding.found[0]!.area).toBeCloseTo(25000 - Math.PI * 400, 7);
  });

  test('a reference written by hand needs no signs, and none is taken for a stranger', () => {
    const s = square(10);
    const map = findRegions(s);
    expect(findRegion({ outer: ['left', 'top', 'right', 'bottom'] }, map)).toEqual({
      how: 'one',
      found: [map.regions[0]],
    });
    expect(findRegion({ outer: ['other'] }, map)).toMatchObject({ how: 'lost', candidates: [] });
  });

  test('the point kept for a region lies inside it', () => {
    const s: SketchGeometry = {
      points: { c: [0, 0] },
      curves: { a: circle('c', 40), b: circle('c', 39) },
      constraints: {},
    };
    const map = findRegions(s);
    for (const r of map.regions) expect(regionAt(map, r.at)).toBe(r);
  });

  test('lines that cross each other in an outline make a hole of their own in it', () => {
    const s = square(100);
    const ends = { p: [30, 45], q: [70, 45], r: [30, 55], t: [70, 55], u: [45, 30], v: [45, 70], w: [55, 30], x: [55, 70] } as unknown as SketchGeometry['points']; // prettier-ignore
    Object.assign(s.points, ends);
    Object.assign(s.curves, { h1: line('p', 'q'), h2: line('r', 't'), v1: line('u', 'v'), v2: line('w', 'x') });
    expect(areas(s)).toEqual([expect.closeTo(100, 9), expect.closeTo(9900, 9)]);
  });

  test.each([1, 80, 5000])('what nearly meets, and what does not, is told by how large all is: %p mm', (size) => {
    const s = square(size);
    s.points.d2 = [-size / 200, size];
    s.curves.left = line('d2', 'a');
    const { gaps } = findRegions(s);
    expect(gaps).toHaveLength(1);
    expect(gaps[0]).toMatchObject({ size: expect.closeTo(size / 200, 9) });
    expect([gaps[0]!.from, gaps[0]!.to].map(([x]) => x).sort((p, q) => p - q)).toEqual([-size / 200, 0]);
    s.points.d2 = [-size / 2, size];
    expect(findRegions(s).gaps).toEqual([]);
    // A line that falls short of the other side by next to nothing divides; one that does so by a little does not.
    const split = (short: number) => {
      const across = square(size);
      Object.assign(across.points, { p: [0, size / 2], q: [size * (1 - short), size / 2] });
      across.curves.cut = line('p', 'q');
      return findRegions(across).regions.length;
    };
    expect([split(1e-10), split(1e-3)]).toEqual([2, 1]);
  });

  test('areas that lie apart stay as they are when they are taken together; only those alike are told apart', () => {
    const s = square(10);
    Object.assign(s.points, { m: [30, 5], n: [50, 5] });
    Object.assign(s.curves, { one: circle('m', 3), two: circle('n', 4) });
    const map = findRegions(s);
    const merged = mergeRegions(map, map.regions);
    expect(merged).toHaveLength(3);
    merged.forEach((r, i) => expect(r).toBe(map.regions[i]));
    for (const r of map.regions) expect(refOf(r, map.regions)).not.toHaveProperty('piece');
  });
});
