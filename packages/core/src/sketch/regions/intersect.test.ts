import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { meetings } from './intersect.ts';
import { distance, pointAt, TAU, type Oval, type Primitive, type Round, type Segment, type Vec2, type Wave } from './primitives.ts'; // prettier-ignore
import { anyPrimitive } from './sample-pieces.ts';

/** mm */
const TOLERANCE = 1e-6;
/** Within the tolerance, and beyond it. */
const [HAIR, GAP] = [5e-7, 5e-6];

const line = (...[x0, y0, x1, y1]: [number, number, number, number]): Segment => ({ kind: 'line', curve: 'l', from: [x0, y0], to: [x1, y1] }); // prettier-ignore
const arc = (x: number, y: number, radius: number, from = 0, sweep = 360): Round => ({ kind: 'arc', curve: 'a', center: [x, y], radius, start: (from * Math.PI) / 180, sweep: (sweep * Math.PI) / 180 }); // prettier-ignore
const oval = (long: number, wide: number, from = 0, sweep = 360): Oval => ({ kind: 'ellipse', curve: 'e', center: [0, 0], major: [long, 0], minor: [0, wide], start: (from * Math.PI) / 180, sweep: (sweep * Math.PI) / 180 }); // prettier-ignore
const wave = (...control: Vec2[]): Wave => ({ kind: 'spline', curve: 's', degree: 3, knots: [0, 0, 0, 0, 1, 1, 1, 1], control }); // prettier-ignore

const sorted = (rows: readonly (readonly number[])[]) => [...rows].sort((a, b) => a[0]! - b[0]! || a[1]! - b[1]!);
const met = (a: Primitive, b: Primitive) => sorted(meetings(a, b, TOLERANCE).map((m) => [...m.at, m.onFirst, m.onSecond])); // prettier-ignore

