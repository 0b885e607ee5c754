import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { SketchDrag } from './drag.ts';
import { measureDimension } from './edit/measure.ts';
import { numbersIn, perturbed, repeatable, SAMPLE_FAMILIES } from './sample-families.ts';
import { isDimension, type SketchGeometry } from './schema.ts';
import { Senses } from './senses.ts';
import { solvePositions, solveSketch } from './solve.ts';
import { sketchSize } from './settle.ts';
import { buildSystem } from './system.ts';

const STARTS = 60;
/** About the size of one thing drawn in these families, mm. */
const PART = 10;

describe.each(Object.entries(SAMPLE_FAMILIES))('%s', (_, { make, each }) => {
  const sketch = make(Math.max(1, Math.round(40 / each)));
  const number = numbersIn(sketch);
  const base = solveSketch(sketch, number);

  test('is solved, with nothing said twice', () => {
    expect(base.solved).toBe(true);
    expect(base.redundant).toEqual([]);
  });

  test('is found again from perturbed starts, and stays put when solved again', () => {
    const random = repeatable(3);
    for (let i = 0; i < STARTS; i++) {
      const found = solvePositions(perturbed(base.geometry, 0.2 * PART, random), number);
      expect(found).not.toBeNull();
      const again = solvePositions(found!, number)!;
      for (const [id, [x, y]] of Object.entries(found!.points)) {
        expect(again.points[id]![0]).toBeCloseTo(x, 6);
        expect(again.points[id]![1]).toBeCloseTo(y, 6);
      }
    }
  });

  test('is found from a drawing off by a fifth of the whole', () => {
    const random = repeatable(4);
    const far = 0.2 * sketchSize(base.geometry);
    for (let i = 0; i < STARTS / 3; i++)
      expect(solvePositions(perturbed(base.geometry, far, random), number)).not.toBeNull();
  });

  test('a dimension made half to twice as large flips nothing', () => {
    const random = repeatable(8);
    const dimensions = Object.keys(sketch.constraints).filter((id) => isDimension(sketch.constraints[id]!));
    let [possible, kept] = [0, 0];
    for (let i = 0; i < STARTS; i++) {
      const id = dimensions[Math.floor(random() * dimensions.length)]!;
      const factor = 0.5 * 4 ** random();
      const value = (k: string) => number(k) * (k === id ? factor : 1);
      const found = solvePositions(base.geometry, value);
      if (!found) continue;
      possible++;
      const senses = new Senses(base.geometry, buildSystem(base.geometry, number));
      const read = (g: SketchGeometry) => senses.read(buildSystem(g, value).values);
      if (!senses.flipped(read(base.geometry), read(found))) kept++;
    }
    expect(possible).toBeGreaterThan(STARTS / 3);
    expect(kept / possible).toBeGreaterThanOrEqual(0.98);
  });

  test('dragged anywhere with one dimension let go, all others hold', () => {
    const [free] = Object.keys(sketch.constraints).filter((id) => isDimension(sketch.constraints[id]!));
    const { [free!]: _free, ...rest } = base.geometry.constraints;
    const loose = { ...base.geometry, constraints: rest };
    const grabbed = [...solveSketch(loose, number).loose].find((id) => id in loose.points);
    if (!grabbed) return;
    const from = loose.points[grabbed]!;
    const drag = new SketchDrag(loose, number, grabbed, from);
    const coordinate = fc.double({ min: -30, max: 30, noNaN: true });
    fc.assert(
      fc.property(coordinate, coordinate, (dx, dy) => {
        const now = drag.moveTo([from[0] + dx, from[1] + dy]);
        for (const [id, c] of Object.entries(rest)) {
          if (isDimension(c)) expect(measureDimension(now, c)).toBeCloseTo(number(id), 6);
        }
      }),
      { numRuns: 25 },
    );
  });
});

describe('dragging keeps sides', () => {
  test('a leap of the pointer does not flip what is not held', () => {
    // A flap on a bar: dragging the bar far away must leave the flap on its side.
    const s: SketchGeometry = {
      points: { a: [0, 0], b: [20, 0], c: [10, 8] },
      curves: {
        ab: { kind: 'line', from: 'a', to: 'b' },
        bc: { kind: 'line', from: 'b', to: 'c' },
        ca: { kind: 'line', from: 'c', to: 'a' },
      },
      constraints: {
        d1: { kind: 'distance', of: ['ab'], value: '20' },
        d2: { kind: 'distance', of: ['bc'], value: String(Math.hypot(10, 8)) },
        d3: { kind: 'distance', of: ['ca'], value: String(Math.hypot(10, 8)) },
        f: { kind: 'fixed', of: ['a'] },
      },
    };
    const drag = new SketchDrag(s, numbersIn(s), 'b', [20, 0]);
    const now = drag.moveTo([-20, 1]);
    const [a, b, c] = ['a', 'b', 'c'].map((id) => now.points[id]!);
    const turn = (b![0] - a![0]) * (c![1] - a![1]) - (b![1] - a![1]) * (c![0] - a![0]);
    expect(b![0]).toBeLessThan(-15);
    expect(turn).toBeGreaterThan(0);
  });

  test('a large change of size leaves a triangle the way it was drawn', () => {
    const s: SketchGeometry = {
      points: { a: [0, 0], b: [30, 0], c: [10, 12] },
      curves: {
        ab: { kind: 'line', from: 'a', to: 'b' },
        bc: { kind: 'line', from: 'b', to: 'c' },
        ca: { kind: 'line', from: 'c', to: 'a' },
      },
      constraints: {
        f: { kind: 'fixed', of: ['a'] },
        h: { kind: 'horizontal', of: ['ab'] },
        d1: { kind: 'distance', of: ['ab'], value: '30' },
        d2: { kind: 'distance', of: ['bc'], value: '70' },
        d3: { kind: 'distance', of: ['ca'], value: '60' },
      },
    };
    const { geometry, solved } = solveSketch(s, numbersIn(s));
    expect(solved).toBe(true);
    expect(geometry.points.b![0]).toBeGreaterThan(0);
    expect(geometry.points.c![1]).toBeGreaterThan(0);
  });
});
