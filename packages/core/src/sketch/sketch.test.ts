import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { SketchDrag } from './drag.ts';
import { SketchPen } from './draw/pen.ts';
import { rectangleTool } from './draw/lines.ts';
import { removeFromSketch } from './edit/remove.ts';
import { readingsFor } from './edit/readings.ts';
import type { Constraint, SketchGeometry } from './schema.ts';
import { solveSketch } from './solve.ts';

type Points = SketchGeometry['points'];
type Curves = SketchGeometry['curves'];

const sketch = (points: Points, curves: Curves, constraints: Record<string, Constraint> = {}): SketchGeometry => ({
  points,
  curves,
  constraints,
});
/** Dimensions here carry plain numbers: mm, or rad. */
const valueIn = (s: SketchGeometry) => (id: string) => Number((s.constraints[id] as { value: string }).value);
const solve = (s: SketchGeometry) => solveSketch(s, valueIn(s));
const dim = (
  kind: 'distance' | 'horizontal_distance' | 'vertical_distance' | 'radius' | 'diameter' | 'angle',
  of: string[],
  value: number,
): Constraint => ({
  kind,
  of,
  value: String(value),
});
const line = (from: string, to: string) => ({ kind: 'line' as const, from, to });

function rectangle(): SketchGeometry {
  const s = sketch({}, {});
  rectangleTool.draw({
    pen: new SketchPen(s, lcg(7)),
    clicks: [{ at: [0, 0], point: 'origin' }, { at: [50, 30] }],
    typed: {},
  });
  return s;
}

/** A small repeatable random source (Numerical Recipes' constants). */
function lcg(seed: number): () => number {
  let x = seed;
  return () => (x = (Math.imul(x, 1664525) + 1013904223) >>> 0) / 2 ** 32;
}

