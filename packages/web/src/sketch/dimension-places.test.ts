import type { SketchGeometry } from '@helb/core';
import { describe, expect, test } from '@jest/globals';
import { drawnDimensions, numberBox, overlap } from './dimension-places.ts';
import { PlaneMap } from './plane-map.ts';

/** Straight on, four pixels to the mm, the origin at 300, 250. */
const map = new PlaneMap({ origin: [300, 250], x: [4, 0], y: [0, -4] });
const STAGE: [number, number] = [800, 600];

/** A bracket's outline with every side measured, a hole with its size and place, and an angle. */
function bracket(): SketchGeometry {
  const corners: [number, number][] = [[0, 0], [40, 0], [40, 8], [16, 8], [10, 30], [0, 30]]; // prettier-ignore
  const s: SketchGeometry = { points: { m: [6, 22] }, curves: {}, constraints: {} };
  corners.forEach((c, i) => (s.points[`p${i}`] = c));
  corners.forEach((_, i) => {
    s.curves[`l${i}`] = { kind: 'line', from: `p${i}`, to: `p${(i + 1) % corners.length}` };
    s.constraints[`d${i}`] = { kind: 'distance', of: [`l${i}`], value: '1' };
  });
  s.curves.hole = { kind: 'circle', center: 'm', radius: 2.5 };
  s.constraints.size = { kind: 'diameter', of: ['hole'], value: '5' };
  s.constraints.across = { kind: 'horizontal_distance', of: ['p0', 'm'], value: '6' };
  s.constraints.rise = { kind: 'vertical_distance', of: ['p0', 'm'], value: '22' };
  s.constraints.lean = { kind: 'angle', of: ['l3', 'l2'], value: '75 deg', reversed: 'second' };
  return s;
}

describe('numbers that nobody placed', () => {
  test('do not lie on each other, and are on the stage', () => {
    const drawn = drawnDimensions(bracket(), map, { stage: STAGE });
    expect(drawn).toHaveLength(10);
    const boxes = drawn.map((d) => numberBox(d.drawing));
    boxes.forEach((box, i) => {
      for (const other of boxes.slice(i + 1)) expect(overlap(box, other)).toBe(false);
      expect(box[0] >= 0 && box[1] >= 0 && box[2] <= STAGE[0] && box[3] <= STAGE[1]).toBe(true);
    });
  });

  test('keep off what was placed by hand, which stays', () => {
    const free = drawnDimensions(bracket(), map, { stage: STAGE }).find((d) => d.id === 'd0')!.drawing;
    const s = bracket();
    s.constraints.d5 = { ...s.constraints.d5!, label: [...map.toPlane(...free.text.at)] } as never;
    const drawn = new Map(drawnDimensions(s, map, { stage: STAGE }).map((d) => [d.id, d.drawing]));
    expect(overlap(numberBox(drawn.get('d0')!), numberBox(drawn.get('d5')!))).toBe(false);
    expect(drawn.get('d5')!.text.at[0]).toBeCloseTo(free.text.at[0], -2);
  });

  test('near the edge of the stage stand on the inner side', () => {
    const tight = new PlaneMap({ origin: [300, 590], x: [4, 0], y: [0, -4] });
    const below = drawnDimensions(bracket(), tight, { stage: STAGE }).find((d) => d.id === 'd0')!;
    expect(below.drawing.text.at[1]).toBeLessThan(590);
  });

  test('stay where they are while something is dragged', () => {
    const s = bracket();
    const before = drawnDimensions(s, map, { stage: STAGE }).find((d) => d.id === 'lean')!.drawing;
    const dragged = { ...s, points: { ...s.points, m: [22, 4] as [number, number] } };
    const after = drawnDimensions(dragged, map, { only: new Set(['lean']) })[0]!.drawing;
    expect(after).toEqual(before);
  });
});
