/** Thin sweeps and lofts, thickened faces, full rounds and shells with other walls, against closed forms. */
import { describe, expect, test } from '@jest/globals';
import type { FaceRef, Step, StepData, Vec3 } from '@helb/core';
import { refOfFace } from '@helb/core';
import { block, designOf, edgeNear, evaluated, extruded, faceLooking, last, namesIn, outline, rectangle, type At } from './sample-parts.ts'; // prettier-ignore

type Steps = Record<string, Step>;
const ring = (radius: number, more: Partial<Step> = {}, inner?: number): Step => ({
  ...outline([], { name: 'Disc', ...more }),
  points: { c: [0, 0] },
  curves: { o: { kind: 'circle', center: 'c', radius }, ...(inner ? { i: { kind: 'circle', center: 'c', radius: inner } } : {}) }, // prettier-ignore
});
const lines = (points: readonly At[], more: Partial<Step>): Step => ({
  ...outline([], more),
  points: Object.fromEntries(points.map((p, i) => [`a${i}`, [...p]])),
  curves: Object.fromEntries(points.slice(1).map((_, i) => [`m${i}`, { kind: 'line', from: `a${i}`, to: `a${i + 1}` }])), // prettier-ignore
});
const all = { sketch: 's', regions: 'all' };
const step = (kind: string, more: StepData): Step => ({ kind, name: 'Made', ...more }) as Step;
const half = async (steps: Steps) => (await evaluated(designOf(steps))).bodies[0]!;
/** The cylinder of this radius. */
const roundOf = async (steps: Steps, radius: number): Promise<FaceRef> => {
  const body = await half(steps);
  return refOfFace(body, body.facts.faces.findIndex((f) => f.kind === 'cylinder' && Math.abs(f.radius! - radius) < 1e-6)); // prettier-ignore
};
const looking = async (steps: Steps, way: Vec3) => faceLooking(await half(steps), way);
const made = async (steps: Steps) => {
  const outcome = await evaluated(designOf(steps));
  expect(last(outcome)).toMatchObject({ status: 'ok', message: null, doubts: [] });
  for (const { facts } of outcome.bodies) expect(facts.valid).toBe(true);
  return outcome.bodies;
};
const volume = async (steps: Steps) => (await made(steps)).at(-1)!.facts.volume;
const failing = async (steps: Steps) => last(await evaluated(designOf(steps)));

describe('thin', () => {
  const up = lines([[0, 0], [0, 30]], { name: 'Path', plane: { datum: 'wall' } }); // prettier-ignore
  const top = step('datum_plane', { way: 'offset', plane: { datum: 'floor' }, distance: '40 mm' });
  const cone = (r: number, R: number) => (Math.PI * 40 * (r * r + r * R + R * R)) / 3;
  // Square to the side, a wall is wider in the sections by the cosine of its lean.
  const wide = 2 / Math.cos(Math.atan(6 / 40));

  test.each<[string, Steps, number]>([
    ['a disc swept inward', { s: ring(8), q: up, w: step('sweep', { profile: all, path: { sketch: 'q' }, result: 'new_body', thin: '1.5 mm' }) }, Math.PI * (64 - 6.5 ** 2) * 30], // prettier-ignore
    ['a disc swept outward', { s: ring(8), q: up, w: step('sweep', { profile: all, path: { sketch: 'q' }, result: 'new_body', thin: '1.5 mm', thin_side: 'outward' }) }, Math.PI * (9.5 ** 2 - 64) * 30], // prettier-ignore
    ['an open outline swept as a wall', { s: lines([[-5, 0], [0, 0], [0, 7]], {}), q: up, w: step('sweep', { profile: { sketch: 's', regions: 'chain' }, wall: '1 mm', wall_side: 'left', path: { sketch: 'q' }, result: 'new_body' }) }, 11 * 30], // prettier-ignore
    ['a cone lofted', { s: ring(16), p: top, t: ring(10, { plane: { step: 'p' } }), w: step('loft', { sections: [all, { sketch: 't', regions: 'all' }], way: 'ruled', result: 'new_body', thin: '2 mm' }) }, cone(10, 16) - cone(10 - wide, 16 - wide)], // prettier-ignore
  ])('%s', async (_, steps, expected) => {
    expect((await volume(steps)) / expected).toBeCloseTo(1, 5);
    expect(namesIn((await made(steps)).at(-1)!).filter((n) => n.startsWith('w:inner')).length > 0).toBe(!('wall' in steps.w!)); // prettier-ignore
  });

  test('a wall that does not fit is refused', async () => {
    const steps = { s: ring(8), q: up, w: step('sweep', { profile: all, path: { sketch: 'q' }, result: 'new_body', thin: '9 mm' }) }; // prettier-ignore
    expect(await failing(steps)).toMatchObject({ status: 'failed', message: expect.stringMatching(/so thick/) });
  });
});