describe('solving', () => {
  test('a rectangle on the origin has two freedoms, and two dimensions settle it', () => {
    const s = rectangle();
    expect(solve(s).freedoms).toBe(2);
    const [bottom, right] = Object.keys(s.curves);
    s.constraints.w = dim('distance', [bottom!], 96);
    expect(solve(s).freedoms).toBe(1);
    s.constraints.h = dim('distance', [right!], 40);
    const solved = solve(s);
    expect(solved.freedoms).toBe(0);
    expect(solved.loose.size).toBe(0);
    const xs = Object.values(solved.geometry.points).map((p) => p[0]);
    const ys = Object.values(solved.geometry.points).map((p) => p[1]);
    expect(Math.max(...xs)).toBeCloseTo(96, 9);
    expect(Math.max(...ys)).toBeCloseTo(40, 9);
  });

  test('a 3-4-5 triangle closes with a right angle', () => {
    const s = sketch(
      { a: [0, 0], b: [2, 0.2], c: [1, 2] },
      { ab: line('a', 'b'), bc: line('b', 'c'), ca: line('c', 'a') },
      {
        o: { kind: 'coincident', of: ['a', 'origin'] },
        h: { kind: 'horizontal', of: ['ab'] },
        d1: dim('distance', ['ab'], 3),
        d2: dim('distance', ['ca'], 4),
        d3: dim('distance', ['bc'], 5),
      },
    );
    const solved = solve(s);
    expect(solved.freedoms).toBe(0);
    expect(solved.geometry.points.c![0]).toBeCloseTo(0, 9);
    expect(solved.geometry.points.c![1]).toBeCloseTo(4, 9);
  });

  test('a line tangent to two circles touches both', () => {
    const s = sketch(
      { m: [0, 0], n: [40, 0], a: [1, 11], b: [39, 6] },
      {
        one: { kind: 'circle', center: 'm', radius: 10 },
        other: { kind: 'circle', center: 'n', radius: 5 },
        l: line('a', 'b'),
      },
      {
        f1: { kind: 'fixed', of: ['m'] },
        f2: { kind: 'fixed', of: ['n'] },
        r1: dim('radius', ['one'], 10),
        r2: dim('diameter', ['other'], 10),
        t1: { kind: 'tangent', of: ['l', 'one'] },
        t2: { kind: 'tangent', of: ['l', 'other'] },
        p1: { kind: 'coincident', of: ['a', 'one'] },
        p2: { kind: 'coincident', of: ['b', 'other'] },
      },
    );
    const { geometry, solved } = solve(s);
    expect(solved).toBe(true);
    const [a, b] = [geometry.points.a!, geometry.points.b!];
    // Length of the outer tangent: sqrt(d² − (r₁ − r₂)²).
    expect(Math.hypot(b[0] - a[0], b[1] - a[1])).toBeCloseTo(Math.sqrt(40 ** 2 - 5 ** 2), 5);
  });

  test.each<[string, number, SketchGeometry]>([
    ['a free point', 2, sketch({ a: [1, 1] }, {})],
    ['a free line', 4, sketch({ a: [0, 0], b: [5, 5] }, { l: line('a', 'b') })],
    ['a free circle', 3, sketch({ c: [0, 0] }, { k: { kind: 'circle', center: 'c', radius: 4 } })],
    [
      'a free arc',
      5,
      sketch({ c: [0, 0], p: [5, 0], q: [0, 5] }, { k: { kind: 'arc', center: 'c', from: 'p', to: 'q' } }),
    ],
    [
      'a level line',
      3,
      sketch({ a: [0, 0], b: [5, 1] }, { l: line('a', 'b') }, { h: { kind: 'horizontal', of: ['l'] } }),
    ],
    [
      'a line from the origin, of given length',
      1,
      sketch(
        { a: [0, 0], b: [5, 1] },
        { l: line('a', 'b') },
        { o: { kind: 'coincident', of: ['a', 'origin'] }, d: dim('distance', ['l'], 7) },
      ),
    ],
    [
      'two parallel lines',
      7,
      sketch(
        { a: [0, 0], b: [5, 1], c: [0, 4], d: [6, 5] },
        { l: line('a', 'b'), m: line('c', 'd') },
        { p: { kind: 'parallel', of: ['l', 'm'] } },
      ),
    ],
    [
      'two equal circles about one centre',
      3,
      sketch(
        { c: [0, 0], d: [2, 0] },
        { k: { kind: 'circle', center: 'c', radius: 4 }, m: { kind: 'circle', center: 'd', radius: 6 } },
        { c1: { kind: 'concentric', of: ['k', 'm'] }, e: { kind: 'equal', of: ['k', 'm'] } },
      ),
    ],
    [
      'two points mirrored across the y axis',
      2,
      sketch({ a: [-4, 1], b: [5, 2] }, {}, { s: { kind: 'symmetric', of: ['a', 'b', 'y_axis'] } }),
    ],
    ['a point on the x axis', 1, sketch({ a: [3, 1] }, {}, { o: { kind: 'coincident', of: ['a', 'x_axis'] } })],
    [
      'a midpoint',
      4,
      sketch({ a: [0, 0], b: [8, 0], m: [3, 1] }, { l: line('a', 'b') }, { m1: { kind: 'midpoint', of: ['m', 'l'] } }),
    ],
    [
      'a line at an angle to an axis',
      3,
      sketch({ a: [1, 1], b: [8, 3] }, { l: line('a', 'b') }, { a1: dim('angle', ['x_axis', 'l'], Math.PI / 6) }),
    ],
  ])('%s has %d freedoms', (_, freedoms, s) => {
    const solved = solve(s);
    expect(solved.solved).toBe(true);
    expect(solved.freedoms).toBe(freedoms);
  });

  test('what is said twice is redundant, and is named', () => {
    const s = rectangle();
    const [bottom, , top] = Object.keys(s.curves);
    s.constraints.again = { kind: 'horizontal', of: [bottom!] };
    s.constraints.par = { kind: 'parallel', of: [bottom!, top!] };
    const solved = solve(s);
    expect(solved.freedoms).toBe(2);
    expect([...solved.redundant].sort()).toEqual(['again', 'par']);
  });

  test('a clash names the smallest set that disagrees, and nothing moves', () => {
    const s = rectangle();
    const [bottom, right, top] = Object.keys(s.curves);
    s.constraints.w = dim('distance', [bottom!], 50);
    s.constraints.h = dim('distance', [right!], 30);
    s.constraints.w2 = dim('distance', [top!], 60);
    const solved = solve(s);
    expect(solved.solved).toBe(false);
    expect(solved.geometry).toBe(s);
    expect(solved.clash).toEqual(expect.arrayContaining(['w', 'w2']));
    expect(solved.clash).not.toContain('h');
    for (const id of solved.clash) {
      const rest = { ...s, constraints: { ...s.constraints } };
      delete rest.constraints[id];
      expect(solve(rest).solved).toBe(true);
    }
  });

  test('a triangle that cannot close is a clash of its three sides', () => {
    const s = sketch(
      { a: [0, 0], b: [3, 0], c: [1, 2] },
      { ab: line('a', 'b'), bc: line('b', 'c'), ca: line('c', 'a') },
      {
        d1: dim('distance', ['ab'], 10),
        d2: dim('distance', ['bc'], 3),
        d3: dim('distance', ['ca'], 4),
      },
    );
    expect([...solve(s).clash].sort()).toEqual(['d1', 'd2', 'd3']);
  });

  test('a constraint on things it cannot hold for says what it needs', () => {
    const s = sketch({ a: [0, 0], b: [5, 0] }, { l: line('a', 'b') }, { r: dim('radius', ['l'], 5) });
    expect(solve(s).misfit).toEqual({ constraint: 'r', message: 'A radius needs a circle or an arc.' });
    const z = sketch(
      { c: [0, 0] },
      { k: { kind: 'circle', center: 'c', radius: 3 } },
      { r: dim('diameter', ['k'], 0) },
    );
    expect(solve(z).misfit?.message).toBe('A diameter must be more than zero.');
  });

  test('solving again from any nearby start gives the same shape', () => {
    const base = rectangle();
    const [bottom, right] = Object.keys(base.curves);
    base.constraints.w = dim('distance', [bottom!], 96);
    base.constraints.h = dim('distance', [right!], 40);
    const good = solve(base).geometry;
    const shift = fc.double({ min: -8, max: 8, noNaN: true });
    fc.assert(
      fc.property(fc.array(shift, { minLength: 8, maxLength: 8 }), (d) => {
        const moved = {
          ...good,
          points: Object.fromEntries(
            Object.entries(good.points).map(([id, [x, y]], i) => [
              id,
              [x + d[2 * i]!, y + d[2 * i + 1]!] as [number, number],
            ]),
          ),
        };
        const again = solve(moved);
        expect(again.solved).toBe(true);
        for (const [id, [x, y]] of Object.entries(good.points)) {
          expect(again.geometry.points[id]![0]).toBeCloseTo(x, 6);
          expect(again.geometry.points[id]![1]).toBeCloseTo(y, 6);
        }
      }),
    );
  });
});

