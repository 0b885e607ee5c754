/** Where sizes stand that nobody placed: words on leaders in the order of what they name, and none over another. */
import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import type { SheetSize } from '../document/sheet.ts';
import type { Vec2 } from '../sketch/curves/spline.ts';
import { drawSize, widthOfText } from './draw-size.ts';
import type { Measured } from './measured.ts';
import { placeSizes, type ToPlace } from './place-sizes.ts';

const HEIGHT = 3.5;
const box = [-60, -30, 60, 30] as const;
const hole = (id: string, center: Vec2, text = 'Ø6'): ToPlace => {
  const measured: Measured = { is: 'diameter', center, radius: 3, value: 6, whole: true, true: true, run: [0, 2 * Math.PI], ends: null }; // prettier-ignore
  return { id, size: { kind: 'diameter', view: 'v', of: [] } as unknown as SheetSize, measured, text };
};

describe('words on leaders', () => {
  test('stand on the nearer of the right and the upper side', () => {
    const places = placeSizes([hole('right', [50, -20]), hole('top', [-40, 20])], box, HEIGHT);
    expect(places.get('right')![0]).toBeGreaterThan(60);
    expect(places.get('top')![1]).toBeGreaterThan(30);
    expect(Math.abs(places.get('top')![0] - -40)).toBeLessThan(15);
    // Above a section stands its letter.
    expect(placeSizes([hole('top', [-40, 20])], box, HEIGHT, false).get('top')![0]).toBeGreaterThan(60);
  });

  test('any holes: none over another, and in the order in which they lie', () => {
    const at = fc.tuple(fc.integer({ min: -58, max: 58 }), fc.integer({ min: -28, max: 28 }));
    fc.assert(
      fc.property(fc.uniqueArray(at, { minLength: 1, maxLength: 14, selector: (p) => p.join() }), fc.integer({ min: 1, max: 8 }), (holes, long) => {
        const all = holes.map((p, i) => hole(`h${i}`, p, `${i + 1}× Ø6 ${'X'.repeat(long)}`));
        const places = placeSizes(all, box, HEIGHT);
        const spots = all.map((s, i) => ({ at: holes[i]!, place: places.get(s.id)!, wide: widthOfText(s.text, HEIGHT) }));
        const up = spots.filter((s) => Math.abs(s.place[1] - (box[3] + 7)) < 1e-9);
        const right = spots.filter((s) => !up.includes(s));
        for (const s of right) expect(s.place[0] - s.wide / 2).toBeGreaterThan(box[2]);
        const inOrder = (own: typeof spots, k: 0 | 1, apart: (a: (typeof spots)[number], b: (typeof spots)[number]) => number) => {
          const sorted = [...own].sort((a, b) => a.at[k] - b.at[k]);
          sorted.slice(1).forEach((b, i) => {
            const a = sorted[i]!;
            if (a.at[k] < b.at[k]) expect(b.place[k] - a.place[k]).toBeGreaterThanOrEqual(apart(a, b) - 1e-9);
          });
        };
        inOrder(up, 0, (a, b) => (a.wide + b.wide) / 2);
        inOrder(right, 1, () => HEIGHT * 2);
      }),
      { numRuns: 60 },
    );
  }); // prettier-ignore
});

describe('angles', () => {
  const angle = (edges?: readonly [readonly [number, number], readonly [number, number]]): ToPlace => {
    const measured: Measured = { is: 'angle', apex: [0, 400], from: -Math.PI / 2 - 0.05, value: 0.1, true: true, ...(edges ? { edges } : {}) }; // prettier-ignore
    return { id: 'a', size: { kind: 'angle', view: 'v', of: [] } as unknown as SheetSize, measured, text: '5.7°' };
  };

  test('of edges that would meet far off stand just before these begin, on lines that lead there from their ends', () => {
    const far = angle([[370, 430], [372, 430]]); // prettier-ignore
    const place = placeSizes([far], box, HEIGHT).get('a')!;
    expect(place[0]).toBeCloseTo(0, 9);
    expect(400 - place[1]).toBeCloseTo(372 - 9, 9);
    // Above a section stands its letter.
    expect(400 - placeSizes([angle([[365, 430], [365, 430]])], box, HEIGHT, false).get('a')![1]).toBeLessThan(365 - 20); // prettier-ignore
    const lines = drawSize(far.measured, far.text, place, { height: HEIGHT, ordinate: false }).flatMap((i) => (i.is === 'curve' && i.piece.kind === 'line' ? [i.piece.points] : [])); // prettier-ignore
    expect(lines).toHaveLength(2);
    // Nothing is drawn from the far place where they would meet.
    for (const [p, q] of lines) for (const end of [p, q]) expect(Math.hypot(end[0], end[1] - 400)).toBeGreaterThan(350);
  });

  test('at a corner stand near it, where the edges themselves carry them', () => {
    const near = angle([[0, 60], [0, 60]]); // prettier-ignore
    const place = placeSizes([near], box, HEIGHT).get('a')!;
    expect(400 - place[1]).toBeLessThan(25);
    const lines = drawSize(near.measured, near.text, place, { height: HEIGHT, ordinate: false }).filter((i) => i.is === 'curve' && i.piece.kind === 'line'); // prettier-ignore
    expect(lines).toHaveLength(0);
  });
});
