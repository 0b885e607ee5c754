import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { SketchPen } from '../draw/pen.ts';
import { toolNamed } from '../draw/tools.ts';
import { matchPatterns } from '../pattern/members.ts';
import { findRegions } from '../regions/regions.ts';
import { isDimension, type SketchGeometry } from '../schema.ts';
import { solveSketch } from '../solve.ts';
import { chainOf, orderedChain } from './chain.ts';
import { circularPattern, clip, linearPattern, mirror, paste, transform } from './copy.ts';
import { chamfer, fillet } from './corner.ts';
import { offsetChain } from './offset.ts';
import { extend, split, trim } from './trim.ts';

const empty = (): SketchGeometry => ({ points: {}, curves: {}, constraints: {} });
const valueIn = (s: SketchGeometry) => (id: string) => {
  const c = s.constraints[id]!;
  return isDimension(c) ? Number(c.value) : 0;
};
const solve = (s: SketchGeometry) => solveSketch(s, valueIn(s));
type Place = [number, number];

function draw(s: SketchGeometry, tool: string, ...clicks: Place[]): string[] {
  const known = new Set(Object.keys(s.curves));
  const at = (p: Place) => {
    const point = Object.keys(s.points).find(
      (id) => Math.hypot(s.points[id]![0] - p[0], s.points[id]![1] - p[1]) < 1e-9,
    );
    return { at: p, ...(point ? { point } : {}) };
  };
  toolNamed(tool)!.draw({ pen: new SketchPen(s), clicks: clicks.map(at), typed: {} });
  return Object.keys(s.curves).filter((id) => !known.has(id));
}
const cornerAt = (s: SketchGeometry, [x, y]: Place) =>
  Object.keys(s.points).find((id) => Math.hypot(s.points[id]![0] - x, s.points[id]![1] - y) < 1e-6)!;
const areas = (s: SketchGeometry) =>
  findRegions(solve(s).geometry)
    .regions.map((r) => r.area)
    .sort((a, b) => a - b);

describe('trimming', () => {
  test('a line between two others loses its middle, and stays on one straight line', () => {
    const s = empty();
    const [line] = draw(s, 'line', [0, 0], [60, 0]);
    s.constraints.h = { kind: 'horizontal', of: [line!] };
    draw(s, 'line', [20, -10], [20, 10]);
    draw(s, 'line', [40, -10], [40, 10]);
    expect(trim(s, line!, [30, 1])).toEqual([]);
    const solved = solve(s);
    expect(solved.solved).toBe(true);
    expect(solved.redundant).toEqual([]);
    const level = Object.values(solved.geometry.curves).filter(
      (c) => c.kind === 'line' && solved.geometry.points[c.from]![1] === solved.geometry.points[c.to]![1],
    );
    expect(level).toHaveLength(2);
    expect(s.constraints.h).toBeDefined();
  });

  test('what cannot hold on the rest is named, all else stays', () => {
    const s = empty();
    const [line] = draw(s, 'line', [0, 0], [60, 0]);
    draw(s, 'line', [20, -10], [20, 10]);
    s.constraints.len = { kind: 'distance', of: [line!], value: '60' };
    s.constraints.h = { kind: 'horizontal', of: [line!] };
    expect(trim(s, line!, [50, 0]).map((c) => c.kind)).toEqual(['distance']);
    expect(Object.keys(s.constraints)).toContain('h');
    const end = (s.curves[line!] as { to: string }).to;
    expect(s.points[end]![0]).toBeCloseTo(20, 9);
  });

  test('a circle becomes an arc and keeps its diameter', () => {
    const s = empty();
    const [circle] = draw(s, 'circle', [0, 0], [10, 0]);
    draw(s, 'line', [0, -20], [0, 20]);
    s.constraints.d = { kind: 'diameter', of: [circle!], value: '20' };
    trim(s, circle!, [10, 0]);
    expect(s.curves[circle!]!.kind).toBe('arc');
    const solved = solve(s);
    expect(solved.solved).toBe(true);
    expect(findRegions(solved.geometry).regions[0]!.area).toBeCloseTo(50 * Math.PI, 6);
  });

  test('with nothing across, the whole curve goes', () => {
    const s = empty();
    const [line] = draw(s, 'line', [0, 0], [60, 0]);
    trim(s, line!, [30, 0]);
    expect(s).toEqual(empty());
  });

  test('an ellipse becomes an elliptical arc', () => {
    const s = empty();
    const [ellipse] = draw(s, 'ellipse', [0, 0], [20, 0], [0, 8]);
    draw(s, 'line', [-30, 0], [30, 0]);
    trim(s, ellipse!, [0, -8]);
    expect(areas(s)).toEqual([expect.closeTo(80 * Math.PI, 5)]);
  });

  test('a spline is cut exactly: the rest traces the same curve, smoothly joined', () => {
    const s = empty();
    const [spline] = draw(s, 'spline', [0, 0], [15, 12], [30, -4], [45, 8], [60, 0]);
    draw(s, 'line', [0, 0], [60, 0]);
    const before = areas(s);
    draw(s, 'line', [50, -20], [50, 20]);
    trim(s, spline!, [58, 4]);
    const solved = solve(s);
    expect(solved.solved).toBe(true);
    expect(findRegions(solved.geometry).regions.length).toBeGreaterThan(1);
    expect(areas(s).slice(0, 1)[0]).toBeCloseTo(before[0]!, 4);
  });

  test('trimming never moves what is left', () => {
    const coordinate = fc.integer({ min: -40, max: 40 });
    fc.assert(
      fc.property(
        fc.array(fc.tuple(coordinate, coordinate, coordinate, coordinate), { minLength: 2, maxLength: 6 }),
        coordinate,
        coordinate,
        (lines, x, y) => {
          const s = empty();
          for (const [a, b, c, d] of lines) if (Math.hypot(c - a, d - b) > 5) draw(s, 'line', [a, b], [c, d]);
          const ids = Object.keys(s.curves);
          if (ids.length === 0) return;
          const before = JSON.parse(JSON.stringify(s)) as SketchGeometry;
          trim(s, ids[0]!, [x, y]);
          const solved = solve(s);
          expect(solved.solved).toBe(true);
          for (const id of ids.slice(1)) {
            const line = s.curves[id] as { from: string; to: string };
            expect(s.curves[id]).toEqual(before.curves[id]);
            expect(solved.geometry.points[line.from]![0]).toBeCloseTo(before.points[line.from]![0], 6);
            expect(solved.geometry.points[line.to]![1]).toBeCloseTo(before.points[line.to]![1], 6);
          }
        },
      ),
      { numRuns: 60 },
    );
  });
});

