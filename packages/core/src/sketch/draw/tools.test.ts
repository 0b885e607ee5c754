import { describe, expect, test } from '@jest/globals';
import { isDimension, type SketchGeometry } from '../schema.ts';
import { solveSketch } from '../solve.ts';
import { findRegions } from '../regions/regions.ts';
import { SketchPen, type Anchor } from './pen.ts';
import type { Chain, Typed } from './tool.ts';
import { DRAW_TOOLS, toolNamed } from './tools.ts';

const empty = (): SketchGeometry => ({ points: {}, curves: {}, constraints: {} });
const solve = (s: SketchGeometry) =>
  solveSketch(s, (id) => {
    const c = s.constraints[id]!;
    return isDimension(c) ? Number(c.value) : 0;
  });

/** Draw as the interface does: each click through the tool's own placing. */
function draw(
  sketch: SketchGeometry,
  name: string,
  clicks: readonly (readonly [number, number] | Anchor)[],
  typed: Typed = {},
  chain?: Chain,
) {
  const tool = toolNamed(name)!;
  const placed: Anchor[] = [];
  for (const click of clicks) {
    const anchor = (Array.isArray(click) ? { at: click } : click) as Anchor;
    placed.push(tool.place && placed.length > 0 ? tool.place(placed, anchor, typed) : anchor);
  }
  return tool.draw({ pen: new SketchPen(sketch), clicks: placed, typed, ...(chain ? { chain } : {}) });
}
const number = (value: number) => ({ expression: String(value), value });

describe('each tool draws a sound profile with the freedoms it should have', () => {
  // prettier-ignore
  test.each<[string, [number, number][], Typed, number, number]>([
    ['line', [[0, 0], [30, 10]], {}, 4, 0],
    ['line', [[0, 0], [30, 10]], { length: number(25), angle: number(0.5) }, 2, 0],
    ['rectangle', [[2, 3], [40, 22]], {}, 4, 1],
    ['rectangle', [[2, 3], [40, 22]], { width: number(50), height: number(10) }, 2, 1],
    ['centred rectangle', [[2, 3], [40, 22]], {}, 4, 1],
    ['slanted rectangle', [[0, 0], [30, 10], [25, 25]], {}, 5, 1],
    ['slanted rectangle', [[0, 0], [30, 10], [25, 25]], { width: number(40), height: number(12) }, 3, 1],
    ['circle', [[5, 5], [12, 5]], { diameter: number(20) }, 2, 1],
    ['circle by two points', [[0, 0], [20, 0]], {}, 3, 1],
    ['circle by three points', [[0, 0], [20, 0], [10, 10]], {}, 3, 1],
    ['arc', [[0, 0], [20, 0], [10, 4]], {}, 5, 0],
    ['arc', [[0, 0], [20, 0], [10, 4]], { radius: number(30) }, 4, 0],
    ['arc about a centre', [[0, 0], [10, 0], [0, 14]], {}, 5, 0],
    ['slot', [[0, 0], [30, 5], [10, 8]], {}, 5, 1],
    ['slot', [[0, 0], [30, 5], [10, 8]], { centres: number(40), width: number(12) }, 3, 1],
    ['centred slot', [[0, 0], [15, 0], [5, 4]], {}, 5, 1],
    ['arc slot', [[0, 0], [30, 0], [0, 30], [25, 25]], {}, 6, 1],
    ['arc slot', [[0, 0], [30, 0], [0, 30], [25, 25]], { radius: number(28), width: number(8) }, 4, 1],
    ['polygon', [[0, 0], [20, 0]], {}, 4, 1],
    ['polygon', [[0, 0], [20, 0]], { sides: number(5), diameter: number(30) }, 3, 1],
    ['polygon round a circle', [[0, 0], [20, 0]], { sides: number(8) }, 4, 1],
    ['ellipse', [[0, 0], [20, 3], [5, 9]], {}, 5, 1],
    ['ellipse', [[0, 0], [20, 3], [5, 9]], { major: number(18), minor: number(7) }, 3, 1],
    ['elliptical arc', [[0, 0], [20, 0], [0, 9], [18, 4], [-18, 5]], {}, 7, 0],
    ['spline', [[0, 0], [10, 8], [20, -3], [30, 5]], {}, 8, 0],
    ['spline by control points', [[0, 0], [10, 8], [20, -3], [30, 5]], {}, 8, 0],
    ['text', [[0, 0], [60, 0]], { text: { expression: 'HT', value: 0 }, capitals: number(10) }, 3, 2],
    ['point', [[3, 4]], {}, 2, 0],
  ])('%s at %j', (name, clicks, typed, freedoms, regions) => {
    const s = empty();
    draw(s, name, clicks, typed);
    const solved = solve(s);
    expect(solved.misfit).toBeNull();
    expect(solved.clash).toEqual([]);
    expect(solved.freedoms).toBe(freedoms);
    expect(solved.redundant).toEqual([]);
    expect(findRegions(solved.geometry).regions).toHaveLength(regions);
    // What was drawn stays where it was drawn.
    for (const [id, [x, y]] of Object.entries(s.points)) {
      expect(solved.geometry.points[id]![0]).toBeCloseTo(x, 6);
      expect(solved.geometry.points[id]![1]).toBeCloseTo(y, 6);
    }
  });

  test('a polygon round a circle touches it with all sides, whatever their number', () => {
    for (const sides of [3, 4, 7, 12]) {
      const s = empty();
      draw(s, 'polygon round a circle', [[0, 0], [20, 0]], { sides: number(sides), diameter: number(36) }); // prettier-ignore
      const [region] = findRegions(solve(s).geometry).regions;
      expect(region!.area).toBeCloseTo(sides * 18 * 18 * Math.tan(Math.PI / sides), 6);
    }
  });
});

