import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import type { Curve, SketchGeometry } from '../schema.ts';
import { boxOf, derivativeAt, distance, isWhole, lengthOf, nearestOn, ovalAngle, pointAt, primitivesOf, primitivesOfCurve, TAU, turn, type Oval, type Primitive, type Vec2 } from './primitives.ts'; // prettier-ignore
import { along, anyPrimitive } from './sample-pieces.ts';

const RUNS = { numRuns: 60, seed: 17 };
const POINTS: Record<string, [number, number]> = { o: [2, 1], a: [5, 5], b: [-1, -3], c: [-1, 5], d: [7, 1], e: [2, 1], f: [2 + 1e-7, 1] }; // prettier-ignore
const sketch = (curves: SketchGeometry['curves']): SketchGeometry => ({ points: POINTS, curves, constraints: {} });
const made = (c: Curve, tolerance?: number) => primitivesOfCurve(sketch({}), 'k', c, tolerance);
const near = (p: Vec2) => p.map((x) => expect.closeTo(x, 9));

test('an angle is brought into one turn from nothing on', () => {
  expect([turn(0), turn(TAU), turn(-TAU / 4), turn(3 * TAU + 1)].map((x) => Number(x.toFixed(12)))).toEqual([0, 0, Number((0.75 * TAU).toFixed(12)), 1]); // prettier-ignore
});

describe('curves as plain geometry', () => {
  test('a line from end to end; none between places that are one', () => {
    expect(made({ kind: 'line', from: 'a', to: 'b' })).toEqual([{ kind: 'line', curve: 'k', from: [5, 5], to: [-1, -3] }]); // prettier-ignore
    expect(made({ kind: 'line', from: 'o', to: 'e' })).toEqual([]);
    expect(made({ kind: 'line', from: 'o', to: 'f' })).toHaveLength(1);
    expect(made({ kind: 'line', from: 'o', to: 'f' }, 1e-6)).toEqual([]);
  });

  test('a circle is a whole turn from the right', () => {
    expect(made({ kind: 'circle', center: 'o', radius: 3 })).toEqual([{ kind: 'arc', curve: 'k', center: [2, 1], radius: 3, start: 0, sweep: TAU }]); // prettier-ignore
    expect(made({ kind: 'circle', center: 'o', radius: 1e-7 }, 1e-6)).toEqual([]);
  });

  test.each<[string, string, number, number]>([
    ['a', 'c', Math.atan2(4, 3), Math.PI - 2 * Math.atan2(4, 3)],
    ['c', 'a', Math.PI - Math.atan2(4, 3), Math.PI + 2 * Math.atan2(4, 3)],
    ['b', 'd', Math.PI + Math.atan2(4, 3), Math.PI - Math.atan2(4, 3)],
    ['d', 'd', 0, TAU],
  ])('an arc from %s to %s runs counter-clockwise', (from, to, start, sweep) => {
    const [arc] = made({ kind: 'arc', center: 'o', from, to });
    expect(arc).toEqual({ kind: 'arc', curve: 'k', center: [2, 1], radius: expect.closeTo(5, 9), start: expect.closeTo(start, 9), sweep: expect.closeTo(sweep, 9) }); // prettier-ignore
    expect([pointAt(arc!, 0), pointAt(arc!, 1)]).toEqual([near(POINTS[from]!), near(POINTS[to]!)]);
  });
  test('an arc about its own beginning is none', () => {
    expect(made({ kind: 'arc', center: 'o', from: 'f', to: 'a' }, 1e-6)).toEqual([]);
  });

  test('an ellipse has its half axes, the shorter one to the left', () => {
    const [oval] = made({ kind: 'ellipse', center: 'o', major: 'a', minor: 2 }) as Oval[];
    expect(oval).toMatchObject({ center: [2, 1], major: [3, 4], minor: [expect.closeTo(-1.6, 9), expect.closeTo(1.2, 9)], start: 0, sweep: TAU }); // prettier-ignore
    expect(made({ kind: 'ellipse', center: 'o', major: 'e', minor: 2 })).toEqual([]);
    expect(made({ kind: 'ellipse', center: 'o', major: 'a', minor: 1e-7 }, 1e-6)).toEqual([]);
  });

  test('an elliptical arc runs between the directions of its ends', () => {
    const [quarter] = made({ kind: 'elliptical_arc', center: 'o', major: 'd', minor: 2, from: 'd', to: 'c' } as Curve) as Oval[]; // prettier-ignore
    // The end lies at -3, 4 from the centre, of half axes 5 and 2.
    expect([quarter!.start, quarter!.sweep]).toEqual([expect.closeTo(0, 9), expect.closeTo(Math.atan2(4 / 2, -3 / 5), 9)]); // prettier-ignore
    const [whole] = made({ kind: 'elliptical_arc', center: 'o', major: 'd', minor: 2, from: 'd', to: 'd' } as Curve) as Oval[]; // prettier-ignore
    expect(whole!.sweep).toBe(TAU);
    expect(ovalAngle(quarter!, [2, 3])).toBeCloseTo(Math.PI / 2, 12);
  });

  test('a spline goes from its first to its last place; none about one place', () => {
    const [wave] = made({ kind: 'spline', fit: 'through', points: ['a', 'o', 'b', 'd'] } as Curve);
    expect([pointAt(wave!, 0), pointAt(wave!, 1)]).toEqual([near([5, 5]), near([7, 1])]);
    expect(made({ kind: 'spline', fit: 'control', points: ['o', 'e', 'f'] } as Curve, 1e-6)).toEqual([]);
    expect(made({ kind: 'spline', fit: 'control', points: ['o', 'e', 'a'] } as Curve, 1e-6)).toHaveLength(1);
  });

  test('lettering is many, called by its contours in their order', () => {
    const pieces = made({ kind: 'text', from: 'b', to: 'd', text: 'oI' } as Curve);
    expect([...new Set(pieces.map((p) => p.curve))]).toEqual(['k_0', 'k_1', 'k_2']);
    for (const p of pieces.filter((q) => q.kind === 'spline'))
      expect([pointAt(p, 0), pointAt(p, 1)]).toEqual([near((p as { control: Vec2[] }).control[0]!), near((p as { control: Vec2[] }).control[3]!)]); // prettier-ignore
  });

  test('construction bounds nothing', () => {
    const curves = { x: { kind: 'line', from: 'a', to: 'b' }, y: { kind: 'line', from: 'a', to: 'c', construction: true } } as SketchGeometry['curves']; // prettier-ignore
    expect(primitivesOf(sketch(curves), 1e-9).map((p) => p.curve)).toEqual(['x']);
  });
});