describe('thicken', () => {
  const rod: Steps = { s: ring(10), e: extruded('s', '25 mm') };
  test.each([
    ['outward', 12, 10],
    ['inward', 10, 8],
    ['both', 11, 9],
  ] as const)('a round face %s', async (side, outer, inner) => {
    const steps = { ...rod, t: step('thicken', { faces: [await roundOf(rod, 10)], thickness: '2 mm', side, result: 'new_body' }) }; // prettier-ignore
    expect((await volume(steps)) / (Math.PI * (outer ** 2 - inner ** 2) * 25)).toBeCloseTo(1, 7);
  });

  test('flat faces and the round between them, joined to one slab', async () => {
    const plain = block(40, 30, 20);
    const rounded: Steps = { ...plain, f: step('fillet', { edges: [edgeNear(await half(plain), [20, 0, 20])], radius: '5 mm', way: 'even' }) }; // prettier-ignore
    const faces = [await looking(rounded, [0, 0, 1]), await looking(rounded, [0, -1, 0]), await roundOf(rounded, 5)];
    const steps = { ...rounded, t: step('thicken', { faces, thickness: '1 mm', side: 'outward', result: 'new_body' }) };
    const bodies = await made(steps);
    expect(bodies).toHaveLength(2);
    expect(bodies[1]!.facts.volume).toBeCloseTo((25 + 15 + (Math.PI / 4) * (36 - 25)) * 40, 5);
    expect(namesIn(bodies[1]!).some((n) => n.startsWith('t:end:'))).toBe(true);
  });

  test('by more than a hollow takes is refused', async () => {
    const steps = { ...rod, t: step('thicken', { faces: [await roundOf(rod, 10)], thickness: '10 mm', side: 'inward', result: 'new_body' }) }; // prettier-ignore
    expect(await failing(steps)).toMatchObject({ status: 'failed', message: expect.stringMatching(/10 mm/) });
  });
});

describe('full round', () => {
  const off = (half: number) => 2 * half * half * (1 - Math.PI / 4);
  test('of a bar, from side to side, and it keeps its name', async () => {
    const plain = block(40, 10, 20);
    const steps = { ...plain, r: step('full_round', { faces: [await looking(plain, [0, 0, 1])] }) };
    const [body] = await made(steps);
    expect(body!.facts.volume).toBeCloseTo(8000 - off(5) * 40, 6);
    expect(namesIn(body!).filter((n) => n.startsWith('r:round'))).toEqual(['r:round:(e:end:(+l0 +l1 +l2 +l3))']);
  });

  test('of both ends of a link at once', async () => {
    const plain = block(50, 12, 6);
    const steps = { ...plain, r: step('full_round', { faces: [await looking(plain, [1, 0, 0]), await looking(plain, [-1, 0, 0])] }) }; // prettier-ignore
    expect(await volume(steps)).toBeCloseTo(50 * 12 * 6 - 2 * off(3) * 12, 6);
  });

  test('of a rim between two cylinders (Pappus)', async () => {
    const tube: Steps = { s: ring(15, {}, 11), e: extruded('s', '20 mm', { profile: { sketch: 's', regions: [{ outer: ['+o'] }] } }) }; // prettier-ignore
    const steps = { ...tube, r: step('full_round', { faces: [await looking(tube, [0, 0, 1])] }) };
    // What goes lies evenly on both sides of the middle circle.
    expect(await volume(steps)).toBeCloseTo(Math.PI * (225 - 121) * 20 - off(2) * 2 * Math.PI * 13, 5);
  });

  test('of a face whose sides lean is refused', async () => {
    const wedge: Steps = { s: outline([[0, 0], [40, 0], [30, 10], [10, 10]]), e: extruded('s', '20 mm') }; // prettier-ignore
    const steps = { ...wedge, r: step('full_round', { faces: [await looking(wedge, [0, 0, 1])] }) };
    expect(await failing(steps)).toMatchObject({ status: 'failed', message: expect.stringMatching(/two parallel sides/) }); // prettier-ignore
  });
});

