import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { SketchPen, type Anchor } from '../draw/pen.ts';
import { toolNamed } from '../draw/tools.ts';
import { isDimension, type SketchGeometry } from '../schema.ts';
import { solveSketch } from '../solve.ts';
import { numbersIn, SAMPLE_FAMILIES } from '../sample-families.ts';
import { freedomsIn, movedBy } from './freedoms.ts';
import { lineName } from '../line-names.ts';
import { proposalsFor, settleAll } from './proposals.ts';

const empty = (): SketchGeometry => ({ points: {}, curves: {}, constraints: {} });
const valueIn = (s: SketchGeometry) => (id: string) => {
  const c = s.constraints[id]!;
  return isDimension(c) ? Number(c.value) : 0;
};

function draw(s: SketchGeometry, tool: string, ...clicks: (Anchor | [number, number])[]): string[] {
  const known = new Set(Object.keys(s.curves));
  const anchors = clicks.map((c) => (Array.isArray(c) ? { at: c } : c) as Anchor);
  toolNamed(tool)!.draw({ pen: new SketchPen(s), clicks: anchors, typed: {} });
  return Object.keys(s.curves).filter((id) => !known.has(id));
}
function settled(s: SketchGeometry) {
  const steps = settleAll(s, valueIn(s));
  for (let step = steps.next(); ; step = steps.next()) if (step.done) return step.value;
}
const sentences = (s: SketchGeometry) => freedomsIn(s, valueIn(s)).map((f) => f.sentence);

describe('freedoms by name', () => {
  test('a rectangle on the origin can change its two sizes', () => {
    const s = empty();
    draw(s, 'rectangle', { at: [0, 0], point: 'origin' }, [40, 20]);
    expect(sentences(s).sort()).toEqual([
      'The height of the rectangle can still change.',
      'The width of the rectangle can still change.',
    ]);
  });

  test('a slot held level on the x axis slides along its axis', () => {
    const s = empty();
    const lines = draw(s, 'slot', [-10, 0], [20, 0], [5, 6]);
    const arcs = lines.filter((l) => s.curves[l]!.kind === 'arc');
    const centers = arcs.map((a) => (s.curves[a] as { center: string }).center);
    s.constraints.a = { kind: 'coincident', of: [centers[0]!, 'x_axis'] };
    s.constraints.b = { kind: 'coincident', of: [centers[1]!, 'x_axis'] };
    s.constraints.l = { kind: 'distance', of: centers, value: '30' };
    s.constraints.r = { kind: 'radius', of: [arcs[0]!], value: '6' };
    expect(sentences(s)).toEqual(['The slot can still slide sideways.']);
  });

  test('a free circle slides two ways and changes its diameter', () => {
    const s = empty();
    draw(s, 'circle', [5, 8], [9, 8]);
    expect(sentences(s).sort()).toEqual([
      'The circle can still slide sideways.',
      'The circle can still slide up and down.',
      'The diameter of the circle can still change.',
    ]);
  });

  test('a line pinned at the origin turns about it', () => {
    const s = empty();
    const [line] = draw(s, 'line', { at: [0, 0], point: 'origin' }, [20, 10]);
    s.constraints.d = { kind: 'distance', of: [line!], value: String(Math.hypot(20, 10)) };
    expect(sentences(s)).toEqual(['The line can still turn about the origin.']);
  });

  test('there are as many as the count says, and moving along one breaks nothing to first order', () => {
    const s = empty();
    draw(s, 'slot', [0, 0], [30, 5], [10, 8]);
    draw(s, 'polygon', [60, 0], [75, 3]);
    draw(s, 'spline', [0, 40], [10, 48], [20, 36], [30, 45]);
    draw(s, 'ellipse', [60, 40], [75, 44], [60, 48]);
    const freedoms = freedomsIn(s, valueIn(s));
    expect(freedoms).toHaveLength(solveSketch(s, valueIn(s)).freedoms);
    for (const f of freedoms) {
      const moved = movedBy(s, f, 1e-3);
      const back = solveSketch(moved, valueIn(s)).geometry;
      const off = Math.max(
        ...Object.keys(s.points).map((p) =>
          Math.hypot(back.points[p]![0] - moved.points[p]![0], back.points[p]![1] - moved.points[p]![1]),
        ),
      );
      expect(off).toBeLessThan(2e-5);
    }
  });
});

