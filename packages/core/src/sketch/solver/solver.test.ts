import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { slotDifference, slotValue } from '../equations/axis-distance.ts';
import { pointDistance } from '../equations/distance.ts';
import type { Equation } from './equation.ts';
import { GaussNewton } from './gauss-newton.ts';
import { SparseLdl } from './ldl.ts';
import { SlotMerger } from './merge.ts';
import { rankOf } from './rank.ts';
import { EquationRows } from './rows.ts';

const rowsOf = (equations: Equation[], n: number) => new EquationRows(equations, n, (slot) => (slot < n ? slot : -1));

/** a·x + b·y = c as an equation over two slots. */
const linear = (a: number, x: number, b: number, y: number, c: number): Equation => ({
  owner: `${a} ${b}`,
  slots: [x, y],
  evaluate(v, g) {
    g[0] = a;
    g[1] = b;
    return a * v[x]! + b * v[y]! - c;
  },
});

describe('sparse factorisation', () => {
  test('solves what it factored, for any sparse positive definite matrix', () => {
    const links = fc.array(fc.tuple(fc.nat(19), fc.nat(19), fc.double({ min: -2, max: 2, noNaN: true })), {
      maxLength: 60,
    });
    fc.assert(
      fc.property(
        links,
        fc.array(fc.double({ min: -5, max: 5, noNaN: true }), { minLength: 20, maxLength: 20 }),
        (entries, x) => {
          const n = 20;
          const dense = Array.from({ length: n }, () => new Float64Array(n));
          for (const [i, j, value] of entries) {
            if (i === j) continue;
            dense[i]![j]! += value;
            dense[j]![i]! += value;
          }
          // Made diagonally dominant, and so positive definite.
          for (let i = 0; i < n; i++) dense[i]![i] = 1 + dense[i]!.reduce((sum, v) => sum + Math.abs(v), 0);
          const rows: number[] = [];
          const cols: number[] = [];
          const values: number[] = [];
          for (let i = 0; i < n; i++) {
            for (let j = i; j < n; j++) {
              if (dense[i]![j] === 0) continue;
              rows.push(i);
              cols.push(j);
              values.push(dense[i]![j]!);
            }
          }
          const ldl = new SparseLdl(n, rows, cols);
          expect(ldl.factor(Float64Array.from(values))).toBe(true);
          const b = Float64Array.from(dense, (row) => row.reduce((sum, v, j) => sum + v * x[j]!, 0));
          ldl.solve(b);
          b.forEach((value, i) => expect(value).toBeCloseTo(x[i]!, 8));
        },
      ),
      { numRuns: 50 },
    );
  });

  test('solves a wheel, a chain of unknowns that all meet one in the middle, and fills in little', () => {
    const n = 400;
    const [rows, cols, values]: [number[], number[], number[]] = [[], [], []];
    const entry = (i: number, j: number, value: number) => {
      rows.push(i);
      cols.push(j);
      values.push(value);
    };
    for (let i = 0; i < n; i++) entry(i, i, i === 0 ? n : 4);
    for (let i = 1; i < n; i++) entry(0, i, -0.5);
    for (let i = 1; i + 1 < n; i++) entry(i, i + 1, -1);
    const ldl = new SparseLdl(n, rows, cols);
    expect(ldl.factor(Float64Array.from(values))).toBe(true);
    const x = Float64Array.from({ length: n }, (_, i) => Math.sin(i));
    const b = new Float64Array(n);
    rows.forEach((i, k) => {
      b[i]! += values[k]! * x[cols[k]!]!;
      if (i !== cols[k]) b[cols[k]!]! += values[k]! * x[i]!;
    });
    ldl.solve(b);
    b.forEach((value, i) => expect(value).toBeCloseTo(x[i]!, 10));
    // Without the hub a chain fills in nothing: one entry each for the chain, one for the hub, and a few where it is cut.
    expect(ldl.fill).toBeLessThan(4 * n);
  });

  test('says when a matrix is not positive definite', () => {
    expect(new SparseLdl(2, [0, 0, 1], [0, 1, 1]).factor(Float64Array.from([1, 2, 1]))).toBe(false);
  });
});

