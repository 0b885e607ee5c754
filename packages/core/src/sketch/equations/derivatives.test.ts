import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import type { Equation, LineSlots, PointSlots, RoundSlots } from '../solver/equation.ts';
import { slotDifference, slotValue } from './axis-distance.ts';
import { angleBetween, parallel, perpendicular, wrap } from './direction.ts';
import { pointDistance, pointLineDistance, sideOf } from './distance.ts';
import { equalLength } from './equal-length.ts';
import { basisOf } from '../curves/spline.ts';
import {
  arcLength,
  pointOnEllipse,
  pointOnSpline,
  sameBend,
  sameDirection,
  touching,
  type CurveSlots,
} from './contact.ts';
import { midpoint, symmetric } from './midpoint.ts';
import { circularMember, evenLines, evenPoints, linearMember } from './spacing.ts';
import { pointOnRound, tangentLineRound, tangentRounds } from './tangent.ts';

/** Slots in a value array of twelve: six points, two of whose coordinates also serve as radii. */
const point = (i: number): PointSlots => ({ x: 2 * i, y: 2 * i + 1 });
const line = (i: number, j: number): LineSlots => ({ from: point(i), to: point(j) });
const round = (i: number, radius: number): RoundSlots => ({ center: point(i), radius, ends: [] });

const start = Float64Array.from([0, 0, 10, 1, -4, 6, 7, -5, 3, 3, 2, 5]);

const ellipse = { center: point(0), major: point(1), minor: 10, ends: [] };
const spline = {
  points: [point(0), point(1), point(2), point(3)],
  basis: basisOf({ fit: 'control', points: ['a', 'b', 'c', 'd'] }),
};
const waves: CurveSlots = { kind: 'spline', ...spline };
const oval: CurveSlots = { kind: 'ellipse', ...ellipse };
const along = { slot: 11, scale: 12 };

/** Equations by jets: their derivatives come out of the formula itself. */
const byJets: [string, (v: Float64Array) => Equation][] = [
  ['point on an ellipse', () => pointOnEllipse('k', point(2), ellipse)],
  ['point on a spline, in x', () => pointOnSpline('k', point(4), spline, along)[0]!],
  ['point on a spline, in y', () => pointOnSpline('k', point(4), spline, along)[1]!],
  ['same direction of a line and a spline', () => sameDirection('k', { kind: 'line', ...line(4, 5) }, { at: 'point', point: point(4) }, waves, { at: 'end', parameter: 1 })],
  ['same bend of an ellipse and a circle', () => sameBend('k', oval, { at: 'point', point: point(2) }, { kind: 'round', ...round(4, 11) }, { at: 'point', point: point(3) })],
  ['a touch, in x', () => touching('k', oval, { at: 'along', along: { slot: 6, scale: 9 } }, waves, { at: 'along', along })[0]!],
  ['a touch, in y', () => touching('k', oval, { at: 'along', along: { slot: 6, scale: 9 } }, waves, { at: 'along', along })[1]!],
  ['a touch, in direction', () => touching('k', oval, { at: 'along', along: { slot: 6, scale: 9 } }, { kind: 'round', ...round(4, 11) }, { at: 'along', along: { slot: 7, scale: 5 } })[2]!],
  ['length of an arc', () => arcLength('k', { center: point(0), radius: 10, ends: [point(1), point(2)] }, 9)],
  ['even spacing of points', () => evenPoints('k', point(0), point(1), point(2))[1]!],
  ['even spacing of lines', () => evenLines('k', line(0, 1), line(2, 3), line(4, 5))],
  ['member of a linear pattern', () => linearMember('k', point(0), point(1), line(2, 3), [2, 10], [1, 11])[0]!],
  ['member of a circular pattern', () => circularMember('k', point(0), point(1), point(2), 2, { slot: 10 })[1]!],
  ['member of a whole turn', () => circularMember('k', point(0), point(1), point(2), 2, { angle: 0.9 })[0]!],
]; // prettier-ignore

