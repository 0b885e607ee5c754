import { principalOf, shifted, together, type Step } from '@helb/core';
import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { block, designOf, evaluated, extruded, inertiaOf, outline } from './sample-parts.ts';

const weighed = async (steps: Record<string, Step>) => {
  const { bodies } = await evaluated(designOf(steps));
  return together(bodies.map((b) => ({ volume: b.facts.volume, center: b.facts.center, ...inertiaOf(b) })));
};

describe('moments of inertia', () => {
  test('of a block', async () => {
    const [a, b, c] = [40, 20, 10];
    const { volume, center, rows } = await weighed(block(a, b, c));
    expect(center).toEqual([20, 10, 5].map((x) => expect.closeTo(x, 9)));
    const m = volume / 12;
    expect(rows).toEqual([[m * (b * b + c * c), 0, 0], [0, m * (a * a + c * c), 0], [0, 0, m * (a * a + b * b)]].map((r) => r.map((x) => expect.closeTo(x, 3)))); // prettier-ignore
  });

  test('of a ring about its axis, and of two blocks by their parts', async () => {
    const ring: Record<string, Step> = {
      s: { ...outline([]), points: { m: [0, 0] }, curves: { a: { kind: 'circle', center: 'm', radius: 12 }, b: { kind: 'circle', center: 'm', radius: 7 } } }, // prettier-ignore
      e: extruded('s', '6 mm', { profile: { sketch: 's', regions: [{ outer: ['+a'], holes: [['-b']] }] } }),
    };
    const { volume, rows } = await weighed(ring);
    expect(rows[2][2]).toBeCloseTo((volume * (144 + 49)) / 2, 3);
    // Two cubes of 10, their centres 30 apart along x: Steiner.
    const two = { ...block(10, 10, 10), t: outline([[30, 0], [40, 0], [40, 10], [30, 10]]), f: extruded('t', '10 mm') }; // prettier-ignore
    const pair = await weighed(two);
    expect(pair.rows[0][0]).toBeCloseTo(2 * ((1000 * 200) / 12), 3);
    expect(pair.rows[1][1]).toBeCloseTo(2 * ((1000 * 200) / 12 + 1000 * 15 * 15), 3);
    expect(pair.center[0]).toBeCloseTo(20, 9);
  });

  test('principal axes of a block that lies turned are its own', async () => {
    const turned = { kind: 'move', name: 'Turn', bodies: 'all', way: 'turn', axis: { datum: 'z' }, angle: '30 deg' } as Step; // prettier-ignore
    const { moments, axes } = principalOf((await weighed({ ...block(40, 20, 10), m: turned })).rows);
    const m = 8000 / 12;
    expect(moments).toEqual([m * 500, m * 1700, m * 2000].map((x) => expect.closeTo(x, 3)));
    expect(axes[0]).toEqual([Math.cos(Math.PI / 6), 0.5, 0].map((x) => expect.closeTo(x, 9)));
    expect(axes[2].map(Math.abs)).toEqual([0, 0, 1].map((x) => expect.closeTo(x, 9)));
  });

  test('any symmetric matrix comes back from its principal axes, and about another place by Steiner', () => {
    const number = fc.double({ min: -5, max: 5, noNaN: true });
    fc.assert(
      fc.property(fc.tuple(number, number, number, number, number, number), ([a, b, c, d, e, f]) => {
        const rows = [[a + 20, d, e], [d, b + 20, f], [e, f, c + 20]] as const; // prettier-ignore
        const { moments, axes } = principalOf(rows);
        for (let i = 0; i < 3; i++)
          for (let k = 0; k < 3; k++) {
            const back = moments.reduce((sum, m, j) => sum + m * axes[j]![i]! * axes[j]![k]!, 0);
            expect(back).toBeCloseTo(rows[i]![k]!, 9);
          }
        expect(shifted(rows, 2, [3, 0, 0])[1]![1]).toBeCloseTo(rows[1][1] + 18, 9);
      }),
    );
  });
});
