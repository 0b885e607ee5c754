/** What was drawn with a size never comes to nothing to meet an equation. */
import { describe, expect, test } from '@jest/globals';
import { SketchDrag } from './drag.ts';
import { numbersIn, perturbed, repeatable, SAMPLE_FAMILIES } from './sample-families.ts';
import { CountRefused, countsOf, matchPatterns } from './pattern/members.ts';
import type { SketchGeometry } from './schema.ts';
import { solveSketch } from './solve.ts';
import { written } from './written.ts';

const values = (s: SketchGeometry) => (id: string) => {
  const c = s.constraints[id]!;
  return 'value' in c ? Number(c.value) : 0;
};
const solve = (s: SketchGeometry) => solveSketch(s, values(s));

describe('no silent collapse', () => {
  test.each([
    ['level and upright', 'a 0 0, b 10 1', 'l a b', 'horizontal:l; vertical:l', ['k0', 'k1']],
    ['a length of nothing', 'a 0 0, b 10 1', 'l a b', 'distance:l=0', ['k0']],
    ['ends a distance of nothing apart', 'a 0 0, b 10 1', 'l a b', 'distance:a,b=0', ['k0']],
    ['ends made one', 'a 0 0, b 10 1', 'l a b', 'coincident:a,b', ['k0']],
    ['ends made one by way of a third', 'a 0 0, b 10 1, c 5 5', 'l a b', 'coincident:a,c; coincident:c,b', ['k0', 'k1']],
    ['both ends on two crossing lines, and parallel to both', 'a 1 1, b 4 2, p 0 0, q 10 0, r 0 0, s 0 10', 'l a b; x p q; y r s', 'fixed:x; fixed:y; parallel:l,x; parallel:l,y', ['k0', 'k1', 'k2', 'k3']],
    ['a circle on its own centre', 'm 5 5', 'c m 4', 'coincident:m,c', ['k0']],
  ])('%s is a contradiction, and names what asks for it', (_, points, curves, constraints, clash) => {
    const solved = solve(written(points, curves, constraints));
    expect(solved.solved).toBe(false);
    if (!solved.misfit) expect(clash).toEqual(expect.arrayContaining([...solved.clash]));
    expect(solved.misfit ? 1 : solved.clash.length).toBeGreaterThan(0);
  }); // prettier-ignore

  test('what was drawn as nothing may stay so, and what is small may be small', () => {
    expect(solve(written('a 3 3, b 3 3', 'l a b', 'distance:a,origin=9')).solved).toBe(true);
    expect(solve(written('a 0 0, b 10 1', 'l a b', 'distance:l=0.001')).solved).toBe(true);
  });

  test.each(Object.entries(SAMPLE_FAMILIES))(
    '%s: with one number made very small or very large, no line or circle is lost',
    (_, { make, each }) => {
      const sketch = make(Math.max(1, Math.round(20 / each)));
      const number = numbersIn(sketch);
      const random = repeatable(5);
      const dimensions = Object.keys(sketch.constraints).filter((id) => 'value' in sketch.constraints[id]!);
      let solvedOnes = 0;
      for (let i = 0; i < 24; i++) {
        const id = dimensions[Math.floor(random() * dimensions.length)]!;
        const factor = [0, 0.001, 0.01, 20][i % 4]!;
        const start = i % 2 ? perturbed(sketch, 3, random) : sketch;
        const { solved, geometry } = solveSketch(start, (k) => number(k) * (k === id ? factor : 1));
        if (!solved) continue;
        solvedOnes++;
        for (const c of Object.values(geometry.curves)) {
          if (c.kind === 'circle') expect(c.radius).toBeGreaterThan(1e-7);
          if (c.kind !== 'line') continue;
          const [p, q] = [geometry.points[c.from] ?? [0, 0], geometry.points[c.to] ?? [0, 0]];
          expect(Math.hypot(p[0] - q[0], p[1] - q[1])).toBeGreaterThan(1e-7);
        }
      }
      expect(solvedOnes).toBeGreaterThan(0);
    },
  );
});

describe('a drag', () => {
  test('never ends with a line or a circle of no size', () => {
    const s = written(
      'a 0 0, b 30 0, c 30 20, m 60 10',
      'l a b; k b c; n c a; round m 8',
      'horizontal:l; vertical:k; fixed:a',
    );
    const onto = new SketchDrag(s, values(s), 'b', [30, 0]);
    for (const x of [20, 5, 0.01, 0]) onto.moveTo([x, 0]);
    const end = onto.moveTo([0, 0]);
    expect(Math.abs(end.points.b![0])).toBeGreaterThan(1e-4);
    const flat = new SketchDrag(s, values(s), 'c', [30, 20]);
    expect(flat.moveTo([30, 0]).points.c![1]).toBeGreaterThan(1e-4);
    const rim = new SketchDrag(s, values(s), 'round', [68, 10]).moveTo([60, 10]).curves.round!;
    expect(rim.kind === 'circle' && rim.radius).toBeGreaterThan(1e-4);
    // What can go on goes on.
    expect(onto.moveTo([12, 0]).points.b).toEqual([12, 0]);
  });
});

describe('symmetric lines', () => {
  test.each([
    ['drawn the same way', 'a -10 0, b -4 20, c 10 1, d 5 19'],
    ['drawn round in one go, so that they run contrary', 'a -10 0, b -4 20, c 5 19, d 10 1'],
  ])('%s keep their ends', (_, points) => {
    const s = written(`${points}, p 0 -9, q 0 30`, 'l a b; m c d; axis p q', 'fixed:axis; symmetric:l,m,axis');
    const { solved, geometry } = solve(s);
    expect(solved).toBe(true);
    for (const [id, [x, y]] of Object.entries(s.points)) {
      expect(Math.hypot(geometry.points[id]![0] - x, geometry.points[id]![1] - y)).toBeLessThan(2);
    }
  });
});

describe('counts of patterns', () => {
  const pattern = (id: string): SketchGeometry => ({
    ...written('a 0 0', 'c a 2', `count:${id}=3`),
    patterns: { [id]: { kind: 'linear', of: ['c'], along: 'x_axis', steps: [10] } },
  });

  test.each([
    ['0', 'The count of a pattern comes to 0; a pattern has from 1 to 500 members.'],
    ['-3', 'The count of a pattern comes to -3; a pattern has from 1 to 500 members.'],
    ['1e9', 'The count of a pattern comes to 1000000000; a pattern has from 1 to 500 members.'],
    ['2.5', 'The count of a pattern comes to 2.5, which is no whole number.'],
  ])('of %s are refused in words', (count, message) => {
    expect(() => countsOf(pattern('p1'), 'p1', () => Number(count))).toThrow(new CountRefused(message));
  });

  test.each(['p1', 'row_1', 'a_b_2'])('are read whatever the pattern is called: %s', (id) => {
    const s = pattern(id);
    expect(matchPatterns(s, () => 4)).toBe(true);
    expect(Object.keys(s.curves)).toHaveLength(4);
    expect(matchPatterns(s, () => 4)).toBe(false);
    expect(matchPatterns(s, () => 2)).toBe(true);
    expect(Object.keys(s.curves)).toEqual(['c', `c__${id}_1`]);
  });
});
