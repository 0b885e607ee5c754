import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { crossings, heightsOf, pieceArea, pieceOf } from './piece.ts';
import { distanceToPiece, knotsWithin, pieceLength, pieceReversed, pieceSplit, placeOnPiece } from './piece-parts.ts';
import { TAU, type Primitive, type Vec2 } from './primitives.ts';
import { along, anyPiece, lineThrough } from './sample-pieces.ts';
import { sideOfLine } from './side.ts';

const RUNS = { numRuns: 60 };
const away = (a: Vec2, b: Vec2) => Math.hypot(a[0] - b[0], a[1] - b[1]);
const near = (a: Vec2, b: Vec2, slack = 1e-9) => expect(away(a, b)).toBeLessThan(slack);

test('a piece has the ends, the way and the area of the places along it', () => {
  fc.assert(
    fc.property(anyPiece, (of) => {
      const { piece } = of;
      const places = along(of, 2000);
      near(piece.from, places[0]!);
      near(piece.to, places.at(-1)!);
      expect(piece.forward).toBe(of.t1 > of.t0);
      const chords = places.slice(1).reduce((sum, [x, y], i) => sum + (places[i]![0] * y - places[i]![1] * x) / 2, 0);
      expect(Math.abs(pieceArea(piece) - chords)).toBeLessThan(0.01);
      if (piece.kind === 'line') return;
      for (const s of [0, 0.3, 1]) near(placeOnPiece(piece, s), places[Math.round(2000 * s)]!);
    }),
    RUNS,
  );
});

test('level lines cross a piece where its places change sides, and nowhere else', () => {
  fc.assert(
    fc.property(
      anyPiece,
      fc.integer({ min: -30, max: 30 }).map((n) => n / 2 + 0.137),
      (of, y) => {
        const places = along(of, 1500);
        // Lines that only just reach it are not counted by steps.
        const turns = places.filter((p, i) => i > 0 && i < 1500 && (p[1] - places[i - 1]![1]) * (places[i + 1]![1] - p[1]) <= 0); // prettier-ignore
        fc.pre([...turns, places[0]!, places.at(-1)!].every((p) => Math.abs(p[1] - y) > 0.01));
        const expected = places.slice(1).flatMap((p, i) => (places[i]![1] > y === p[1] > y ? [] : [(places[i]![0] + p[0]) / 2])); // prettier-ignore
        const found = crossings(of.piece, y).sort((a, b) => a - b);
        expect(found).toHaveLength(expected.length);
        expected.sort((a, b) => a - b).forEach((x, i) => expect(Math.abs(found[i]! - x)).toBeLessThan(0.6));
        for (const x of found) expect(Math.min(...places.map((p) => away(p, [x, y])))).toBeLessThan(0.3);
      },
    ),
    RUNS,
  );
});

test('a piece lies between its heights, also as seen from a line', () => {
  fc.assert(
    fc.property(anyPiece, fc.double({ min: 0, max: TAU, noNaN: true }), (of, angle) => {
      const span = (values: readonly number[]) => [Math.min(...values), Math.max(...values)] as const;
      const close = ([a, b]: readonly number[], [c, d]: readonly number[]) => {
        expect(Math.abs(a! - c!)).toBeLessThan(8e-3);
        expect(Math.abs(b! - d!)).toBeLessThan(8e-3);
      };
      const places = along(of, 1500);
      close(span(heightsOf(of.piece)), span(places.map((p) => p[1])));
      const [at, way]: [Vec2, Vec2] = [
        [3, -2],
        [Math.cos(angle), Math.sin(angle)],
      ];
      const left = ([x, y]: Vec2) => (y - at[1]) * way[0] - (x - at[0]) * way[1];
      close(sideOfLine({ pieces: [of.piece], area: 0 }, at, way), span(places.map(left)));
    }),
    RUNS,
  );
});

test('a spline that turns where two of its spans meet is as high as it is there', () => {
  const control: Vec2[] = [[0, 0], [1, 6], [5, 6], [6, 0]]; // prettier-ignore
  const hill: Primitive = { kind: 'spline', curve: 's', degree: 2, knots: [0, 0, 0, 0.5, 1, 1, 1], control };
  expect(Math.max(...heightsOf(pieceOf({ primitive: hill, t0: 0, t1: 1 })))).toBeCloseTo(6, 12);
});

test('of several pieces the farthest tell how far a loop lies to either side', () => {
  const square = lineThrough([[0, 0], [4, 0], [4, 2], [0, 2]], 'q'); // prettier-ignore
  const [least, most] = sideOfLine({ pieces: square, area: 8 }, [0, -1], [1, 0]);
  expect([least, most]).toEqual([1, 3]);
});

