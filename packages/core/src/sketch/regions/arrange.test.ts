import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { letteringContours } from '../lettering/lettering.ts';
import { arrange, type Arrangement } from './arrange.ts';
import { loopOf } from './loop.ts';
import { distance, pointAt, primitivesOfCurve, type Primitive, type Vec2 } from './primitives.ts';
import { anyPrimitive } from './sample-pieces.ts';

/** mm */
const TOLERANCE = 1e-6;

const line = (x0: number, y0: number, x1: number, y1: number, curve = 'l'): Primitive => ({ kind: 'line', curve, from: [x0, y0], to: [x1, y1] }); // prettier-ignore
const arc = (x: number, y: number, radius: number, from = 0, sweep = 360): Primitive => ({ kind: 'arc', curve: 'a', center: [x, y], radius, start: (from * Math.PI) / 180, sweep: (sweep * Math.PI) / 180 }); // prettier-ignore
const square = (x: number, y: number, size: number) => [line(x, y, x + size, y), line(x + size, y, x + size, y + size), line(x + size, y + size, x, y + size), line(x, y + size, x, y)]; // prettier-ignore
const of = (...primitives: (Primitive | Primitive[])[]) => arrange(primitives.flat(), TOLERANCE);

const edges = ({ halves }: Arrangement) => halves.length / 2;
/** Areas walked round, those outside negative. */
const areas = ({ walks, halves }: Arrangement) => walks.map((w) => loopOf(w.map((h) => halves[h]!)).area).sort((a, b) => a - b); // prettier-ignore
const near = (values: readonly number[]) => values.map((x) => expect.closeTo(x, 4));

