/** Areas wound round cylinders and cones, against their area over the radius times what lies between two radii. */
import { describe, expect, test } from '@jest/globals';
import { refOfFace, type Step } from '@helb/core';
import {
  block,
  designOf,
  evaluated,
  extruded,
  last,
  namesIn,
  outline,
  rectangle,
  round,
  type At,
} from './sample-parts.ts';

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

  test('a letter, small against what it stands on, is not taken for a fault of the kernel', async () => {
    const letter = { ...outline([]), points: { a: [-2, 16], b: [2, 16] }, curves: { t: { kind: 'text', from: 'a', to: 'b', text: 'T' } } } as Step; // prettier-ignore
    const { outcome, before, after } = await embossed({ s: round(R), e: extruded('s', '200 mm') }, letter, '12 mm');
    expect(last(outcome)).toMatchObject({ status: 'ok', message: null });
    expect(after.facts.volume).toBeGreaterThan(before.facts.volume + 0.5);
  });

  test('the counters of letters stay open, and are filled only where that is asked for', async () => {
    const letter = { ...outline([]), points: { a: [-6, 10], b: [6, 10] }, curves: { t: { kind: 'text', from: 'a', to: 'b', text: '8' } } } as Step; // prettier-ignore
    const added = async (regions: string) => {
      const { outcome, before, after } = await embossed(rod, letter, '12 mm', { profile: { sketch: 't', regions } as never }); // prettier-ignore
      expect(last(outcome)).toMatchObject({ status: 'ok', message: null });
      const tops = after.faceNames.filter((names) => names.some((n) => n.text.startsWith('m:end')));
      return [after.facts.volume - before.facts.volume, tops.length];
    };
    const [[open, one], [filled]] = [await added('holed'), await added('all')];
    expect(one).toBe(1);
    expect(open! / filled!).toBeLessThan(0.85);
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
    expect(last(await evaluated(designOf(onFlat as Steps))).message).toMatch(/goes on a cylinder or a cone, and the face is neither/); // prettier-ignore
    const [shaft] = (await evaluated(designOf(rod))).bodies;
    const face = refOfFace(shaft!, shaft!.facts.faces.findIndex((f) => f.kind === 'cylinder')); // prettier-ignore
    const square = { ...rod, t: { ...plate, name: 'Marks' }, m: { kind: 'emboss', name: 'Emboss', profile: { sketch: 't', regions: 'all' }, face: [face], height: '1 mm' } as Step }; // prettier-ignore
    expect(last(await evaluated(designOf(square))).message).toMatch(/drawn on a plane along its axis/);
  });
});

