import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { isDimension, type DimensionConstraint, type SketchGeometry } from '../schema.ts';
import { solveSketch } from '../solve.ts';
import { written } from '../written.ts';
import { measureDimension } from './measure.ts';
import { constraintOf, readingsFor } from './readings.ts';

/** One of everything a sketch can hold, nothing tied to anything. */
function everything(): SketchGeometry {
  const s = written(
    'a 3 4, b 30 9, c 2 30, d 34 34, e 50 10, f 60 40, g 61 12, h 70 20, i 80 30, j 90 12, m 95 40, n 110 44, o 20 60, q 26 60, r 20 66, u 40 60, v 70 62',
    'l a b; k c d; c1 e 6; c2 f 9; s1 g h i j spline; e1 m n 5 ellipse; arc o q r',
    '',
  );
  s.curves.t1 = { kind: 'text', from: 'u', to: 'v', text: 'Vent' };
  s.curves.axis = { kind: 'line', from: 'a', to: 'd', construction: true };
  return s;
}

const entities = ['origin', 'x_axis', 'y_axis', 'a', 'd', 'l', 'k', 'c1', 'c2', 'arc', 's1', 'e1', 't1', 'axis'];
const pairs = entities.flatMap((a, i) => entities.slice(i + 1).map((b) => [a, b] as const));

function solvedWith(s: SketchGeometry, constraint: ReturnType<typeof constraintOf>, value: number) {
  const tried = { ...s, constraints: { ...s.constraints, new: constraint } };
  return solveSketch(tried, () => value);
}

