/** A stretch left out of a view: what lies beside it keeps its shape and order, and comes together. */
import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import type { FlatPiece } from '../sketch/borrow/flat-piece.ts';
import type { Vec2 } from '../sketch/curves/spline.ts';
import { acrossBreak, breakBetween, breakLines } from './break.ts';
import { boxOfPieces } from './piece-places.ts';

const box = [0, 0, 300, 40] as const;
const broken = breakBetween([20, 10], [280, 30], 'x', box)!;

describe('a break', () => {
  test('leaves out most of what lies between, along one axis', () => {
    expect(broken).toEqual({ axis: 'x', from: expect.closeTo(51.2, 9), to: expect.closeTo(248.8, 9), gap: expect.closeTo(0.03 * (300 - 197.6), 9) }); // prettier-ignore
    expect(breakBetween([280, 30], [20, 10], 'x', box)).toEqual(broken);
    expect(breakBetween([5, 0], [9, 36], 'y', [0, 0, 12, 40])?.axis).toBe('y');
    expect(breakBetween([100, 0], [104, 0], 'x', box)).toBeNull();
  });

  test('a line across it is two, what lies in it none, a circle beside it itself', () => {
    const { pieces, place, leavesOut } = acrossBreak(broken);
    const across = pieces({ kind: 'line', points: [[0, 5], [300, 5]] }); // prettier-ignore
    expect(across).toHaveLength(2);
    expect(boxOfPieces(across)[2]).toBeCloseTo(300 - 197.6 + broken.gap, 9);
    expect(pieces({ kind: 'line', points: [[60, 0], [200, 40]] })).toEqual([]); // prettier-ignore
    const circle: FlatPiece = { kind: 'circle', points: [[270, 20]], radius: 8 };
    expect(pieces(circle)).toEqual([{ ...circle, points: [place([270, 20])] }]);
    expect([leavesOut([50, 0]), leavesOut([150, 0]), leavesOut([250, 0])]).toEqual([false, true, false]);
  });

  test('any places: their order stays, and beside it their distances', () => {
    const x = fc.double({ min: 0, max: 300, noNaN: true });
    const { place } = acrossBreak(broken);
    fc.assert(
      fc.property(x, x, (a, b) => {
        const [p, q] = [place([a, 0])[0], place([b, 0])[0]];
        if (a < b) expect(p).toBeLessThanOrEqual(q + 1e-12);
        const sameSide = [a, b].every((t) => t <= broken.from) || [a, b].every((t) => t >= broken.to);
        if (sameSide) expect(q - p).toBeCloseTo(b - a, 9);
      }),
    );
  });

  test('its lines stand at both ends of the gap, out over the view, each in one go', () => {
    const lines = breakLines(broken, 0.5, [10, 0], [10, 0, 60, 20]);
    const ends = (of: readonly (readonly [Vec2, Vec2])[]) => [of[0]![0], of.at(-1)![1]];
    const [one, other] = [lines.slice(0, lines.length / 2), lines.slice(lines.length / 2)];
    for (const [own, t] of [[one, broken.from], [other, broken.from + broken.gap]] as const) {
      expect(ends(own).map((p) => p[0])).toEqual([expect.closeTo(t * 0.5 + 10, 9), expect.closeTo(t * 0.5 + 10, 9)]);
      expect(ends(own).map((p) => p[1])).toEqual([-3, 23]);
      own.slice(1).forEach(([from], i) => expect(from).toEqual(own[i]![1]));
    }
  }); // prettier-ignore
});