describe('damped Gauss–Newton', () => {
  test('takes the smallest change that meets an equation with many answers', () => {
    const rows = rowsOf([linear(1, 0, 1, 1, 10)], 2);
    const values = Float64Array.from([1, 3]);
    expect(new GaussNewton(rows, [0, 1]).solve(values, 1e-10).converged).toBe(true);
    // (1, 3) dropped square onto x + y = 10.
    expect(values[0]).toBeCloseTo(4, 6);
    expect(values[1]).toBeCloseTo(6, 6);
  });

  test('leaves a dear variable where it is', () => {
    const rows = rowsOf([linear(1, 0, 1, 1, 10)], 2);
    const values = Float64Array.from([1, 3]);
    new GaussNewton(rows, [0, 1]).solve(values, 1e-10, Float64Array.from([1e6, 1]));
    expect(values[0]).toBeCloseTo(1, 3);
    expect(values[1]).toBeCloseTo(9, 3);
  });

  test('is not disturbed by saying the same thing twice, and reports what cannot be', () => {
    const twice = rowsOf([linear(1, 0, 1, 1, 10), linear(2, 0, 2, 1, 20)], 2);
    expect(new GaussNewton(twice, [0, 1]).solve(Float64Array.from([0, 0]), 1e-10).converged).toBe(true);
    const against = rowsOf([linear(1, 0, 1, 1, 10), linear(1, 0, 1, 1, 12)], 2);
    const summary = new GaussNewton(against, [0, 1]).solve(Float64Array.from([0, 0]), 1e-10);
    expect(summary.converged).toBe(false);
    expect(summary.residual).toBeCloseTo(1, 6);
  });

  test('brings two points together from far away', () => {
    const rows = rowsOf([pointDistance('d', { x: 0, y: 1 }, { x: 2, y: 3 }, 5)], 4);
    const values = Float64Array.from([0, 0, 1e4, -3e3]);
    expect(new GaussNewton(rows, [0, 1, 2, 3]).solve(values, 1e-8).converged).toBe(true);
    expect(Math.hypot(values[2]! - values[0]!, values[3]! - values[1]!)).toBeCloseTo(5, 7);
  });
});

describe('rank', () => {
  test('counts freedoms, and names a dependent equation with those it depends on', () => {
    const rows = rowsOf(
      [
        slotDifference('a', 0, 1, 3, 1),
        slotDifference('b', 1, 2, 4, 1),
        slotDifference('c', 0, 2, 7, 1),
        slotValue('d', 3, 5),
      ],
      5,
    );
    rows.evaluate(Float64Array.from([0, 3, 7, 5, 1]));
    const { rank, freedoms, dependent, moves } = rankOf(rows);
    expect([rank, freedoms]).toEqual([3, 2]);
    expect(dependent).toHaveLength(1);
    expect([...dependent[0]!.among].sort()).toEqual([0, 1, 2]);
    expect(moves).toEqual([true, true, true, false, true]);
  });

  test('of random integer equations agrees with exact elimination', () => {
    const matrix = fc.array(fc.array(fc.integer({ min: -2, max: 2 }), { minLength: 5, maxLength: 5 }), {
      minLength: 1,
      maxLength: 7,
    });
    fc.assert(
      fc.property(matrix, (m) => {
        const equations = m.map((row, i): Equation => ({
          owner: `${i}`,
          slots: [0, 1, 2, 3, 4],
          evaluate(_, g) {
            row.forEach((value, j) => (g[j] = value));
            return 0;
          },
        }));
        const rows = rowsOf(equations, 5);
        rows.evaluate(new Float64Array(5));
        expect(rankOf(rows).rank).toBe(exactRank(m));
      }),
    );
  });
});

/** Rank by fraction-free elimination: integers stay integers. */
function exactRank(matrix: readonly (readonly number[])[]): number {
  const m = matrix.map((row) => row.map(BigInt));
  let rank = 0;
  for (let column = 0; column < 5 && rank < m.length; column++) {
    const pivot = m.findIndex((row, i) => i >= rank && row[column] !== 0n);
    if (pivot < 0) continue;
    [m[rank], m[pivot]] = [m[pivot]!, m[rank]!];
    for (let i = rank + 1; i < m.length; i++) {
      const [top, own] = [m[rank]![column]!, m[i]![column]!];
      m[i] = m[i]!.map((value, j) => value * top - m[rank]![j]! * own);
    }
    rank++;
  }
  return rank;
}

describe('merging variables', () => {
  test('makes slots one, keeps pinned values, and tells repetition from contradiction', () => {
    const merger = new SlotMerger();
    const [a, b, c, d] = [
      merger.add(1, false),
      merger.add(2, false),
      merger.add(3, true),
      merger.add(4, true),
    ] as const;
    expect(merger.merge(a, b)).toBe('merged');
    expect(merger.merge(b, a)).toBe('redundant');
    expect(merger.merge(b, c)).toBe('merged');
    expect([...merger.values()]).toEqual([3, 3, 3, 4]);
    expect(merger.merge(a, d)).toBe('clash');
    expect(merger.pin(a, 3)).toBe('redundant');
    expect(merger.pin(a, 5)).toBe('clash');
  });
});
