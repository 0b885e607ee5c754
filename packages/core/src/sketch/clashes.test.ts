import { expect, test } from '@jest/globals';
import { clashReadings } from './clash-readings.ts';
import { numbersIn, SAMPLE_FAMILIES, truss } from './sample-families.ts';
import { isDimension, type Constraint, type SketchGeometry } from './schema.ts';
import { solveSketch } from './solve.ts';
import { written } from './written.ts';

/** Sketches that cannot hold: points, curves, constraints in short form, and the fewest that disagree. */
const cases: [name: string, points: string, curves: string, constraints: string, size: number][] = [
  ['two lengths for one line', 'a 0 0, b 9 0', 'l a b', 'distance:l=5; distance:l=6', 2],
  ['two distances of two points', 'a 0 0, b 9 0', '', 'distance:a,b=5; distance:b,a=6', 2],
  ['two radii', 'c 0 0', 'k c 4', 'radius:k=5; radius:k=6', 2],
  ['radius and diameter', 'c 0 0', 'k c 4', 'radius:k=5; diameter:k=11', 2],
  ['equal circles of two sizes', 'c 0 0, d 9 0', 'k c 4; m d 4', 'radius:k=5; radius:m=6; equal:k,m', 3],
  ['a triangle that cannot close', 'a 0 0, b 9 0, c 4 4', '', 'distance:a,b=10; distance:b,c=3; distance:c,a=4', 3],
  ['two heights from the origin', 'a 3 4', '', 'vertical_distance:origin,a=4; vertical_distance:origin,a=5', 2],
  ['on the axis and above it', 'a 3 0', '', 'coincident:a,x_axis; vertical_distance:origin,a=5', 2],
  ['on the origin and away from it', 'a 3 0', '', 'coincident:a,origin; distance:a,origin=5', 2],
  ['two angles', 'a 0 0, b 9 1', 'l a b', 'angle:x_axis,l=0.3; angle:x_axis,l=0.5', 2],
  ['level and at an angle', 'a 0 0, b 9 0', 'l a b', 'horizontal:l; angle:x_axis,l=0.5', 2],
  ['parallel and at an angle', 'a 0 0, b 9 0, c 0 4, d 9 4', 'l a b; m c d', 'parallel:l,m; angle:l,m=0.5', 2],
  ['parallel and square', 'a 0 0, b 9 0, c 0 4, d 9 4', 'l a b; m c d', 'parallel:l,m; perpendicular:l,m; distance:l=9; distance:m=9', 2],
  ['a rectangle of two widths', 'a 0 0, b 9 0, c 9 5, d 0 5', 'l a b; m b c; n c d; o d a', 'horizontal:l; horizontal:n; vertical:m; vertical:o; distance:l=9; distance:n=8; distance:m=5', 5],
  ['two fixed points at another distance', 'a 0 0, b 9 0', '', 'fixed:a; fixed:b; distance:a,b=5', 3],
  ['a midpoint that is too far', 'a 0 0, b 8 0, m 4 0', 'l a b', 'midpoint:m,l; distance:a,m=4; distance:l=10', 3],
  ['concentric circles apart', 'c 0 0, d 1 0', 'k c 4; m d 6', 'concentric:k,m; distance:c,d=3', 2],
  ['tangent outside at the wrong distance', 'c 0 0, d 10 0', 'k c 4; m d 6', 'tangent:k,m; radius:k=4; radius:m=6; distance:c,d=13', 4],
  ['a circle tangent to an axis, too high', 'c 0 5', 'k c 5', 'tangent:x_axis,k; radius:k=5; vertical_distance:origin,c=6', 3],
  ['mirrored points at two heights', 'a -4 1, b 4 1', '', 'symmetric:a,b,y_axis; vertical_distance:origin,a=1; vertical_distance:origin,b=2', 3],
  ['mirrored points at two distances', 'a -4 1, b 4 1', '', 'symmetric:a,b,y_axis; horizontal_distance:origin,a=4; horizontal_distance:origin,b=5', 3],
  ['equal lines of two lengths', 'a 0 0, b 9 0, c 0 4, d 9 4', 'l a b; m c d', 'equal:l,m; distance:l=5; distance:m=6; parallel:l,m', 3],
  ['a chain of points that is too short', 'a 0 0, b 4 0, c 8 0', '', 'horizontal:a,b; horizontal:b,c; distance:a,b=4; distance:b,c=4; distance:a,c=9', 3],
  ['an arc longer than its circle', 'c 0 0, p 5 0, q 0 5', 'k c p q', 'radius:k=5; arc_length:k=40', 2],
  ['equal spacing against two gaps', 'a 0 0, b 4 0, c 8 0', '', 'equal_spacing:a,b,c; distance:a,b=4; distance:b,c=5', 3],
  ['a point on a circle, farther out', 'c 0 0, p 5 0', 'k c 5', 'fixed:c; radius:k=5; coincident:p,k; distance:p,c=6', 3],
  ['collinear lines apart', 'a 0 0, b 9 0, c 12 0, d 20 0', 'l a b; m c d', 'collinear:l,m; horizontal:l; vertical_distance:a,c=2', 3],
]; // prettier-ignore