describe('extending and splitting', () => {
  test('a line is extended to the next curve and held there', () => {
    const s = empty();
    const [line] = draw(s, 'line', [0, 0], [20, 0]);
    draw(s, 'line', [30, -10], [30, 10]);
    draw(s, 'line', [50, -10], [50, 10]);
    extend(s, line!, [18, 0]);
    expect(s.points[(s.curves[line!] as { to: string }).to]![0]).toBeCloseTo(30, 9);
    expect(solve(s).freedoms).toBe(11);
    expect(() => extend(s, line!, [1, 0])).toThrow('nothing to extend');
  });

  test('an arc is extended round to a line', () => {
    const s = empty();
    const [arc] = draw(s, 'arc about a centre', [0, 0], [10, 0], [0, 10]);
    draw(s, 'line', [-20, -3], [-5, -3]);
    extend(s, arc!, [0, 10]);
    const to = s.points[(s.curves[arc!] as { to: string }).to]!;
    expect(to).toEqual([expect.closeTo(-Math.sqrt(91), 8), expect.closeTo(-3, 8)]);
  });

  test.each(['circle', 'line', 'ellipse', 'spline'])('a split %s bounds what it did before', (kind) => {
    const s = empty();
    const clicks: Place[] = { circle: [[0, 0], [10, 0]], line: [[-20, 0], [20, 0]], ellipse: [[0, 0], [10, 0], [0, 5]], spline: [[-20, 0], [-5, 10], [8, 3], [20, 0]] }[kind] as Place[]; // prettier-ignore
    const [curve] = draw(s, kind, ...clicks);
    if (kind === 'line') draw(s, 'circle', [0, 0], [10, 0]);
    if (kind === 'spline') draw(s, 'line', [-20, 0], [20, 0]);
    const before = areas(s);
    const count = Object.keys(s.curves).length;
    split(s, curve!, [3, 6]);
    const after = areas(s);
    expect(Object.keys(s.curves).length).toBeGreaterThan(count);
    expect(after.length).toBe(before.length);
    after.forEach((a, i) => expect(a).toBeCloseTo(before[i]!, 5));
    expect(solve(s).redundant).toEqual([]);
  });
});