test('derivatives tell how places change', () => {
  fc.assert(
    fc.property(anyPrimitive, fc.double({ min: 0.02, max: 0.98, noNaN: true }), (p, t) => {
      const h = 1e-5;
      const [before, here, after] = [t - h, t, t + h].map((x) => pointAt(p, x));
      // Across a knot the second changes at once.
      const knots = p.kind === 'spline' ? p.knots : [];
      if (knots.some((k) => Math.abs(k - t) < 2 * h)) return;
      expect(derivativeAt(p, t, 0)).toEqual(here);
      for (const k of [0, 1] as const) {
        expect((after![k] - before![k]) / (2 * h) - derivativeAt(p, t, 1)[k]).toBeCloseTo(0, 3);
        expect((after![k] - 2 * here![k] + before![k]) / h ** 2 / 1e4 - derivativeAt(p, t, 2)[k] / 1e4).toBeCloseTo(0, 2);
      }
    }),
    RUNS,
  ); // prettier-ignore
});

test('all of it lies in its box, which whole curves reach on every side, and it is about as long as told', () => {
  fc.assert(
    fc.property(anyPrimitive, (p) => {
      const [x0, y0, x1, y1] = boxOf(p);
      const places = along({ primitive: p, t0: 0, t1: 1 }, 600);
      expect(places.filter(([x, y]) => x < x0 - 1e-9 || x > x1 + 1e-9 || y < y0 - 1e-9 || y > y1 + 1e-9)).toEqual([]);
      const long = places.slice(1).reduce((sum, q, i) => sum + distance(q, places[i]!), 0);
      if (p.kind === 'line' || p.kind === 'arc') expect(lengthOf(p) / long).toBeCloseTo(1, 3);
      // Of a spline that of its control points; of an ellipse by the mean of its half axes.
      else expect(lengthOf(p) / long).toBeGreaterThan(p.kind === 'spline' ? 0.999 : 0.3);
      if (p.kind === 'ellipse') expect(lengthOf(p) / long).toBeLessThan(4);
      expect(isWhole(p)).toBe(false);
      if (p.kind !== 'arc' && p.kind !== 'ellipse') return;
      const whole: Primitive = { ...p, start: 0, sweep: TAU };
      expect(isWhole(whole)).toBe(true);
      const round = along({ primitive: whole, t0: 0, t1: 1 }, 600);
      const reach = [Math.min(...round.map((q) => q[0])), Math.min(...round.map((q) => q[1])), Math.max(...round.map((q) => q[0])), Math.max(...round.map((q) => q[1]))]; // prettier-ignore
      reach.forEach((x, i) => expect(Math.abs(x - boxOf(whole)[i]!)).toBeLessThan(1e-3));
    }),
    RUNS,
  );
  expect(lengthOf({ kind: 'ellipse', curve: 'e', center: [0, 0], major: [3, 4], minor: [-0.6, 0.8], start: 0, sweep: 2 })).toBe(6); // prettier-ignore
  expect(boxOf({ kind: 'line', from: [3, -1], to: [1, 2] })).toEqual([1, -1, 3, 2]);
});

