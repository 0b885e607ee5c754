import { expect, test } from '@jest/globals';
import type { Constraint, SketchGeometry } from './schema.ts';
import { solveSketch } from './solve.ts';

/**
 * Freedom counts that can be worked out by hand. Each case is written as
 * points, curves and constraints in short form: `kind:entity,entity=value`.
 */
type Case = [name: string, freedoms: number, points: string, curves: string, constraints: string];

const cases: Case[] = [
  ['nothing', 0, '', '', ''],
  ['two points', 4, 'a 0 0, b 5 5', '', ''],
  ['two points made one', 2, 'a 0 0, b 5 5', '', 'coincident:a,b'],
  ['a point on the origin', 0, 'a 2 2', '', 'coincident:a,origin'],
  ['a point on both axes', 0, 'a 2 2', '', 'coincident:a,x_axis; coincident:a,y_axis'],
  ['two points level', 3, 'a 0 0, b 5 5', '', 'horizontal:a,b'],
  ['two points level and at a distance', 2, 'a 0 0, b 5 1', '', 'horizontal:a,b; distance:a,b=7'],
  ['three points in a chain of distances', 4, 'a 0 0, b 5 1, c 9 4', '', 'distance:a,b=5; distance:b,c=5'],
  ['a rigid triangle of points', 3, 'a 0 0, b 5 1, c 3 4', '', 'distance:a,b=5; distance:b,c=4; distance:c,a=4'],
  [
    'a rigid triangle held at two points',
    0,
    'a 0 0, b 5 0, c 3 4',
    '',
    'fixed:a; fixed:b; distance:b,c=4; distance:c,a=4',
  ],
  [
    'a level line of given length from the origin',
    0,
    'a 0 0, b 5 1',
    'l a b',
    'coincident:a,origin; horizontal:l; distance:l=6',
  ],
  ['a line through the origin', 3, 'a 1 1, b 5 4', 'l a b', 'coincident:origin,l'],
  ['a line square to the x axis', 3, 'a 1 1, b 2 4', 'l a b', 'perpendicular:l,x_axis'],
  ['a line along the x axis', 2, 'a 1 1, b 5 1', 'l a b', 'coincident:a,x_axis; coincident:b,x_axis'],
  ['two lines sharing a corner', 6, 'a 0 0, b 5 0, c 5 5', 'l a b; m b c', ''],
  ['two lines sharing a square corner', 5, 'a 0 0, b 5 0, c 5 5', 'l a b; m b c', 'perpendicular:l,m'],
  ['an angle of two lines', 5, 'a 0 0, b 5 0, c 5 5', 'l a b; m b c', 'angle:l,m=1.2'],
  ['two equal lines', 7, 'a 0 0, b 5 0, c 0 3, d 6 3', 'l a b; m c d', 'equal:l,m'],
  ['parallel lines at a distance', 6, 'a 0 0, b 5 0, c 0 3, d 6 3', 'l a b; m c d', 'parallel:l,m; distance:l,m=4'],
  ['a circle on the origin', 1, 'c 1 1', 'k c 4', 'coincident:c,origin'],
  ['a circle on the origin of given size', 0, 'c 1 1', 'k c 4', 'coincident:c,origin; diameter:k=9'],
  ['a circle through a fixed point', 2, 'c 1 1, p 5 1', 'k c 4', 'fixed:p; coincident:p,k'],
  ['three equal circles', 7, 'a 0 0, b 10 0, c 20 0', 'k a 3; m b 4; n c 5', 'equal:k,m; equal:m,n'],
  ['three circles in a level row', 7, 'a 0 0, b 10 1, c 20 0', 'k a 3; m b 4; n c 5', 'horizontal:a,b; horizontal:b,c'],
  ['two concentric circles of given size', 2, 'a 0 0, b 1 0', 'k a 3; m b 4', 'concentric:k,m; radius:k=3; radius:m=5'],
  ['a circle tangent to the x axis', 2, 'c 3 4', 'k c 3', 'tangent:x_axis,k'],
  ['a circle tangent to both axes', 1, 'c 4 4', 'k c 3', 'tangent:x_axis,k; tangent:y_axis,k'],
  [
    'a circle of given size tangent to both axes',
    0,
    'c 4 4',
    'k c 3',
    'tangent:x_axis,k; tangent:y_axis,k; radius:k=3',
  ],
  ['circles tangent outside', 5, 'a 0 0, b 10 0', 'k a 4; m b 5', 'tangent:k,m'],
  ['a circle tangent inside another', 5, 'a 0 0, b 3 0', 'k a 9; m b 5', 'tangent:k,m'],
  ['an arc of given radius', 4, 'c 0 0, p 5 0, q 0 5', 'k c p q', 'radius:k=5'],
  [
    'a quarter arc about the origin from axis to axis',
    1,
    'c 0 0, p 5 0, q 0 5',
    'k c p q',
    'coincident:c,origin; coincident:p,x_axis; coincident:q,y_axis',
  ],
  ['a line running into an arc', 6, 'a -5 0, p 0 0, c 0 5, q 5 5', 'l a p; k c p q', 'tangent:l,k'],
  ['two arcs running into each other', 7, 'c 0 5, p 5 5, q 0 0, d 0 -5, r -5 -5', 'k c q p; m d q r', 'tangent:k,m'],
  ['a point midway on a fixed line', 0, 'a 0 0, b 8 0, m 3 1', 'l a b', 'fixed:a; fixed:b; midpoint:m,l'],
  ['a line whose middle is the origin', 2, 'a -3 1, b 4 0', 'l a b', 'midpoint:origin,l'],
  ['two points mirrored across a free line', 6, 'a 0 3, b 0 -3, c -5 0, d 5 0', 'l c d', 'symmetric:a,b,l'],
  ['two mirrored points at a distance', 1, 'a -4 1, b 5 2', '', 'symmetric:a,b,y_axis; distance:a,b=8'],
  ['a line of no length yet', 2, 'a 3 3, b 3 3', 'l a b', 'coincident:a,b'],
  [
    'horizontal and vertical distance from the origin',
    0,
    'a 3 4',
    '',
    'horizontal_distance:origin,a=3; vertical_distance:origin,a=4',
  ],
  ['two unconnected rigid groups', 6, 'a 0 0, b 5 0, c 20 0, d 25 0', 'l a b; m c d', 'distance:l=5; distance:m=5'],
];

