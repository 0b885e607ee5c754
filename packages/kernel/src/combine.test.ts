/** Bodies and tools that touch, lie in each other and share faces, against counted cubes. */
import { beforeAll, describe, expect, test } from '@jest/globals';
import type { BooleanKind, Frame, Loop, SolidHandle, Vec2 } from '@helb/core';
import fc from 'fast-check';
import { loadKernel, type OcctKernel } from './index.ts';

let kernel: OcctKernel;
beforeAll(async () => void (kernel = await loadKernel()));

/** Low corner and size, in whole cubes. */
type Box = readonly [x: number, y: number, z: number, w: number, d: number, h: number];
const [WIDE, DEEP, HIGH] = [4, 3, 2];
/** mm of an edge. */
const CUBE = 5;

function solid([x, y, z, w, d, h]: Box): SolidHandle {
  const frame: Frame = { origin: [0, 0, z * CUBE], x: [1, 0, 0], y: [0, 1, 0], normal: [0, 0, 1] };
  const corners = ([[x, y], [x + w, y], [x + w, y + d], [x, y + d]] as const).map(([u, v]): Vec2 => [u * CUBE, v * CUBE]); // prettier-ignore
  const pieces = corners.map((from, i) => ({ kind: 'line', from, to: corners[(i + 1) % 4]!, curve: `l${i}` }) as const);
  return kernel.extrude(frame, [{ pieces, area: w * d * CUBE ** 2 } as unknown as Loop], 0, h * CUBE).solid;
}

const cubesOf = ([x, y, z, w, d, h]: Box): string[] => {
  const along = (from: number, size: number) => Array.from({ length: size }, (_, i) => from + i);
  return along(x, w).flatMap((a) => along(y, d).flatMap((b) => along(z, h).map((c) => `${a} ${b} ${c}`)));
};

const boxIn = fc
  .tuple(
    fc.nat(WIDE - 1),
    fc.nat(DEEP - 1),
    fc.nat(HIGH - 1),
    fc.integer({ min: 1, max: WIDE }),
    fc.integer({ min: 1, max: DEEP }),
    fc.integer({ min: 1, max: HIGH }),
  ) // prettier-ignore
  .map(([x, y, z, w, d, h]): Box => [x, y, z, Math.min(w, WIDE - x), Math.min(d, DEEP - y), Math.min(h, HIGH - z)]);

/** Bodies of a part lie side by side; tools as they come. */
const scene = fc.record({
  targets: fc.array(boxIn, { minLength: 1, maxLength: 3 }).map((all) =>
    all.filter((box, i) => {
      const before = new Set(all.slice(0, i).flatMap(cubesOf));
      return cubesOf(box).every((c) => !before.has(c));
    }),
  ),
  tools: fc.array(boxIn, { minLength: 1, maxLength: 4 }),
});

function combined(kind: BooleanKind, targets: readonly Box[], tools: readonly Box[]) {
  const made = kernel.combine(kind, targets.map(solid), tools.map(solid));
  return made.map(({ solid: s, faces }) => ({
    cubes: kernel.bulk(s).volume / CUBE ** 3,
    of: new Set(faces.flat().map((p) => p.argument)),
  }));
}
const total = (made: readonly { cubes: number }[]) => made.reduce((sum, m) => sum + m.cubes, 0);

describe('bodies that touch', () => {
  test.each<[BooleanKind, (bodies: Set<string>, tools: Set<string>) => number]>([
    ['cut', (bodies, tools) => [...bodies].filter((c) => !tools.has(c)).length],
    ['common', (bodies, tools) => [...bodies].filter((c) => tools.has(c)).length],
    ['join', (bodies, tools) => new Set([...bodies, ...tools]).size],
  ])('%s: as many cubes as there should be', (kind, count) => {
    fc.assert(
      fc.property(scene, ({ targets, tools }) => {
        const expected = count(new Set(targets.flatMap(cubesOf)), new Set(tools.flatMap(cubesOf)));
        expect(total(combined(kind, targets, tools))).toBeCloseTo(expected, 6);
      }),
      { numRuns: 40 },
    );
  });

  test('cut at once, each stays what it was and loses only its own', () => {
    const made = combined('cut', [[0, 0, 0, 2, 3, 2], [2, 0, 0, 2, 3, 2]], [[3, 1, 0, 1, 1, 2]]); // prettier-ignore
    expect(made.map((m) => m.cubes)).toEqual([expect.closeTo(12, 6), expect.closeTo(10, 6)]);
    expect(made.map((m) => [m.of.has(0), m.of.has(1)])).toEqual([[true, false], [false, true]]); // prettier-ignore
  });
});
