import { beforeAll, describe, expect, test } from '@jest/globals';
import { DATUM_FRAMES, findRegions, type Curve, type SketchGeometry } from '@helb/core';
import type { OcctKernel } from './occt-kernel.ts';
import { loadKernel } from './load.ts';

let kernel: OcctKernel;
beforeAll(async () => {
  kernel = await loadKernel();
});

/** Volume of the sketch's regions pushed by 2 mm, region by region. */
function push(
  points: SketchGeometry['points'],
  curves: Record<string, Curve>,
): { volume: number; area: number; faces: number; valid: boolean }[] {
  return findRegions({ points, curves, constraints: {} }).regions.map(({ loops, area }) => {
    const { solid } = kernel.extrude(DATUM_FRAMES.floor, loops, 0, 2);
    const found = {
      volume: kernel.bulk(solid).volume,
      area,
      faces: kernel.faces(solid).length,
      valid: kernel.isValid(solid),
    };
    kernel.free(solid);
    return found;
  });
}

describe('solids from ellipses, splines and lettering', () => {
  const line = (from: string, to: string): Curve => ({ kind: 'line', from, to });

  test.each([
    ['lying', [10, 0], 6],
    ['standing, its second axis the longer', [4, 0], 9],
    ['turned', [6, 8], 3],
  ] as const)('an ellipse %s has a volume of πab times its height', (_, m, minor) => {
    const [found] = push(
      { c: [3, 2], m: [3 + m[0], 2 + m[1]] },
      { e: { kind: 'ellipse', center: 'c', major: 'm', minor } },
    );
    expect(found!.volume).toBeCloseTo(2 * Math.PI * Math.hypot(...m) * minor, 5);
    expect(found!.valid).toBe(true);
    expect(found!.faces).toBe(3);
  });

  test('halves of ellipses, cut by a slanting line, either way round', () => {
    for (const minor of [4, 15]) {
      const found = push(
        { c: [0, 0], m: [10, 5], a: [-30, -9], b: [30, 9] },
        { e: { kind: 'ellipse', center: 'c', major: 'm', minor }, l: line('a', 'b') },
      );
      expect(found).toHaveLength(2);
      for (const f of found) {
        expect(f.volume).toBeCloseTo(Math.PI * Math.hypot(10, 5) * minor, 4);
        expect(f.valid).toBe(true);
      }
    }
  });

  test('an elliptical arc closed by its chord', () => {
    const [f] = push(
      { c: [0, 0], m: [10, 0], p: [10, 0], q: [0, 6] },
      { e: { kind: 'elliptical_arc', center: 'c', major: 'm', minor: 6, from: 'p', to: 'q' }, l: line('q', 'p') },
    );
    expect(f!.volume).toBeCloseTo(2 * ((60 * Math.PI) / 4 - 30), 5);
  });

  test('a spline closed by a line is one side face, whichever way it is walked', () => {
    for (const points of [
      ['a', 'b', 'c', 'd'],
      ['d', 'c', 'b', 'a'],
    ]) {
      const [f] = push(
        { a: [0, 0], b: [0, 10], c: [10, 10], d: [10, 0] },
        { s: { kind: 'spline', fit: 'control', points }, l: line('d', 'a') },
      );
      expect(f!.volume).toBeCloseTo(120, 6);
      expect(f!.faces).toBe(4);
      expect(f!.valid).toBe(true);
    }
  });

  test('a spline through points, cut in the middle by a line', () => {
    const found = push(
      { a: [0, 0], b: [10, 9], c: [20, 2], d: [30, 8], e: [40, 0], u: [17, -5], v: [23, 30] },
      {
        s: { kind: 'spline', fit: 'through', points: ['a', 'b', 'c', 'd', 'e'] },
        l: line('a', 'e'),
        m: line('u', 'v'),
      },
    );
    expect(found).toHaveLength(2);
    for (const f of found) expect(Math.abs(f.volume / (f.area * 2) - 1)).toBeLessThan(1e-6);
  });

  test('lettering with holes', () => {
    const found = push({ a: [0, 0], b: [60, 10] }, { t: { kind: 'text', from: 'a', to: 'b', text: 'Bä8%' } });
    expect(found.length).toBeGreaterThan(8);
    for (const f of found) {
      expect(f.volume).toBeCloseTo(f.area * 2, 4);
      expect(f.valid).toBe(true);
    }
  });
});
