import { expect, test } from '@jest/globals';
import type { FlatPiece } from '../sketch/borrow/flat-piece.ts';
import type { OfferedSpot } from './offered-spot.ts';
import { asPitch } from './pitch.ts';
import { kindOfRound } from './seen-through.ts';

const round = (x: number, y: number, radius: number): OfferedSpot => ({ spot: { edge: { faces: [], near: [x, y, 0] } }, what: 'round', piece: { kind: 'circle', points: [[x, y]], radius }, slanted: null }); // prettier-ignore

test('of two rounds the middle is the one about which more like the other lie, however they were picked', () => {
  const bore = round(5, 5, 11);
  const ring = [0, 1, 2, 3, 4].map((i) => round(5 + 36 * Math.cos(i * 1.2566370614), 5 + 36 * Math.sin(i * 1.2566370614), 4)); // prettier-ignore
  const all = [bore, ...ring, round(5, 5, 48), round(41, 90, 4)];
  for (const hole of ring) {
    expect(asPitch(hole, bore, all)).toEqual([hole, bore]);
    expect(asPitch(bore, hole, all)).toEqual([hole, bore]);
  }
  // With nothing to tell by, the first picked lies aside.
  const [a, b] = [round(0, 0, 3), round(9, 0, 4)];
  expect(asPitch(b, a, [a, b])).toEqual([b, a]);
});

test('an arc past half is told by its diameter, half and less by its radius', () => {
  const arc = (turn: number): FlatPiece => ({ kind: 'arc', points: [[2, 1], [7, 1], [2 + 5 * Math.cos(turn), 1 + 5 * Math.sin(turn)]] }); // prettier-ignore
  expect([0.4, Math.PI, Math.PI + 0.01, 6].map((turn) => kindOfRound(arc(turn)))).toEqual(['radius', 'radius', 'diameter', 'diameter']); // prettier-ignore
  expect(kindOfRound({ kind: 'circle', points: [[0, 0]], radius: 1 })).toBe('diameter');
});