describe('the nearest place', () => {
  test('is nearer than any other, within what is asked for', () => {
    const place = fc.tuple(fc.double({ min: -30, max: 30, noNaN: true }), fc.double({ min: -30, max: 30, noNaN: true })); // prettier-ignore
    fc.assert(
      fc.property(anyPrimitive, place, fc.double({ min: 0, max: 0.4, noNaN: true }), fc.double({ min: 0.6, max: 1, noNaN: true }), (p, at, low, high) => {
        const range = p.kind === 'spline' || p.kind === 'ellipse' ? ([low, high] as const) : ([0, 1] as const);
        const { t, point } = nearestOn(p, at, range);
        expect(pointAt(p, t)).toEqual(point);
        expect(t >= range[0] && t <= range[1]).toBe(true);
        const least = Math.min(...along({ primitive: p, t0: range[0], t1: range[1] }, 1500).map((q) => distance(q, at)));
        expect(distance(point, at)).toBeLessThan(least + 1e-9);
        expect(distance(point, at)).toBeGreaterThan(least - 0.05);
      }),
      RUNS,
    ); // prettier-ignore
  });

  test.each<[string, Primitive, Vec2, Vec2]>([
    ['beside a line', { kind: 'line', curve: 'l', from: [1, 1], to: [7, 9] }, [0, 8], [4, 5]],
    ['before a line', { kind: 'line', curve: 'l', from: [1, 1], to: [7, 9] }, [-3, -1], [1, 1]],
    ['beyond a line', { kind: 'line', curve: 'l', from: [1, 1], to: [7, 9] }, [9, 12], [7, 9]],
    ['in the sector of an arc', { kind: 'arc', curve: 'a', center: [1, 1], radius: 5, start: 0, sweep: 2 }, [4, 5], [4, 5]], // prettier-ignore
    ['before an arc', { kind: 'arc', curve: 'a', center: [0, 0], radius: 5, start: 0, sweep: 2 }, [7, -1], [5, 0]],
    ['beyond an arc', { kind: 'arc', curve: 'a', center: [0, 0], radius: 5, start: 0, sweep: Math.PI / 2 }, [-1, 9], [0, 5]], // prettier-ignore
    ['on the long axis of an ellipse', { kind: 'ellipse', curve: 'e', center: [0, 0], major: [5, 0], minor: [0, 2], start: 0, sweep: TAU }, [9, 0], [5, 0]], // prettier-ignore
    ['on the short axis of an ellipse, within', { kind: 'ellipse', curve: 'e', center: [0, 0], major: [5, 0], minor: [0, 2], start: 0, sweep: TAU }, [0, -1], [0, -2]], // prettier-ignore
  ])('%s', (_, p, at, wanted) => {
    expect(nearestOn(p, at).point).toEqual(wanted.map((x) => expect.closeTo(x, 6)));
  });
});