function build(points: string, curves: string, constraints: string): SketchGeometry {
  const sketch: SketchGeometry = { points: {}, curves: {}, constraints: {} };
  const split = (text: string, by: string) => text.split(by).map((t) => t.trim()).filter(Boolean); // prettier-ignore
  for (const p of split(points, ',')) {
    const [id, x, y] = p.split(' ');
    sketch.points[id!] = [Number(x), Number(y)];
  }
  for (const c of split(curves, ';')) {
    const [id, a, b, d] = c.split(' ');
    if (d) sketch.curves[id!] = { kind: 'arc', center: a!, from: b!, to: d };
    else if (Number.isNaN(Number(b))) sketch.curves[id!] = { kind: 'line', from: a!, to: b! };
    else sketch.curves[id!] = { kind: 'circle', center: a!, radius: Number(b) };
  }
  split(constraints, ';').forEach((text, i) => {
    const [kind, rest] = text.split(':') as [Constraint['kind'], string];
    const [of, value] = rest.split('=');
    sketch.constraints[`k${i}`] = { kind, of: of!.split(','), ...(value ? { value } : {}) } as Constraint;
  });
  return sketch;
}

test.each(cases)('%s: %i', (_, freedoms, points, curves, constraints) => {
  const sketch = build(points, curves, constraints);
  const solution = solveSketch(sketch, (id) => Number((sketch.constraints[id] as { value: string }).value));
  expect(solution.clash).toEqual([]);
  expect(solution.solved).toBe(true);
  expect(solution.freedoms).toBe(freedoms);
  expect(solution.redundant).toEqual([]);
});