describe('what primitives cut each other into', () => {
  test('two crossing squares: where they cross they are cut, and each face is walked once', () => {
    const found = of(square(0, 0, 10), square(6, 6, 10));
    expect([found.vertices.length, edges(found), found.openEnds]).toEqual([10, 12, []]);
    expect(areas(found)).toEqual(near([-184, 16, 84, 84]));
  });

  test('an outline with a tail: the tail bounds nothing, and its loose end is told', () => {
    const tail = [line(10, 0, 14, 0), line(14, 0, 14, 4), line(14, 4, 20, 4)];
    const found = of(square(0, 0, 10), tail);
    expect(edges(found)).toBe(7);
    expect(found.openEnds).toEqual([[20, 4]]);
    expect(found.walks.map((w) => w.length)).toEqual([4, 4]);
    expect(areas(found)).toEqual(near([-100, 100]));
  });

  test('a line alone has two loose ends, and bounds nothing', () => {
    const found = of(line(0, 0, 4, 0), line(4, 0, 8, 3));
    expect([found.walks, found.openEnds]).toEqual([[], [[0, 0], [8, 3]]]); // prettier-ignore
  });

  test('two outlines held together by a line: it is walked on both sides, and is no end', () => {
    const found = of(square(0, 0, 10), square(20, 0, 10), line(10, 0, 20, 0));
    expect(found.openEnds).toEqual([]);
    expect(found.walks.map((w) => w.length).sort()).toEqual([10, 4, 4]);
  });

  test.each<[string, Primitive[], number, number, number[]]>([
    ['a circle alone', [arc(0, 0, 10)], 1, 1, [-100 * Math.PI, 100 * Math.PI]],
    ['a circle cut at its seam', [arc(0, 0, 10), line(-10, 0, 10, 0)], 2, 3, [-100 * Math.PI, 50 * Math.PI, 50 * Math.PI]], // prettier-ignore
    ['a circle cut a hair beside its seam, from both sides', [arc(0, 0, 10), line(-10, 0, 10, 4e-7), line(0, -10, 10, -4e-7)], 3, 5, [-100 * Math.PI, 25 * Math.PI - 50, 25 * Math.PI + 50, 50 * Math.PI]], // prettier-ignore
    ['a circle cut away from its seam', [arc(0, 0, 10), line(0, -10, 0, 10)], 2, 3, [-100 * Math.PI, 50 * Math.PI, 50 * Math.PI]], // prettier-ignore
    ['a circle that is touched', [arc(0, 0, 10), line(-10, 10, 0, 10), line(0, 10, 10, 10)], 3, 3, [-100 * Math.PI, 100 * Math.PI]], // prettier-ignore
  ])('%s', (_, primitives, vertices, pieces, wanted) => {
    const found = of(primitives);
    expect([found.vertices.length, edges(found)]).toEqual([vertices, pieces]);
    expect(areas(found)).toEqual(near(wanted));
  });

  test('circles that touch at one place are told apart by how they bend', () => {
    const found = of(arc(0, 1, 1), arc(0, 2, 2), arc(0, 3, 3), arc(0, -2, 2), line(-9, 0, 9, 0));
    expect(areas(found).filter((a) => a > 0)).toEqual(near([Math.PI, 3 * Math.PI, 4 * Math.PI, 5 * Math.PI]));
  });

  test.each([0, 1, 2, 3, 4, 5, 6, 7])('and so they are turned by %i eighths', (eighths) => {
    const way = (eighths * Math.PI) / 4;
    const at = (r: number) => arc(r * Math.cos(way), r * Math.sin(way), Math.abs(r));
    const found = of(at(1), at(2.5), at(-2), at(-3));
    expect(areas(found).filter((a) => a > 0)).toEqual(near([Math.PI, 4 * Math.PI, 5 * Math.PI, 5.25 * Math.PI]));
  });

  test.each<[string, Primitive[], number]>([
    ['a line drawn twice', [line(0, 0, 5, 0), line(0, 0, 5, 0)], 1],
    ['and the other way', [line(0, 0, 5, 0), line(5, 0, 0, 0)], 1],
    ['lines that overlap', [line(0, 0, 5, 0), line(3, 0, 9, 0)], 3],
    ['a line drawn twice, but for a few hairs', [line(0, 0, 5, 0), line(0, 2e-6, 5, 2e-6)], 1],
    ['an arc and its chord', [arc(0, 0, 5, 0, 180), line(-5, 0, 5, 0)], 2],
    ['arcs with the same ends', [arc(0, 0, 5, 0, 180), arc(0, 0, 5, 180, 180), line(-5, 0, 5, 0)], 3],
    ['an arc drawn twice', [arc(0, 0, 5, 20, 150), arc(0, 0, 5, 20, 150)], 1],
    ['an arc drawn twice, once a hair wider', [arc(0, 0, 5, 20, 150), arc(0, 0, 5 + 8e-7, 20, 150)], 1],
  ])('%s is there once', (_, primitives, pieces) => {
    expect(edges(of(primitives))).toBe(pieces);
  });

  test('ends that nearly meet are one, others are not', () => {
    const ends = (gap: number) => of(line(0, 0, 5, 0), line(5 + gap, 0, 9, 3)).vertices.length;
    expect([ends(0), ends(9e-7), ends(1.9e-6), ends(2.5e-6), ends(1e-3)]).toEqual([3, 3, 3, 4, 4]);
    fc.assert(
      fc.property(fc.double({ min: -50, max: 50, noNaN: true }), fc.double({ min: -50, max: 50, noNaN: true }), fc.double({ min: 0, max: 6.28, noNaN: true }), (x, y, way) => {
        const [c, s] = [Math.cos(way), Math.sin(way)];
        // Each starts at the place and runs away from it, so that only their ends can meet.
        const star = (gap: number) => of(line(x, y, x - 9 * c, y - 9 * s), line(x + gap * c, y + gap * s, x + 9 * c, y + 9 * s)).vertices.length; // prettier-ignore
        expect([star(1.9e-6), star(2.6e-6)]).toEqual([3, 4]);
      }),
      { numRuns: 30, seed: 3 },
    ); // prettier-ignore
  });

  test('what is drawn first does not matter', () => {
    fc.assert(
      fc.property(fc.array(anyPrimitive, { minLength: 2, maxLength: 6 }), (drawn) => {
        // Alike curves may lie on each other, of which the first counts.
        const one = of(drawn);
        const other = of([...drawn].reverse());
        expect(areas(other)).toEqual(near(areas(one)));
        expect(other.vertices.length).toBe(one.vertices.length);
      }),
      { numRuns: 15, seed: 8 },
    );
  });

  test('each piece runs between its vertices, and its twin runs back', () => {
    fc.assert(
      fc.property(fc.array(anyPrimitive, { minLength: 1, maxLength: 5 }), (drawn) => {
        const { halves, vertices, walks } = of(drawn);
        halves.forEach((h, i) => {
          expect(distance(pointAt(h.primitive, h.t0), vertices[h.from]!)).toBeLessThan(5 * TOLERANCE);
          expect(distance(pointAt(h.primitive, h.t1), vertices[h.to]!)).toBeLessThan(5 * TOLERANCE);
          const back = halves[h.twin]!;
          expect([back.twin, back.t0, back.t1, back.from, back.to]).toEqual([i, h.t1, h.t0, h.to, h.from]);
        });
        for (const walk of walks)
          walk.forEach((h, k) => expect(halves[h]!.to).toBe(halves[walk[(k + 1) % walk.length]!]!.from));
        // Walked round, all that is inside is outside of the whole.
        expect(areas({ halves, vertices, walks, openEnds: [] }).reduce((a, b) => a + b, 0)).toBeCloseTo(0, 4);
      }),
      { numRuns: 30, seed: 4 },
    );
  });
});

describe('lettering', () => {
  const text = (letters: string) => primitivesOfCurve({ points: { a: [0, 0], b: [12 * letters.length, 0] }, curves: {}, constraints: {} }, 't', { kind: 'text', from: 'a', to: 'b', text: letters }); // prettier-ignore

  test('is cut only where its pieces follow each other: as many pieces as it was drawn with', () => {
    const found = of(text('B8@g'));
    const drawn = letteringContours('B8@g', [0, 0], [48, 0]).flat().length;
    expect([edges(found), found.vertices.length, found.openEnds]).toEqual([drawn, drawn, []]);
  });

  test('pieces of one lettering that share no end cut each other like any', () => {
    const crossing: Vec2[] = [[0, 0], [8, 8], [8, 0], [0, 8]]; // prettier-ignore
    const bow = crossing.map(([x, y], i) => line(x, y, ...crossing[(i + 1) % 4]!, 't_0'));
    const found = of(bow);
    expect(found.vertices).toContainEqual([4, 4]);
    expect(areas(found).filter((a) => a > 0)).toEqual(near([16, 16]));
  });

  test('a line across a letter cuts it', () => {
    const [whole, cut] = [of(text('I')), of(text('I'), line(-20, 3, 40, 3))];
    expect(edges(cut)).toBe(edges(whole) + 2 + 3);
    expect(cut.openEnds).toHaveLength(2);
  });
});
