import { solveSketch, type DimensionConstraint, type SketchGeometry } from '@helb/core';
import { describe, expect, test } from '@jest/globals';
import { markPlaces } from './constraint-marks.ts';
import { layoutDimension } from './dimension-layout.ts';
import { drawStroke, placeWithTyped } from './draw-tool.ts';
import { curveNear, entityAt, nearestOnCurve, pointNear, snapAt } from './hit.ts';
import { PlaneMap } from './plane-map.ts';

/** Straight on, four pixels to the mm, the origin at 200, 150. */
const map = new PlaneMap({ origin: [200, 150], x: [4, 0], y: [0, -4] });

const sketch = (): SketchGeometry => ({
  points: { a: [10, 10], b: [40, 10], c: [25, -10] },
  curves: { l: { kind: 'line', from: 'a', to: 'b' }, k: { kind: 'circle', center: 'c', radius: 8 } },
  constraints: { h: { kind: 'horizontal', of: ['l'] }, e: { kind: 'fixed', of: ['a'] } },
});

describe('between plane and pixels', () => {
  test('there and back, also when looked at from aside', () => {
    for (const m of [map, new PlaneMap({ origin: [10, 20], x: [3, 1], y: [-0.5, -2] })]) {
      const [x, y] = m.toPixel([7, -3]);
      expect(m.toPlane(x, y)[0]).toBeCloseTo(7, 12);
      expect(m.toPlane(x, y)[1]).toBeCloseTo(-3, 12);
    }
    expect(map.scale).toBe(4);
    expect(new PlaneMap({ origin: [0, 0], x: [1, 0], y: [2, 0] }).edgeOn).toBe(true);
  });
});

describe('what is under the pointer', () => {
  test('a point before its curve, a curve before an axis', () => {
    const at = (u: number, v: number) => map.toPixel([u, v]);
    expect(pointNear(sketch(), map, ...at(10.5, 10.5))).toBe('a');
    expect(curveNear(sketch(), map, ...at(25, 10.8))).toBe('l');
    expect(entityAt(sketch(), map, ...at(10, 10))).toBe('a');
    expect(entityAt(sketch(), map, ...at(33, -10))).toBe('k');
    expect(entityAt(sketch(), map, ...at(-20, 0.5))).toBe('x_axis');
    expect(entityAt(sketch(), map, ...at(0.2, 40))).toBe('y_axis');
    expect(entityAt(sketch(), map, ...at(-20, 20))).toBeNull();
  });

  test('an arc is near only where it runs', () => {
    const s = sketch();
    s.points = { m: [0, 0], p: [10, 0], q: [0, 10] };
    s.curves = { arc: { kind: 'arc', center: 'm', from: 'p', to: 'q' } };
    const [x, y] = nearestOnCurve(s, 'arc', [7, 7]);
    expect(Math.hypot(x, y)).toBeCloseTo(10, 12);
    expect(nearestOnCurve(s, 'arc', [-8, -1])).toEqual([0, 10]);
    expect(nearestOnCurve(s, 'arc', [1, -9])).toEqual([10, 0]);
  });

  test('a drawn point lands on points, curves, axes, or level with its start; nowhere while inference is held off', () => {
    const at = (u: number, v: number) => map.toPixel([u, v]);
    expect(snapAt(sketch(), map, ...at(10.4, 9.7), null, false)).toMatchObject({ point: 'a', at: [10, 10] });
    expect(snapAt(sketch(), map, ...at(25, 10.5), null, false)).toMatchObject({ on: 'l', at: [25, 10] });
    expect(snapAt(sketch(), map, ...at(-30, 0.4), null, false)).toMatchObject({ on: 'x_axis', at: [-30, 0] });
    expect(snapAt(sketch(), map, ...at(-30, 20.3), [-10, 20], false)).toMatchObject({
      level: 'horizontal',
      at: [-30, 20],
    });
    expect(snapAt(sketch(), map, ...at(-10.4, 40), [-10, 20], false)).toMatchObject({ level: 'vertical' });
    expect(snapAt(sketch(), map, ...at(10.4, 9.7), null, true)).toEqual({ at: map.toPlane(...at(10.4, 9.7)) });
  });
});

