/** Pieces laid on boards: none over another, all on the board, as many as were asked for. */
import { describe, expect, test } from '@jest/globals';
import { Clipper, FillRule } from 'clipper2-ts';
import fc from 'fast-check';
import type { Vec2 } from '../../sketch/curves/spline.ts';
import { placeAt } from '../place-drawing.ts';
import { Nesting, type Nest, type NestAsk, type NestPiece } from './nest.ts';
import { boxOf, GRID, grown, onGrid, type Box } from './polygon.ts';

function nested(ask: NestAsk, times = 1): Nest {
  const nesting = new Nesting(ask);
  for (let i = 0; i < times; i++) {
    const work = nesting.once();
    while (!work.next().done);
  }
  return nesting.found!;
}

const meet = (a: Box, b: Box) => a[0] < b[2] && b[0] < a[2] && a[1] < b[3] && b[1] < a[3];

/** mm² in which a piece grown by the gap lies over another, or beyond the board, at worst. */
function worstOverlap({ pieces, board: [w, h], gap, margin }: NestAsk, { laid }: Nest): number {
  const areas = laid.map((lie) => {
    const loops = pieces.find((p) => p.id === lie.piece)!.loops.map((loop) => loop.map(placeAt(lie)));
    const area = onGrid(loops);
    // As narrow as chords can be: corners of wider ones stand further out than the gap.
    const wide = grown(area, Math.max(0, gap * GRID - 20), 2);
    return { lie, area, wide, box: boxOf(wide) };
  });
  const inner = onGrid([[[margin, margin], [w - margin, margin], [w - margin, h - margin], [margin, h - margin]]]); // prettier-ignore
  let worst = 0;
  for (const [i, one] of areas.entries()) {
    worst = Math.max(worst, Math.abs(Clipper.areaPaths(Clipper.difference(one.area, inner, FillRule.NonZero))));
    for (const other of areas.slice(i + 1))
      if (one.lie.board === other.lie.board && meet(one.box, other.box))
        worst = Math.max(worst, Math.abs(Clipper.areaPaths(Clipper.intersect(one.wide, other.area, FillRule.NonZero))));
  }
  return worst / GRID ** 2;
}

const L: Vec2[] = [[0, 0], [120, 0], [120, 40], [40, 40], [40, 120], [0, 120]]; // prettier-ignore
const TRIANGLE: Vec2[] = [
  [0, 0],
  [100, 0],
  [0, 80],
];
const U: Vec2[] = [[0, 0], [110, 0], [110, 90], [80, 90], [80, 30], [30, 30], [30, 90], [0, 90]]; // prettier-ignore
const HEXAGON = Array.from({ length: 6 }, (_, i): Vec2 => [40 * Math.cos((i * Math.PI) / 3), 40 * Math.sin((i * Math.PI) / 3)]); // prettier-ignore
const piece = (id: string, count: number, ...loops: Vec2[][]): NestPiece => ({ id, count, loops });
const plain = { gap: 2, margin: 5, turns: 'quarter', boards: 9 } as const;

describe('laying pieces on boards', () => {
  test('two hundred pieces of four shapes fill three quarters of a strip', () => {
    const ask: NestAsk = { pieces: [L, TRIANGLE, U, HEXAGON].map((shape, i) => piece(`p${i}`, 50, shape)), board: [1500, 9000], boards: 1, gap: 2, margin: 0, turns: 'quarter' }; // prettier-ignore
    const nest = nested(ask);
    expect(nest.laid).toHaveLength(200);
    const area = 50 * (8000 + 4000 + 6900 + 1.5 * Math.sqrt(3) * 40 ** 2);
    expect(area / (1500 * nest.used[0]!)).toBeGreaterThan(0.75);
    expect(worstOverlap(ask, nest)).toBeLessThan(1e-3);
  });

  test('two triangles close to a rectangle, one turned by half', () => {
    const ask: NestAsk = {
      ...plain,
      gap: 0,
      margin: 0,
      boards: 1,
      board: [101, 81],
      pieces: [piece('t', 2, TRIANGLE)],
    };
    const { laid, left } = nested(ask);
    expect(left.size).toBe(0);
    expect(Math.abs(laid[0]!.turn - laid[1]!.turn)).toBe(180);
  });

  test('what is small lies in the hole of what is large', () => {
    const frame = piece('frame', 1, [[0, 0], [200, 0], [200, 200], [0, 200]], [[20, 20], [180, 20], [180, 180], [20, 180]]); // prettier-ignore
    const ask: NestAsk = { ...plain, board: [212, 212], pieces: [frame, piece('l', 1, L)] };
    const nest = nested(ask);
    expect(nest.used).toHaveLength(1);
    expect(worstOverlap(ask, nest)).toBe(0);
  });

  test('with the grain kept nothing is turned, and what is too large for a board is told', () => {
    const long: Vec2[] = [[0, 0], [300, 0], [300, 20], [0, 20]]; // prettier-ignore
    const upright = { ...plain, board: [120, 400] as const, pieces: [piece('long', 3, long), piece('t', 4, TRIANGLE)] };
    expect(nested({ ...upright, turns: 'none' }).left).toEqual(new Map([['long', 3]]));
    const turned = nested(upright);
    expect(turned.left.size).toBe(0);
    expect(turned.laid.filter((l) => l.piece === 'long').every((l) => l.turn % 180 === 90)).toBe(true);
  });

  test('no more boards are taken than there are', () => {
    const ask: NestAsk = { ...plain, boards: 2, board: [130, 130], pieces: [piece('l', 5, L)] };
    const { used, left } = nested(ask);
    expect([used.length, left.get('l')]).toEqual([2, 3]);
  });

  test('any pieces: all laid or left, none over another, and never worse for being tried more often', () => {
    const shape = fc.integer({ min: 3, max: 7 }).chain((n) =>
      fc.tuple(fc.array(fc.integer({ min: 15, max: 60 }), { minLength: n, maxLength: n }), fc.integer({ min: 1, max: 4 })).map(([radii, count]) => {
        const loop = radii.map((r, i): Vec2 => [r * Math.cos((2 * Math.PI * i) / n), r * Math.sin((2 * Math.PI * i) / n)]); // prettier-ignore
        return { loop, count };
      }),
    ); // prettier-ignore
    fc.assert(
      fc.property(
        fc.array(shape, { minLength: 1, maxLength: 3 }),
        fc.constantFrom('none', 'half', 'quarter', 'eighth'),
        fc.integer({ min: 0, max: 6 }),
        (shapes, turns, gap) => {
          const pieces = shapes.map(({ loop, count }, i) => piece(`p${i}`, count, loop));
          const ask: NestAsk = { pieces, board: [260, 180], boards: 50, gap, margin: 4, turns };
          const nest = nested(ask);
          for (const { id, count } of pieces)
            expect(nest.laid.filter((l) => l.piece === id).length + (nest.left.get(id) ?? 0)).toBe(count);
          expect(nest.left.size).toBe(0);
          expect(worstOverlap(ask, nest)).toBeLessThan(1e-3);
          const more = nested(ask, 4);
          expect(more.used.length).toBeLessThanOrEqual(nest.used.length);
          expect(worstOverlap(ask, more)).toBeLessThan(1e-3);
        },
      ),
      { numRuns: 12 },
    );
  });
});