test.each(cases)('%s', (_, points, curves, constraints, size) => {
  const sketch = written(points, curves, constraints);
  const number = (id: string) => {
    const c = sketch.constraints[id]!;
    return isDimension(c) ? Number(c.value) : 0;
  };
  const solution = solveSketch(sketch, number);
  expect(solution.solved).toBe(false);
  expect(solution.geometry).toBe(sketch);
  expect(solution.clash).toHaveLength(size);
  // The set itself disagrees, and without any one of it, the rest holds.
  const only = (ids: readonly string[]): SketchGeometry => ({
    ...sketch,
    constraints: Object.fromEntries(ids.map((id) => [id, sketch.constraints[id]!])) as Record<string, Constraint>,
  });
  expect(solveSketch(only(solution.clash), number).solved).toBe(false);
  for (const id of solution.clash)
    expect(solveSketch(only(solution.clash.filter((other) => other !== id)), number).solved).toBe(true);
});

test('each of a clash says what it would read without the others', () => {
  const sketch = written('a 0 0, b 9 0', 'l a b', 'horizontal:l; distance:l=5; distance:l=6');
  const number = (id: string) => Number((sketch.constraints[id] as { value: string }).value);
  const steps = clashReadings(sketch, number);
  let step = steps.next();
  while (!step.done) step = steps.next();
  expect(step.value.map((r) => r.without)).toEqual([expect.closeTo(6, 9), expect.closeTo(5, 9)]);
});

test.each(Object.entries(SAMPLE_FAMILIES))(
  'in %s, a number given twice and differently is found with its twin among many that hold',
  (_, { make, each }) => {
    const number = numbersIn(make(Math.round(120 / each)));
    const whole = solveSketch(make(Math.round(120 / each)), number).geometry;
    const ids = Object.keys(whole.constraints).filter((id) => isDimension(whole.constraints[id]!));
    for (const id of [ids[0]!, ids[ids.length >> 1]!]) {
      const twice = { ...whole, constraints: { ...whole.constraints, twin: whole.constraints[id]! } };
      const value = (k: string) => (k === 'twin' ? number(id) * 1.2 : number(k));
      const { solved, clash } = solveSketch(twice, value);
      expect(solved).toBe(false);
      expect(clash).toContain('twin');
      // Those found disagree by themselves; without any one of them, they do not.
      const only = (kept: readonly string[]) => ({
        ...twice,
        constraints: Object.fromEntries(kept.map((k) => [k, twice.constraints[k]!])),
      });
      expect(solveSketch(only(clash), value).solved).toBe(false);
      for (const k of clash) expect(solveSketch(only(clash.filter((other) => other !== k)), value).solved).toBe(true);
    }
  },
);

test('a member far too long is found with the two that close its triangle, and the whole is not solved for it again and again', () => {
  const sketch = truss(149);
  // Far from it: read for each system that is built of the whole.
  let reads = 0;
  const { solved, clash } = solveSketch(sketch, (id) => {
    if (id === 'd5_6') reads++;
    return id === 'd70_71' ? 900 : 10;
  });
  expect(solved).toBe(false);
  const others = clash.filter((id) => id !== 'd70_71').sort();
  const closing = [['d69_70', 'd69_71'], ['d70_72', 'd71_72']]; // prettier-ignore
  expect(closing).toContainEqual(others);
  expect(reads).toBeLessThan(8);
});