describe('readings', () => {
  test.each([...entities.map((e) => [e]), ...pairs])(
    '%s %s: every dimension offered holds at what it reads, and nothing moves',
    (...picked) => {
      const s = everything();
      for (const reading of readingsFor(s, picked as string[])) {
        if (reading.value === undefined) continue;
        const constraint = constraintOf(reading, String(reading.value));
        const solved = solvedWith(s, constraint, reading.value);
        expect(solved.misfit).toBeNull();
        if (reading.value < 1e-9) continue;
        expect(solved.solved).toBe(true);
        for (const [id, [x, y]] of Object.entries(s.points)) {
          expect(solved.geometry.points[id]![0]).toBeCloseTo(x, 5);
          expect(solved.geometry.points[id]![1]).toBeCloseTo(y, 5);
        }
        expect(measureDimension(solved.geometry, constraint as DimensionConstraint)).toBeCloseTo(reading.value, 6);
      }
    },
  );

  test.each(pairs)('%s %s: every relation offered can be had on its own', (...picked) => {
    const s = everything();
    for (const reading of readingsFor(s, picked as unknown as string[])) {
      if (reading.value !== undefined || reading.kind === 'smooth') continue;
      const solved = solvedWith(s, constraintOf(reading), 0);
      expect([reading.kind, solved.solved]).toEqual([reading.kind, true]);
    }
  });

  test('of two slanting lines, the four sectors add up', () => {
    const s = everything();
    const angles = readingsFor(s, ['l', 'k']).filter((r) => r.kind === 'angle');
    expect(angles).toHaveLength(4);
    expect(angles[0]!.value! + angles[1]!.value!).toBeCloseTo(Math.PI, 9);
    expect(angles[2]!.value).toBeCloseTo(angles[0]!.value!, 9);
  });

  test('two lines are measured in the corner in which they were clicked, however they were drawn', () => {
    const turn = fc.double({ min: 0, max: 2 * Math.PI, noNaN: true });
    const between = fc.double({ min: 0.1, max: 3, noNaN: true });
    fc.assert(
      fc.property(turn, between, fc.boolean(), fc.boolean(), fc.boolean(), fc.boolean(), (one, apart, ...flags) => {
        const [firstBack, secondBack, cross, swapped] = flags as [boolean, boolean, boolean, boolean];
        const ray = (angle: number, r: number) => [12 + r * Math.cos(angle), -7 + r * Math.sin(angle)] as const;
        const other = one + (swapped ? -apart : apart);
        // Lines that meet at the corner, or cross there and run on.
        const start = cross ? -20 : 0;
        const at = (angle: number) => [ray(angle, start), ray(angle, 40)] as const;
        const text = ([p, q]: ReturnType<typeof at>, a: string, b: string, back: boolean) =>
          back ? `${a} ${q.join(' ')}, ${b} ${p.join(' ')}` : `${a} ${p.join(' ')}, ${b} ${q.join(' ')}`;
        const s = written(
          `${text(at(one), 'a', 'b', firstBack)}, ${text(at(other), 'c', 'd', secondBack)}`,
          'l a b; k c d',
          '',
        );
        const clicked = new Map([
          ['l', ray(one, 15)],
          ['k', ray(other, 11)],
        ]);
        const reading = readingsFor(s, ['l', 'k'], clicked).find((r) => r.kind === 'angle')!;
        expect(reading.value).toBeCloseTo(apart, 7);
        // Typed a little larger, it is this corner that opens, and nothing turns over.
        const solved = solvedWith(s, constraintOf(reading, '1'), apart + 0.1);
        const way = (from: string, to: string) => {
          const [p, q] = [solved.geometry.points[from]!, solved.geometry.points[to]!];
          return Math.atan2(q[1] - p[1], q[0] - p[0]);
        };
        const opened =
          way(...((secondBack ? ['d', 'c'] : ['c', 'd']) as [string, string])) -
          way(...((firstBack ? ['b', 'a'] : ['a', 'b']) as [string, string]));
        const size = Math.abs(Math.atan2(Math.sin(opened), Math.cos(opened)));
        expect(size).toBeCloseTo(apart + 0.1, 6);
      }),
      { numRuns: 200 },
    );
  });

  test('across a centre line comes before the plain distance is doubled by hand', () => {
    const s = written('a 10 4, b 30 4', 'l a b', '');
    const across = readingsFor(s, ['l', 'x_axis']).find((r) => r.kind === 'across');
    expect(across).toMatchObject({ of: ['l', 'x_axis'], value: 8 });
    expect(readingsFor(s, ['a', 'x_axis']).map((r) => r.label)).toContain('Diameter across');
  });

  test('three in a row are offered equal spacing in the order they lie', () => {
    const s = written('a 10 0, b 0 1, c 22 0, p 0 -5, q 0 5', 'l p q', '');
    expect(readingsFor(s, ['a', 'b', 'c'])).toEqual([
      { kind: 'equal_spacing', label: 'Equal spacing', of: ['b', 'a', 'c'] },
    ]);
    expect(readingsFor(s, ['a', 'b', 'l'])[0]).toEqual({ kind: 'symmetric', label: 'Symmetric', of: ['a', 'b', 'l'] });
  });

  test('edges of circles: near, far, between, over both', () => {
    const s = written('c 0 0, d 30 0', 'k c 4; m d 6', '');
    const value = (label: string) => readingsFor(s, ['k', 'm']).find((r) => r.label === label)!.value;
    expect(value('Centre distance')).toBeCloseTo(30, 12);
    expect(value('Gap between edges')).toBeCloseTo(20, 12);
    expect(value('Over both edges')).toBeCloseTo(40, 12);
    const fromAxis = (label: string) => readingsFor(s, ['m', 'y_axis']).find((r) => r.label === label)!.value;
    expect(fromAxis('Distance to near edge')).toBeCloseTo(24, 12);
    expect(fromAxis('Distance to far edge')).toBeCloseTo(36, 12);
  });

  test('a driven dimension follows and holds nothing', () => {
    const s = written('a 0 0, b 9 0', 'l a b', 'distance:l=5');
    const [id] = Object.keys(s.constraints);
    const c = s.constraints[id!]!;
    if (isDimension(c)) c.driven = true;
    const solved = solveSketch(s, () => 5);
    expect(solved.freedoms).toBe(4);
    expect(measureDimension(solved.geometry, c as DimensionConstraint)).toBe(9);
  });
});
