import { describe, expect, test } from '@jest/globals';
import { findRegions } from '../sketch/regions/regions.ts';
import { takeIn } from '../sketch/change/take-in.ts';
import type { SketchGeometry } from '../sketch/schema.ts';
import { solveSketch } from '../sketch/solve.ts';
import { readDxf } from './dxf-read.ts';

/** Group codes and values in turn, as the format has them. */
const dxf = (entities: string, units = 4) =>
  `0\nSECTION\n2\nHEADER\n9\n$INSUNITS\n70\n${units}\n0\nENDSEC\n0\nSECTION\n2\nENTITIES\n${entities}0\nENDSEC\n0\nEOF\n`;
const group = (...pairs: (string | number)[]) => pairs.map((p) => `${p}\n`).join('');
const line = (x0: number, y0: number, x1: number, y1: number, layer = 'cut') =>
  group(0, 'LINE', 8, layer, 10, x0, 20, y0, 11, x1, 21, y1);

function sketchOf(text: string, layers?: string[], join = 0.01): { sketch: SketchGeometry; joined: number } {
  const drawing = readDxf(text);
  const sketch: SketchGeometry = { points: {}, curves: {}, constraints: {} };
  const pieces = drawing.layers.filter((l) => !layers || layers.includes(l.name)).flatMap((l) => l.pieces);
  const joined = takeIn(sketch, pieces, { scale: drawing.unit ?? 1, join });
  return { sketch, joined };
}

describe('reading DXF', () => {
  test('lines whose ends nearly meet close into a region', () => {
    const text = dxf(line(0, 0, 40, 0) + line(40, 0.004, 40, 20) + line(40, 20, 0, 20) + line(0, 20, 0, 0.003));
    const { sketch, joined } = sketchOf(text);
    expect(joined).toBe(2);
    expect(findRegions(sketch).regions[0]!.area).toBeCloseTo(800, 0);
    expect(findRegions(sketchOf(text, undefined, 0).sketch).regions).toEqual([]);
  });

  test('units are the file’s own', () => {
    const { sketch } = sketchOf(dxf(line(0, 0, 2, 0), 1));
    expect(Object.values(sketch.points).map((p) => p[0])).toEqual([0, expect.closeTo(50.8, 9)]);
    expect(readDxf(dxf(line(0, 0, 2, 0), 0)).unit).toBeNull();
  });

  test('circles, arcs, ellipses', () => {
    const text = dxf(
      group(0, 'CIRCLE', 8, 'cut', 10, 5, 20, 6, 40, 3) +
        group(0, 'ARC', 8, 'cut', 10, 30, 20, 0, 40, 10, 50, 0, 51, 180) +
        line(20, 0, 40, 0) +
        group(0, 'ELLIPSE', 8, 'cut', 10, 80, 20, 0, 11, 10, 21, 0, 40, 0.5, 41, 0, 42, 6.283185307179586),
    );
    const areas = findRegions(sketchOf(text).sketch)
      .regions.map((r) => r.area)
      .sort((a, b) => a - b);
    expect(areas).toEqual([
      expect.closeTo(9 * Math.PI, 6),
      expect.closeTo(50 * Math.PI, 6),
      expect.closeTo(50 * Math.PI, 6),
    ]);
  });

  test('a closed polyline with bulges is a slot', () => {
    const text = dxf(
      group(
        0,
        'LWPOLYLINE',
        8,
        'cut',
        90,
        4,
        70,
        1,
        10,
        0,
        20,
        -5,
        10,
        30,
        20,
        -5,
        42,
        1,
        10,
        30,
        20,
        5,
        10,
        0,
        20,
        5,
        42,
        1,
      ),
    );
    const { sketch } = sketchOf(text);
    expect(findRegions(sketch).regions[0]!.area).toBeCloseTo(300 + 25 * Math.PI, 6);
    expect(solveSketch(sketch, () => 0).solved).toBe(true);
  });

  test('a cubic spline keeps its exact shape', () => {
    const text = dxf(
      group(
        0,
        'SPLINE',
        8,
        'cut',
        70,
        8,
        71,
        3,
        72,
        8,
        73,
        4,
        74,
        0,
        40,
        0,
        40,
        0,
        40,
        0,
        40,
        0,
        40,
        1,
        40,
        1,
        40,
        1,
        40,
        1,
        10,
        0,
        20,
        0,
        10,
        0,
        20,
        10,
        10,
        10,
        20,
        10,
        10,
        10,
        20,
        0,
      ) + line(10, 0, 0, 0),
    );
    expect(findRegions(sketchOf(text).sketch).regions[0]!.area).toBeCloseTo(60, 6);
  });

  test('layers are kept apart, what is not read is counted', () => {
    const drawing = readDxf(
      dxf(line(0, 0, 1, 0, 'a') + line(0, 1, 1, 1, 'b') + group(0, 'TEXT', 8, 'b', 10, 0, 20, 0, 40, 2, 1, 'hello')),
    );
    expect(drawing.layers.map((l) => [l.name, l.pieces.length])).toEqual([['a', 1], ['b', 1]]); // prettier-ignore
    expect(drawing.skipped).toBe(1);
  });

  test.each(['', 'hello', '0\nSECTION\n', '{"a":1}', '\0\0\0\u{1}binary'])(
    'what is no drawing is refused in words: %j',
    (text) => {
      expect(() => readDxf(text)).toThrow(/DXF/);
    },
  );
});
