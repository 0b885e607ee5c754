import { SketchPen, toolNamed, type Anchor, type Chain, type DimensionConstraint, type SketchGeometry } from '@helb/core'; // prettier-ignore
import { describe, expect, test } from '@jest/globals';
import { markPlaces } from './constraint-marks.ts';
import { layoutDimension } from './dimension-layout.ts';
import { curveNear, entitiesInBox, entityAt, nearestOnCurve, pointNear } from './hit.ts';
import { PlaneMap } from './plane-map.ts';
import { snapAt } from './snap.ts';

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
    expect(nearestOnCurve(s, 'arc', [-8, -1])).toEqual([expect.closeTo(0, 12), 10]);
    expect(nearestOnCurve(s, 'arc', [1, -9])).toEqual([10, 0]);
  });

  test('a drawn point lands on points, curves, axes, or level with its start; nowhere while inference is held off', () => {
    const context = (start: [number, number] | null) => ({
      start,
      chain: null,
      awake: null,
      free: false,
      curvesOnly: false,
    });
    const at = (u: number, v: number) => map.toPixel([u, v]);
    expect(snapAt(sketch(), map, ...at(10.4, 9.7), context(null))).toMatchObject({ point: 'a', at: [10, 10] });
    expect(snapAt(sketch(), map, ...at(30, 10.5), context(null))).toMatchObject({ on: 'l', at: [30, 10] });
    expect(snapAt(sketch(), map, ...at(-30, 0.4), context(null))).toMatchObject({ on: 'x_axis', at: [-30, 0] });
    expect(snapAt(sketch(), map, ...at(-30, 20.3), context([-10, 20]))).toMatchObject({
      inferred: { kind: 'horizontal' },
      at: [-30, 20],
    });
    expect(snapAt(sketch(), map, ...at(-10.4, 40), context([-10, 20]))).toMatchObject({
      inferred: { kind: 'vertical' },
    });
    expect(snapAt(sketch(), map, ...at(10.4, 9.7), { ...context(null), free: true })).toEqual({
      at: map.toPlane(...at(10.4, 9.7)),
    });
  });
});

describe('an outline clicked corner by corner', () => {
  /** The corners clicked to the nearest pixel, the first again at the end, with the tool for lines. */
  function clickRound(corners: readonly [number, number][]): SketchGeometry {
    const s: SketchGeometry = { points: {}, curves: {}, constraints: {} };
    const line = toolNamed('line')!;
    let chain: Chain | null = null;
    let last: Anchor | null = null;
    for (const corner of [...corners, corners[0]!]) {
      const [px, py] = map.toPixel(corner).map(Math.round) as [number, number];
      const next = snapAt(s, map, px, py, {
        start: last?.at ?? null,
        from: last?.point,
        chain,
        awake: null,
        free: false,
        curvesOnly: false,
      });
      if (last) {
        const went = chain ? { chain } : {};
        chain = line.draw({ pen: new SketchPen(s), clicks: [last, next], typed: {}, ...went }) ?? null;
        last = chain ? { at: s.points[chain.point]!, point: chain.point } : next;
      } else last = next;
    }
    return s;
  }

  test.each([2.5, 1.5, 1.25, 1])('keeps a step of %s mm, four pixels to the mm, and closes', (step) => {
    for (const corners of [
      [
        [20, -20],
        [60, -20],
        [60, 10],
        [40, 10],
        [40, 10 + step],
        [20, 10 + step],
      ],
      [
        [20, -20 - step],
        [60, -20 - step],
        [60, 10],
        [30, 10],
        [30, -20],
        [20, -20],
      ],
    ] as [number, number][][]) {
      const s = clickRound(corners);
      const lines = Object.values(s.curves).map((c) => (c.kind === 'line' ? [c.from, c.to] : []));
      expect(lines).toHaveLength(corners.length);
      // Each corner is one point, or two that are held together; each line runs on from the one before.
      lines.forEach(([, to], i) => expect(to).toBe(lines[(i + 1) % lines.length]![0]));
      for (const [i, [from]] of lines.entries()) {
        const [x, y] = s.points[from!]!;
        expect([i, x, y]).toEqual([i, expect.closeTo(corners[i]![0], 0), expect.closeTo(corners[i]![1], 0)]);
      }
    }
  });
});

describe('lines that follow what is there', () => {
  const beside = { chain: null, awake: null, free: false, curvesOnly: false };

  test('along and square to the line last pointed at', () => {
    const s = sketch();
    s.points.b = [40, 25];
    const start: [number, number] = [-20, -30];
    const at = (u: number, v: number) => map.toPixel([u, v]);
    const along = snapAt(s, map, ...at(0.3, -20), { ...beside, start, awake: 'l' });
    expect(along.inferred).toEqual({ kind: 'parallel', to: 'l' });
    expect((along.at[1] + 30) / (along.at[0] + 20)).toBeCloseTo(0.5, 9);
    expect(snapAt(s, map, ...at(-30.2, -10), { ...beside, start, awake: 'l' }).inferred).toEqual({
      kind: 'perpendicular',
      to: 'l',
    });
    expect(snapAt(s, map, ...at(0.3, -20), { ...beside, start }).inferred).toBeUndefined();
  });

  test('the middle of a line draws a point to it', () => {
    expect(snapAt(sketch(), map, ...map.toPixel([25.4, 10.4]), { ...beside, start: null })).toEqual({
      at: [25, 10],
      on: 'l',
      middle: true,
    });
  });

  test('a box takes in what lies wholly inside it', () => {
    expect(entitiesInBox(sketch(), [5, 5], [45, 15])).toEqual(['l']);
    expect(entitiesInBox(sketch(), [15, -20], [35, 0])).toEqual(['k']);
    expect(entitiesInBox(sketch(), [15, -20], [30, 0])).toEqual(['c']);
    expect(entitiesInBox(sketch(), [45, 15], [0, -20]).sort()).toEqual(['k', 'l']);
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

  test('marks stand by their entity, clear of each other and of the numbers', () => {
    const s = sketch();
    s.constraints.again = { kind: 'equal', of: ['l', 'l'] };
    const marks = markPlaces(s, map, new Set(['l']));
    expect(marks.map((m) => m.constraint)).toEqual(['h', 'again']);
    const apart = (one: { x: number; y: number }, other: { x: number; y: number }) =>
      Math.max(Math.abs(one.x - other.x), Math.abs(one.y - other.y));
    expect(apart(marks[0]!, marks[1]!)).toBeGreaterThanOrEqual(24);
    const number: [number, number, number, number] = [
      marks[0]!.x - 20,
      marks[0]!.y - 9,
      marks[0]!.x + 20,
      marks[0]!.y + 9,
    ];
    const [first] = markPlaces(s, map, new Set(['l']), [number]);
    expect(Math.abs(first!.x - marks[0]!.x) >= 32 || Math.abs(first!.y - marks[0]!.y) >= 21).toBe(true);
    expect(markPlaces(s, map, null)).toHaveLength(3);
  });
});
