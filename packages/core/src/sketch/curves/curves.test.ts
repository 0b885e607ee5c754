import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { findRegions } from '../regions/regions.ts';
import { pointAt, primitivesOfCurve } from '../regions/primitives.ts';
import { meetings } from '../regions/intersect.ts';
import type { Constraint, Curve, SketchGeometry } from '../schema.ts';
import { solveSketch } from '../solve.ts';
import { basisAt, basisOf, bezierSpans, centripetal, controlPoints, weightsAt, type Vec2 } from './spline.ts';

const sketch = (
  points: SketchGeometry['points'],
  curves: Record<string, Curve>,
  constraints: Record<string, Constraint> = {},
): SketchGeometry => ({ points, curves, constraints });
const solve = (s: SketchGeometry) => solveSketch(s, (id) => Number((s.constraints[id] as { value: string }).value));

describe('B-splines', () => {
  const knots = [0, 0, 0, 0, 0.3, 0.7, 1, 1, 1, 1];

  test('basis functions sum to one, their derivatives to nothing', () => {
    fc.assert(
      fc.property(fc.double({ min: 0, max: 1, noNaN: true }), (u) => {
        const sum = (order: number) => basisAt(knots, 3, u, order).reduce((a, b) => a + b, 0);
        expect(sum(0)).toBeCloseTo(1, 12);
        expect(sum(1)).toBeCloseTo(0, 9);
        expect(sum(2)).toBeCloseTo(0, 8);
      }),
    );
  });

  test('derivatives agree with differences', () => {
    for (const u of [0.1, 0.35, 0.5, 0.9]) {
      for (const order of [1, 2]) {
        const h = 1e-6;
        const up = basisAt(knots, 3, u + h, order - 1);
        const down = basisAt(knots, 3, u - h, order - 1);
        basisAt(knots, 3, u, order).forEach((d, i) => expect(d).toBeCloseTo((up[i]! - down[i]!) / (2 * h), 4));
      }
    }
  });

  test('a spline through points passes them, and has no bend at its ends', () => {
    const points: Vec2[] = [[0, 0], [10, 8], [25, -3], [40, 5]]; // prettier-ignore
    const parameters = centripetal(points);
    const basis = basisOf({ fit: 'through', points: ['a', 'b', 'c', 'd'], parameters });
    parameters.forEach((t, i) => {
      const w = weightsAt(basis, t, 0);
      expect(points.reduce((sum, p, k) => sum + w[k]! * p[0], 0)).toBeCloseTo(points[i]![0], 9);
    });
    const bend = weightsAt(basis, 0, 2);
    expect(points.reduce((sum, p, k) => sum + bend[k]! * p[1], 0)).toBeCloseTo(0, 6);
  });

  test('Bézier spans trace the same curve', () => {
    const basis = basisOf({ fit: 'control', points: ['a', 'b', 'c', 'd', 'e', 'f'] });
    const points: Vec2[] = [[0, 0], [4, 9], [11, 7], [15, -4], [22, 0], [30, 6]]; // prettier-ignore
    const spans = bezierSpans(basis.degree, basis.knots, controlPoints(basis, points));
    expect(spans).toHaveLength(3);
    for (const { from, to, control } of spans) {
      const [a, b, c, d] = control as [Vec2, Vec2, Vec2, Vec2];
      const middle = (a[0] + 3 * b[0] + 3 * c[0] + d[0]) / 8;
      const w = weightsAt(basis, (from + to) / 2, 0);
      expect(points.reduce((sum, p, k) => sum + w[k]! * p[0], 0)).toBeCloseTo(middle, 10);
    }
  });
});