/** A closed outline, level and upright lines held so. */
function outline(corners: readonly [number, number][]): SketchGeometry {
  const s = empty();
  corners.forEach((c, i) => (s.points[`p${i}`] = [...c]));
  corners.forEach((c, i) => {
    const next = (i + 1) % corners.length;
    s.curves[`l${i}`] = { kind: 'line', from: `p${i}`, to: `p${next}` };
    const [dx, dy] = [corners[next]![0] - c[0], corners[next]![1] - c[1]];
    if (dx === 0 || dy === 0) s.constraints[`k${i}`] = { kind: dy === 0 ? 'horizontal' : 'vertical', of: [`l${i}`] };
  });
  return s;
}

describe('freedoms say which', () => {
  const tee: [number, number][] = [[0, 0], [70, 0], [70, 18], [47, 18], [47, 55], [26, 55], [26, 18], [0, 18]]; // prettier-ignore

  test('the sides of an outline are named, each with the way it goes', () => {
    const s = outline(tee);
    s.constraints.o = { kind: 'coincident', of: ['p0', 'origin'] };
    expect(sentences(s).sort()).toEqual([
      'The inner bottom edge 1 can still slide up and down.',
      'The inner bottom edge 2 can still slide up and down.',
      'The inner left side can still slide sideways.',
      'The inner right side can still slide sideways.',
      'The right side can still slide sideways.',
      'The top edge can still slide up and down.',
    ]);
  });

  test('what is no known shape is not called one', () => {
    const said = sentences(outline(tee));
    expect(said).toContain('The outline of 8 sides can still slide sideways.');
    expect(said.join()).not.toMatch(/octagon|pentagon|hexagon/);
  });

  test('alike things are told apart by where they lie', () => {
    const s = outline([[0, 0], [90, 0], [90, 40], [0, 40]]); // prettier-ignore
    s.constraints.o = { kind: 'coincident', of: ['p0', 'origin'] };
    [[15, 20], [70, 20], [40, 25]].forEach((c, i) => {
      s.points[`m${i}`] = c as [number, number];
      s.curves[`c${i}`] = { kind: 'circle', center: `m${i}`, radius: 5 };
    }); // prettier-ignore
    const named = freedomsIn(s, valueIn(s)).filter((f) => f.entities.join() === 'c1');
    expect(named.map((f) => f.sentence).sort()).toEqual([
      'The 3rd circle from the left can still slide sideways.',
      'The 3rd circle from the left can still slide up and down.',
      'The diameter of the 3rd circle from the left can still change.',
    ]);
  });

  test.each(Object.entries(SAMPLE_FAMILIES))('no two are alike: %s, some of its constraints let go', (_, { make }) => {
    const value = numbersIn(make(6));
    const whole = solveSketch(make(6), value).geometry;
    const ids = Object.keys(whole.constraints);
    fc.assert(
      fc.property(fc.subarray(ids, { maxLength: 8 }), (gone) => {
        const constraints = Object.fromEntries(Object.entries(whole.constraints).filter(([id]) => !gone.includes(id)));
        const said = freedomsIn({ ...whole, constraints }, value).map((f) => f.sentence);
        expect(new Set(said).size).toBe(said.length);
      }),
      { numRuns: 15 },
    );
  });
});