describe('dragging', () => {
  test('never changes a dimension, and follows the pointer where it can', () => {
    const s = rectangle();
    const [bottom, right, top] = Object.keys(s.curves);
    s.constraints.h = dim('distance', [right!], 30);
    const good = solve(s).geometry;
    const corner = (good.curves[top!] as { from: string }).from;
    const drag = new SketchDrag(good, valueIn(s), corner, good.points[corner]!);
    for (const x of [60, 75, 20]) {
      const now = drag.moveTo([x, 500]);
      expect(now.points[corner]![0]).toBeCloseTo(x, 6);
      expect(now.points[corner]![1]).toBeCloseTo(30, 6);
    }
    expect(bottom).toBeDefined();
  });

  test('a circle’s rim follows the pointer unless its size is given', () => {
    const s = sketch(
      { c: [0, 0] },
      { k: { kind: 'circle', center: 'c', radius: 5 } },
      { f: { kind: 'fixed', of: ['c'] } },
    );
    const drag = new SketchDrag(s, valueIn(s), 'k', [5, 0]);
    expect((drag.moveTo([0, 12]).curves.k as { radius: number }).radius).toBeCloseTo(12, 9);
    s.constraints.d = dim('diameter', ['k'], 10);
    const held = new SketchDrag(s, valueIn(s), 'k', [5, 0]);
    expect((held.moveTo([0, 12]).curves.k as { radius: number }).radius).toBe(5);
  });
});

describe('editing', () => {
  test('deleting a line takes its loose ends and dangling constraints, and keeps shared corners', () => {
    const s = rectangle();
    const [bottom] = Object.keys(s.curves);
    const before = Object.keys(s.points).length;
    s.constraints.w = dim('distance', [bottom!], 50);
    const dangling = removeFromSketch(s, [bottom!]);
    expect(Object.keys(s.points)).toHaveLength(before);
    expect(Object.keys(s.curves)).toHaveLength(3);
    expect(dangling).toContain('w');
  });

  test('two picked lines offer angle; two parallel ones their distance first', () => {
    const s = sketch(
      { a: [0, 0], b: [9, 0], c: [0, 4], d: [9, 4], e: [3, 8] },
      { l: line('a', 'b'), m: line('c', 'd'), n: line('c', 'e') },
    );
    expect(readingsFor(s, ['l', 'm'])[0]).toMatchObject({ kind: 'distance', value: 4 });
    expect(readingsFor(s, ['l', 'n']).map((r) => r.kind)).toContain('angle');
    expect(readingsFor(s, ['l', 'n'])[0]!.kind).toBe('parallel');
  });
});
