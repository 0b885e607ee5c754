/** What is asked of laying, and how a layout is looked over. */
import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import type { LaidPlace, Outlines } from '../document/outlines.ts';
import { cutTotals, faultsOfLaid, nestAsk } from './lay.ts';
import { Nesting } from './nesting/nest.ts';
import { SAGITTA } from './place-drawing.ts';
import { geometryOf, outlinesOf, plate } from './sample-pieces.ts';

const pieces = { a: plate('A', [80, 50]), b: plate('B', [30, 30], [[[15, 15], 5]]) };
const geometry = geometryOf(pieces);
const counts = (a: number, b: number) => new Map([['a', a], ['b', b]]); // prettier-ignore
const own = (more: Partial<Outlines> = {}) => outlinesOf(pieces, more);

describe('what is asked of laying', () => {
  test('each piece as often as it is cut, farther apart by what chords take', () => {
    const ask = nestAsk(own({ gap: 4, margin: 7 }), geometry, counts(2, 0));
    expect(ask).toMatchObject({ board: [1200, 600], gap: 4 + 2 * SAGITTA, margin: 7, turns: 'quarter' });
    expect(ask !== null && typeof ask !== 'string' && ask.pieces.map((p) => [p.id, p.count, p.loops.length])).toEqual([['a', 2, 1]]); // prettier-ignore
  });

  test('nothing where nothing is cut; a sentence where it is too much or the margins take all', () => {
    expect(nestAsk(own(), geometry, counts(0, 0))).toBeNull();
    expect(nestAsk(own(), geometry, counts(1999, 2))).toBe('2001 pieces are to be cut; at most 2000 are laid at once.');
    expect(nestAsk(own({ margin: 300 }), geometry, counts(1, 0))).toBe('The margins leave nothing of the board; make them smaller.'); // prettier-ignore
  });
});

const lie = (piece: string, x: number, y: number, more: Partial<LaidPlace> = {}): LaidPlace => ({ piece, board: 0, turn: 0, x, y, ...more }); // prettier-ignore

describe('a layout looked over', () => {
  const found = (laid: readonly LaidPlace[], more: Partial<Outlines> = {}, of = counts(1, 1)) => {
    const { bad, missing } = faultsOfLaid(own({ gap: 3, margin: 5, ...more }), geometry, of, laid);
    return [[...bad].sort(), Object.fromEntries(missing)];
  };

  test('gaps are kept to a hundredth, turned pieces as they lie, a board that is not there is none', () => {
    expect(found([lie('a', 5, 5), lie('b', 88, 5)])).toEqual([[], {}]);
    expect(found([lie('a', 5, 5), lie('b', 87.97, 5)])).toEqual([[0, 1], {}]);
    expect(found([lie('a', 55, 5, { turn: 90 }), lie('b', 58, 5)])).toEqual([[], {}]);
    expect(found([lie('a', 5, 5), lie('b', 100, 5, { board: 1 })], { board: { width: 1200, height: 600, boards: 1 } })).toEqual([[1], {}]); // prettier-ignore
  });

  test('how many lie nowhere, or beyond their count; what is cut no more is passed over', () => {
    expect(found([lie('a', 5, 5), lie('a', 5, 100), lie('gone', 5, 5)])).toEqual([[], { a: -1, b: 1 }]);
  });

  test('what was laid has no faults, whatever the pieces, the turns and the board', () => {
    const side = fc.integer({ min: 12, max: 90 });
    const some = fc.array(fc.tuple(side, side, fc.integer({ min: 1, max: 3 })), { minLength: 1, maxLength: 4 });
    fc.assert(
      fc.property(some, fc.constantFrom('none', 'half', 'quarter', 'eighth'), fc.integer({ min: 0, max: 8 }), (sizes, turns, gap) => {
        const all = Object.fromEntries(sizes.map(([w, h], i) => [`p${i}`, plate(`P${i}`, [w, h], [[[w / 2, h / 2], 4]])]));
        const of = new Map(sizes.map(([, , n], i) => [`p${i}`, n]));
        const given = outlinesOf(all, { board: { width: 220, height: 150 }, gap, turns });
        const ask = nestAsk(given, geometryOf(all), of);
        if (ask === null || typeof ask === 'string') throw new Error('nothing to lay');
        const nesting = new Nesting(ask);
        const work = nesting.once();
        while (!work.next().done);
        const { laid, left } = nesting.found!;
        const { bad, missing } = faultsOfLaid(given, geometryOf(all), of, laid);
        expect([[...bad], missing]).toEqual([[], left]);
      }),
      { numRuns: 10 },
    ); // prettier-ignore
  });

  test('how much of each board is used', () => {
    const totals = cutTotals(own({ board: { width: 100, height: 100 } }), geometry, [lie('a', 5, 5), lie('b', 5, 60), lie('b', 5, 5, { board: 1 })]); // prettier-ignore
    const small = 900 - Math.PI * 25;
    expect([totals.boards, totals.pieces]).toEqual([2, 3]);
    expect(totals.filled).toEqual([expect.closeTo((4000 + small) / 1e4, 9), expect.closeTo(small / 1e4, 9)]);
    expect(totals.area).toBeCloseTo(4000 + 2 * small, 6);
  });
});