describe('where two primitives meet: the place, and how far along each', () => {
  test.each<[string, Primitive, Primitive, number[][]]>([
    ['lines that cross', line(0, 0, 10, 0), line(4, -5, 4, 15), [[4, 0, 0.4, 0.25]]],
    ['lines that lean', line(1, 1, 7, 9), line(7, 1, 1, 9), [[4, 5, 0.5, 0.5]]],
    ['a line that ends before the other', line(0, 0, 10, 0), line(4, -5, 4, -GAP), []],
    ['a line that would meet the other beyond its end', line(0, 0, 10, 0), line(10 + GAP, -5, 10 + GAP, 5), []],
    ['and before its beginning', line(0, 0, 10, 0), line(-GAP, -5, -GAP, 5), []],
    ['a line that ends a hair before the other', line(0, 0, 10, 0), line(4, -5, 4, -HAIR), [[4, 0, 0.4, 1]]],
    ['a line a hair beyond the end of the other', line(0, 0, 10, 0), line(10 + HAIR, -5, 10 + HAIR, 5), [[10, 0, 1, 0.5]]], // prettier-ignore
    ['a line a hair before the beginning of the other', line(0, 0, 10, 0), line(-HAIR, -5, -HAIR, 5), [[0, 0, 0, 0.5]]],
    ['on long lines a hair is no more', line(0, 0, 1000, 0), line(1000 + GAP, -5, 1000 + GAP, 5), []],
    ['and on short ones no less', line(0, 0, 0.01, 0), line(0.01 + HAIR, -0.005, 0.01 + HAIR, 0.005), [[0.01, 0, 1, 0.5]]],
    ['lines in one line that overlap', line(0, 0, 10, 0), line(4, 0, 14, 0), [[4, 0, 0.4, 0], [10, 0, 1, 0.6]]],
    ['lines in one leaning line, one within the other', line(1, 2, 7, 10), line(5.5, 8, 2.5, 4), [[2.5, 4, 0.25, 1], [5.5, 8, 0.75, 0]]],
    ['lines in one line end to end', line(0, 0, 10, 0), line(10, 0, 14, 0), [[10, 0, 1, 0], [10, 0, 1, 0]]],
    ['lines in one line apart', line(0, 0, 10, 0), line(11, 0, 14, 0), []],
    ['lines side by side', line(1, 2, 7, 10), line(1 + 0.8 * GAP, 2 - 0.6 * GAP, 7 + 0.8 * GAP, 10 - 0.6 * GAP), []],
    ['lines a hair side by side', line(1, 2, 7, 10), line(1 + 0.8 * HAIR, 2 - 0.6 * HAIR, 7 + 0.8 * HAIR, 10 - 0.6 * HAIR), [[1, 2, 0, 0], [1, 2, 0, 0], [7, 10, 1, 1], [7, 10, 1, 1]]],
    ['long lines in one line but for rounding', line(0, 0, 1000, 0), line(500, 0, 1500, 1e-11), [[500, 0, 0.5, 0], [1000, 0, 1, 0.5]]],
    ['long lines that lean by little', line(0, 0, 1000, 0), line(0, -1e-4, 1000, 1e-4), [[500, 0, 0.5, 0.5]]],

    ['a line through a circle', line(0, -20, 0, 20), arc(0, 0, 10), [[0, -10, 0.25, 0.75], [0, 10, 0.75, 0.25]]],
    ['a line aside of its middle, the other way', line(20, -6, -20, -6), arc(0, 0, 10), [[-8, -6, 0.7, (Math.PI + Math.asin(0.6)) / TAU], [8, -6, 0.3, 1 - Math.asin(0.6) / TAU]]],
    ['a line that ends within a circle', line(0, 0, 0, 20), arc(0, 0, 10), [[0, 10, 0.5, 0.25]]],
    ['a line that touches a circle', line(-4, 10, 16, 10), arc(0, 0, 10), [[0, 10, 0.2, 0.25]]],
    ['a line a hair off a circle', line(-4, -10 - HAIR, 16, -10 - HAIR), arc(0, 0, 10), [[0, -10, 0.2, 0.75]]],
    ['a line off a circle', line(-4, 10 + GAP, 16, 10 + GAP), arc(0, 0, 10), []],
    ['a line far off it', line(-4, 30, 16, 30), arc(0, 0, 10), []],
    ['a line through an arc at one of two places', line(-20, 6, 20, 6), arc(0, 0, 10, 0, 90), [[8, 6, 0.7, (Math.asin(0.6) * 2) / Math.PI]]],
    ['a line at the beginning of an arc', line(0, 0, 20, 0), arc(0, 0, 10, 0, 90), [[10, 0, 0.5, 0]]],
    ['a line a hair before the beginning of an arc', line(0, -HAIR, 20, -HAIR), arc(0, 0, 10, 0, 90), [[10, 0, 0.5, 0]]],
    ['a line before the beginning of an arc', line(0, -GAP, 20, -GAP), arc(0, 0, 10, 0, 90), []],
    ['a line a hair beyond the end of an arc', line(-HAIR, 0, -HAIR, 20), arc(0, 0, 10, 0, 90), [[0, 10, 0.5, 1]]],
    ['a line beyond the end of an arc', line(-GAP, 0, -GAP, 20), arc(0, 0, 10, 0, 90), []],
    ['a line at the seam of a circle, from below', line(0, -HAIR, 20, -HAIR), arc(0, 0, 10), [[10, 0, 0.5, 1]]],

    ['circles that cross', arc(0, 0, 10), arc(12, 0, 10), [[6, -8, 1 - Math.atan2(8, 6) / TAU, 0.5 + Math.atan2(8, 6) / TAU], [6, 8, Math.atan2(8, 6) / TAU, 0.5 - Math.atan2(8, 6) / TAU]]],
    ['circles of other sizes that cross', arc(0, 0, 5), arc(0, 6, 5), [[-4, 3, 0.5 - Math.atan2(3, 4) / TAU, 0.5 + Math.atan2(3, 4) / TAU], [4, 3, Math.atan2(3, 4) / TAU, 1 - Math.atan2(3, 4) / TAU]]],
    ['circles that touch from outside', arc(0, 0, 10), arc(0, 14, 4), [[0, 10, 0.25, 0.75]]],
    ['circles a hair apart', arc(0, 0, 10), arc(14 + HAIR, 0, 4), [[10, 0, 0, 0.5]]],
    ['circles apart', arc(0, 0, 10), arc(14 + GAP, 0, 4), []],
    ['circles far apart', arc(0, 0, 10), arc(40, 0, 4), []],
    ['a circle that touches one round it', arc(0, 0, 4), arc(0, -6, 10), [[0, 4, 0.25, 0.25]]],
    ['a circle round one that touches it', arc(0, -6, 10), arc(0, 0, 4), [[0, 4, 0.25, 0.25]]],
    ['a circle that touches one round it by a hair', arc(0, 0, 4), arc(0, -6 + HAIR, 10), [[0, 4, 0.25, 0.25]]],
    ['a circle within another', arc(0, 0, 4), arc(0, -6 + GAP, 10), []],
    ['circles about one centre', arc(0, 0, 4), arc(0, 0, 10), []],
    ['circles about nearly one centre', arc(0, 0, 4), arc(HAIR, 0, 10), []],
    ['arcs of one circle that overlap', arc(0, 0, 10, 0, 180), arc(0, 0, 10, 90, 180), [[-10, 0, 1, 0.5], [0, 10, 0.5, 0]]],
    ['arcs of one circle but for a hair', arc(0, 0, 10, 0, 180), arc(HAIR, 0, 10 + HAIR, 90, 180), [[-10, 0, 1, 0.5], [0, 10, 0.5, 0]]],
    ['arcs of one circle apart', arc(0, 0, 10, 0, 90), arc(0, 0, 10, 100, 90), []],

    ['a line through an ellipse', line(3, -20, 3, 20), oval(5, 10), [[3, -8, 0.3, 1 - Math.acos(0.6) / TAU], [3, 8, 0.7, Math.acos(0.6) / TAU]]],
    ['a line that touches an ellipse', line(-4, 10, 16, 10), oval(5, 10), [[0, 10, 0.2, 0.25]]],
    ['a line off an ellipse', line(-4, 10 + GAP, 16, 10 + GAP), oval(5, 10), []],
    ['a line beyond the end of an elliptical arc', line(-GAP, 0, -GAP, 20), oval(5, 10, 0, 90), []],
    ['ellipses across each other', oval(10, 5), { ...oval(10, 5), major: [0, 10], minor: [-5, 0] }, [[-1, -1], [-1, 1], [1, -1], [1, 1]].map(([x, y]) => [x! * Math.sqrt(20), y! * Math.sqrt(20)])],
    ['a line along the middle of a wave', line(0, 0, 9, 0), wave([0, 3], [3, 9], [6, -9], [9, -3]), [[4.5, 0, 0.5, 0.5]]],
    ['a line that runs through a wave three times', line(0, 0, 9, 0), wave([0, -1], [3, 9], [6, -9], [9, 1]), [-1, 0, 1].map((k) => [4.5 + (4.5 * k * Math.sqrt(48 / 56)), 0])],
  ])('%s', (_, a, b, wanted) => {
    const places = met(a, b);
    expect(places).toHaveLength(wanted.length);
    sorted(wanted).forEach((row, i) => row.forEach((x, k) => expect(places[i]![k]).toBeCloseTo(x, k < 2 ? 5 : 3)));
  }); // prettier-ignore

  test('the order in which they are asked for does not matter, and each place lies on both', () => {
    const reach = 10 * TOLERANCE;
    fc.assert(
      fc.property(anyPrimitive, anyPrimitive, (a, b) => {
        const [one, other] = [meetings(a, b, TOLERANCE), meetings(b, a, TOLERANCE)];
        for (const { at, onFirst, onSecond } of one) {
          expect(distance(pointAt(a, onFirst), at)).toBeLessThan(reach);
          expect(distance(pointAt(b, onSecond), at)).toBeLessThan(reach);
          expect(Math.min(onFirst, onSecond)).toBeGreaterThanOrEqual(0);
          expect(Math.max(onFirst, onSecond)).toBeLessThanOrEqual(1);
          expect(other.some((m) => distance(m.at, at) < 1e-3)).toBe(true);
        }
        expect(other.every((m) => one.some(({ at }) => distance(m.at, at) < 1e-3))).toBe(true);
      }),
      { numRuns: 120, seed: 11 },
    );
  });

  test('none is missed: where one runs from one side of a line to the other, they meet', () => {
    fc.assert(
      fc.property(anyPrimitive, fc.double({ min: 0, max: TAU, noNaN: true }), fc.double({ min: 0.1, max: 0.9, noNaN: true }), (p, way, share) => {
        // A line through one of its places, far longer than it.
        const [x, y] = pointAt(p, share);
        const [c, s] = [Math.cos(way), Math.sin(way)];
        const through = line(x - 200 * c, y - 200 * s, x + 200 * c, y + 200 * s);
        const places = meetings(p, through, TOLERANCE);
        expect(places.some((m) => distance(m.at, [x, y]) < 1e-3)).toBe(true);
        const n = 2000;
        const side = (t: number) => { const q = pointAt(p, t); return (q[0] - x) * s - (q[1] - y) * c; };
        for (let i = 0; i < n; i++) {
          const [t0, t1] = [i / n, (i + 1) / n];
          if (Math.abs(side(t0)) > 1e-3 && Math.abs(side(t1)) > 1e-3 && side(t0) * side(t1) < 0)
            expect(places.some((m) => m.onFirst >= t0 - 1e-6 && m.onFirst <= t1 + 1e-6)).toBe(true);
        }
      }),
      { numRuns: 120, seed: 5 },
    ); // prettier-ignore
  });
});
