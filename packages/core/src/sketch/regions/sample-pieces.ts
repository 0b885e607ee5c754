/** Pieces of all kinds, for the tests. */
import fc from 'fast-check';
import { pieceOf, type LoopPiece } from './piece.ts';
import { pointAt, TAU, type Primitive, type Vec2 } from './primitives.ts';

const coordinate = fc.integer({ min: -40, max: 40 }).map((n) => n / 2);
const place: fc.Arbitrary<Vec2> = fc.tuple(coordinate, coordinate);
const size = fc.double({ min: 1, max: 12, noNaN: true });
const start = fc.double({ min: 0, max: TAU, noNaN: true });
const sweep = fc.double({ min: 0.4, max: TAU - 0.1, noNaN: true });
const far = (a: Vec2, b: Vec2) => Math.hypot(a[0] - b[0], a[1] - b[1]) > 1;

const segment = fc.tuple(place, place).filter(([a, b]) => far(a, b)).map(([from, to]): Primitive => ({ kind: 'line', curve: 'l', from, to })); // prettier-ignore
const round = fc.record({ center: place, radius: size, start, sweep }).map((r): Primitive => ({ kind: 'arc', curve: 'a', ...r })); // prettier-ignore
const oval = fc.record({ center: place, long: size, wide: size, turn: start, start, sweep }).map(({ long, wide, turn, ...r }): Primitive => ({ kind: 'ellipse', curve: 'e', ...r, major: [long * Math.cos(turn), long * Math.sin(turn)], minor: [-wide * Math.sin(turn), wide * Math.cos(turn)] })); // prettier-ignore
const cubic = fc.array(place, { minLength: 6, maxLength: 6 }).map((control): Primitive => ({ kind: 'spline', curve: 's', degree: 3, knots: [0, 0, 0, 0, 0.3, 0.7, 1, 1, 1, 1], control })); // prettier-ignore
const quadratic = fc.array(place, { minLength: 4, maxLength: 4 }).map((control): Primitive => ({ kind: 'spline', curve: 's', degree: 2, knots: [0, 0, 0, 0.5, 1, 1, 1], control })); // prettier-ignore

export const anyPrimitive = fc.oneof(segment, round, oval, cubic, quadratic);

/** A piece with what it is a piece of; either way along. */
export const anyPiece = fc
  .tuple(anyPrimitive, fc.double({ min: 0, max: 0.45, noNaN: true }), fc.double({ min: 0.55, max: 1, noNaN: true }), fc.boolean())
  .map(([primitive, low, high, back]) => {
    const [t0, t1] = back ? [high, low] : [low, high];
    return { primitive, t0, t1, piece: pieceOf({ primitive, t0, t1 }) };
  }); // prettier-ignore

/** Places along it, ends included. */
export const along = (of: { primitive: Primitive; t0: number; t1: number }, n = 400): Vec2[] =>
  Array.from({ length: n + 1 }, (_, i) => pointAt(of.primitive, of.t0 + (i / n) * (of.t1 - of.t0)));

export const lineThrough = (points: readonly Vec2[], curve: string): LoopPiece[] =>
  points.map((from, i) => ({ kind: 'line', curve, forward: true, from, to: points[(i + 1) % points.length]! }));
