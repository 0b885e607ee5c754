import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { LOOKS, PAPER_KEYS, paperSize, type Look, type Sheet } from '../document/sheet.ts';
import { cross, dot } from '../space/vector.ts';
import { layOut, MARGINS, standsAt, TITLE_BLOCK } from './layout.ts';
import { frameOfLook } from './looks.ts';
import type { Flat4 } from './piece-places.ts';

const sheetOf = (looks: readonly Look[], more: Partial<Sheet> = {}): Sheet => ({
  name: 'Sheet', of: { part: 'p' }, paper: 'A3', angle: 'third', front: 'front', sizes: {}, fields: {},
  views: Object.fromEntries(looks.map((look) => [look, { look }])), viewOrder: [...looks], ...more,
}); // prettier-ignore

/** What a box of these sizes shows from each side. */
function boxesOf([x, y, z]: readonly [number, number, number], looks: readonly Look[]): Map<string, Flat4> {
  const half = [x / 2, y / 2, z / 2];
  return new Map(
    looks.map((look) => {
      const frame = frameOfLook('front', look);
      const [w, h] = [frame.x, frame.y].map((d) => d.reduce((sum, c, i) => sum + Math.abs(c) * half[i]!, 0));
      return [look, [-w!, -h!, w!, h!] as const];
    }),
  );
}

describe('where views stand', () => {
  test('what is seen from the right stands right in third-angle projection, left in first; above and below likewise', () => {
    expect([standsAt('third', 'right'), standsAt('first', 'right')]).toEqual([[1, 0], [-1, 0]]); // prettier-ignore
    expect([standsAt('third', 'top'), standsAt('first', 'top')]).toEqual([[0, 1], [0, -1]]); // prettier-ignore
  });

  test('every look is a right-handed frame; the top view of any front looks down on it', () => {
    for (const front of LOOKS.filter((l) => l !== 'oblique'))
      for (const look of LOOKS) {
        const { x, y, normal } = frameOfLook(front, look);
        const off = cross(x, y).map((c, i) => Math.abs(c - normal[i]!));
        expect(Math.max(...off)).toBeLessThan(1e-12);
        expect(dot(frameOfLook(front, 'top').normal, frameOfLook(front, 'front').y)).toBe(1);
      }
  });

  test('at the largest scale that has room nothing overlaps, all lies on the paper, and views keep in line', () => {
    fc.assert(
      fc.property(
        fc.tuple(fc.double({ min: 1, max: 2000, noNaN: true }), fc.double({ min: 1, max: 2000, noNaN: true }), fc.double({ min: 1, max: 2000, noNaN: true })),
        fc.subarray([...LOOKS], { minLength: 1 }),
        fc.constantFrom(...PAPER_KEYS),
        fc.constantFrom('first' as const, 'third' as const),
        (size, looks, paper, angle) => {
          const sheet = sheetOf(looks, { paper, angle });
          const boxes = boxesOf(size, looks);
          const { scale, at, own, crowded } = layOut(sheet, boxes);
          if (crowded) return;
          const [width, height] = paperSize(sheet);
          const placed = looks.map((id): Flat4 => {
            const [on, truth] = own.get(id) ?? scale;
            const [w, h] = [(boxes.get(id)![2] * on) / truth, (boxes.get(id)![3] * on) / truth];
            const [x, y] = at.get(id)!;
            return [x - w, y - h, x + w, y + h];
          });
          const block: Flat4 = [width - MARGINS.other - TITLE_BLOCK[0], MARGINS.other, width - MARGINS.other, MARGINS.other + TITLE_BLOCK[1]];
          const all = [...placed, block];
          all.forEach((a, i) => all.slice(i + 1).forEach((b) => expect(a[0] < b[2] && a[2] > b[0] && a[1] < b[3] && a[3] > b[1]).toBe(false)));
          for (const [x0, y0, x1, y1] of placed) expect(x0 >= MARGINS.left && y0 >= MARGINS.other && x1 <= width - MARGINS.other && y1 <= height - MARGINS.other).toBe(true);
          for (const [one, other, axis] of [['front', 'right', 1], ['front', 'left', 1], ['front', 'top', 0], ['front', 'bottom', 0]] as const)
            if (at.has(one) && at.has(other)) expect(at.get(one)![axis]).toBeCloseTo(at.get(other)![axis], 9);
        },
      ),
      { numRuns: 300 },
    );
  }); // prettier-ignore

  test('moved, the front takes all in line along; another keeps its row or column', () => {
    const looks = ['front', 'top', 'right'] as const;
    const boxes = boxesOf([60, 40, 30], looks);
    const before = layOut(sheetOf(looks), boxes).at;
    const views = { front: { look: 'front', shift: [5, 3] }, top: { look: 'top', shift: [9, 2] }, right: { look: 'right' } } as const; // prettier-ignore
    const after = layOut(sheetOf(looks, { views: views as never }), boxes).at;
    const moved = looks.map((l) => after.get(l)!.map((c, i) => Math.round((c - before.get(l)![i]!) * 1e6) / 1e6));
    expect(moved).toEqual([[5, 3], [5, 5], [5, 3]]); // prettier-ignore
  });
});
