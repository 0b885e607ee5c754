/** What of a curve lies in a circle or on a side, against closed form, and sums that hold of any. */
import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { ovalOf } from '../exchange/face-drawing.ts';
import type { FlatPiece } from '../sketch/borrow/flat-piece.ts';
import { inRound, onSide, pieceWithin } from './piece-within.ts';

const at = (center: readonly [number, number], radius: number) => inRound({ center, radius });
const lengthOf = (piece: FlatPiece): number => {
  if (piece.kind === 'line') return Math.hypot(piece.points[1][0] - piece.points[0][0], piece.points[1][1] - piece.points[0][1]); // prettier-ignore
  if (piece.kind === 'spline') return piece.points.slice(1).reduce((sum, p, i) => sum + Math.hypot(p[0] - piece.points[i]![0], p[1] - piece.points[i]![1]), 0); // prettier-ignore
  if (piece.kind === 'point') return 0;
  const { from, to, long } = ovalOf(piece);
  return (to - from) * long;
};
const total = (pieces: readonly FlatPiece[]) => pieces.reduce((sum, p) => sum + lengthOf(p), 0);

describe('what lies in a circle', () => {
  test('of a line its chord', () => {
    const line: FlatPiece = { kind: 'line', points: [[-10, 3], [10, 3]] }; // prettier-ignore
    expect(pieceWithin(line, at([0, 0], 5))).toEqual([{ kind: 'line', points: [[expect.closeTo(-4, 9), 3], [expect.closeTo(4, 9), 3]] }]); // prettier-ignore
    expect(pieceWithin(line, at([0, 0], 3))).toEqual([]);
    expect(pieceWithin(line, at([0, 3], 50))).toEqual([line]);
  });

  test('of a circle the arc within, all of it, or none', () => {
    const circle: FlatPiece = { kind: 'circle', points: [[5, 0]], radius: 5 };
    // Two circles of one radius, each through the other's centre: a third of it.
    expect(total(pieceWithin(circle, at([0, 0], 5)))).toBeCloseTo((2 * Math.PI * 5) / 3, 9);
    expect(pieceWithin(circle, at([5, 0], 6))).toEqual([circle]);
    expect(pieceWithin(circle, at([5, 0], 4))).toEqual([]);
    expect(pieceWithin(circle, at([40, 0], 4))).toEqual([]);
  });

  test('of an arc across its start what lies at both ends', () => {
    const arc: FlatPiece = { kind: 'arc', points: [[0, 0], [0, -10], [0, 10]] }; // prettier-ignore
    // The right half of a circle of 10; the circle takes what lies above y = 9.5 and below nothing.
    const found = pieceWithin(arc, at([0, 10], Math.sqrt(10)));
    expect(found).toHaveLength(1);
    expect(total(found)).toBeCloseTo(10 * Math.acos(9.5 / 10), 6);
  });

  test('any arc, any circle: what is in and what is out is all of it', () => {
    const n = fc.double({ min: -20, max: 20, noNaN: true });
    fc.assert(
      fc.property(n, n, fc.double({ min: 1, max: 15, noNaN: true }), fc.double({ min: 0, max: 6, noNaN: true }), fc.double({ min: 0.2, max: 6, noNaN: true }), (x, y, r, from, span) => {
        const on = (t: number) => [r * Math.cos(t), r * Math.sin(t)] as const;
        const arc: FlatPiece = { kind: 'arc', points: [[0, 0], on(from), on(from + span)] };
        const steps = 4000;
        const inside = Array.from({ length: steps }, (_, i) => on(from + (span * (i + 0.5)) / steps)).filter(([u, v]) => Math.hypot(u - x, v - y) <= 10).length; // prettier-ignore
        expect(Math.abs(total(pieceWithin(arc, at([x, y], 10))) - (r * span * inside) / steps)).toBeLessThan(0.1);
      }),
      { numRuns: 60 },
    ); // prettier-ignore
  });
});

describe('what lies on one side', () => {
  test('of a line, a circle and an ellipse their share', () => {
    expect(pieceWithin({ kind: 'line', points: [[0, 0], [8, 4]] }, onSide(0, 2, 1))).toEqual([{ kind: 'line', points: [[2, 1], [8, 4]] }]); // prettier-ignore
    const circle: FlatPiece = { kind: 'circle', points: [[3, 3]], radius: 6 };
    // At half its radius from the centre: a third of it beyond, along x and along y.
    for (const k of [0, 1] as const) {
      expect(total(pieceWithin(circle, onSide(k, 6, 1)))).toBeCloseTo((2 * Math.PI * 6) / 3, 9);
      expect(total(pieceWithin(circle, onSide(k, 6, -1)))).toBeCloseTo((4 * Math.PI * 6) / 3, 9);
    }
    expect(pieceWithin(circle, onSide(1, -4, 1))).toEqual([circle]);
    const ellipse: FlatPiece = {
      kind: 'ellipse',
      points: [
        [0, 0],
        [8, 0],
      ],
      minor: 2,
    };
    const above = pieceWithin(ellipse, onSide(1, 0, 1));
    const ends = above.flatMap((p) => [p.points[0]!, p.points.at(-1)!]);
    // Cut at its two ends, to the very place.
    for (const [x] of [ends[0]!, ends.at(-1)!]) expect(Math.abs(x)).toBeCloseTo(8, 6);
  });
});
