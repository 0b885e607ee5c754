/** Areas wound round cylinders, against their area over the radius times what lies between two radii. */
import { describe, expect, test } from '@jest/globals';
import { refOfFace, type Step } from '@helb/core';
import { block, designOf, evaluated, extruded, last, namesIn, outline, rectangle, round } from './sample-parts.ts';

type Steps = Record<string, Step>;
const R = 12;
/** Of so many mm², between the face and so far from it. */
const wound = (area: number, radius: number, by: number) => ((area / radius) * Math.abs((radius + by) ** 2 - radius ** 2)) / 2; // prettier-ignore
const touching = (distance: string): Step => ({ kind: 'datum_plane', name: 'Touching', way: 'offset', plane: { datum: 'wall' }, distance }) as Step; // prettier-ignore
const rod: Steps = { s: round(R), e: extruded('s', '40 mm') };
const tube: Steps = { s: round(20, {}, [0, 0], R), e: { ...extruded('s', '40 mm'), profile: { sketch: 's', regions: [{ outer: ['+o'], holes: [['+i']] }] } } as Step }; // prettier-ignore
const plate = outline(rectangle(-8, 14, 16, 10));
/** A slot with a round hole in it, aside of the middle. */
const slot: Step = {
  ...outline([]),
  points: { a: [3, 20], b: [11, 20], c: [11, 28], d: [3, 28], m: [3, 24], n: [11, 24], o: [9, 24] },
  curves: {
    l: { kind: 'line', from: 'a', to: 'b' },
    r: { kind: 'arc', center: 'n', from: 'b', to: 'c' },
    t: { kind: 'line', from: 'c', to: 'd' },
    q: { kind: 'arc', center: 'm', from: 'd', to: 'a' },
    h: { kind: 'circle', center: 'o', radius: 2 },
  },
} as Step;
const slotArea = 8 * 8 + Math.PI * 16 - Math.PI * 4;

async function embossed(steps: Steps, drawn: Step, distance: string, more: Partial<Step> = {}) {
  const [body] = (await evaluated(designOf(steps))).bodies;
  const face = body!.facts.faces.findIndex((f) => f.kind === 'cylinder' && Math.abs(f.radius! - R) < 1e-9);
  const profile = drawn === slot ? { sketch: 't', regions: [{ outer: ['+l', '+q', '+r', '+t'], holes: [['+h']] }] } : { sketch: 't', regions: 'all' }; // prettier-ignore
  const all = { ...steps, p: touching(distance), t: { ...drawn, plane: { step: 'p' }, name: 'Marks' }, m: { kind: 'emboss', name: 'Emboss', profile, face: [refOfFace(body!, face)], height: '0.6 mm', ...more } as Step }; // prettier-ignore
  const outcome = await evaluated(designOf(all as Steps));
  return { outcome, before: body!, after: outcome.bodies[0]! };
}

describe('an area on a round face', () => {
  test.each<[string, Steps, Step, string, Partial<Step>, number]>([
    ['raised', rod, plate, '12 mm', {}, wound(160, R, 0.6)],
    ['sunk in', rod, plate, '12 mm', { sunk: true }, -wound(160, R, -0.6)],
    ['drawn farther away, it is as large', rod, plate, '30 mm', {}, wound(160, R, 0.6)],
    ['drawn on the other side', rod, plate, '-12 mm', {}, wound(160, R, 0.6)],
    ['drawn through the axis', rod, plate, '0 mm', {}, wound(160, R, 0.6)],
    ['with arcs and a hole', rod, slot, '12 mm', {}, wound(slotArea, R, 0.6)],
    ['with arcs and a hole, sunk in from the other side', rod, slot, '-12 mm', { sunk: true }, -wound(slotArea, R, -0.6)], // prettier-ignore
    ['raised in a bore', tube, plate, '12 mm', {}, wound(160, R, -0.6)],
    ['sunk into a bore', tube, slot, '12 mm', { sunk: true }, -wound(slotArea, R, 0.6)],
    ['three quarters round', rod, outline(rectangle(-28, 14, 56, 3)), '12 mm', { height: '2 mm' }, wound(168, R, 2)],
  ])('%s', async (_, steps, drawn, distance, more, change) => {
    const { outcome, before, after } = await embossed(steps, drawn, distance, more);
    expect(last(outcome)).toMatchObject({ status: 'ok', message: null, doubts: [] });
    expect(after.facts.valid).toBe(true);
    expect((after.facts.volume - before.facts.volume) / change).toBeCloseTo(1, 5);
    expect(namesIn(after).filter((n) => n.startsWith('m:end'))).toHaveLength(1);
  });

  test('lies where its plane shows it: to the right, a length of the drawing round the face', async () => {
    const { after } = await embossed(rod, outline(rectangle(5, 18, 4, 4)), '12 mm', { height: '1 mm' });
    const top = after.facts.faces.find((f) => f.kind === 'cylinder' && Math.abs(f.radius! - R - 1) < 1e-6)!;
    const angle = Math.atan2(top.center[0], -top.center[1]);
    expect([angle, top.center[2]]).toEqual([expect.closeTo(7 / R, 4), expect.closeTo(20, 4)]);
  });

  test('beside the end of its face it says so', async () => {
    const { outcome } = await embossed(rod, outline(rectangle(-8, 35, 16, 10)), '12 mm');
    expect(last(outcome)).toMatchObject({ status: 'ok', message: expect.stringMatching(/^Part of this lies beside the face/) }); // prettier-ignore
  });

  test.each<[string, Steps, Step, Partial<Step>, RegExp]>([
    ['wider than once round', rod, outline(rectangle(-40, 10, 80, 4)), {}, /is 80 mm wide, and once round the face are 75.398 mm/], // prettier-ignore
    ['as deep as the axis', rod, plate, { height: '12 mm', sunk: true }, /would go to its axis/],
  ])('%s is refused', async (_, steps, drawn, more, says) => {
    const { outcome } = await embossed(steps, drawn, '12 mm', more);
    expect(last(outcome)).toMatchObject({ status: 'failed', message: expect.stringMatching(says) });
  });

  test('on a flat face, or drawn square to the axis, it is refused in words', async () => {
    const cube = block(20, 20, 20);
    const [body] = (await evaluated(designOf(cube))).bodies;
    const onFlat = { ...cube, p: touching('0 mm'), t: { ...plate, plane: { step: 'p' } }, m: { kind: 'emboss', name: 'Emboss', profile: { sketch: 't', regions: 'all' }, face: [refOfFace(body!, 0)], height: '1 mm' } as Step }; // prettier-ignore
    expect(last(await evaluated(designOf(onFlat as Steps))).message).toMatch(
      /goes on a cylinder, and the face is none/,
    );
    const [shaft] = (await evaluated(designOf(rod))).bodies;
    const face = refOfFace(shaft!, shaft!.facts.faces.findIndex((f) => f.kind === 'cylinder')); // prettier-ignore
    const square = { ...rod, t: { ...plate, name: 'Marks' }, m: { kind: 'emboss', name: 'Emboss', profile: { sketch: 't', regions: 'all' }, face: [face], height: '1 mm' } as Step }; // prettier-ignore
    expect(last(await evaluated(designOf(square))).message).toMatch(/drawn on a plane along its axis/);
  });
});
