import { matchPatterns, type DimensionConstraint, type SketchGeometry } from '@helb/core';
import { describe, expect, test } from '@jest/globals';
import { layoutDimension, type DimensionDrawing } from './dimension-layout.ts';
import { PlaneMap } from './plane-map.ts';

/** Straight on, four pixels to the mm, the origin at 200, 150. */
const map = new PlaneMap({ origin: [200, 150], x: [4, 0], y: [0, -4] });

const sketch = (): SketchGeometry => ({
  points: { a: [0, 5], b: [30, 5], c: [0, 0], d: [40, 0], m: [52, 0], p: [10, 0], q: [0, 10], u: [0, 30], v: [30, 30] },
  curves: {
    l: { kind: 'line', from: 'a', to: 'b' },
    k: { kind: 'circle', center: 'c', radius: 6 },
    n: { kind: 'circle', center: 'd', radius: 8 },
    e: { kind: 'ellipse', center: 'd', major: 'm', minor: 5 },
    arc: { kind: 'arc', center: 'c', from: 'p', to: 'q' },
    t: { kind: 'text', from: 'u', to: 'v', text: 'HT' },
  },
  constraints: {},
});
const place = (c: DimensionConstraint, s = sketch()): DimensionDrawing => layoutDimension(s, c, map)!;
const span = (d: DimensionDrawing) =>
  Math.hypot(d.arrows[1]!.tip[0] - d.arrows[0]!.tip[0], d.arrows[1]!.tip[1] - d.arrows[0]!.tip[1]);

describe('dimensions of every kind', () => {
  test('across a centre line it spans both sides and says Ø', () => {
    const d = place({ kind: 'across', of: ['l', 'x_axis'], value: '10' });
    expect(d.prefix).toBe('Ø');
    expect(span(d)).toBeCloseTo(40, 6);
  });

  test('from edge to edge, near and far', () => {
    const between = (rims: ['near', 'near'] | ['far', 'far']) =>
      span(place({ kind: 'distance', of: ['k', 'n'], value: '1', rims }));
    expect(between(['near', 'near'])).toBeCloseTo((40 - 14) * 4, 6);
    expect(between(['far', 'far'])).toBeCloseTo((40 + 14) * 4, 6);
  });

  test('the half axes of an ellipse', () => {
    expect(span(place({ kind: 'major_radius', of: ['e'], value: '12' }))).toBeCloseTo(48, 6);
    expect(span(place({ kind: 'minor_radius', of: ['e'], value: '5' }))).toBeCloseTo(20, 6);
    expect(layoutDimension(sketch(), { kind: 'minor_radius', of: ['l'], value: '5' }, map)).toBeNull();
  });

  test('along an arc, beyond it', () => {
    const d = place({ kind: 'arc_length', of: ['arc'], value: '15' });
    expect(d.prefix).toBe('⌒');
    expect(d.arcs[0]!.radius).toBeGreaterThan(40);
    const sweep = d.arcs[0]!.to - d.arcs[0]!.from;
    expect(((sweep % (2 * Math.PI)) + 2 * Math.PI) % (2 * Math.PI)).toBeCloseTo(Math.PI / 2, 6);
  });

  test('the height of capitals stands at the start of the lettering', () => {
    const d = place({ kind: 'text_height', of: ['t'], value: '9' });
    expect(span(d)).toBeGreaterThan(30);
    expect(Math.abs(d.arrows[0]!.tip[0] - d.arrows[1]!.tip[0])).toBeLessThan(1e-6);
  });

  test('an offset is measured between an original and its copy', () => {
    const s = sketch();
    Object.assign(s.points, { x: [0, 9], y: [30, 9] });
    s.curves.o = { kind: 'line', from: 'x', to: 'y' };
    expect(span(place({ kind: 'offset', of: ['l', 'o'], value: '4' }, s))).toBeCloseTo(16, 6);
    s.curves.o = { kind: 'circle', center: 'c', radius: 9 };
    expect(span(place({ kind: 'offset', of: ['k', 'o'], value: '3' }, s))).toBeCloseTo(12, 6);
  });

  test('a pattern tells how many, and how far apart', () => {
    const s = sketch();
    s.patterns = { w: { kind: 'linear', of: ['k'], along: 'x_axis', steps: [15] } };
    s.constraints = { n: { kind: 'count', of: ['w'], value: '3' }, g: { kind: 'spacing', of: ['w'], value: '15' } };
    matchPatterns(s, (id) => (id === 'n' ? 3 : 15));
    expect(place(s.constraints.n as DimensionConstraint, s).suffix).toBe('×');
    expect(span(place(s.constraints.g as DimensionConstraint, s))).toBeCloseTo(60, 6);
  });

  test.each([undefined, 'first', 'second', 'both'] as const)('an angle stands in its own sector: %s', (reversed) => {
    const s = sketch();
    Object.assign(s.points, { f: [20, 0], g: [40, 20] });
    s.curves.w = { kind: 'line', from: 'f', to: 'g' };
    const d = place({ kind: 'angle', of: ['x_axis', 'w'], value: '45', ...(reversed ? { reversed } : {}) }, s);
    const apex = map.toPixel([20, 0]);
    const away = [d.text.at[0] - apex[0], apex[1] - d.text.at[1]] as const;
    // Counter-clockwise from the first line to the second, each turned as said.
    const from = reversed === 'first' || reversed === 'both' ? Math.PI : 0;
    const to = Math.PI / 4 + (reversed === 'second' || reversed === 'both' ? Math.PI : 0);
    const sweep = (((to - from) % (2 * Math.PI)) + 2 * Math.PI) % (2 * Math.PI);
    const middle = from + sweep / 2;
    const off = Math.atan2(away[1], away[0]) - middle;
    expect(Math.cos(off)).toBeCloseTo(1, 6);
  });

  test('looked at from aside, all of it still has numbers to draw', () => {
    const aside = new PlaneMap({ origin: [10, 20], x: [3, 1], y: [-0.5, -2] });
    for (const c of [
      { kind: 'distance', of: ['l'], value: '1' },
      { kind: 'diameter', of: ['k'], value: '1' },
      { kind: 'arc_length', of: ['arc'], value: '1' },
    ] as DimensionConstraint[]) {
      const d = layoutDimension(sketch(), c, aside)!;
      expect([...d.text.at, d.text.angle].every(Number.isFinite)).toBe(true);
      expect(d.lines.flat(2).every(Number.isFinite)).toBe(true);
    }
  });
});
