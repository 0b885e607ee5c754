/** Families of sketches in growing sizes: solve, drag a frame, change a dimension, find regions. */
import { findRegions, SketchDrag, solveSketch, type Constraint, type SketchGeometry } from '@helb/core';
import { growth, report, time } from './measure.ts';

const line = (from: string, to: string) => ({ kind: 'line' as const, from, to });

/** Rectangles in a row, each dimensioned and hung on the one before: five constraints and two dimensions apiece. */
function chainedRectangles(n: number): SketchGeometry {
  const s: SketchGeometry = { points: {}, curves: {}, constraints: {} };
  for (let i = 0; i < n; i++) {
    const [a, b, c, d] = ['a', 'b', 'c', 'd'].map((k) => `${k}${i}`) as [string, string, string, string];
    const x = i * 12;
    Object.assign(s.points, { [a]: [x, 0], [b]: [x + 10, 0], [c]: [x + 10, 8], [d]: [x, 8] });
    Object.assign(s.curves, {
      [`l${i}`]: line(a, b),
      [`m${i}`]: line(b, c),
      [`n${i}`]: line(c, d),
      [`o${i}`]: line(d, a),
    });
    const add = (k: string, constraint: Constraint) => (s.constraints[`${k}${i}`] = constraint);
    add('h1', { kind: 'horizontal', of: [`l${i}`] });
    add('h2', { kind: 'horizontal', of: [`n${i}`] });
    add('v1', { kind: 'vertical', of: [`m${i}`] });
    add('v2', { kind: 'vertical', of: [`o${i}`] });
    add('w', { kind: 'distance', of: [`l${i}`], value: '10' });
    add('t', { kind: 'distance', of: [`m${i}`], value: '8' });
    if (i > 0) add('g', { kind: 'distance', of: [`b${i - 1}`, a], value: '2' });
  }
  return s;
}

/** A strip of triangles, every member of given length. */
function truss(n: number): SketchGeometry {
  const s: SketchGeometry = { points: {}, curves: {}, constraints: {} };
  for (let i = 0; i < n + 2; i++) s.points[`p${i}`] = [i * 5, i % 2 === 0 ? 0 : 8.66];
  const bar = (i: number, j: number) => {
    s.curves[`b${i}_${j}`] = line(`p${i}`, `p${j}`);
    s.constraints[`d${i}_${j}`] = { kind: 'distance', of: [`b${i}_${j}`], value: '10' };
  };
  bar(0, 1);
  for (let i = 2; i < n + 2; i++) {
    bar(i - 2, i);
    bar(i - 1, i);
  }
  return s;
}

const families = { chained_rectangles: [chainedRectangles, 7], triangle_truss: [truss, 2] } as const;
const constraintsOf = (s: SketchGeometry) => Object.keys(s.constraints).length;

for (const [name, [make, perUnit]] of Object.entries(families)) {
  const points: { size: number; ms: number }[] = [];
  for (const wanted of [30, 100, 300, 1000]) {
    const s = make(Math.round(wanted / perUnit));
    const size = constraintsOf(s);
    const value = (id: string) => Number((s.constraints[id] as { value: string }).value);
    const runs = { warmUp: 2, runs: wanted > 300 ? 8 : 20 };
    const solved = solveSketch(s, value).geometry;
    points.push({ size, ms: await time('sketch', `${name} solve`, size, () => solveSketch(solved, value), runs) });
    const [changed] = Object.keys(s.constraints).filter((id) => 'value' in s.constraints[id]!);
    await time(
      'sketch',
      `${name} change 5 %`,
      size,
      (i) => solveSketch(solved, (id) => value(id) * (id === changed ? 1 + 0.05 * ((i % 2) * 2 - 1) : 1)),
      runs,
    );
    const grabbed = Object.keys(s.points)[2]!;
    const at = solved.points[grabbed]!;
    const drag = new SketchDrag(solved, value, grabbed, at);
    await time(
      'sketch',
      `${name} drag frame`,
      size,
      (i) => drag.moveTo([at[0] + Math.sin(i / 5), at[1] + Math.cos(i / 5)]),
      { warmUp: 10, runs: 100 },
    );
    await time('sketch', `${name} regions`, size, () => findRegions({ ...solved }), runs);
  }
  report(
    'sketch',
    `${name} solve growth exponent`,
    points.at(-1)!.size,
    growth(points[1]!, points.at(-1)!),
    'exponent',
  );
}
