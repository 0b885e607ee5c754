/** Outlines as corners: near enough to their curves, as long as they are, and the same wherever they lie. */
import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { ovalOf, type DrawnLoop } from '../exchange/face-drawing.ts';
import type { FlatPiece } from '../sketch/borrow/flat-piece.ts';
import { centripetal, type Vec2 } from '../sketch/curves/spline.ts';
import { cornersOf, lengthOf, placeAt, placedPiece, placesOnBezier, SAGITTA } from './place-drawing.ts';

const alone = (piece: FlatPiece): DrawnLoop => [{ piece, forward: true }];
const coordinate = fc.double({ min: -200, max: 200, noNaN: true });
const point = fc.tuple(coordinate, coordinate);

/** mm of a place from a run of chords. */
function offChords([x, y]: Vec2, places: readonly Vec2[]): number {
  return Math.min(
    ...places.slice(1).map(([bx, by], i) => {
      const [ax, ay] = places[i]!;
      const [dx, dy] = [bx - ax, by - ay];
      const t = Math.max(0, Math.min(1, ((x - ax) * dx + (y - ay) * dy) / (dx * dx + dy * dy || 1)));
      return Math.hypot(ax + t * dx - x, ay + t * dy - y);
    }),
  );
}

describe('corners of a loop', () => {
  test('of a circle lie on it, its chords within the sagitta of it', () => {
    const circle: FlatPiece = { kind: 'circle', points: [[10, -5]], radius: 60 };
    const corners = cornersOf(alone(circle));
    for (const [x, y] of corners) expect(Math.hypot(x - 10, y + 5)).toBeCloseTo(60, 9);
    corners.forEach(([x, y], i) => {
      const [u, v] = corners[(i + 1) % corners.length]!;
      expect(60 - Math.hypot((x + u) / 2 - 10, (y + v) / 2 + 5)).toBeLessThan(SAGITTA * 1.01);
    });
    expect(lengthOf(alone(circle))).toBeCloseTo(120 * Math.PI, 0);
  });

  test('run on from piece to piece, each place once, whichever way a piece is stored', () => {
    const slot: DrawnLoop = [
      { piece: { kind: 'line', points: [[0, 0], [40, 0]] }, forward: true },
      { piece: { kind: 'arc', points: [[40, 10], [40, 0], [40, 20]] }, forward: true },
      { piece: { kind: 'line', points: [[0, 20], [40, 20]] }, forward: false },
      { piece: { kind: 'arc', points: [[0, 10], [0, 20], [0, 0]] }, forward: true },
    ]; // prettier-ignore
    const corners = cornersOf(slot);
    expect(new Set(corners.map(([x, y]) => `${x.toFixed(6)} ${y.toFixed(6)}`)).size).toBe(corners.length);
    expect(lengthOf(slot)).toBeCloseTo(80 + 20 * Math.PI, 1);
    const turning = corners.map(([x, y], i) => {
      const [u, v] = corners[(i + 1) % corners.length]!;
      return x * v - y * u;
    });
    // Counter-clockwise all along: the area of a slot.
    expect(turning.reduce((a, b) => a + b, 0) / 2).toBeCloseTo(800 + 100 * Math.PI, -1);
  });

  test('any cubic is followed within the sagitta, and no chord is more than is needed of a straight one', () => {
    fc.assert(
      fc.property(fc.tuple(point, point, point, point), (control) => {
        const places = placesOnBezier(control);
        for (let i = 0; i <= 200; i++) {
          const [t, s] = [i / 200, 1 - i / 200];
          const at = [0, 1].map((k) => s ** 3 * control[0][k]! + 3 * s * s * t * control[1][k]! + 3 * s * t * t * control[2][k]! + t ** 3 * control[3][k]!); // prettier-ignore
          expect(offChords(at as [number, number], places)).toBeLessThan(SAGITTA + 1e-9);
        }
      }),
      { numRuns: 40 },
    );
    expect(placesOnBezier([[0, 0], [10, 10], [20, 20], [30, 30]])).toHaveLength(2); // prettier-ignore
    expect(placesOnBezier([[0, 0], [5, 0]])).toEqual([[0, 0], [5, 0]]); // prettier-ignore
  });

  test('a free curve through places passes them, on its way and back', () => {
    const points: Vec2[] = [[0, 0], [30, 40], [80, 10], [120, 60]]; // prettier-ignore
    const spline: FlatPiece = { kind: 'spline', points, parameters: centripetal(points) };
    const there = cornersOf(alone(spline));
    for (const p of points.slice(0, -1)) expect(offChords(p, there)).toBeLessThan(SAGITTA);
    const back = cornersOf([{ piece: spline, forward: false }]);
    expect(back[0]).toEqual(points.at(-1)!.map((v) => expect.closeTo(v, 9)));
  });
});

describe('a piece where it lies', () => {
  const lie = fc.record({ turn: fc.integer({ min: 0, max: 359 }), x: coordinate, y: coordinate });

  test('any arc keeps its radius and its run; any place goes where the others do', () => {
    fc.assert(
      fc.property(lie, point, fc.double({ min: 1, max: 80, noNaN: true }), fc.double({ min: 0, max: 6, noNaN: true }), (where, center, radius, from) => {
        const on = (t: number): Vec2 => [center[0] + radius * Math.cos(t), center[1] + radius * Math.sin(t)];
        const arc: FlatPiece = { kind: 'arc', points: [center, on(from), on(from + 2)] };
        const placed = placedPiece(arc, where);
        if (placed.kind !== 'arc') throw new Error('an arc stays one');
        const oval = ovalOf(placed);
        expect(oval.long).toBeCloseTo(radius, 6);
        expect(oval.to - oval.from).toBeCloseTo(2, 6);
        expect(placed.points[1]).toEqual(placeAt(where)(on(from)));
      }),
    ); // prettier-ignore
  });

  test('quarter turns are exact', () => {
    expect(placeAt({ turn: 90, x: 5, y: 7 })([3, 4])).toEqual([1, 10]);
    expect(placeAt({ turn: 180, x: 0, y: 0 })([3, 4]).map((v) => v + 0)).toEqual([-3, -4]);
    expect(placeAt({ turn: 270, x: 0, y: 0 })([3, 4])).toEqual([4, -3]);
  });
});
