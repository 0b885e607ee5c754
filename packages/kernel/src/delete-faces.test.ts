/** Holes filled, bosses taken off: by the volume that was there before them. */
import { describe, expect, test } from '@jest/globals';
import { refOfFace, type FaceRef, type Step, type Vec3 } from '@helb/core';
import { block, designOf, edgeNear, evaluated, extruded, faceLooking, last, namesIn, outline, rectangle } from './sample-parts.ts'; // prettier-ignore

type Steps = Record<string, Step>;
const disc = (x: number, y: number, radius: number, more: Partial<Step> = {}): Step => ({
  ...outline([], more),
  points: { m: [x, y] },
  curves: { o: { kind: 'circle', center: 'm', radius } },
});
const half = async (steps: Steps) => (await evaluated(designOf(steps))).bodies[0]!;
const faceAt = async (steps: Steps, at: Vec3): Promise<FaceRef> => {
  const body = await half(steps);
  const away = (c: Vec3) => Math.hypot(c[0] - at[0], c[1] - at[1], c[2] - at[2]);
  const all = body.facts.faces.map((f, i) => ({ i, away: away(f.center) })).sort((a, b) => a.away - b.away);
  return refOfFace(body, all[0]!.i);
};
const deleting = (faces: FaceRef[]): Steps => ({ d: { kind: 'delete_faces', name: 'Gone', faces } as Step });
const whole = async (steps: Steps) => {
  const outcome = await evaluated(designOf(steps));
  expect(last(outcome)).toMatchObject({ status: 'ok', message: null, doubts: [] });
  expect(outcome.bodies).toHaveLength(1);
  expect(outcome.bodies[0]!.facts.valid).toBe(true);
  return outcome.bodies[0]!;
};
const plain = block(40, 30, 10);

describe('faces taken away', () => {
  test('a bore through all is filled; the faces it went through are as they were', async () => {
    const bored: Steps = { ...plain, c: disc(12, 14, 4), h: extruded('c', '1 mm', { way: 'through_both', result: 'cut' }) }; // prettier-ignore
    const body = await whole({ ...bored, ...deleting([await faceAt(bored, [12, 14, 5])]) });
    expect(body.facts.volume).toBeCloseTo(12000, 6);
    expect(namesIn(body).sort()).toEqual(namesIn(await half(plain)).sort());
  });

  test('a boss is taken off with its round, and a pocket filled, in one step', async () => {
    const rich: Steps = {
      ...plain,
      q: { kind: 'datum_plane', name: 'Top', way: 'offset', plane: { datum: 'floor' }, distance: '10 mm' } as Step,
      c: disc(10, 15, 5, { plane: { step: 'q' } }), b: extruded('c', '8 mm', { result: 'join' }),
      t: outline(rectangle(22, 8, 12, 14), { plane: { step: 'q' } }), p: extruded('t', '4 mm', { result: 'cut', reversed: true }),
    }; // prettier-ignore
    const rounded: Steps = { ...rich, f: { kind: 'fillet', name: 'Rim', edges: [edgeNear(await half(rich), [5, 15, 18])], radius: '1 mm' } as Step }; // prettier-ignore
    const body = await half(rounded);
    const gone = body.facts.faces.flatMap((f, i) => {
      const inPocket = f.center[0] > 21 && f.center[2] < 10 && f.center[2] > 5.5 && f.center[0] < 34.5 && f.center[1] > 7.5 && f.center[1] < 22.5; // prettier-ignore
      return f.center[2] > 10.1 || inPocket ? [refOfFace(body, i)] : [];
    });
    expect(gone).toHaveLength(3 + 5);
    const after = await whole({ ...rounded, ...deleting(gone) });
    expect(after.facts.volume).toBeCloseTo(12000, 5);
    expect(after.facts.faces).toHaveLength(6);
  });

  test('a boss that is next to nothing beside its body is taken off, too', async () => {
    const large: Steps = {
      ...block(400, 300, 100),
      q: { kind: 'datum_plane', name: 'Top', way: 'offset', plane: { datum: 'floor' }, distance: '100 mm' } as Step,
      c: disc(200, 150, 1, { plane: { step: 'q' } }), b: extruded('c', '1 mm', { result: 'join' }),
    }; // prettier-ignore
    const body = await half(large);
    const gone = body.facts.faces.flatMap((f, i) => (f.center[2] > 100.1 ? [refOfFace(body, i)] : []));
    expect(gone).toHaveLength(2);
    const after = await whole({ ...large, ...deleting(gone) });
    expect(after.facts.faces).toHaveLength(6);
    expect(after.facts.box.max[2]).toBeCloseTo(100, 6);
  });

  test('what does not close is refused in words', async () => {
    const [body] = [await half(plain)];
    for (const faces of [[faceLooking(body, [0, 0, 1])], [faceLooking(body, [0, 0, 1]), faceLooking(body, [1, 0, 0])]])
      expect(last(await evaluated(designOf({ ...plain, ...deleting(faces) })))).toMatchObject({ status: 'failed', message: expect.stringMatching(/pick all faces of a hole, a pocket or a boss/) }); // prettier-ignore
  });
});
