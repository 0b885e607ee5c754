/** Areas taken apart, summed, grown and kept apart, against closed form and against each other. */
import { describe, expect, test } from '@jest/globals';
import { Clipper, FillRule, type Path64 } from 'clipper2-ts';
import fc from 'fast-check';
import type { Vec2 } from '../../sketch/curves/spline.ts';
import { convexParts, convexSum } from './convex.ts';
import { boxOf, GRID, grown, noFit, onGrid, shifted, simplified, sizeOf, summandOf, turned, type Area } from './polygon.ts'; // prettier-ignore

const rectangle = (w: number, h: number, x = 0, y = 0): Vec2[] => [[x, y], [x + w, y], [x + w, y + h], [x, y + h]]; // prettier-ignore
const U: Vec2[] = [[0, 0], [110, 0], [110, 90], [80, 90], [80, 30], [30, 30], [30, 90], [0, 90]]; // prettier-ignore
const overlap = (a: Area, b: Area) => Math.abs(Clipper.areaPaths(Clipper.intersect(a, b, FillRule.NonZero)));
/** A star about the origin: any radii, so dented as may be. */
const star = fc.array(fc.integer({ min: 8, max: 60 }), { minLength: 3, maxLength: 12 }).map((radii) => radii.map((r, i): Vec2 => [r * Math.cos((2 * Math.PI * i) / radii.length), r * Math.sin((2 * Math.PI * i) / radii.length)])); // prettier-ignore
const isConvex = (path: Path64) =>
  path.every((b, i) => {
    const [a, c] = [path.at(i - 1)!, path[(i + 1) % path.length]!];
    return (b.x - a.x) * (c.y - b.y) - (b.y - a.y) * (c.x - b.x) >= 0;
  });

describe('an area taken apart', () => {
  test('any star, with a hole or without: convex parts that cover it and nothing else', () => {
    fc.assert(
      fc.property(star, fc.boolean(), (loop, holed) => {
        const area = onGrid(holed ? [loop, rectangle(4, 4, -2, -2)] : [loop]);
        const parts = convexParts(area);
        if (!parts) return;
        expect(parts.every(isConvex)).toBe(true);
        const covered = parts.reduce((sum, p) => sum + Clipper.area(p), 0);
        expect(Math.abs(covered - sizeOf(area)) / sizeOf(area)).toBeLessThan(1e-6);
      }),
    );
  });

  test('a rectangle is one part, a U three', () => {
    expect(convexParts(onGrid([rectangle(40, 30)]))).toHaveLength(1);
    expect(convexParts(onGrid([U]))).toHaveLength(3);
  });

  test('two rectangles sum to one as wide and high as both', () => {
    const [a, b] = [onGrid([rectangle(40, 30)]), onGrid([rectangle(10, 5)])];
    const sum = convexSum(a[0]!, b[0]!);
    expect([boxOf([sum]), Clipper.area(sum)]).toEqual([[0, 0, 50 * GRID, 35 * GRID], 50 * 35 * GRID ** 2]);
  });
});

describe('where a piece may not stand', () => {
  const kept = (fixed: Area, moving: Area, gap = 0) => noFit(summandOf(fixed), summandOf(moving), gap);

  test('beside a rectangle: less than both are wide and high, and the gap', () => {
    const box = boxOf(kept(onGrid([rectangle(40, 30)]), onGrid([rectangle(10, 5)]), 2 * GRID));
    const [low, high] = [[-12, -7], [42, 32]]; // prettier-ignore
    [...low!, ...high!].forEach((mm, i) => expect(Math.abs(box[i]! - mm * GRID)).toBeLessThan(0.2 * GRID));
  });

  test('not in the slot of a U, if it is as narrow as that; nor in a hole that has room', () => {
    const free = (area: Area, x: number, y: number) => Clipper.union(area, FillRule.NonZero).reduce((n, path) => n + Number(inside(path, x * GRID, y * GRID)) * Math.sign(Clipper.area(path)), 0) === 0; // prettier-ignore
    const slim = kept(onGrid([U]), onGrid([rectangle(40, 50)]));
    expect([free(slim, 35, 40), free(slim, 10, 40)]).toEqual([true, false]);
    expect(free(kept(onGrid([U]), onGrid([rectangle(52, 50)])), 29, 40)).toBe(false);
    const frame = onGrid([rectangle(100, 100), rectangle(60, 60, 20, 20)]);
    expect(free(kept(frame, onGrid([rectangle(50, 50)])), 25, 25)).toBe(true);
    expect(free(kept(frame, onGrid([rectangle(61, 50)])), 25, 25)).toBe(false);
  });

  test('any two stars: at its corners they touch and no more, the gap kept', () => {
    fc.assert(
      fc.property(star, star, fc.integer({ min: 0, max: 4 }), (one, other, mm) => {
        const [fixed, moving] = [onGrid([one]), onGrid([other])];
        const wide = grown(fixed, mm * GRID - 10, 2);
        for (const path of kept(fixed, moving, mm * GRID))
          for (const { x, y } of path.slice(0, 12)) expect(overlap(wide, shifted(moving, x, y)) / GRID ** 2).toBeLessThan(1e-3); // prettier-ignore
      }),
      { numRuns: 25 },
    );
  });
});

describe('areas', () => {
  test('fewer corners cover what there was', () => {
    const circle = Array.from({ length: 300 }, (_, i): Vec2 => [50 * Math.cos((i * Math.PI) / 150), 50 * Math.sin((i * Math.PI) / 150)]); // prettier-ignore
    const area = onGrid([circle, rectangle(20, 20, -10, -10)]);
    const fewer = simplified(area, 40);
    expect(fewer.flat().length).toBeLessThanOrEqual(40);
    expect(Math.abs(Clipper.areaPaths(Clipper.difference(area, fewer, FillRule.NonZero)))).toBe(0);
    expect(sizeOf(fewer) / sizeOf(area)).toBeLessThan(1.06);
  });

  test('turned by quarters four times they are as they were; an outline runs left, a hole right round', () => {
    const area = onGrid([[...U].reverse(), rectangle(10, 10, 5, 5)]);
    expect([0, 1, 2, 3].reduce((a) => turned(a, 90), area)).toEqual(area);
    expect(area.map((path) => Clipper.isPositive(path))).toEqual([true, false]);
    expect(sizeOf(area)).toBe((110 * 90 - 50 * 60 - 100) * GRID ** 2);
  });
});

function inside(path: Path64, x: number, y: number): boolean {
  let is = false;
  path.forEach((a, i) => {
    const b = path[(i + 1) % path.length]!;
    if (a.y > y !== b.y > y && x < ((b.x - a.x) * (y - a.y)) / (b.y - a.y) + a.x) is = !is;
  });
  return is;
}
