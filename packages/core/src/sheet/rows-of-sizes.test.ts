/** Rows of sizes: which are made of what is picked, and where they stand so that none is over another. */
import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import type { SheetSize } from '../document/sheet.ts';
import type { Vec2 } from '../sketch/curves/spline.ts';
import { drawSize } from './draw-size.ts';
import type { ViewSpot } from './drawn-view.ts';
import { placeSizes, type ToPlace } from './place-sizes.ts';
import { sizesInRow } from './rows-of-sizes.ts';

const at = { body: 0, index: 0 };
const named = (name: string) => ({ edge: { faces: [name], near: [0, 0, 0] as [number, number, number] } });
const upright = (x: number): ViewSpot => ({ spot: named(`x${x}`), what: 'line', piece: { kind: 'line', points: [[x, 0], [x, 10]] }, slanted: null, at }); // prettier-ignore
const bore = (x: number, y: number): ViewSpot => ({ spot: named(`o${x} ${y}`), what: 'round', piece: { kind: 'circle', points: [[x, y]], radius: 3 }, slanted: null, at }); // prettier-ignore
const nameOf = (of: SheetSize['of'][number]) => ('edge' in of ? of.edge.faces[0] : '');
const pairs = (sizes: readonly SheetSize[]) => sizes.map((s) => s.of.map(nameOf).join(' – '));

describe('several sizes at once', () => {
  const picks = [upright(30), bore(12, 5), upright(0), bore(12, 8)];

  test('a chain goes from one to the next as they lie, the others from what was picked first', () => {
    expect(pairs(sizesInRow('chain', 'across', 'v', picks))).toEqual(['x0 – o12 5', 'o12 5 – x30']);
    expect(pairs(sizesInRow('from_first', 'across', 'v', picks))).toEqual(['x30 – o12 5', 'x30 – x0']);
    const ordinates = sizesInRow('ordinates', 'across', 'v', picks);
    expect(pairs(ordinates)).toEqual(['x30 – x30', 'x30 – o12 5', 'x30 – x0']);
    expect(ordinates.every((s) => s.ordinate && s.kind === 'across')).toBe(true);
  });

  test('an upright edge says nothing of how far up it lies; fewer than two levels make no row', () => {
    expect(pairs(sizesInRow('chain', 'up', 'v', picks))).toEqual(['o12 5 – o12 8']);
    expect(sizesInRow('chain', 'up', 'v', [upright(0), upright(9), bore(1, 1)])).toEqual([]);
  });
});

const lengthAt = (id: string, from: number, to: number, ordinate: boolean): ToPlace => {
  const measured = { is: 'length', from: [from, 0] as Vec2, to: [to, 0] as Vec2, along: [1, 0] as Vec2, value: Math.abs(to - from), true: true } as const; // prettier-ignore
  const size: SheetSize = { kind: 'across', view: 'v', of: [named('a'), named('b')], ...(ordinate ? { ordinate } : {}) }; // prettier-ignore
  return { id, size, measured, text: String(Math.abs(to - from)) };
};

describe('where they stand', () => {
  test('those of a chain in one line, where their words have room', () => {
    const places = placeSizes([lengthAt('a', 0, 30, false), lengthAt('b', 30, 70, false), lengthAt('c', 70, 110, false)], [0, 0, 110, 20], 3.5); // prettier-ignore
    expect([...places.values()].map(([x, y]) => [x, y])).toEqual([[15, -9], [50, -9], [90, -9]]); // prettier-ignore
  });

  test('ordinates in one line, none nearer to the next than its words are high, moved as little as can be', () => {
    fc.assert(
      fc.property(fc.array(fc.integer({ min: 0, max: 150 }), { minLength: 2, maxLength: 12 }), (levels) => {
        const own = levels.map((x, i) => lengthAt(`z${i}`, 0, x, true));
        const places = placeSizes(own, [0, 0, 150, 20], 3.5);
        const sorted = own.map((s, i) => ({ at: levels[i]!, x: places.get(s.id)![0], y: places.get(s.id)![1] })).sort((a, b) => a.x - b.x); // prettier-ignore
        for (const [i, s] of sorted.entries()) {
          expect(s.y).toBeCloseTo(sorted[0]!.y, 9);
          if (i > 0) expect(s.x - sorted[i - 1]!.x).toBeGreaterThanOrEqual(3.5 * 1.6 - 1e-9);
        }
        // Moved both ways alike.
        expect(sorted.reduce((sum, s) => sum + s.x - s.at, 0)).toBeCloseTo(0, 6);
      }),
    );
    const apart = placeSizes([lengthAt('a', 0, 10, true), lengthAt('b', 0, 50, true)], [0, 0, 50, 20], 3.5);
    expect([apart.get('a')![0], apart.get('b')![0]]).toEqual([10, 50]);
  });

  test('one line from the place to its words, which run along it', () => {
    const measured = { is: 'length', from: [0, 0], to: [40, 5], along: [1, 0], value: 40, true: true } as const;
    const items = drawSize(measured, '40', [43, -20], { height: 3.5, ordinate: true });
    expect(items.map((i) => i.is)).toEqual(['curve', 'curve', 'text']);
    const [first, second, words] = items as never as [{ piece: { points: Vec2[] } }, { piece: { points: Vec2[] } }, { turn: number }]; // prettier-ignore
    expect(first.piece.points[0]).toEqual([40, 4]);
    expect(first.piece.points[1]).toEqual(second.piece.points[0]);
    expect(second.piece.points[1]![0]).toBe(43);
    expect(Math.abs(words.turn)).toBeCloseTo(Math.PI / 2, 9);
  });
});

test('lines that lead out to a length begin at the nearer end of the edges it is taken at', () => {
  const measured = { is: 'length', from: [0, 20], to: [50, 20], along: [1, 0], value: 50, true: true, edges: [[[0, 0], [0, 40]], [[50, 5], [50, 35]]] } as const; // prettier-ignore
  const begins = (place: Vec2) => drawSize(measured, '50', place, { height: 3.5 }).slice(0, 2).map((i) => (i.is === 'curve' ? i.piece.points[0] : null)); // prettier-ignore
  expect(begins([25, -9])).toEqual([[0, -1], [50, 4]]); // prettier-ignore
  expect(begins([25, 49])).toEqual([[0, 41], [50, 36]]); // prettier-ignore
});