describe('a shell whose inner corners are rounded', () => {
  test('of a cross whose arms are narrower than two walls, what is hollow lies between four arcs', async () => {
    const cross = [[-8, -30], [8, -30], [8, -8], [30, -8], [30, 8], [8, 8], [8, 30], [-8, 30], [-8, 8], [-30, 8], [-30, -8], [-8, -8]] as const; // prettier-ignore
    const steps: Steps = { s: outline(cross), e: extruded('s', '30 mm') };
    const h = step('shell', { open: [await looking(steps, [0, 0, 1])], thickness: '10 mm' });
    const outcome = await evaluated(designOf({ ...steps, h }));
    expect(last(outcome)).toMatchObject({ status: 'ok', message: expect.stringMatching(/the inside is rounded/) });
    // A quarter of it: a square of 8, less what lies within 10 of its outer corner.
    const under = (a: number) => (a * Math.sqrt(100 - a * a) + 100 * Math.asin(a / 10)) / 2;
    const hollow = 4 * (64 - (8 * 6 + under(8) - under(6))) * 20;
    expect(outcome.bodies[0]!.facts.volume).toBeCloseTo((60 * 16 + 44 * 16) * 30 - hollow, 4);
  });

  test('of freely curved sides that a slant cuts off, has walls alike all round', async () => {
    const oval = (long: At, short: number, more: Partial<Step> = {}): Step => ({ ...outline([], { name: 'Oval', ...more }), points: { m: [0, 0], j: [...long] }, curves: { o: { kind: 'ellipse', center: 'm', major: 'j', minor: short } } }) as Step; // prettier-ignore
    const above = (distance: string) => step('datum_plane', { way: 'offset', plane: { datum: 'floor' }, distance });
    const steps: Steps = {
      s: oval([28, 0], 18),
      p: above('60 mm'),
      t: oval([0, 24], 16, { plane: { step: 'p' } }),
      e: step('loft', { sections: [all, { sketch: 't', regions: 'all' }], way: 'smooth', result: 'new_body' }),
      w: outline([[-30, 46], [-10, 62], [-30, 62]], { plane: { datum: 'wall' } }), // prettier-ignore
      c: extruded('w', '1 mm', { result: 'cut', way: 'through_both' }),
      n: above('74 mm'),
      r: ring(9, { plane: { step: 'n' } }),
      k: extruded('r', '1 mm', { name: 'Neck', way: 'to_next', reversed: true, result: 'join' }),
    };
    const h = step('shell', { open: [await looking(steps, [0, 0, 1])], thickness: '1.6 mm' });
    const outcome = await evaluated(designOf({ ...steps, h }));
    expect(last(outcome)).toMatchObject({ status: 'ok', message: expect.stringMatching(/the inside is rounded/) });
    const { faces, valid } = outcome.bodies[0]!.facts;
    expect(valid).toBe(true);
    const round = faces.flatMap((f) => (f.kind === 'cylinder' ? [f.radius!] : [])).sort((a, b) => a - b);
    expect(round).toEqual([expect.closeTo(7.4, 6), expect.closeTo(9, 6)]);
    // The slant, outside and inside, square to it so far apart.
    const slanted = faces.filter((f) => f.normal && Math.abs(f.normal[0]) > 0.1);
    const along = slanted.map((f) => f.normal!.reduce((sum, c, i) => sum + c * f.center[i]!, 0) * Math.sign(f.normal![2])); // prettier-ignore
    expect(Math.abs(along[0]! - along[1]!)).toBeCloseTo(1.6, 6);
  });
});

