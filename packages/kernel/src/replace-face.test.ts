/** Flat faces brought into planes, against the prisms and prismatoids they leave. */
import { describe, expect, test } from '@jest/globals';
import type { Step } from '@helb/core';
import {
  block,
  designOf,
  evaluated,
  extruded,
  faceLooking,
  last,
  namesIn,
  outline,
  rectangle,
  round,
} from './sample-parts.ts';

/** Through the block's middle at this height, leaning so much to the right. */
const slanting = (height: number, angle: string): Record<string, Step> => ({
  u: { kind: 'datum_plane', name: 'Level', way: 'offset', plane: { datum: 'floor' }, distance: `${height} mm` } as Step,
  x: { kind: 'datum_axis', name: 'Hinge', way: 'planes', plane: { step: 'u' }, other: { datum: 'side' } } as Step,
  v: { kind: 'datum_plane', name: 'Slant', way: 'angled', plane: { step: 'u' }, line: { step: 'x' }, angle } as Step,
});
const replaced = async (steps: Record<string, Step>, way: readonly [number, number, number], plane: unknown) => {
  const body = (await evaluated(designOf(steps))).bodies[0]!;
  const r = { kind: 'replace_face', name: 'Replaced', faces: [faceLooking(body, way)], plane } as Step;
  const outcome = await evaluated(designOf({ ...steps, r }));
  return { before: body, outcome, body: outcome.bodies[0]! };
};
/** About the origin, so that a plane through its middle leaves its mean height. */
const bar = (more: Record<string, Step> = {}): Record<string, Step> => ({ s: outline(rectangle(-20, -10, 40, 20)), e: extruded('s', '20 mm'), ...more }); // prettier-ignore
const bored = bar({ t: round(5, {}, [8, 2]), c: { ...extruded('t', '20 mm'), profile: { sketch: 't', regions: 'all' }, result: 'cut' } }); // prettier-ignore
const UP = [0, 0, 1] as const;
const tan = Math.tan((10 * Math.PI) / 180);

describe('a face replaced by a plane', () => {
  test.each<[string, Record<string, Step>, number, number]>([
    ['over it', bar(slanting(30, '10 deg')), 30, 0],
    ['under it', bar(slanting(12, '10 deg')), 12, 0],
    ['that crosses it', bar(slanting(20, '10 deg')), 20, 0],
    ['over it, with a bore in it', { ...bored, ...slanting(30, '10 deg') }, 30, 1],
    ['that crosses it, with a bore in it', { ...bored, ...slanting(21, '10 deg') }, 21, 1],
  ])('%s', async (_, steps, height, bores) => {
    const { outcome, body, before } = await replaced(steps, UP, { step: 'v' });
    expect(last(outcome)).toMatchObject({ message: null, doubts: [] });
    expect(body.facts.valid).toBe(true);
    // A prism cut off at a slant has its area times the height over the area's middle; the bore's is 8 mm aside.
    const aside = [8 * tan, -8 * tan].map((by) => 800 * height - bores * Math.PI * 25 * (height + by));
    expect(aside.some((v) => Math.abs(v - body.facts.volume) < 1e-5)).toBe(true);
    expect(new Set(namesIn(body))).toEqual(new Set(namesIn(before)));
  });

  test('while the faces beside it lean', async () => {
    // A trapezium pushed along z; its narrow side goes to a line that leans by 1 in 10.
    const steps: Record<string, Step> = {
      s: outline([[0, 0], [40, 0], [30, 20], [10, 20]]), // prettier-ignore
      e: extruded('s', '15 mm'),
      q: {
        ...outline(
          [
            [0, 16],
            [40, 20],
          ],
          { name: 'Line' },
        ),
        curves: { l: { kind: 'line', from: 'p0', to: 'p1' } },
      } as Step,
      v: { kind: 'datum_plane', name: 'Slant', way: 'angled', plane: { datum: 'floor' }, line: { sketch: 'q', line: 'l' }, angle: '90 deg' } as Step, // prettier-ignore
    };
    const { outcome, body } = await replaced(steps, [0, 1, 0], { step: 'v' });
    expect(last(outcome)).toMatchObject({ message: null, doubts: [] });
    // y = 16 + x / 10 meets x = y / 2 and x = 40 − y / 2.
    const left = 16 / (1 - 0.05);
    const right = 20 / 1.05;
    const corners = [[0, 0], [40, 0], [40 - right / 2, right], [left / 2, left]] as const; // prettier-ignore
    const area = corners.reduce((sum, [x, y], i) => {
      const [u, v] = corners[(i + 1) % 4]!;
      return sum + (x * v - u * y) / 2;
    }, 0);
    expect(body.facts.volume).toBeCloseTo(area * 15, 5);
  });

  test('by another face, with which it becomes one', async () => {
    const steps = { ...block(40, 20, 10), t: outline(rectangle(0, 0, 15, 20)), j: { ...extruded('t', '18 mm'), profile: { sketch: 't', regions: 'all' }, result: 'join' } as Step }; // prettier-ignore
    const before = (await evaluated(designOf(steps))).bodies[0]!;
    const low = before.facts.faces.findIndex((f) => f.normal && f.normal[2] > 0.9 && f.center[2] < 11);
    const name = before.faceNames[low]![0]!.text;
    const r = { kind: 'replace_face', name: 'Replaced', faces: [{ name, near: before.facts.faces[low]!.center, normal: [0, 0, 1] }], plane: { face: faceLooking(before, UP) } } as unknown as Step; // prettier-ignore
    const outcome = await evaluated(designOf({ ...steps, r }));
    expect(last(outcome)).toMatchObject({ message: null });
    expect(outcome.bodies[0]!.facts.volume).toBeCloseTo(40 * 20 * 18, 5);
    expect(outcome.bodies[0]!.faceNames).toHaveLength(6);
  });

  test.each<[string, unknown, RegExp]>([
    ['it lies in', { step: 'u' }, /lies in that plane already/],
    ['that stands square on it', { datum: 'wall' }, /stands square on this face/],
  ])('%s is refused', async (_, plane, says) => {
    const { outcome } = await replaced(bar(slanting(20, '10 deg')), UP, plane);
    expect(last(outcome)).toMatchObject({ status: 'failed', message: expect.stringMatching(says) });
  });
});