describe('strokes', () => {
  test('typed sizes have their say over the pointer, on the side it is', () => {
    const typed = (value: number) => ({ expression: `${value} mm`, value });
    expect(placeWithTyped('rectangle', [0, 0], [-3, 5], { width: typed(80) })).toEqual([-80, 5]);
    expect(placeWithTyped('line', [1, 1], [4, 5], { length: typed(10) })).toEqual([7, 9]);
    expect(placeWithTyped('circle', [0, 0], [3, 0], { diameter: typed(10) })).toEqual([5, 0]);
    expect(placeWithTyped('line', [1, 1], [4, 5], {})).toEqual([4, 5]);
  });

  test('a line goes on from its end, and a chain ends where it meets a point', () => {
    const s = sketch();
    const first = drawStroke(s, 'line', { at: [0, 30] }, { at: [20, 30], level: 'horizontal' }, {});
    expect(first.chainFrom).toBeDefined();
    const last = drawStroke(s, 'line', { at: [20, 30], point: first.chainFrom! }, { at: [10, 10], point: 'a' }, {});
    expect(last).toEqual({ closed: true });
    const kinds = Object.values(s.constraints).map((c) => c.kind);
    expect(kinds.filter((k) => k === 'horizontal')).toHaveLength(2);
    expect(Object.keys(s.curves)).toHaveLength(4);
  });

  test('a rectangle is four lines kept square, its typed sizes dimensions with names of their own', () => {
    const s: SketchGeometry = { points: {}, curves: {}, constraints: {} };
    for (const corner of [0, 100]) {
      drawStroke(
        s,
        'rectangle',
        { at: [corner, 0] },
        { at: [corner + 9, 9] },
        { width: { expression: '30 mm', value: 30 } },
      );
    }
    const names = Object.values(s.constraints).flatMap((c) => ('value' in c ? [c.name] : []));
    expect(names).toEqual(['width', 'width_2']);
    expect(Object.values(s.constraints).filter((c) => c.kind === 'vertical')).toHaveLength(4);
  });
});

describe('more strokes', () => {
  test('a rectangle drawn from the origin stays about it, with its two sizes left free', () => {
    const s: SketchGeometry = { points: {}, curves: {}, constraints: {} };
    drawStroke(s, 'centred rectangle', { at: [0, 0], point: 'origin' }, { at: [20, 10] }, {});
    const solution = solveSketch(s, () => 0);
    expect(solution.freedoms).toBe(2);
    expect(solution.redundant).toEqual([]);
    const xs = Object.values(s.points).map((p) => p[0]);
    expect([Math.min(...xs), Math.max(...xs)]).toEqual([-20, 20]);
    expect(placeWithTyped('centred rectangle', [0, 0], [1, -1], { width: { expression: '8', value: 8 } })).toEqual([
      4, -1,
    ]);
  });

  test('a point lands where it is clicked, held on the curve under it', () => {
    const s = sketch();
    drawStroke(s, 'point', { at: [0, 0] }, { at: [25, 10], on: 'l' }, {});
    expect(Object.keys(s.points)).toHaveLength(4);
    expect(Object.values(s.constraints).at(-1)).toMatchObject({ kind: 'coincident' });
  });
});

describe('dimensions after drafting practice', () => {
  const place = (c: DimensionConstraint) => layoutDimension(sketch(), c, map)!;

  test('a length stands off its line, with extension lines that leave a gap, and reads level', () => {
    const d = place({ kind: 'distance', of: ['l'], value: '30', label: [25, 20] });
    expect(d.text.angle).toBeCloseTo(0, 12);
    expect(d.text.at[1]).toBeCloseTo(150 - 80 - 9, 9);
    const [first] = d.lines;
    expect(first![0]).toEqual([240, 106]);
    expect(d.arrows.map((a) => a.tip)).toEqual([[240, 70], [360, 70]]); // prettier-ignore
  });

  test('between two lines it is measured square to them, from their near ends', () => {
    const s = sketch();
    Object.assign(s.points, { d: [10, 30], e: [40, 30] });
    s.curves.m = { kind: 'line', from: 'd', to: 'e' };
    const d = layoutDimension(s, { kind: 'distance', of: ['l', 'm'], value: '20', label: [0, 20] }, map)!;
    expect(d.text.angle).toBeCloseTo(-Math.PI / 2, 12);
    expect(d.arrows.map((a) => a.tip[0])).toEqual([200, 200]);
    expect(d.lines[0]![0]).toEqual([236, 30]);
    expect(d.lines[1]![0]).toEqual([236, 110]);
  });

  test('an upright number reads from the right', () => {
    const d = place({ kind: 'vertical_distance', of: ['a', 'c'], value: '20', label: [-5, 0] });
    expect(d.text.angle).toBeCloseTo(-Math.PI / 2, 12);
  });

  test('arrows go outside where there is no room', () => {
    const narrow = sketch();
    narrow.points.b = [12, 10];
    const d = layoutDimension(narrow, { kind: 'distance', of: ['l'], value: '2', label: [11, 20] }, map)!;
    expect(Math.cos(d.arrows[0]!.angle)).toBeCloseTo(1, 12);
  });

  test('a round says Ø or R, its arrow at the rim', () => {
    const d = place({ kind: 'diameter', of: ['k'], value: '16', label: [45, -10] });
    expect(d.prefix).toBe('Ø');
    expect(d.arrows[0]!.tip[0]).toBeCloseTo(200 + 33 * 4, 9);
    expect(place({ kind: 'radius', of: ['k'], value: '8' }).prefix).toBe('R');
    expect(layoutDimension(sketch(), { kind: 'radius', of: ['l'], value: '8' }, map)).toBeNull();
  });

  test('marks stand by their entity, side by side where they share a place', () => {
    const s = sketch();
    s.constraints.again = { kind: 'equal', of: ['l', 'l'] };
    const marks = markPlaces(s, map, new Set(['l']));
    expect(marks.map((m) => m.constraint)).toEqual(['h', 'again']);
    expect(marks[1]!.x - marks[0]!.x).toBe(20);
    expect(markPlaces(s, map, null)).toHaveLength(3);
  });
});