const equations: [string, (v: Float64Array) => Equation][] = [
  ['distance of points', () => pointDistance('k', point(0), point(1), 4)],
  [
    'distance of a point and a line',
    (v) => pointLineDistance('k', point(2), line(0, 1), 3, sideOf(v, point(2), line(0, 1))),
  ],
  ['distance along an axis', () => slotDifference('k', 0, 2, 3, -1)],
  ['a given value', () => slotValue('k', 4, 3)],
  ['equal lengths', () => equalLength('k', line(0, 1), line(2, 3))],
  ['parallel', () => parallel('k', line(0, 1), line(2, 3))],
  ['perpendicular', () => perpendicular('k', line(0, 1), line(2, 3))],
  ['angle', () => angleBetween('k', line(0, 1), line(2, 3), 0.7)],
  ['midpoint in x', () => midpoint('k', point(0), point(1), point(2))[0]!],
  ['midpoint in y', () => midpoint('k', point(0), point(1), point(2))[1]!],
  ['symmetric, middle on the line', () => symmetric('k', point(0), point(1), line(2, 3))[0]!],
  ['symmetric, square to the line', () => symmetric('k', point(0), point(1), line(2, 3))[1]!],
  ['point on a circle', () => pointOnRound('k', point(0), round(1, 10))],
  ['line tangent to a circle', (v) => tangentLineRound('k', line(0, 1), round(2, 10), v)],
  ['circles tangent', (v) => tangentRounds('k', round(0, 10), round(1, 11), v)],
  [
    'line tangent to an arc at their shared end',
    (v) => tangentLineRound('k', line(0, 1), { center: point(2), radius: 10, ends: [point(1)] }, v),
  ],
  [
    'arcs tangent at their shared end',
    (v) =>
      tangentRounds(
        'k',
        { center: point(0), radius: 10, ends: [point(2)] },
        { center: point(1), radius: 11, ends: [point(2)] },
        v,
      ),
  ],
];

describe('every equation’s derivative', () => {
  test.each([...equations, ...byJets])('%s agrees with differences', (_, make) => {
    const shift = fc.array(fc.double({ min: -1.5, max: 1.5, noNaN: true }), { minLength: 12, maxLength: 12 });
    fc.assert(
      fc.property(shift, (d) => {
        const values = start.map((x, i) => x + d[i]!);
        const equation = make(values);
        const gradient = new Float64Array(24);
        const other = new Float64Array(24);
        equation.evaluate(values, gradient);
        const h = 1e-6;
        new Set(equation.slots).forEach((slot) => {
          // A slot that stands twice moves both of its places.
          const analytic = equation.slots.reduce((sum, s, i) => sum + (s === slot ? gradient[i]! : 0), 0);
          const up = values.slice();
          up[slot]! += h;
          const down = values.slice();
          down[slot]! -= h;
          const difference = (equation.evaluate(up, other) - equation.evaluate(down, other)) / (2 * h);
          expect(Math.abs(analytic - difference)).toBeLessThan(1e-5 * (1 + Math.abs(difference)));
        });
      }),
      { numRuns: 60 },
    );
  });

  test('degenerate lines and points give finite numbers, so that a solve can go on', () => {
    const zero = new Float64Array(12);
    const gradient = new Float64Array(24);
    for (const [, make] of equations) {
      expect(Number.isFinite(make(zero).evaluate(zero, gradient))).toBe(true);
      expect(gradient.every(Number.isFinite)).toBe(true);
    }
  });

  test('angles wrap into one turn', () => {
    expect(wrap(3 * Math.PI)).toBeCloseTo(Math.PI, 12);
    expect(wrap(-Math.PI)).toBeCloseTo(Math.PI, 12);
    expect(wrap(0.5 - 8 * Math.PI)).toBeCloseTo(0.5, 10);
  });
});