describe('corners', () => {
  function plate(): SketchGeometry {
    const s = empty();
    const lines = draw(s, 'rectangle', [0, 0], [60, 40]);
    s.constraints.w = { kind: 'distance', of: [lines[0]!], value: '60' };
    s.constraints.t = { kind: 'distance', of: [lines[1]!], value: '40' };
    s.constraints.o = { kind: 'coincident', of: [cornerAt(s, [0, 0]), 'origin'] };
    return s;
  }

  test('four fillets: the area is that of a rounded rectangle, and the sizes still hold to the corners', () => {
    const s = plate();
    for (const p of [[0, 0], [60, 0], [60, 40], [0, 40]] as Place[]) fillet(s, cornerAt(s, p), 8, '8'); // prettier-ignore
    const solved = solve(s);
    expect(solved.solved).toBe(true);
    expect(solved.freedoms).toBe(0);
    expect(solved.redundant).toEqual([]);
    expect(areas(s)).toEqual([expect.closeTo(2400 - (4 - Math.PI) * 64, 6)]);
    (s.constraints.w as { value: string }).value = '80';
    expect(areas(s)).toEqual([expect.closeTo(3200 - (4 - Math.PI) * 64, 6)]);
  });

  test('a chamfer keeps the corner too', () => {
    const s = plate();
    chamfer(s, cornerAt(s, [60, 40]), 10, '10', () => '10');
    const solved = solve(s);
    expect(solved.freedoms).toBe(0);
    expect(solved.redundant).toEqual([]);
    expect(areas(s)).toEqual([expect.closeTo(2350, 6)]);
  });

  test('between a line and an arc', () => {
    const s = empty();
    draw(s, 'line', [-20, 0], [0, 0]);
    draw(s, 'arc', [0, 0], [20, 20], [6, 14]);
    fillet(s, cornerAt(s, [0, 0]), 3, '3');
    const solved = solve(s);
    expect(solved.solved).toBe(true);
    const arcs = Object.values(solved.geometry.curves).filter((c) => c.kind === 'arc');
    expect(arcs).toHaveLength(2);
  });

  test('a radius that does not fit is refused in words', () => {
    expect(() => fillet(plate(), cornerAt(plate(), [0, 0]), 8, '8')).toThrow('two lines');
    const s = plate();
    expect(() => fillet(s, cornerAt(s, [0, 0]), 50, '50')).toThrow('does not fit');
    expect(() => chamfer(s, cornerAt(s, [0, 0]), 50, '50', () => '50')).toThrow('longer than a side');
  });
});

describe('offsets', () => {
  test.each([3, -3])('a closed chain by %d, held by one dimension', (d) => {
    const s = empty();
    const lines = draw(s, 'slot', [0, 0], [30, 0], [10, 10]);
    for (const p of Object.keys(s.points))
      if (s.points[p]![1] === 0) s.constraints[`f${p}`] = { kind: 'fixed', of: [p] };
    s.constraints.r = { kind: 'radius', of: [lines.find((l) => s.curves[l]!.kind === 'arc')!], value: '10' };
    const key = offsetChain(s, lines, d, '3');
    const solved = solve(s);
    expect(solved.solved).toBe(true);
    expect(solved.freedoms).toBe(0);
    const [inner] = areas(s);
    const outer = (r: number) => Math.PI * r * r + 30 * 2 * r;
    // The first curve is a cap that runs counter-clockwise: its left is inwards.
    const r = 10 - d;
    expect(areas(s).reduce((a, b) => a + b, 0)).toBeCloseTo(outer(Math.max(10, r)), 5);
    expect(inner).toBeGreaterThan(0);
    (s.constraints[key] as { value: string }).value = '5';
    expect(areas(s).reduce((a, b) => a + b, 0)).toBeCloseTo(outer(d < 0 ? 15 : 10), 5);
  });

  test('an open chain ends square to where it began', () => {
    const s = empty();
    const [a] = draw(s, 'line', [0, 0], [30, 0]);
    const [b] = draw(s, 'line', [30, 0], [30, 20]);
    for (const p of Object.keys(s.points)) s.constraints[`f${p}`] = { kind: 'fixed', of: [p] };
    offsetChain(s, [b!, a!], 4, '4');
    const solved = solve(s);
    expect(solved.freedoms).toBe(0);
    expect(solved.redundant).toEqual([]);
    expect(cornerAt(solved.geometry, [0, 4])).toBeDefined();
    expect(cornerAt(solved.geometry, [26, 4])).toBeDefined();
    expect(cornerAt(solved.geometry, [26, 20])).toBeDefined();
  });

  test('too far inwards is refused in words', () => {
    const s = empty();
    const lines = draw(s, 'slot', [0, 0], [30, 0], [10, 10]);
    expect(() => offsetChain(s, lines, 12, '12')).toThrow('too small for this offset');
  });
});