describe('an area on a cone', () => {
  const turned = (points: At[]): Steps => ({
    s: outline(points, { plane: { datum: 'wall' } }),
    e: { kind: 'revolve', name: 'Turned', profile: { sketch: 's', regions: 'all' }, axis: { sketch: 's', line: 'y_axis' }, way: 'whole', result: 'new_body' } as Step,
  }); // prettier-ignore
  /** Half angle of which the tangent is a third; its tip is 60 mm over the floor. */
  const skirt = turned([[0, 0], [20, 0], [10, 30], [0, 30]]); // prettier-ignore
  /** A tangent of a fifth; its tip 50 mm under the floor. */
  const mouth = turned([[10, 0], [25, 0], [25, 30], [16, 30]]); // prettier-ignore
  const slopes = new Map([[skirt, { tangent: 1 / 3, tip: 60, sense: -1 }], [mouth, { tangent: 1 / 5, tip: -50, sense: 1 }]]); // prettier-ignore

  async function marked(steps: Steps, drawn: Step, more: Partial<Step> = {}, datum: Partial<Step> = {}) {
    const [body] = (await evaluated(designOf(steps))).bodies;
    const face = refOfFace(body!, body!.facts.faces.findIndex((f) => f.kind === 'cone')); // prettier-ignore
    const all = {
      ...steps,
      p: { kind: 'datum_plane', name: 'Touching', way: 'touching', round: [face], plane: { datum: 'wall' }, ...datum } as Step,
      t: { ...drawn, plane: { step: 'p' }, name: 'Marks' },
      m: { kind: 'emboss', name: 'Emboss', profile: { sketch: 't', regions: 'all' }, face: [face], height: '0.6 mm', ...more } as Step,
    }; // prettier-ignore
    const outcome = await evaluated(designOf(all as Steps));
    return { outcome, before: body!, after: outcome.bodies[0]! };
  }

  /** How far the tip is from where the plane's y is nothing, along it: the plane runs through the tip. */
  const tipHeight = (steps: Steps) => slopes.get(steps)!.tip * Math.cos(Math.atan(slopes.get(steps)!.tangent));

  /** By adding up small squares: of a layer so high on each the area at half its height. */
  function layer(
    steps: Steps,
    [x, y, width, depth]: readonly [number, number, number, number],
    height: number,
  ): number {
    const [tip, n] = [tipHeight(steps), 400];
    let sum = 0;
    for (let i = 0; i < n; i++)
      for (let j = 0; j < n; j++) {
        const along = Math.hypot(x + (width * (i + 0.5)) / n, y + (depth * (j + 0.5)) / n - tip);
        sum += Math.abs(height) * (1 + height / (2 * along * slopes.get(steps)!.tangent));
      }
    return (sum * width * depth) / n ** 2;
  }

  test.each<[string, Steps, readonly [number, number, number, number], Partial<Step>, number, Partial<Step>]>([
    ['raised', skirt, [-8, 5, 16, 10], {}, 0.6, {}],
    ['sunk in', skirt, [-8, 5, 16, 10], { sunk: true }, -0.6, {}],
    ['on the other side of it', skirt, [-8, 5, 16, 10], { height: '2 mm' }, 2, { behind: true }],
    ['seen from within', skirt, [-8, 5, 16, 10], {}, 0.6, { flipped: true }],
    ['aside', skirt, [6, -2, 9, 7], {}, 0.6, {}],
    ['raised in a conical mouth', mouth, [-4, 10, 8, 8], {}, -0.6, {}],
    ['sunk into a conical mouth', mouth, [-4, 10, 8, 8], { sunk: true }, 0.6, {}],
  ])('%s, as large as it is drawn', async (_, steps, at, more, out, datum) => {
    const { outcome, before, after } = await marked(steps, outline(rectangle(...at)), more, datum);
    expect(last(outcome)).toMatchObject({ status: 'ok', message: null, doubts: [] });
    expect(after.facts.valid).toBe(true);
    const change = (more.sunk ? -1 : 1) * layer(steps, at, out);
    expect((after.facts.volume - before.facts.volume) / change).toBeCloseTo(1, 4);
    expect(namesIn(after).filter((n) => n.startsWith('m:end'))).toHaveLength(1);
  });

  test.each([
    ['skirt', skirt],
    ['mouth', mouth],
  ] as const)('lies on the %s where a sheet rolled round it has it', async (_, steps) => {
    const { after, outcome } = await marked(steps, outline(rectangle(5.5, 14.5, 1, 1)), { height: '1 mm' });
    expect(last(outcome).message).toBeNull();
    const { tangent, tip, sense } = slopes.get(steps)!;
    const top = after.facts.faces[after.faceNames.findIndex((names) => names.some((n) => n.text.startsWith('m:end')))]!;
    const [along, half] = [Math.hypot(6, 15 - tipHeight(steps)), Math.atan(tangent)];
    // Raised on the skirt it goes out, in the mouth towards the axis.
    const out = -sense;
    const angle = Math.atan2(6, sense * (15 - tipHeight(steps))) / Math.sin(half);
    const radius = along * Math.sin(half) + out * Math.cos(half);
    const high = along * Math.cos(half) - out * Math.sin(half);
    expect(top.center).toEqual([Math.sin(angle) * radius, -Math.cos(angle) * radius, tip + sense * high].map((x) => expect.closeTo(x, 2))); // prettier-ignore
  });

  test.each<[string, Steps, Step, Partial<Step>, Partial<Step>, RegExp]>([
    ['drawn on a plane along the axis', skirt, outline(rectangle(-8, 5, 16, 10)), {}, { way: 'offset', distance: '0 mm' }, /drawn on a plane that touches it/], // prettier-ignore
    ['round the tip', turned([[0, 0], [20, 0], [0, 60]]), outline(rectangle(-8, 50, 16, 30)), {}, {}, /more than once round the cone/], // prettier-ignore
    ['sunk deeper than the cone is thick there', turned([[0, 0], [20, 0], [0, 60]]), outline(rectangle(-1, 50, 2, 2)), { sunk: true, height: '3 mm' }, {}, /as near to the cone’s tip as 4.\d+ mm/], // prettier-ignore
  ])('%s is refused in words', async (_, steps, drawn, more, datum, says) => {
    const { outcome } = await marked(steps, drawn, more, datum);
    expect(last(outcome)).toMatchObject({ status: 'failed', message: expect.stringMatching(says) });
  });
});
