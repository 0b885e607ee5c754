/** Faces rounded into each other, over what lies between, against the areas in their corners (Pappus for round ones). */
import { describe, expect, test } from '@jest/globals';
import { applyEdit, refOfFace, setDimension, type Body, type FaceFacts, type Step, type Vec3 } from '@helb/core';
import {
  block,
  designOf,
  edgeNear,
  evaluated,
  extruded,
  last,
  namesIn,
  outline,
  round,
  type At,
} from './sample-parts.ts';

type Steps = Record<string, Step>;
/** What a round of this radius leaves of a corner. */
const corner = (r: number, angle = Math.PI / 2) => r * r * (1 / Math.tan(angle / 2) - (Math.PI - angle) / 2);
/** How far from a square corner the middle of that lies, along each face. */
const middle = (r: number) => (r ** 3 / 2 - ((Math.PI * r * r) / 4) * (r - (4 * r) / (3 * Math.PI))) / corner(r);
const ring = (at: number, r: number, side: 1 | -1) => 2 * Math.PI * (at + side * middle(r)) * corner(r);

const looking =
  (way: Vec3, more: (f: FaceFacts) => boolean = () => true) =>
  (f: FaceFacts) =>
    f.normal !== null && f.normal[0] * way[0] + f.normal[1] * way[1] + f.normal[2] * way[2] > 0.999 && more(f);
const isRound = (f: FaceFacts) => f.kind === 'cylinder';
const face = (body: Body, is: (f: FaceFacts) => boolean) => refOfFace(body, body.facts.faces.findIndex(is));

async function rounded(steps: Steps, one: (f: FaceFacts) => boolean, other: (f: FaceFacts) => boolean, radius: number) {
  const body = (await evaluated(designOf(steps))).bodies[0]!;
  const step = { kind: 'face_fillet', name: 'Between', one: [face(body, one)], other: [face(body, other)], radius: `${radius} mm` } as Step; // prettier-ignore
  const design = designOf({ ...steps, r: step });
  return { before: body, design, outcome: await evaluated(design) };
}

/** A block with the upper edge of its front bevelled. */
const bevelled = async (steps: Steps, at: Vec3, distance = '2 mm'): Promise<Steps> => {
  const body = (await evaluated(designOf(steps))).bodies[0]!;
  return { ...steps, b: { kind: 'chamfer', name: 'Bevel', edges: [edgeNear(body, at)], distance } as Step };
};
const front = looking([0, -1, 0]);
const top = looking([0, 0, 1]);
const prism = (points: readonly At[]): Steps => ({ s: outline(points), e: extruded('s', '30 mm') });
const plate = (radius: number, up: string, more: Partial<Step> = {}): Steps => ({
  ...block(40, 40, 10),
  t: round(radius, {}, [20, 20]),
  k: extruded('t', up, { result: 'join', ...more }),
});