test('a piece walked the other way, or divided, goes through the same places', () => {
  fc.assert(
    fc.property(anyPiece, fc.double({ min: 0.1, max: 0.9, noNaN: true }), ({ piece }, s) => {
      const back = pieceReversed(piece);
      expect([back.kind, back.forward]).toEqual([piece.kind, !piece.forward]);
      for (const share of [0, 0.2, 0.7, 1]) near(placeOnPiece(back, share), placeOnPiece(piece, 1 - share));
      const [first, second] = pieceSplit(piece, s);
      near(first.from, piece.from);
      near(first.to, second.from);
      near(second.to, piece.to);
      near(placeOnPiece(first, 0.5), placeOnPiece(piece, s / 2));
      near(placeOnPiece(second, 0.5), placeOnPiece(piece, (1 + s) / 2));
      expect(pieceArea(first) + pieceArea(second)).toBeCloseTo(pieceArea(piece), 7);
      expect(pieceArea(back)).toBeCloseTo(-pieceArea(piece), 7);
    }),
    RUNS,
  );
});

test('a piece is as long, and as far from a place, as the places along it tell', () => {
  const place = fc.tuple(fc.double({ min: -30, max: 30, noNaN: true }), fc.double({ min: -30, max: 30, noNaN: true }));
  fc.assert(
    fc.property(anyPiece, place, (of, at) => {
      const places = along(of, 1500);
      const length = places.slice(1).reduce((sum, p, i) => sum + away(places[i]!, p), 0);
      expect(Math.abs(pieceLength(of.piece) / length - 1)).toBeLessThan(0.02);
      const nearest = Math.min(...places.map((p) => away(p, at)));
      expect(Math.abs(distanceToPiece(of.piece, at) - nearest)).toBeLessThan(0.02);
    }),
    RUNS,
  );
});

test('knots within a piece are told as shares of it, each once, its ends left out', () => {
  const wave: Primitive = { kind: 'spline', curve: 's', degree: 3, knots: [0, 0, 0, 0, 0.25, 0.5, 0.5, 1, 1, 1, 1], control: [[0, 0], [1, 2], [2, -1], [4, 0], [5, 3], [6, 1], [8, 0]] }; // prettier-ignore
  const shares = (t0: number, t1: number) => knotsWithin(pieceOf({ primitive: wave, t0, t1 }));
  expect(shares(0, 1)).toEqual([0.25, 0.5]);
  expect(shares(1, 0)).toEqual([0.5, 0.75]);
  expect(shares(0.25, 0.75)).toEqual([0.5]);
  expect(knotsWithin(pieceOf({ primitive: { kind: 'line', curve: 'l', from: [0, 0], to: [1, 0] }, t0: 0, t1: 1 }))).toEqual([]); // prettier-ignore
});

test('a whole circle or ellipse, walked from anywhere either way, sweeps one turn', () => {
  const circle: Primitive = { kind: 'arc', curve: 'a', center: [2, 1], radius: 3, start: 0, sweep: TAU };
  const oval: Primitive = { kind: 'ellipse', curve: 'e', center: [2, 1], major: [3, 0], minor: [0, 2], start: 0, sweep: TAU }; // prettier-ignore
  for (const [primitive, area] of [
    [circle, 9 * Math.PI],
    [oval, 6 * Math.PI],
  ] as const)
    // prettier-ignore
    for (const from of [0, 0.37]) {
      const [left, right] = [pieceOf({ primitive, t0: from, t1: from + 1 }), pieceOf({ primitive, t0: from + 1, t1: from })];
      expect([(left as { sweep: number }).sweep, (right as { sweep: number }).sweep]).toEqual([TAU, -TAU]);
      expect(pieceArea(left)).toBeCloseTo(area, 9);
      expect(pieceArea(right)).toBeCloseTo(-area, 9);
    }
});

test('of a part of a spline, the nearest place may lie within it though the spline comes nearer elsewhere', () => {
  // Up to (0, 6), down, and past the place asked for; of the part, the crest is nearest.
  const primitive: Primitive = { kind: 'spline', curve: 's', degree: 2, knots: [0, 0, 0, 0.5, 1, 1, 1], control: [[-6, 0], [0, 12], [6, 0], [1, 10]] }; // prettier-ignore
  const piece = pieceOf({ primitive, t0: 0, t1: 0.5 });
  const at: Vec2 = [1, 10];
  const least = Math.min(...along({ primitive, t0: 0, t1: 0.5 }, 4000).map((p) => away(p, at)));
  expect(least).toBeLessThan(Math.min(away(piece.from, at), away(piece.to, at)) - 1);
  expect(distanceToPiece(piece, at)).toBeCloseTo(least, 5);
});
