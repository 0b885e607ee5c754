import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { downstream, reachedFrom } from '../ledger/changed.ts';

/** Links from lower to higher places only, so that none go in a circle. */
const links = fc.array(fc.tuple(fc.nat(11), fc.nat(11)), { maxLength: 40 }).map((pairs) => {
  const users: number[][] = Array.from({ length: 12 }, () => []);
  for (const [a, b] of pairs) if (a !== b) users[Math.min(a, b)]!.push(Math.max(a, b));
  return users;
});
const roots = fc.uniqueArray(fc.nat(11), { minLength: 1, maxLength: 4 });

describe('what hangs on some places', () => {
  test('is all that can be reached, once, each after those it uses', () => {
    fc.assert(
      fc.property(links, roots, (users, from) => {
        const order = downstream(new Set(from), users);
        const reached = reachedFrom(from.map(String), (ref) => users[Number(ref)]!.map(String));
        expect([...order].sort((a, b) => a - b)).toEqual([...reached].map(Number).sort((a, b) => a - b));
        for (const [i, slot] of order.entries())
          for (const user of users[slot]!) expect(order.indexOf(user)).toBeGreaterThan(i);
      }),
    );
  });

  test('is asked again for the same and for other roots of the same links', () => {
    const users = [[1], [2], []];
    expect(downstream(new Set([0]), users)).toEqual([0, 1, 2]);
    expect(downstream(new Set([0]), users)).toEqual([0, 1, 2]);
    expect(downstream(new Set([1]), users)).toEqual([1, 2]);
    expect(downstream(new Set([0]), users)).toEqual([0, 1, 2]);
  });

  test('is found in a circle, and along a chain of a hundred thousand', () => {
    expect([...downstream(new Set([0]), [[1], [2], [0]])].sort()).toEqual([0, 1, 2]);
    const chain = Array.from({ length: 100_000 }, (_, i) => (i < 99_999 ? [i + 1] : []));
    expect(downstream(new Set([0]), chain).at(-1)).toBe(99_999);
  });
});