describe('chains', () => {
  test('an arc goes on tangent from a line, and a line goes on from it', () => {
    const s = empty();
    const first = draw(s, 'line', [[0, 0], [30, 0]])!; // prettier-ignore
    const second = draw(s, 'tangent arc', [{ at: [30, 0], point: first.point }, { at: [30, 20] }], {}, first)!; // prettier-ignore
    const arc = s.curves[second.curve]!;
    expect(arc.kind).toBe('arc');
    expect(solve(s).geometry.points[(arc as { center: string }).center]).toEqual([
      expect.closeTo(30),
      expect.closeTo(10),
    ]);
    draw(s, 'line', [{ at: [30, 20], point: second.point }, { at: [0, 20] }], {}, second); // prettier-ignore
    expect(solve(s).freedoms).toBe(8);
  });

  test('clockwise too: the arc keeps the sense it was drawn with', () => {
    const s = empty();
    const first = draw(s, 'line', [[0, 0], [30, 0]])!; // prettier-ignore
    const second = draw(s, 'tangent arc', [{ at: [30, 0], point: first.point }, { at: [40, -10] }], {}, first)!; // prettier-ignore
    const arc = s.curves[second.curve] as { from: string; to: string; center: string };
    expect(arc.to).toBe(first.point);
    expect(s.points[arc.center]).toEqual([30, -10]);
  });

  test('a square arc has its centre on the line it leaves', () => {
    const s = empty();
    const first = draw(s, 'line', [[0, 0], [30, 0]])!; // prettier-ignore
    draw(s, 'square arc', [{ at: [30, 0], point: first.point }, { at: [20, 10] }], {}, first); // prettier-ignore
    const solved = solve(s);
    expect(solved.redundant).toEqual([]);
    const arc = Object.values(solved.geometry.curves).find((c) => c.kind === 'arc')!;
    expect(solved.geometry.points[arc.center]![1]).toBeCloseTo(0, 8);
  });

  test('a tangent arc picks up at the end of an existing arc', () => {
    const s = empty();
    draw(s, 'arc', [[0, 0], [20, 0], [10, 10]]); // prettier-ignore
    const end = Object.keys(s.points).find((p) => s.points[p]![0] === 20)!;
    draw(s, 'tangent arc', [{ at: [20, 0], point: end }, { at: [40, 0] }]);
    const solved = solve(s);
    expect(solved.solved).toBe(true);
    expect(solved.freedoms).toBe(7);
  });
});

test('a circle tangent to three lines finds the circle inside their triangle', () => {
  const s = empty();
  draw(s, 'line', [[0, 0], [40, 0]]); // prettier-ignore
  draw(s, 'line', [[0, 0], [0, 30]]); // prettier-ignore
  draw(s, 'line', [[40, 0], [0, 30]]); // prettier-ignore
  for (const [i, id] of Object.keys(s.curves).entries()) s.constraints[`f${i}`] = { kind: 'fixed', of: [id] };
  const [a, b, c] = Object.keys(s.curves) as [string, string, string];
  draw(s, 'circle tangent to three', [{ at: [15, 0], on: a }, { at: [0, 12], on: b }, { at: [18, 16], on: c }]); // prettier-ignore
  const solved = solve(s);
  const circle = Object.values(solved.geometry.curves).find((k) => k.kind === 'circle')!;
  // Inradius of a 30-40-50 triangle.
  expect(circle.radius).toBeCloseTo(10, 7);
  expect(solved.freedoms).toBe(0);
});

test('tools have names and keys of their own, and a hint for every click', () => {
  const keys = DRAW_TOOLS.flatMap((t) => (t.key ? [t.key] : []));
  expect(new Set(keys).size).toBe(keys.length);
  expect(new Set(DRAW_TOOLS.map((t) => t.name)).size).toBe(DRAW_TOOLS.length);
  for (const t of DRAW_TOOLS) expect(t.hints).toHaveLength(t.clicks === 'open' ? 1 : t.clicks);
});