describe('other walls of a shell', () => {
  const plain = block(40, 30, 20);
  test.each<[string, Vec3[], string, boolean, number]>([
    ['a thick floor', [[0, 0, -1]], '5 mm', false, 40 * 30 * 20 - 36 * 26 * 15],
    ['a thin side', [[1, 0, 0]], '0.5 mm', false, 40 * 30 * 20 - 37.5 * 26 * 18],
    ['floor and side', [[0, 0, -1], [1, 0, 0]], '6 mm', false, 40 * 30 * 20 - 32 * 26 * 14], // prettier-ignore
  ])('%s', async (_, ways, other, outward, expected) => {
    const open = [await looking(plain, [0, 0, 1])];
    const others = await Promise.all(ways.map((way) => looking(plain, way)));
    const steps = { ...plain, h: step('shell', { open, thickness: '2 mm', outward, other_thickness: other, others }) };
    const [body] = await made(steps);
    expect(body!.facts.volume).toBeCloseTo(expected, 5);
    expect(namesIn(body!).filter((n) => n.startsWith('h:inner'))).toHaveLength(5);
  });

  test('three thicknesses besides the one of all others', async () => {
    const [open, floor, right, back] = await Promise.all([[0, 0, 1], [0, 0, -1], [1, 0, 0], [0, 1, 0]].map((way) => looking(plain, way as unknown as Vec3))); // prettier-ignore
    const walls = { other_thickness: '5 mm', others: [floor], other_thickness_2: '1 mm', others_2: [right], other_thickness_3: '8 mm', others_3: [back] }; // prettier-ignore
    const [body] = await made({ ...plain, h: step('shell', { open: [open], thickness: '2 mm', ...walls }) });
    expect(body!.facts.volume).toBeCloseTo(40 * 30 * 20 - 37 * 20 * 15, 5);
    const twice = { ...plain, h: step('shell', { open: [open], thickness: '2 mm', ...walls, others_2: [floor] }) };
    expect(await failing(twice)).toMatchObject({ message: expect.stringMatching(/one of these is picked for two/) });
  });

  test('the floor of a body whose sides lean is made thicker between them', async () => {
    const tapered: Steps = { s: outline(rectangle(0, 0, 40, 30)), e: { ...extruded('s', '20 mm'), taper: '10 deg' } as Step }; // prettier-ignore
    const [open, floor] = [await looking(tapered, [0, 0, 1]), await looking(tapered, [0, 0, -1])];
    const hollow = async (other: string) => {
      const [body] = await made({ ...tapered, h: step('shell', { open: [open], thickness: '2 mm', other_thickness: other, others: [floor] }) }); // prettier-ignore
      return body!.facts.volume;
    };
    // Between heights 2 and 6 the hollow is a wall's slant share narrower than the outside.
    const lean = Math.tan(Math.PI / 18);
    const aside = 2 * Math.hypot(1, lean);
    const area = (h: number) => (40 - 2 * (lean * h + aside)) * (30 - 2 * (lean * h + aside));
    expect((await hollow('6 mm')) - (await hollow('2 mm'))).toBeCloseTo((4 * (area(2) + 4 * area(4) + area(6))) / 6, 5);
  });

  test('along a face that is left open is refused', async () => {
    const open = [await looking(plain, [0, 0, 1])];
    const steps = { ...plain, h: step('shell', { open, thickness: '2 mm', other_thickness: '3 mm', others: open }) };
    expect(await failing(steps)).toMatchObject({ status: 'failed', message: expect.stringMatching(/not left open/) });
  });

  test('thicker than the part says what fits', async () => {
    const open = [await looking(plain, [0, 0, 1])];
    const steps = { ...plain, h: step('shell', { open, thickness: '2 mm', other_thickness: '25 mm', others: [await looking(plain, [0, 0, -1])] }) }; // prettier-ignore
    expect(await failing(steps)).toMatchObject({ status: 'failed' });
  });
});