describe('ellipses and splines in constraints', () => {
  const ellipse: Curve = { kind: 'ellipse', center: 'c', major: 'm', minor: 6 };

  test('an ellipse has five freedoms, and its two radii take two', () => {
    const s = sketch({ c: [1, 2], m: [11, 4] }, { e: ellipse });
    expect(solve(s).freedoms).toBe(5);
    s.constraints.a = { kind: 'major_radius', of: ['e'], value: '20' };
    s.constraints.b = { kind: 'minor_radius', of: ['e'], value: '5' };
    const solved = solve(s);
    expect(solved.freedoms).toBe(3);
    expect((solved.geometry.curves.e as { minor: number }).minor).toBe(5);
  });

  test('a point on an ellipse lies on it', () => {
    const s = sketch({ c: [0, 0], m: [10, 0], p: [7, 7] }, { e: ellipse }, {
      f: { kind: 'fixed', of: ['e'] },
      on: { kind: 'coincident', of: ['p', 'e'] },
    }); // prettier-ignore
    const { geometry, freedoms } = solve(s);
    const [x, y] = geometry.points.p!;
    expect(freedoms).toBe(1);
    expect((x / 10) ** 2 + (y / 6) ** 2).toBeCloseTo(1, 8);
  });

  test('a line tangent to an ellipse: x²a² slope condition holds', () => {
    const s = sketch(
      { c: [0, 0], m: [10, 0], a: [-20, 6], b: [20, 9] },
      { e: ellipse, l: { kind: 'line', from: 'a', to: 'b' } },
      { f: { kind: 'fixed', of: ['e'] }, t: { kind: 'tangent', of: ['l', 'e'] } },
    );
    const { geometry, solved, freedoms } = solve(s);
    expect(solved).toBe(true);
    expect(freedoms).toBe(3);
    const [a, b] = [geometry.points.a!, geometry.points.b!];
    const slope = (b[1] - a[1]) / (b[0] - a[0]);
    const rise = a[1] - slope * a[0];
    // y = kx + d touches the ellipse when d² = a²k² + b².
    expect(rise ** 2).toBeCloseTo(100 * slope ** 2 + 36, 6);
  });

  test('a circle tangent to an ellipse touches it once', () => {
    const s = sketch(
      { c: [0, 0], m: [10, 0], k: [16, 1] },
      { e: ellipse, o: { kind: 'circle', center: 'k', radius: 4 } },
      { f: { kind: 'fixed', of: ['e'] }, h: { kind: 'coincident', of: ['k', 'x_axis'] }, t: { kind: 'tangent', of: ['o', 'e'] } },
    ); // prettier-ignore
    const { geometry, solved } = solve(s);
    expect(solved).toBe(true);
    expect(geometry.points.k![0] - (geometry.curves.o as { radius: number }).radius).toBeCloseTo(10, 8);
  });

  test('a spline running into a line is tangent, then smooth, at their shared end', () => {
    const s = sketch(
      { a: [-20, 0], b: [0, 0], c: [10, 6], d: [20, 3], e: [30, 9] },
      { l: { kind: 'line', from: 'a', to: 'b' }, s: { kind: 'spline', fit: 'control', points: ['b', 'c', 'd', 'e'] } },
      { f: { kind: 'fixed', of: ['l'] }, t: { kind: 'tangent', of: ['l', 's'] } },
    );
    const tangent = solve(s);
    expect(tangent.geometry.points.c![1]).toBeCloseTo(0, 9);
    expect(tangent.freedoms).toBe(5);
    s.constraints.t = { kind: 'smooth', of: ['l', 's'] };
    const smooth = solve(s);
    expect(smooth.solved).toBe(true);
    // No bend at the end: its first three control points lie in line with the line.
    expect(smooth.geometry.points.d![1]).toBeCloseTo(0, 6);
    expect(smooth.freedoms).toBe(4);
  });

  test('a point held on a spline and a line touching it somewhere along', () => {
    const s = sketch(
      { a: [0, 0], b: [10, 12], c: [20, 12], d: [30, 0], p: [15, 14], u: [0, 10], v: [30, 10] },
      { s: { kind: 'spline', fit: 'control', points: ['a', 'b', 'c', 'd'] }, l: { kind: 'line', from: 'u', to: 'v' } },
      { f: { kind: 'fixed', of: ['s'] }, on: { kind: 'coincident', of: ['p', 's'] }, h: { kind: 'horizontal', of: ['l'] }, t: { kind: 'tangent', of: ['s', 'l'] } },
    ); // prettier-ignore
    const { geometry, solved, freedoms } = solve(s);
    expect(solved).toBe(true);
    // The top of this symmetric cubic lies at three quarters of its control points' height.
    expect(geometry.points.u![1]).toBeCloseTo(9, 7);
    expect(freedoms).toBe(3);
  });
});

describe('regions of curves', () => {
  test('an ellipse cut by a line through its centre: two halves of known area', () => {
    const s = sketch(
      { c: [0, 0], m: [10, 5], a: [-20, -3], b: [20, 3] },
      { e: { kind: 'ellipse', center: 'c', major: 'm', minor: 4 }, l: { kind: 'line', from: 'a', to: 'b' } },
    );
    const { regions } = findRegions(s);
    expect(regions).toHaveLength(2);
    for (const r of regions) expect(r.area).toBeCloseTo((Math.PI * Math.hypot(10, 5) * 4) / 2, 6);
  });

  test('a spline closed by a line: the area is exact', () => {
    const s = sketch(
      { a: [0, 0], b: [0, 10], c: [10, 10], d: [10, 0] },
      { s: { kind: 'spline', fit: 'control', points: ['a', 'b', 'c', 'd'] }, l: { kind: 'line', from: 'd', to: 'a' } },
    );
    const { regions } = findRegions(s);
    expect(regions).toHaveLength(1);
    // ∫ y dx of x = 30t² − 20t³, y = 30t(1 − t) is 1800/30 = 60.
    expect(regions[0]!.area).toBeCloseTo(60, 9);
  });

  test('two ellipses crossing give their four common points', () => {
    const s = sketch({ c: [0, 0], m: [10, 0], n: [0, 10] }, {
      a: { kind: 'ellipse', center: 'c', major: 'm', minor: 6 },
      b: { kind: 'ellipse', center: 'c', major: 'n', minor: 6 },
    }); // prettier-ignore
    const [a, b] = ['a', 'b'].map((id) => primitivesOfCurve(s, id, s.curves[id]!)[0]!);
    const found = meetings(a!, b!, 1e-8);
    expect(found).toHaveLength(4);
    for (const m of found) expect(Math.abs(m.at[0])).toBeCloseTo(60 / Math.sqrt(136), 8);
    expect(findRegions(s).regions).toHaveLength(5);
  });

  test('a line that touches an ellipse meets it once', () => {
    const s = sketch({ c: [0, 0], m: [10, 0], p: [-20, 6], q: [20, 6] }, {
      a: { kind: 'ellipse', center: 'c', major: 'm', minor: 6 },
      l: { kind: 'line', from: 'p', to: 'q' },
    }); // prettier-ignore
    const [a, l] = ['a', 'l'].map((id) => primitivesOfCurve(s, id, s.curves[id]!)[0]!);
    expect(meetings(a!, l!, 1e-8).map((m) => pointAt(l!, m.onSecond)[0])).toEqual([expect.closeTo(0, 2)]);
  });

  test('lettering has a region for each stroke, with the holes of its letters', () => {
    const s = sketch({ a: [0, 0], b: [40, 0] }, { t: { kind: 'text', from: 'a', to: 'b', text: 'HO' } });
    const { regions, openEnds } = findRegions(s);
    expect(openEnds).toEqual([]);
    expect(regions).toHaveLength(3);
    expect(regions.filter((r) => r.loops.length === 2)).toHaveLength(1);
  });
});
