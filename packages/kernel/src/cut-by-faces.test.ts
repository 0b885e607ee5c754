/** Extrudes that end at faces, bodies and points; bodies split by faces and lines; bodies removed. */
import { refOfBody, refOfFace, type Body, type FaceRef, type Step } from '@helb/core';
import { describe, expect, test } from '@jest/globals';
import { block, designOf, evaluated, extruded, faceLooking, last, namesIn, outline, rectangle } from './sample-parts.ts'; // prettier-ignore

const circle = (x: number, y: number, radius: number, more: Partial<Step> = {}): Step => ({ ...outline([]), name: 'Circle', points: { m: [x, y] }, curves: { k: { kind: 'circle', center: 'm', radius } }, ...more }); // prettier-ignore

/** A rod Ø16 lying along Y at height 30, and a square of side 10 on the floor under it. */
const SIDE = 10;
const rod: Record<string, Step> = {
  c: circle(0, 30, 8, { plane: { datum: 'wall' } }),
  r: extruded('c', '60 mm', { name: 'Rod', way: 'symmetric' }),
  s: outline(rectangle(-SIDE / 2, -SIDE / 2, SIDE, SIDE)),
};
const roundOf = (body: Body): FaceRef => refOfFace(body, body.facts.faces.findIndex((f) => f.kind === 'cylinder')); // prettier-ignore
const rodBody = (await evaluated(designOf({ c: rod.c!, r: rod.r! }))).bodies[0]!;
/** Under a cylinder of this radius at height 30, over the square. */
const under = (r: number) => {
  const h = SIDE / 2;
  return SIDE * (SIDE * 30 - (h * Math.sqrt(r * r - h * h) + r * r * Math.asin(h / r)));
};
const up = (more: Partial<Step>) =>
  evaluated(designOf({ ...rod, e: extruded('s', '1 mm', { name: 'Post', ...more }) }));

describe('an extrude ends', () => {
  test.each<[string, Partial<Step>, number]>([
    ['at a cylinder', { way: 'to_face', until_face: [roundOf(rodBody)] }, under(8)],
    ['short of it', { way: 'to_face', until_face: [roundOf(rodBody)], gap: '1.5 mm' }, under(9.5)],
    ['past its near side', { way: 'to_face', until_face: [roundOf(rodBody)], gap: '-1 mm' }, under(7)],
    ['at a body', { way: 'to_body', until_body: [refOfBody(rodBody, [rodBody])] }, under(8)],
    ['at the level of a point', { way: 'to_point', until_point: { sketch: 'c', point: 'm' }, gap: '2 mm' }, 100 * 28],
  ])('%s', async (_, more, volume) => {
    const outcome = await up(more);
    expect(last(outcome)).toMatchObject({ status: 'ok', message: null, doubts: [] });
    const [, post] = outcome.bodies;
    expect(post!.facts.volume).toBeCloseTo(volume, 5);
    expect(namesIn(post!).filter((n) => n.startsWith('e:end'))).toHaveLength(1);
  });

  test.each<[string, Partial<Step>, RegExp]>([
    ['no face yet', { way: 'to_face' }, /^No face is chosen yet/],
    ['a face the other way', { way: 'to_face', until_face: [roundOf(rodBody)], reversed: true }, /does not lie that way/], // prettier-ignore
    ['a gap of more than the radius', { way: 'to_face', until_face: [roundOf(rodBody)], gap: '-9 mm' }, /more than the radius/], // prettier-ignore
    ['a body the other way', { way: 'to_body', until_body: [refOfBody(rodBody, [rodBody])], reversed: true }, /does not lie that way/], // prettier-ignore
  ])('%s is said', async (_, more, says) => {
    const outcome = await up(more);
    expect(last(outcome)).toMatchObject({ status: 'failed', message: expect.stringMatching(says) });
    expect(outcome.bodies).toHaveLength(1);
  });

  test('a face narrower than what goes up to it is said', async () => {
    const wide = { ...rod, s: outline(rectangle(-20, -5, 40, 10)) };
    const outcome = await evaluated(designOf({ ...wide, e: extruded('s', '1 mm', { way: 'to_face', until_face: [roundOf(rodBody)] }) })); // prettier-ignore
    expect(last(outcome).message).toBe('The face does not close it off all over, or cuts across where it starts; start elsewhere, or pick another.'); // prettier-ignore
  });
});