describe('proposals', () => {
  test('each takes its freedom away', () => {
    const s = empty();
    draw(s, 'rectangle', [3, 4], [40, 20]);
    for (const f of freedomsIn(s, valueIn(s))) {
      const proposals = proposalsFor(s, valueIn(s), f);
      expect(proposals.length).toBeGreaterThan(0);
      for (const p of proposals) {
        const tried = { ...s, constraints: { ...s.constraints, n: p.constraint } };
        expect(solveSketch(tried, valueIn(tried)).freedoms).toBe(3);
      }
    }
  });

  test.each([
    [
      'rectangle',
      [
        [-20, -10],
        [20, 10],
      ],
    ],
    [
      'slot',
      [
        [-15, 0],
        [15, 0],
        [0, 6],
      ],
    ],
    [
      'polygon',
      [
        [10, 10],
        [25, 12],
      ],
    ],
    [
      'arc slot',
      [
        [0, 0],
        [30, 0],
        [0, 30],
        [25, 25],
      ],
    ],
    [
      'ellipse',
      [
        [5, 5],
        [20, 6],
        [5, 9],
      ],
    ],
    [
      'line',
      [
        [0.1, 0.1],
        [20, 0.3],
      ],
    ],
  ] as [string, [number, number][]][])('a %s is settled whole, with nothing said twice', (tool, clicks) => {
    const s = empty();
    draw(s, tool, ...clicks);
    const plan = settled(s);
    expect(plan.left).toBe(0);
    const tried: SketchGeometry = { ...s, constraints: { ...s.constraints } };
    plan.proposals.forEach((p, i) => (tried.constraints[`n${i}`] = p.constraint));
    const solved = solveSketch(tried, valueIn(tried));
    expect(solved.freedoms).toBe(0);
    expect(solved.redundant).toEqual([]);
  });

  test('what is drawn about the origin is made symmetric with it', () => {
    const s = empty();
    draw(s, 'rectangle', [-20, -10.1], [20.1, 10]);
    const plan = settled(s);
    expect(plan.proposals.map((p) => p.reading.kind)).toEqual(['distance', 'distance', 'symmetric', 'symmetric']);
  });

  test('what settles a sketch moves nothing by more than it says, and takes no line away', () => {
    // A long plate with a small tab, and a trapezium, each drawn freely.
    const outlines = [
      [[0, 0], [120, 0.4], [119.7, 40], [70, 40.3], [70.2, 43], [60, 43.1], [59.8, 40], [0.3, 40]],
      [[2, 1], [80, 0], [66, 35], [11, 36]],
      [[0, 0], [50, 0], [50, 30], [31, 30], [28, 12], [22, 12], [19, 30], [0, 30]],
    ] as [number, number][][]; // prettier-ignore
    for (const corners of outlines) {
      const s = empty();
      corners.forEach((c, i) => (s.points[`p${i}`] = c));
      corners.forEach(
        (_, i) => (s.curves[`l${i}`] = { kind: 'line', from: `p${i}`, to: `p${(i + 1) % corners.length}` }),
      );
      const plan = settled(s);
      const own = new Map<string, number>();
      const constraints = { ...s.constraints };
      plan.proposals.forEach((p, i) => {
        constraints[`k${i}`] = p.constraint;
        if (p.reading.value !== undefined)
          own.set(`k${i}`, Number(p.reading.value.toFixed(p.reading.kind === 'angle' ? 6 : 4)));
      });
      const after = solveSketch({ ...s, constraints }, (id) => own.get(id) ?? 0);
      expect(after.solved).toBe(true);
      const said = plan.proposals.reduce((sum, p) => sum + p.moves, 0) + 1e-3;
      for (const [id, [x, y]] of Object.entries(s.points))
        expect(Math.hypot(after.geometry.points[id]![0] - x, after.geometry.points[id]![1] - y)).toBeLessThan(said);
      corners.forEach((a, i) => {
        const b = corners[(i + 1) % corners.length]!;
        const [p, q] = [after.geometry.points[`p${i}`]!, after.geometry.points[`p${(i + 1) % corners.length}`]!];
        expect(Math.hypot(p[0] - q[0], p[1] - q[1]) / Math.hypot(a[0] - b[0], a[1] - b[1])).toBeGreaterThan(0.8);
      });
      for (const p of plan.proposals) expect(p.moves).toBeLessThan(1);
    }
  });

  test('a proposal names its lines, and no two of one drawing bear one name', () => {
    const s = empty();
    draw(s, 'rectangle', [-20, -10], [20, 10]);
    const names = Object.keys(s.curves).map((id) => lineName(s, id));
    expect(new Set(names).size).toBe(4);
    expect(names).toEqual(
      expect.arrayContaining(['the bottom edge', 'the top edge', 'the left side', 'the right side']),
    );
  });
});
