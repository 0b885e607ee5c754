import { emptyDesign, emptyPart, inspectDesign, type Design, type Step } from '@helb/core';
import { beforeAll, describe, expect, test } from '@jest/globals';
import { loadKernel } from './load.ts';
import type { OcctKernel } from './occt-kernel.ts';

let kernel: OcctKernel;
beforeAll(async () => {
  kernel = await loadKernel();
});

const WIDTH = 96;
const HEIGHT = 136;
const THICKNESS = 6;
const HOLE = 10.2;

/** A plate on the floor with its first corner at the origin, and two holes. */
function plate(): Design {
  const outline: Step = {
    kind: 'sketch',
    name: 'Outline',
    plane: { datum: 'floor' },
    points: { a: [0, 0], b: [90, 0], c: [90, 130], d: [0, 130], h: [30, 30], i: [60, 90] },
    curves: {
      bottom: { kind: 'line', from: 'a', to: 'b' },
      right: { kind: 'line', from: 'b', to: 'c' },
      top: { kind: 'line', from: 'c', to: 'd' },
      left: { kind: 'line', from: 'd', to: 'a' },
      hole: { kind: 'circle', center: 'h', radius: 4 },
      other: { kind: 'circle', center: 'i', radius: 4 },
    },
    constraints: {
      k1: { kind: 'coincident', of: ['a', 'origin'] },
      k2: { kind: 'horizontal', of: ['bottom'] },
      k3: { kind: 'horizontal', of: ['top'] },
      k4: { kind: 'vertical', of: ['left'] },
      k5: { kind: 'vertical', of: ['right'] },
      width: { kind: 'distance', of: ['bottom'], value: `${WIDTH} mm`, name: 'width' },
      height: { kind: 'distance', of: ['left'], value: `${HEIGHT} mm`, name: 'height' },
      bore: { kind: 'diameter', of: ['hole'], value: '$pin_dia + 0.2 mm', name: 'bore' },
      same: { kind: 'equal', of: ['hole', 'other'] },
      hx: { kind: 'horizontal_distance', of: ['origin', 'h'], value: 'width / 4' },
      hy: { kind: 'vertical_distance', of: ['origin', 'h'], value: '30' },
      ix: { kind: 'horizontal_distance', of: ['origin', 'i'], value: '3 * width / 4' },
      iy: { kind: 'vertical_distance', of: ['origin', 'i'], value: '100 mm' },
    },
  };
  const extrude: Step = {
    kind: 'extrude',
    name: 'Plate',
    profile: { sketch: 'outline', regions: [{ outer: ['bottom', 'right', 'top', 'left'] }] },
    way: 'one_way',
    distance: 'plate_thk',
    result: 'new_body',
  };
  return {
    ...emptyDesign('Plate'),
    dimensions: {
      plate_thk: { name: 'plate_thk', value: `${THICKNESS} mm` },
      pin_dia: { name: 'pin_dia', value: '10 mm' },
    },
    dimensionOrder: ['plate_thk', 'pin_dia'],
    parts: {
      bracket: {
        ...emptyPart('Bracket'),
        material: 'aluminium',
        steps: { outline, plate: extrude },
        stepOrder: ['outline', 'plate'],
      },
    },
    partOrder: ['bracket'],
  };
}

describe('a dimensioned plate with two holes', () => {
  const holeArea = Math.PI * (HOLE / 2) ** 2;
  const volume = (WIDTH * HEIGHT - 2 * holeArea) * THICKNESS;

  test('has the volume, area and centre of mass of the formula', async () => {
    const { parts } = await inspectDesign(plate(), kernel);
    const [bracket] = parts;
    expect(bracket!.steps.map((s) => [s.status, s.message])).toEqual([
      ['ok', null],
      ['ok', null],
    ]);
    expect(bracket!.sketches[0]!.settled).toBe(true);
    const [body] = bracket!.bodies;
    const area =
      2 * (WIDTH * HEIGHT - 2 * holeArea) + 2 * (WIDTH + HEIGHT) * THICKNESS + 2 * Math.PI * HOLE * THICKNESS;
    expect(body!.volume_mm3 / volume).toBeCloseTo(1, 9);
    expect(body!.area_mm2 / area).toBeCloseTo(1, 9);
    const solid = WIDTH * HEIGHT;
    const net = solid - 2 * holeArea;
    const cx = (solid * (WIDTH / 2) - holeArea * (WIDTH / 4 + (3 * WIDTH) / 4)) / net;
    const cy = (solid * (HEIGHT / 2) - holeArea * (30 + 100)) / net;
    expect(body!.center_mm[0] / cx).toBeCloseTo(1, 9);
    expect(body!.center_mm[1] / cy).toBeCloseTo(1, 9);
    expect(body!.center_mm[2]).toBeCloseTo(THICKNESS / 2, 9);
    expect(body!.box_mm.max[0]).toBeCloseTo(WIDTH, 6);
    expect(body!.valid).toBe(true);
    expect(bracket!.mass_kg).toBeCloseTo((volume / 1e9) * 2700, 9);
  });

  test('names its faces after what made them', async () => {
    const { parts } = await inspectDesign(plate(), kernel);
    const names = parts[0]!.bodies[0]!.faces.map((f) => f.name);
    expect(names.sort()).toEqual([
      'plate:end:(bottom left right top)',
      'plate:side:bottom',
      'plate:side:hole',
      'plate:side:left',
      'plate:side:other',
      'plate:side:right',
      'plate:side:top',
      'plate:start:(bottom left right top)',
    ]);
  });
});
