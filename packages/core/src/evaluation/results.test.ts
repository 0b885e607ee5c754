import { describe, expect, test } from '@jest/globals';
import type { Body } from '../names/body.ts';
import type { SolidHandle, SolidKernel } from '../solid/kernel.ts';
import { Known } from './known.ts';
import { BUDGET_BYTES, Results, type Kept } from './results.ts';

/** Solids of which each takes as many bytes as its number. */
function kept() {
  const freed: number[] = [];
  const kernel = { free: (s: SolidHandle) => freed.push(s), sizeOf: (s: SolidHandle) => s } as unknown as SolidKernel;
  const of = (...solids: number[]): Kept => ({
    owned: solids.map((solid) => ({ solid: solid as SolidHandle }) as Body),
    told: { doubts: [], handles: [], notes: [] },
    names: new Map(),
  });
  return { freed, of, results: (budget: number) => new Results(kernel, budget) };
}
const anyName = () => 'Same';

describe('results', () => {
  test('are found under their key alone', () => {
    const { of, results } = kept();
    const own = results(1e6);
    const one = of(1);
    own.keep('a', one);
    expect(own.get('a', anyName)).toBe(one);
    expect(own.get('a', anyName)).toBe(one);
    expect(own.get('b', anyName)).toBeUndefined();
  });

  test('that speak of steps by name are made anew, and freed, when one is called otherwise', () => {
    const { freed, of, results } = kept();
    const own = results(1e6);
    const named = { ...of(7, 8), names: new Map([['s', 'Plate'], ['t', 'Hole']]) }; // prettier-ignore
    const now = (t: string) => (id: string) => (id === 's' ? 'Plate' : t);
    own.keep('a', named);
    expect(own.get('a', now('Hole'))).toBe(named);
    expect(freed).toEqual([]);
    expect(own.get('a', now('Bore'))).toBeUndefined();
    expect(freed).toEqual([7, 8]);
    expect(own.get('a', now('Hole'))).toBeUndefined();
    expect(freed).toEqual([7, 8]);
  });

  test('over the budget go, those first that were not used longest; each counts by its solids and a little', () => {
    const { freed, of, results } = kept();
    const own = results(3 * 20_000 + 60);
    own.keep('a', of(10, 20));
    own.keep('b', of(30));
    own.keep('c', of(0));
    own.sweep();
    expect(freed).toEqual([]);
    own.keep('d', of(5));
    expect(own.get('a', anyName)).toBeDefined();
    own.sweep();
    expect(freed).toEqual([30]);
    expect(['a', 'b', 'c', 'd'].map((k) => own.get(k, anyName) !== undefined)).toEqual([true, false, true, true]);
    own.keep('e', of(1));
    own.sweep();
    // Asked for in this order: a first, so it goes first.
    expect(freed).toEqual([30, 10, 20]);
  });

  test('of large solids are fewer', () => {
    const { freed, of, results } = kept();
    const own = results(100_000);
    own.keep('a', of(10_000, 20_000));
    own.keep('b', of(40_000));
    own.sweep();
    expect(freed).toEqual([10_000, 20_000]);
    expect(own.get('b', anyName)).toBeDefined();
    // In bytes: some hundred solids of a few hundred kilobytes.
    expect(BUDGET_BYTES / 2 ** 20).toBe(128);
  });

  test('are all forgotten, and none freed, when the kernel has lost them', () => {
    const { freed, of, results } = kept();
    const own = results(0);
    own.keep('a', of(1));
    own.forget();
    expect(own.get('a', anyName)).toBeUndefined();
    own.sweep();
    expect(freed).toEqual([]);
  });
});

test('what was asked before is not asked again, and what was not asked for longest goes', () => {
  const known = new Known<string>(2);
  const asked: string[] = [];
  const of = (key: string) => known.of(key, () => (asked.push(key), key.toUpperCase()));
  expect([of('a'), of('b'), of('a')]).toEqual(['A', 'B', 'A']);
  expect(asked).toEqual(['a', 'b']);
  of('c');
  of('a');
  expect(asked).toEqual(['a', 'b', 'c']);
  of('b');
  expect(asked).toEqual(['a', 'b', 'c', 'b']);
});
