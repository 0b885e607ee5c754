/** Balloons round a view: each number once, none over another, at whatever the parts are. */
import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import type { Vec2 } from '../sketch/curves/spline.ts';
import { balloonsRound, listedRows, MOST_LISTED, partOfBalloon, partsTable } from './balloons.ts';
import type { ListedPart } from './listed-part.ts';
import { ISSUE_ROW } from './layout.ts';
import type { PlacedView } from './placed.ts';

const row = (part: string, count = 1): ListedPart => ({ part, name: `Part ${part}`, count, material: 'steel', each: 0.25 }); // prettier-ignore
const view: PlacedView = {
  id: 'v',
  at: [100, 100],
  by: 0.5,
  move: [100, 100],
  box: [60, 70, 140, 130],
  broken: null,
  items: [],
};

describe('balloons', () => {
  test('stand round the view, apart from each other, and bear the number of their row', () => {
    const anchor = fc.tuple(fc.integer({ min: -80, max: 80 }), fc.integer({ min: -60, max: 60 }));
    fc.assert(
      fc.property(fc.array(anchor, { minLength: 1, maxLength: 25 }), (anchors) => {
        const rows = anchors.map((_, i) => row(`p${i}`));
        const placed = balloonsRound(view, rows, new Map(anchors.map((a, i) => [`p${i}`, a])), {});
        expect(new Set(placed.map((b) => partOfBalloon(b.id)))).toEqual(new Set(rows.map((r) => r.part)));
        for (const [i, one] of placed.entries()) {
          const [x, y] = one.place;
          expect(x <= 60 - 4.5 || x >= 140 + 4.5 || y <= 70 - 4.5 || y >= 130 + 4.5).toBe(true);
          for (const other of placed.slice(i + 1))
            expect(Math.hypot(x - other.place[0], y - other.place[1])).toBeGreaterThan(9);
          const text = one.items.find((item) => item.is === 'text');
          expect(text).toMatchObject({ text: String(rows.findIndex((r) => r.part === partOfBalloon(one.id)) + 1) });
        }
      }),
    );
  });

  test('a moved one stays where it was put; a part that is not seen has none', () => {
    const placed = balloonsRound(view, [row('a'), row('b')], new Map<string, Vec2>([['a', [0, 0]]]), { a: [3, 4] });
    expect(placed.map((b) => [b.id, b.place])).toEqual([['balloon a', [103, 104]]]);
  });

  test('the list has a row for each part; what has no room is told', () => {
    const texts = (rows: readonly ListedPart[]) => partsTable(rows, [0, 0]).flatMap((i) => (i.is === 'text' ? [i.text] : [])); // prettier-ignore
    expect(texts([row('a', 4)])).toEqual(['No.', 'Count', 'Part', 'Material', 'kg each', '1', '4', 'Part a', 'steel', '0.250']); // prettier-ignore
    const many = Array.from({ length: MOST_LISTED + 3 }, (_, i) => row(`p${i}`));
    expect(texts(many)).toContain('and 3 parts more');
    const top = Math.max(...partsTable(many, [0, 0]).flatMap((i) => (i.is === 'curve' ? i.piece.points.map((p) => p[1]) : []))); // prettier-ignore
    expect(top).toBe(listedRows(many) * ISSUE_ROW);
  });
});
