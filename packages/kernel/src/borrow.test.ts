import {
  addBorrowed, DATUM_FRAMES, emptyDesign, emptyPart, findSource, Ledger, PartEvaluator, refOfEdge, refOfFace,
  type Body, type BorrowSource, type Design, type FlatPiece, type LoanPiece, type PartOutcome, type SketchStep, type Step,
} from '@helb/core'; // prettier-ignore
import { beforeAll, describe, expect, test } from '@jest/globals';
import { loadKernel } from './load.ts';
import type { OcctKernel } from './occt-kernel.ts';

let kernel: OcctKernel;
beforeAll(async () => {
  kernel = await loadKernel();
});

/** A plate 60 × 40 × 10 with a hole of radius 8 in its middle, and its dimensions as numbers to change. */
function steps(width = 60, radius = 8): Record<string, Step> {
  const line = (from: string, to: string) => ({ kind: 'line' as const, from, to });
  const plate: SketchStep = {
    kind: 'sketch',
    name: 'Plate',
    plane: { datum: 'floor' },
    points: { a: [0, 0], b: [width, 0], c: [width, 40], d: [0, 40], m: [30, 20] },
    curves: {
      bottom: line('a', 'b'),
      right: line('b', 'c'),
      top: line('c', 'd'),
      left: line('d', 'a'),
      hole: { kind: 'circle', center: 'm', radius },
    },
    constraints: {},
  };
  const region = { outer: ['+bottom', '+right', '+top', '+left'], at: [2, 2] as [number, number] };
  return {
    s: plate,
    e: {
      kind: 'extrude',
      name: 'Block',
      profile: { sketch: 's', regions: [region] },
      way: 'one_way',
      distance: '10 mm',
      result: 'new_body',
    },
  };
}

async function evaluate(all: Record<string, Step>, evaluator = new PartEvaluator(kernel)): Promise<PartOutcome> {
  const design: Design = {
    ...emptyDesign('Test'),
    parts: { p: { ...emptyPart('Part'), steps: all, stepOrder: Object.keys(all) } },
    partOrder: ['p'],
  };
  return evaluator.evaluate(design, Ledger.of(design), 'p');
}

/** Reference to an edge between two faces, nearest to a place. */
function edgeBetween(body: Body, one: string, other: string, near: [number, number, number]) {
  const curves = kernel.curves(body.solid);
  const away = (i: number) => Math.hypot(...curves[i]!.middle.map((x, k) => x - near[k]!));
  const edges = body.facts.edges.flatMap((e, i) => {
    const names = e.faces.map((f) => body.faceNames[f]![0]!.text);
    return names.some((n) => n.includes(one)) && names.some((n) => n.includes(other)) ? [i] : [];
  });
  const best = edges.reduce((a, b) => (away(b) < away(a) ? b : a));
  return refOfEdge(body, best);
}

const top = DATUM_FRAMES.floor;
const loan = (bodies: readonly Body[], source: BorrowSource, frame = top): readonly LoanPiece[] => {
  const finding = findSource(source, frame, bodies, kernel);
  if (finding.how !== 'one') throw new Error(finding.why);
  return finding.found.pieces;
};
const take = (bodies: readonly Body[], source: BorrowSource, frame = top) =>
  loan(bodies, source, frame).map((p) => p.piece);
const topOf = (body: Body) =>
  refOfFace(
    body,
    body.faceNames.findIndex((n) => n[0]!.role === 'end'),
  );
const lengthOf = (p: FlatPiece) =>
  p.kind === 'line' ? Math.hypot(p.points[1][0] - p.points[0][0], p.points[1][1] - p.points[0][1]) : 0;

