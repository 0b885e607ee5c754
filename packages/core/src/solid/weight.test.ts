/** Weights of what stands elsewhere and turned, against the closed forms of blocks. */
import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { turnOf } from '../space/pose.ts';
import { unit, type Vec3 } from '../space/vector.ts';
import { principalOf, shifted, standingWeight, together, turnedRows, type Weight } from './weight.ts';

/** A block about its own centre: its moments are m (b² + c²) / 12. */
function block([a, b, c]: Vec3, center: Vec3 = [0, 0, 0]): Weight {
  const volume = a * b * c;
  const of = (p: number, q: number) => (volume * (p * p + q * q)) / 12;
  return { volume, center, rows: [[of(b, c), 0, 0], [0, of(a, c), 0], [0, 0, of(a, b)]] }; // prettier-ignore
}
const near = (p: readonly number[]) => p.map((n) => expect.closeTo(n, 6));

test('a quarter turn about z changes the moments about x and y for each other, and density scales all', () => {
  const { volume, center, rows } = standingWeight(block([20, 6, 4], [10, 3, 2]), { at: [100, 0, 0], turn: turnOf([0, 0, 1], Math.PI / 2) }, 0.5); // prettier-ignore
  expect(volume).toBeCloseTo(240, 9);
  expect(center).toEqual(near([97, 10, 2]));
  const own = block([20, 6, 4]).rows;
  expect(rows.map((r, i) => r[i])).toEqual(near([own[1][1] / 2, own[0][0] / 2, own[2][2] / 2]));
});

test('halves of a block, put together where they stand, weigh as the whole; from its corner too', () => {
  const half = block([15, 10, 8], [7.5, 5, 4]);
  const turned = { at: [30, 10, 0] as Vec3, turn: turnOf([0, 0, 1], Math.PI) };
  const both = together([standingWeight(half, { at: [0, 0, 0], turn: [0, 0, 0, 1] }, 1), standingWeight(half, turned, 1)]); // prettier-ignore
  const whole = block([30, 10, 8], [15, 5, 4]);
  expect(both.center).toEqual(near(whole.center));
  for (const i of [0, 1, 2] as const) expect(both.rows[i]).toEqual(near(whole.rows[i]));
  const fromCorner = shifted(both.rows, both.volume, both.center);
  expect(fromCorner[2][2]).toBeCloseTo((2400 * (900 + 100)) / 3, 4);
  expect(fromCorner[0][1]).toBeCloseTo(-2400 * 15 * 5, 4);
});

test('turned any way and back, rows are the same, and what is principal stays', () => {
  const axis = fc.tuple(fc.double({ min: -1, max: 1, noNaN: true }), fc.double({ min: -1, max: 1, noNaN: true }), fc.constant(1)); // prettier-ignore
  fc.assert(
    fc.property(axis, fc.double({ min: -3, max: 3, noNaN: true }), (a, angle) => {
      const { rows } = block([9, 5, 3]);
      const [there, back] = [turnOf(unit(a)!, angle), turnOf(unit(a)!, -angle)];
      const out = turnedRows(rows, there);
      for (const i of [0, 1, 2] as const) expect(turnedRows(out, back)[i]).toEqual(near(rows[i]));
      expect(principalOf(out).moments).toEqual(near(principalOf(rows).moments));
    }),
  );
});