describe('a body is split', () => {
  const plug: Record<string, Step> = { ...block(40, 30, 10), c: circle(15, 15, 6), r: extruded('c', '25 mm', { name: 'Plug' }) }; // prettier-ignore

  test('by the round face of another', async () => {
    const before = (await evaluated(designOf(plug))).bodies;
    const split = { kind: 'split', name: 'Split', bodies: [refOfBody(before[0]!, before)], by: 'face', face: [roundOf(before[1]!)] } as Step; // prettier-ignore
    const outcome = await evaluated(designOf({ ...plug, p: split }));
    expect(last(outcome)).toMatchObject({ status: 'ok' });
    const own = outcome.bodies.filter((b) => b.name.step === 'e').map((b) => b.facts.volume);
    expect(own.sort((a, b) => a - b)).toEqual([expect.closeTo(360 * Math.PI, 5), expect.closeTo(12000 - 360 * Math.PI, 5)]); // prettier-ignore
  });

  test('by a bent line, and one side removed', async () => {
    const line: Step = { ...outline([]), name: 'Line', points: { a: [10, -5], b: [10, 12], c: [50, 12] }, curves: { p: { kind: 'line', from: 'a', to: 'b' }, q: { kind: 'line', from: 'b', to: 'c' } } }; // prettier-ignore
    const split = { kind: 'split', name: 'Split', bodies: 'all', by: 'line', line: { sketch: 'l' } } as Step;
    const outcome = await evaluated(designOf({ ...block(40, 30, 10), l: line, p: split }));
    const small = outcome.bodies.find((b) => b.facts.volume < 4000)!;
    expect(small.facts.volume).toBeCloseTo(30 * 12 * 10, 6);
    expect(outcome.bodies.reduce((sum, b) => sum + b.facts.volume, 0)).toBeCloseTo(12000, 6);
    const gone = { kind: 'remove', name: 'Remove', bodies: [refOfBody(small, outcome.bodies)] } as Step;
    const after = await evaluated(designOf({ ...block(40, 30, 10), l: line, p: split, g: gone }));
    expect(last(after)).toMatchObject({ status: 'ok', doubts: [] });
    expect(after.bodies.map((b) => b.facts.volume)).toEqual([expect.closeTo(12000 - 3600, 6)]);
  });

  test.each<[string, Partial<Step>, string]>([
    ['a line too short', { by: 'line', line: { sketch: 'l' } }, 'The line does not cut these bodies all through; draw it on beyond them.'],
    ['no face', { by: 'face' }, 'No face is chosen yet to cut along; pick one.'],
    ['no line', { by: 'line' }, 'No path is chosen yet; choose a sketch or pick edges.'],
  ])('%s is said', async (_, more, says) => {
    const line: Step = { ...outline([]), name: 'Line', points: { a: [10, 5], b: [10, 12] }, curves: { p: { kind: 'line', from: 'a', to: 'b' } } }; // prettier-ignore
    const outcome = await evaluated(designOf({ ...block(40, 30, 10), l: line, p: { kind: 'split', name: 'Split', bodies: 'all', ...more } as Step })); // prettier-ignore
    expect(last(outcome)).toMatchObject({ status: 'failed', message: says });
  }); // prettier-ignore

  test('by its own flat face, the plane of which is endless', async () => {
    const ell: Record<string, Step> = { s: outline([[0, 0], [40, 0], [40, 10], [15, 10], [15, 30], [0, 30]]), e: extruded('s', '8 mm') }; // prettier-ignore
    const [body] = (await evaluated(designOf(ell))).bodies;
    const inner = body!.facts.faces.findIndex((f) => f.normal && f.normal[1] > 0.9 && Math.abs(f.center[1] - 10) < 1e-6); // prettier-ignore
    const outcome = await evaluated(designOf({ ...ell, p: { kind: 'split', name: 'Split', bodies: 'all', by: 'face', face: [refOfFace(body!, inner)] } as Step })); // prettier-ignore
    expect(outcome.bodies.map((b) => b.facts.volume).sort((a, b) => a - b)).toEqual([expect.closeTo(15 * 20 * 8, 6), expect.closeTo(40 * 10 * 8, 6)]); // prettier-ignore
    expect(faceLooking(outcome.bodies[0]!, [0, 0, 1])).toBeDefined();
  });
});
