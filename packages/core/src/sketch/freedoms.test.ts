import { expect, test } from '@jest/globals';
import { isDimension } from './schema.ts';
import { solveSketch } from './solve.ts';
import { written } from './written.ts';

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
  // Ellipses, splines, and what came with them.
  ['a free ellipse', 5, 'c 0 0, m 9 0', 'e c m 4 ellipse', ''],
  [
    'an ellipse of given size on the origin',
    1,
    'c 0 0, m 9 1',
    'e c m 4 ellipse',
    'coincident:c,origin; major_radius:e=9; minor_radius:e=4',
  ],
  ['a point on an ellipse', 6, 'c 0 0, m 9 0, p 0 4', 'e c m 4 ellipse', 'coincident:p,e'],
  ['a line touching an ellipse', 8, 'c 0 0, m 9 0, a -9 5, b 9 5', 'e c m 4 ellipse; l a b', 'tangent:l,e'],
  ['a circle touching an ellipse', 7, 'c 0 0, m 9 0, d 12 0', 'e c m 4 ellipse; k d 3', 'tangent:e,k'],
  ['a free spline of four points', 8, 'a 0 0, b 5 8, c 9 2, d 15 6', 's a b c d spline', ''],
  ['a point held on a spline', 9, 'a 0 0, b 5 8, c 9 2, d 15 6, p 7 5', 's a b c d spline', 'coincident:p,s'],
  ['a line running into a spline', 9, 'a 0 0, b 5 8, c 9 2, d 15 6, e -9 0', 's a b c d spline; l e a', 'tangent:l,s'],
  [
    'a line running smoothly into a spline',
    8,
    'a 0 0, b 5 8, c 9 2, d 15 6, e -9 0',
    's a b c d spline; l e a',
    'smooth:l,s',
  ],
  ['two lines on one straight line', 6, 'a 0 0, b 5 0, c 9 0, d 15 0', 'l a b; m c d', 'collinear:l,m'],
  ['two halves of one line', 5, 'a 0 0, b 5 0, d 15 0', 'l a b; m b d', 'collinear:l,m'],
  ['three points evenly spaced', 4, 'a 0 0, b 5 1, c 10 2', '', 'equal_spacing:a,b,c'],
  [
    'three parallel lines evenly spaced',
    9,
    'a 0 0, b 9 0, c 0 4, d 9 4, e 0 8, f 9 8',
    'l a b; m c d; n e f',
    'parallel:l,m; parallel:l,n; equal_spacing:l,m,n',
  ],
  ['an arc of given length', 4, 'c 0 0, p 5 0, q 0 5', 'k c p q', 'arc_length:k=8'],
  ['an arc of given length and radius', 3, 'c 0 0, p 5 0, q 0 5', 'k c p q', 'arc_length:k=8; radius:k=5'],
  ['two mirrored lines', 4, 'a 1 0, b 5 3, c -1 0, d -5 3', 'l a b; m c d', 'symmetric:l,m,y_axis'],
  ['two mirrored circles', 3, 'c 5 2, d -5 2', 'k c 3; m d 3', 'symmetric:k,m,y_axis'],
  ['two mirrored arcs', 5, 'c 5 0, p 8 0, q 5 3, d -5 0, r -5 3, s -8 0', 'k c p q; m d r s', 'symmetric:k,m,y_axis'],
  ['a diameter across the x axis', 1, 'a 3 4', '', 'across:a,x_axis=8'],
  ['a gap between two circles', 5, 'c 0 0, d 20 0', 'k c 4; m d 6', 'distance:k,m=10 near,near'],
  ['a line to the far edge of a circle', 2, 'c 0 9', 'k c 4', 'distance:k,x_axis=13 far,center'],
  ['a fixed circle', 0, 'c 0 9', 'k c 4', 'fixed:k'],
  ['a fixed line with a point on it', 1, 'a 0 0, b 9 0, p 4 0', 'l a b', 'fixed:l; coincident:p,l'],
  ['an angle told in its opposite sector', 3, 'a 0 0, b 9 3', 'l a b', 'angle:x_axis,l=0.3218 both'],
  // Degenerate ones.
  ['a circle and a line that nearly touch, parallel to nothing', 7, 'c 0 5, a -9 0.00001, b 9 0', 'k c 5; l a b', ''],
  ['parallel lines almost on each other', 7, 'a 0 0, b 9 0, c 0 0.0001, d 9 0.0001', 'l a b; m c d', 'parallel:l,m'],
  [
    'a line tangent at the end of an arc, its other end on the axis',
    5,
    'a -5 0, p 0 0, c 0 5, q 5 5',
    'l a p; k c p q',
    'tangent:l,k; coincident:a,x_axis',
  ],
  ['an arc closed on itself', 4, 'c 0 0, p 5 0, q 5 0', 'k c p q', 'coincident:p,q'],
  ['a point mirrored onto itself', 1, 'a 0 3', '', 'coincident:a,y_axis'],
  ['a zero-length line on the origin', 0, 'a 0 0, b 0 0', 'l a b', 'coincident:a,origin; coincident:b,origin'],
  ['two unconnected rigid groups', 6, 'a 0 0, b 5 0, c 20 0, d 25 0', 'l a b; m c d', 'distance:l=5; distance:m=5'],
];

test.each(cases)('%s: %i', (_, freedoms, points, curves, constraints) => {
  const sketch = written(points, curves, constraints);
  const solution = solveSketch(sketch, (id) => {
    const c = sketch.constraints[id]!;
    return isDimension(c) ? Number(c.value) : 0;
  });
  expect(solution.clash).toEqual([]);
  expect(solution.solved).toBe(true);
  expect(solution.freedoms).toBe(freedoms);
  expect(solution.redundant).toEqual([]);
});
