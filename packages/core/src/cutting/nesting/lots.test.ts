/** Lots and their orders: whatever is exchanged, paired or taken apart, as many of each piece are laid. */
import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import type { Vec2 } from '../../sketch/curves/spline.ts';
import { firstOrders, lotsOf, variedOrder, waysOf, type Lot, type Lots, type Way } from './lots.ts';
import { GRID, noFit, onGrid, summandOf, type Area } from './polygon.ts';
import { flatLoops, type NoFits } from './room.ts';

const TRIANGLE: Vec2[] = [[0, 0], [100, 0], [0, 80]]; // prettier-ignore
const SQUARE: Vec2[] = [[0, 0], [50, 0], [50, 50], [0, 50]]; // prettier-ignore
const TURNS = [0, 90, 180, 270];

function lotsFor(shapes: readonly (readonly Vec2[])[]): { lots: Lots; ways: Way[] } {
  const areas: Area[] = shapes.map((s) => onGrid([s]));
  const ways: Way[] = [];
  const noFits: NoFits = (a, b) => flatLoops(noFit(summandOf(ways[a]!.area), summandOf(ways[b]!.area), 2 * GRID));
  return { lots: lotsOf(areas, TURNS, ways, noFits, 2 * GRID), ways };
}
const piecesIn = (order: readonly Lot[]) => order.flatMap((l) => l.pieces).sort();

describe('ways of lying', () => {
  test('those that look the same are one: a square lies one way, a bar two, a triangle four', () => {
    const count = (shape: readonly Vec2[]) => waysOf(onGrid([shape]), [], TURNS).length;
    expect([count(SQUARE), count([[0, 0], [70, 0], [70, 20], [0, 20]]), count(TRIANGLE)]).toEqual([1, 2, 4]); // prettier-ignore
  });

  test('each tells where the piece’s own origin stands', () => {
    const [, quarter] = waysOf(onGrid([TRIANGLE]), [{ piece: 0, turn: 0, x: 0, y: 0 }], [0, 90]);
    // Turned by a quarter it reaches 80 to the left of its origin.
    expect(quarter!.parts).toEqual([{ piece: 0, turn: 90, x: expect.closeTo(80 * GRID, 6), y: expect.closeTo(0, 6) }]);
    expect([quarter!.width, quarter!.height]).toEqual([80 * GRID, 100 * GRID]);
  });
});

describe('lots', () => {
  test('two triangles are laid as one, squares by themselves', () => {
    const { lots, ways } = lotsFor([TRIANGLE, SQUARE]);
    expect(lots.pairs.map((p) => p.pieces)).toContainEqual([0, 0]);
    expect(lots.pairs.map((p) => p.pieces)).not.toContainEqual([1, 1]);
    const pair = lots.pairs.find((p) => p.pieces.every((i) => i === 0))!;
    // Close to the rectangle both make.
    expect(pair.fill).toBeGreaterThan(0.9);
    for (const way of pair.ways) expect(ways[way]!.parts.map((p) => p.piece)).toEqual([0, 0]);
  });

  test('every order, first or varied, holds as many of each piece as are cut', () => {
    const { lots } = lotsFor([TRIANGLE, SQUARE]);
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 9 }), fc.integer({ min: 1, max: 6 }), fc.array(fc.double({ min: 0, max: 0.999999, noNaN: true }), { minLength: 40, maxLength: 40 }), (a, b, dice) => {
        const wanted = [...Array<number>(a).fill(0), ...Array<number>(b).fill(1)];
        let at = 0;
        const random = () => dice[at++ % dice.length]!;
        for (const first of firstOrders(lots, [a, b])) {
          expect(piecesIn(first)).toEqual(wanted);
          let order = first;
          for (let n = 0; n < 6; n++) order = variedOrder(order, lots, random);
          expect(piecesIn(order)).toEqual(wanted);
        }
      }),
    ); // prettier-ignore
  });
});