describe('mirrors and patterns', () => {
  test('half a profile mirrored about the axis closes, and follows every change', () => {
    const s = empty();
    draw(s, 'line', [0, 0], [20, 0]);
    draw(s, 'line', [20, 0], [20, 15]);
    draw(s, 'arc', [20, 15], [0, 30], [14, 26]);
    s.constraints.o = { kind: 'coincident', of: [cornerAt(s, [0, 0]), 'origin'] };
    mirror(s, Object.keys(s.curves), 'y_axis');
    const before = solve(s);
    expect(before.solved).toBe(true);
    expect(before.redundant).toEqual([]);
    expect(findRegions(before.geometry).regions).toHaveLength(1);
    const bottom = Object.keys(s.curves)[0]!;
    s.constraints.w = { kind: 'distance', of: [bottom], value: '35' };
    const after = solve(s).geometry;
    const xs = Object.values(after.points).map((p) => p[0]);
    expect(Math.max(...xs)).toBeCloseTo(-Math.min(...xs), 8);
    expect(Math.max(...xs)).toBeGreaterThan(30);
  });

  test('a circular pattern of holes follows its count', () => {
    const s = empty();
    const [hole] = draw(s, 'circle', [20, 0], [23, 0]);
    const id = circularPattern(s, [hole!], 'origin', { count: '6' });
    matchPatterns(s, valueIn(s));
    expect(Object.values(s.curves)).toHaveLength(6);
    expect(solve(s).freedoms).toBe(3);
    expect(solve(s).redundant).toEqual([]);
    const count = Object.values(s.constraints).find((c) => c.kind === 'count') as { value: string };
    count.value = '4';
    matchPatterns(s, valueIn(s));
    const { geometry } = solve(s);
    expect(Object.values(geometry.curves)).toHaveLength(4);
    expect(geometry.points[`${(s.curves[hole!] as { center: string }).center}__${id}_1`]).toEqual([
      expect.closeTo(0, 8),
      expect.closeTo(20, 8),
    ]);
  });

  test('a linear pattern in rows, its spacing a dimension', () => {
    const s = empty();
    const slot = draw(s, 'slot', [0, 0], [10, 0], [5, 3]);
    linearPattern(s, slot, 'x_axis', {
      count: '3',
      step: { value: 25, expression: '25' },
      rows: { count: '2', step: { value: 15, expression: '15' } },
    });
    matchPatterns(s, valueIn(s));
    const solved = solve(s);
    expect(solved.freedoms).toBe(5);
    expect(solved.redundant).toEqual([]);
    expect(findRegions(solved.geometry).regions).toHaveLength(6);
  });
});

describe('moving and carrying', () => {
  test('turning a rectangle keeps its shape: level lines become parallel and square', () => {
    const s = empty();
    draw(s, 'rectangle', [0, 0], [40, 20]);
    transform(s, Object.keys(s.curves), { about: [0, 0], turn: Math.PI / 6, scale: 1, shift: [5, 0] });
    const solved = solve(s);
    expect(solved.solved).toBe(true);
    expect(areas(s)).toEqual([expect.closeTo(800, 6)]);
    expect(solved.freedoms).toBe(5);
  });

  test('scaling takes dimensions along', () => {
    const s = empty();
    const lines = draw(s, 'rectangle', [0, 0], [40, 20]);
    s.constraints.w = { kind: 'distance', of: [lines[0]!], value: '40 mm' };
    transform(s, lines, { about: [0, 0], turn: 0, scale: 0.5, shift: [0, 0] });
    expect((s.constraints.w as { value: string }).value).toBe('40 mm * 0.5');
  });

  test('a copy brings what holds within it, under names of its own', () => {
    const s = empty();
    const lines = draw(s, 'rectangle', [0, 0], [40, 20]);
    s.constraints.w = { kind: 'distance', of: [lines[0]!], value: '40', name: 'width' };
    s.constraints.out = { kind: 'coincident', of: [cornerAt(s, [0, 0]), 'origin'] };
    const other = empty();
    paste(other, clip(s, lines), { about: [0, 0], turn: 0, scale: 1, shift: [100, 0] });
    expect(Object.keys(other.curves)).toHaveLength(4);
    expect(
      Object.values(other.constraints)
        .map((c) => c.kind)
        .sort(),
    ).toEqual(['distance', 'horizontal', 'horizontal', 'vertical', 'vertical']);
    expect(solve(other).freedoms).toBe(3);
    expect(Object.keys(other.points).some((p) => p in s.points)).toBe(false);
  });
});

describe('chains', () => {
  test('are found by their joints, and walked in order', () => {
    const s = empty();
    const lines = draw(s, 'rectangle', [0, 0], [40, 20]);
    draw(s, 'line', [60, 0], [80, 0]);
    expect(chainOf(s, lines[2]!).sort()).toEqual([...lines].sort());
    const { links, closed } = orderedChain(s, lines);
    expect(closed).toBe(true);
    expect(links).toHaveLength(4);
    expect(() => orderedChain(s, Object.keys(s.curves))).toThrow('do not hang together');
  });
});