describe('borrowing from the part', () => {
  test('an edge, its end, and a round edge seen from above and from the side', async () => {
    const { bodies } = await evaluate(steps());
    const right = edgeBetween(bodies[0]!, 'side:right', 'end', [60, 20, 10]);
    expect(take(bodies, { kind: 'edge', edge: right })).toEqual([{ kind: 'line', points: expect.anything() }]);
    const [end] = take(bodies, { kind: 'vertex', edge: right, end: 'to' });
    expect(end!.points[0]![0]).toBeCloseTo(60, 9);
    const rim = edgeBetween(bodies[0]!, 'side:hole', 'end', [30, 20, 10]);
    expect(take(bodies, { kind: 'edge', edge: rim })).toEqual([
      { kind: 'circle', points: [[expect.closeTo(30), expect.closeTo(20)]], radius: expect.closeTo(8) },
    ]);
    const [side] = take(bodies, { kind: 'edge', edge: rim }, DATUM_FRAMES.wall);
    expect(lengthOf(side!)).toBeCloseTo(16, 6);
  });

  test('a circle seen at a slant is an ellipse', async () => {
    const { bodies } = await evaluate(steps());
    const rim = edgeBetween(bodies[0]!, 'side:hole', 'end', [30, 20, 10]);
    const s = Math.SQRT1_2;
    const slanted = { origin: [0, 0, 0], x: [1, 0, 0], y: [0, s, s], normal: [0, -s, s] } as const;
    const [oval] = take(bodies, { kind: 'edge', edge: rim }, slanted);
    expect(oval).toMatchObject({ kind: 'ellipse', minor: expect.closeTo(8 * s, 9) });
  });

  test('all edges of a face; a section; a silhouette', async () => {
    const { bodies } = await evaluate(steps());
    const round = take(bodies, { kind: 'face', face: topOf(bodies[0]!) });
    expect(round.map((p) => p.kind).sort()).toEqual(['circle', 'line', 'line', 'line', 'line']);
    const upright = { ...DATUM_FRAMES.wall, origin: [0, 20, 0] as const };
    const section = take(bodies, { kind: 'section', body: { name: 'e' } }, upright);
    // Two rectangles, left and right of the hole.
    expect(section.reduce((sum, p) => sum + lengthOf(p), 0)).toBeCloseTo(2 * (2 * 22 + 2 * 10), 5);
    const silhouette = take(bodies, { kind: 'silhouette', body: { name: 'e' } }, DATUM_FRAMES.wall);
    expect(silhouette.reduce((sum, p) => sum + lengthOf(p), 0)).toBeCloseTo(2 * (60 + 10), 4);
  });

  test('a linked edge follows its source; what is tied to it comes along', async () => {
    const first = await evaluate(steps());
    const rim = edgeBetween(first.bodies[0]!, 'side:hole', 'end', [30, 20, 10]);
    const right = edgeBetween(first.bodies[0]!, 'side:right', 'end', [60, 20, 10]);
    const sketch: SketchStep = {
      kind: 'sketch',
      name: 'On top',
      plane: { face: topOf(first.bodies[0]!) },
      points: { p: [45, 20] },
      curves: { k: { kind: 'circle', center: 'p', radius: 2 } },
      constraints: {},
    };
    for (const edge of [rim, right])
      addBorrowed(sketch, { kind: 'edge', edge }, loan(first.bodies, { kind: 'edge', edge }));
    const loans = Object.values(sketch.borrowed!);
    sketch.constraints.d = { kind: 'distance', of: ['p', loans[1]!.of[0]!], value: '15 mm' };
    // The same who knows the sketch as it was: nothing of its own changes.
    const evaluator = new PartEvaluator(kernel);
    const small = await evaluate({ ...steps(), t: sketch }, evaluator);
    expect(small.steps.at(-1)!.sketch!.solution.geometry.points.p![0]).toBeCloseTo(45, 8);
    const grown = await evaluate({ ...steps(80, 11), t: sketch }, evaluator);
    const outcome = grown.steps.at(-1)!;
    expect(outcome).toMatchObject({ status: 'ok', message: null });
    const { geometry } = outcome.sketch!.solution;
    expect((geometry.curves[loans[0]!.of[0]!] as { radius: number }).radius).toBeCloseTo(11, 9);
    expect(geometry.points.p![0]).toBeCloseTo(65, 8);
    expect(outcome.sketch!.solution.loose.has(loans[1]!.of[0]!)).toBe(false);
  });

  test('a lost source leaves its geometry where it was, and is told', async () => {
    const first = await evaluate(steps());
    const rim = edgeBetween(first.bodies[0]!, 'side:hole', 'end', [30, 20, 10]);
    const sketch: SketchStep = {
      kind: 'sketch',
      name: 'On top',
      plane: { datum: 'floor' },
      points: {},
      curves: {},
      constraints: {},
    };
    addBorrowed(sketch, { kind: 'edge', edge: rim }, loan(first.bodies, { kind: 'edge', edge: rim }));
    const without = steps();
    delete (without.s as SketchStep).curves.hole;
    const outcome = (await evaluate({ ...without, t: sketch })).steps.at(-1)!;
    expect(outcome.status).toBe('ok');
    expect(outcome.message).toContain('lost its source');
    expect(Object.keys(outcome.sketch!.solution.geometry.curves)).toHaveLength(1);
  });

  test('a sketch whose face is gone is still shown where it was', async () => {
    const sketch: SketchStep = {
      kind: 'sketch',
      name: 'On top',
      plane: { face: { name: 'x:end:none', near: [30, 20, 99], normal: [0, 0, 1] } },
      points: { p: [1, 1] },
      curves: {},
      constraints: {},
    };
    const outcome = (await evaluate({ ...steps(), t: sketch })).steps.at(-1)!;
    expect(outcome.status).toBe('failed');
    expect(outcome.message).toContain('no longer there');
    expect(outcome.sketch!.frame.origin[2]).toBeCloseTo(99, 9);
  });
});