describe('a fillet between faces', () => {
  const wedge: At[] = [[0, 0], [40, 0], [40, 30], [0, 30 - 40 / Math.sqrt(3)]]; // prettier-ignore
  test.each<
    [string, () => Promise<Steps> | Steps, (f: FaceFacts) => boolean, (f: FaceFacts) => boolean, number, number]
  >([
    ['that meet', () => block(40, 30, 20), top, front, 4, 40 * 30 * 20 - 40 * corner(4)],
    ['over a bevel', () => bevelled(block(40, 30, 20), [20, 0, 20]), top, front, 6, 40 * 30 * 20 - 40 * corner(6)],
    ['just over a bevel', () => bevelled(block(40, 30, 20), [20, 0, 20]), front, top, 2, 40 * 30 * 20 - 40 * corner(2)],
    ['over a bevel at a corner that is not square', () => bevelled(prism(wedge), [40, 30, 15], '1 mm'), looking([1, 0, 0]), looking([-0.5, Math.sqrt(0.75), 0]), 5, 30 * ((30 + 30 - 40 / Math.sqrt(3)) * 20 - corner(5, Math.PI / 3))], // prettier-ignore
    ['in an inner corner with a slant in it', () => prism([[0, 0], [40, 0], [40, 10], [14, 10], [10, 14], [10, 40], [0, 40]]), looking([0, 1, 0], (f) => f.center[1] < 20), looking([1, 0, 0], (f) => f.center[0] < 20), 9, 30 * (40 * 10 + 30 * 10 + corner(9))], // prettier-ignore
    ['round a bevelled shaft', () => bevelled({ s: round(12), e: extruded('s', '25 mm') }, [-12, 0, 25]), top, isRound, 4, Math.PI * 144 * 25 - ring(12, 4, -1)], // prettier-ignore
    ['round the foot of a boss', () => bevelled(plate(8, '30 mm'), [12, 20, 10]), isRound, looking([0, 0, 1], (f) => f.area > 500), 5, 16000 + Math.PI * 64 * 20 + ring(8, 5, 1)], // prettier-ignore
    ['round the mouth of a countersunk bore', () => bevelled(plate(6, '10 mm', { result: 'cut' }), [14, 20, 10]), top, isRound, 3, 16000 - Math.PI * 36 * 10 - ring(6, 3, 1)], // prettier-ignore
  ])('%s', async (_, steps, one, other, radius, volume) => {
    const { outcome } = await rounded(await steps(), one, other, radius);
    expect(last(outcome)).toMatchObject({ status: 'ok', message: null, doubts: [] });
    const [body] = outcome.bodies;
    expect(body!.facts.valid).toBe(true);
    expect(body!.facts.volume).toBeCloseTo(volume, 4);
    expect(namesIn(body!).filter((n) => n.startsWith('r:round'))).toHaveLength(1);
    expect(namesIn(body!).filter((n) => n.startsWith('b:'))).toHaveLength(0);
  });

  test('stays one while what it lies over is made larger, until it no longer reaches over it', async () => {
    const { design } = await rounded(await bevelled(block(40, 30, 20), [20, 0, 20]), top, front, 6);
    for (const [bevel, message] of [
      ['5 mm', null],
      ['7 mm', /^A radius of 6 mm does not reach over what lies between these faces; 7 mm does/],
    ] as const) {
      // prettier-ignore
      const made = applyEdit(design, setDimension('b.distance', bevel));
      const outcome = last(await evaluated(made.ok ? made.design : design));
      if (message)
        expect(outcome).toMatchObject({ message: expect.stringMatching(message), cure: { number: 'radius', value: expect.closeTo(7, 6) } }); // prettier-ignore
      else expect(outcome.message).toBeNull();
    }
  });

  test.each<
    [string, () => Promise<Steps> | Steps, (f: FaceFacts) => boolean, (f: FaceFacts) => boolean, number, RegExp]
  >([
    ['larger than its faces', () => bevelled(block(40, 30, 20), [20, 0, 20]), top, front, 25, /is too large for these faces; 20 mm does/], // prettier-ignore
    ['of faces far apart', () => bevelled(block(40, 30, 20), [20, 0, 20]), looking([1, 0, 0]), looking([-1, 0, 0]), 3, /parallel, and no corner/], // prettier-ignore
    ['of a slant that does not end square', slantCut, looking([0, 1, 0], (f) => f.center[1] < 20), looking([1, 0, 0], (f) => f.center[0] < 20), 9, /does not end square/], // prettier-ignore
  ])('%s is refused', async (_, steps, one, other, radius, says) => {
    const { outcome } = await rounded(await steps(), one, other, radius);
    expect(last(outcome)).toMatchObject({ status: 'failed', message: expect.stringMatching(says) });
  });
});

/** The inner corner with a slant in it, its upper end cut off leaning. */
function slantCut(): Steps {
  return {
    ...prism([[0, 0], [40, 0], [40, 10], [14, 10], [10, 14], [10, 40], [0, 40]]), // prettier-ignore
    c: { kind: 'datum_plane', name: 'Level', way: 'offset', plane: { datum: 'floor' }, distance: '25 mm' } as Step,
    x: { kind: 'datum_axis', name: 'Hinge', way: 'planes', plane: { step: 'c' }, other: { datum: 'wall' } } as Step,
    v: { kind: 'datum_plane', name: 'Slant', way: 'angled', plane: { step: 'c' }, line: { step: 'x' }, angle: '8 deg' } as Step, // prettier-ignore
    k: { kind: 'split', name: 'Cut', bodies: [{ name: 'e:body:(+l0 +l1 +l2 +l3 +l4 +l5 +l6)' }], plane: { step: 'v' }, kept: 'back' } as Step, // prettier-ignore
  };
}
