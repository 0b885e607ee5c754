import { refOfFace, type Body, type Design, type FaceFacts, type Step } from '@helb/core';
import { describe, expect, test } from '@jest/globals';
import { block, designOf, edgeNear, evaluated, extruded, last, outline, rectangle } from './sample-parts.ts';

const circle = (x: number, y: number, radius: number): Step => ({
  ...outline([]),
  points: { c: [x, y] },
  curves: { k: { kind: 'circle', center: 'c', radius } },
});
/** A slot 10 wide, its ends about (15, 15) and (25, 15). */
const slot: Step = {
  ...outline([]),
  points: { a: [15, 10], b: [25, 10], c: [25, 20], d: [15, 20], m: [15, 15], n: [25, 15] },
  curves: {
    l: { kind: 'line', from: 'a', to: 'b' },
    r: { kind: 'arc', center: 'n', from: 'b', to: 'c' },
    t: { kind: 'line', from: 'c', to: 'd' },
    q: { kind: 'arc', center: 'm', from: 'd', to: 'a' },
  },
};
const cut = (height: number) => extruded('s2', `${height} mm`, { result: 'cut' });
const PARTS: Readonly<Record<string, Record<string, Step>>> = {
  block: block(40, 30, 20),
  pocket: { ...block(40, 30, 20), s2: outline(rectangle(10, 10, 20, 10)), c: cut(12) },
  bore: { ...block(40, 30, 20), s2: circle(20, 15, 5), c: cut(12) },
  boss: { ...block(40, 30, 20), s2: circle(20, 15, 5), c: extruded('s2', '30 mm', { result: 'join' }) },
  slot: { ...block(40, 30, 20), s2: slot, c: cut(12) },
  halfBore: { ...block(40, 30, 20), s2: circle(20, 0, 5), c: cut(20) },
};
const inside = ({ center: [x, y, z] }: FaceFacts) => x > 5 && x < 35 && y > 1 && y < 29 && z < 19.9 && z > 0.1;
const upright = ({ normal, kind }: FaceFacts) => kind === 'cylinder' || Math.abs(normal?.[2] ?? 1) < 0.1;

function offset(body: Body, is: (f: FaceFacts) => boolean, by: number): Step {
  const faces = body.facts.faces.flatMap((f, i) => (is(f) ? [refOfFace(body, i)] : []));
  return { kind: 'offset', name: 'Offset', faces, distance: `${Math.abs(by)} mm`, inward: by < 0 };
}

async function moved(part: string, is: (f: FaceFacts) => boolean, by: number, more: Record<string, Step> = {}) {
  const steps = PARTS[part]!;
  const { bodies } = await evaluated(designOf(steps));
  return evaluated(designOf({ ...steps, o: offset(bodies[0]!, is, by), ...more }));
}

describe('faces moved along their normals', () => {
  const BLOCK = 40 * 30 * 20;
  test.each<[string, string, (f: FaceFacts) => boolean, number, number, number]>([
    ['the top pulled up', 'block', (f) => f.normal![2] > 0.9, 5, 40 * 30 * 25, 6],
    ['the top pushed down', 'block', (f) => f.normal![2] > 0.9, -5, 40 * 30 * 15, 6],
    ['four sides outwards, with their corners', 'block', upright, 2, 44 * 34 * 20, 6],
    ['four sides inwards', 'block', upright, -2, 36 * 26 * 20, 6],
    ['a pocket made smaller all round', 'pocket', inside, 0.5, BLOCK - 19 * 9 * 11.5, 11],
    ['a pocket made larger all round', 'pocket', inside, -0.5, BLOCK - 21 * 11 * 12.5, 11],
    ['one wall of a pocket', 'pocket', (f) => inside(f) && f.normal![0] > 0.9, -0.5, BLOCK - 20.5 * 10 * 12, 11],
    ['a bore made wider', 'bore', (f) => f.kind === 'cylinder', -0.5, BLOCK - Math.PI * 5.5 ** 2 * 12, 8],
    ['a bore made narrower', 'bore', (f) => f.kind === 'cylinder', 0.5, BLOCK - Math.PI * 4.5 ** 2 * 12, 8],
    ['the floor of a bore', 'bore', (f) => inside(f) && f.kind === 'plane', -1, BLOCK - Math.PI * 25 * 13, 8],
    ['a boss made thicker', 'boss', (f) => f.kind === 'cylinder', 1.5, BLOCK + Math.PI * 6.5 ** 2 * 10, 8],
    ['a boss made thinner', 'boss', (f) => f.kind === 'cylinder', -1.5, BLOCK + Math.PI * 3.5 ** 2 * 10, 8],
    ['a face with a boss on it', 'boss', (f) => f.normal !== null && f.normal[2] > 0.9 && f.area > 500, 4, BLOCK + 40 * 30 * 4 + Math.PI * 25 * 6, 8], // prettier-ignore
    [
      'a slot made wider',
      'slot',
      (f) => inside(f) && upright(f),
      -0.5,
      BLOCK - (10 * 11 + Math.PI * 5.5 ** 2) * 12,
      11,
    ],
    [
      'a slot made narrower',
      'slot',
      (f) => inside(f) && upright(f),
      0.5,
      BLOCK - (10 * 9 + Math.PI * 4.5 ** 2) * 12,
      11,
    ],
    ['half a bore in a side', 'halfBore', (f) => f.kind === 'cylinder', -1, BLOCK - (Math.PI * 36 * 20) / 2, 8],
  ])('%s', async (_, part, is, by, volume, count) => {
    const outcome = await moved(part, is, by);
    expect(last(outcome).message).toBeNull();
    const [body] = outcome.bodies;
    expect(body!.facts.volume).toBeCloseTo(volume, 5);
    expect(body!.faceNames).toHaveLength(count);
    expect(body!.facts.valid).toBe(true);
    // No face is made: each is the one it was.
    expect(body!.faceNames.flat().map((n) => n.step)).not.toContain('o');
  });

  test.each<[string, string, (f: FaceFacts) => boolean, number, string]>([
    ['to nothing', 'bore', (f) => f.kind === 'cylinder', 5, 'The round face has a radius of 5 mm, and would come to nothing; offset it by less.'],
    ['away from what runs on smoothly', 'slot', (f) => inside(f) && f.kind === 'cylinder', -1, 'A face runs smoothly on into one of Block 2 that stays; pick that too, or offset before it is made.'],
    ['by nothing', 'block', upright, 0, 'The distance must be more than nothing.'],
    ['through the part', 'bore', (f) => inside(f) && f.kind === 'plane', -30, 'Moved so far, these faces run into others; move them by less, or choose others.'],
  ])('%s is refused in a sentence', async (_, part, is, by, message) => {
    expect(last(await moved(part, is, by)).message).toBe(message);
  }); // prettier-ignore

  describe('the faces beside going on as they lean', () => {
    const trapezium = { s: outline([[0, 0], [40, 0], [30, 20], [10, 20]]), e: extruded('s', '20 mm') }; // prettier-ignore
    const tapered = (sketch: Step, more: Partial<Step> = {}) => ({ s: sketch, e: { ...extruded('s', '10 mm'), taper: '20 deg', ...more } as Step }); // prettier-ignore
    const lean = Math.tan(Math.PI / 9);
    const frustum = (a: number, b: number, h: number) => (Math.PI * Math.abs(h) * (a * a + a * b + b * b)) / 3;
    const pyramid = (by: number) => {
      const area = (h: number) => (40 - 2 * lean * h) * (30 - 2 * lean * h);
      return (by * (area(10) + 4 * area(10 + by / 2) + area(10 + by))) / 6;
    };
    /** A pocket that narrows towards its floor, 12 deep. */
    const pocket = { ...block(40, 30, 20), s2: { ...outline(rectangle(8, 8, 24, 14)), plane: { face: { name: 'e:end:(+l0 +l1 +l2 +l3)' } } } as Step, c: { ...cut(12), reversed: true, taper: '20 deg' } as Step }; // prettier-ignore
    const floor = (by: number) => {
      const area = (h: number) => (24 - 2 * lean * h) * (14 - 2 * lean * h);
      return (by * (area(12) + 4 * area(12 + by / 2) + area(12 + by))) / 6;
    };
    test.each<[string, Record<string, Step>, (f: FaceFacts) => boolean, number, number]>([
      ['a narrowing one pulled', trapezium, (f) => f.normal![1] > 0.9, 2, 20 * (80 - 42)],
      ['the same pushed', trapezium, (f) => f.normal![1] > 0.9, -3, -20 * (120 - 55.5)],
      ['a side that leans itself', trapezium, (f) => f.normal![0] > 0.5, 1, 20 * Math.hypot(10, 20)], // prettier-ignore
      ['the top of a cone', tapered(circle(0, 0, 15)), (f) => f.normal !== null && f.normal[2] > 0.9, 4, frustum(15 - 10 * lean, 15 - 14 * lean, 4)], // prettier-ignore
      ['the same pushed down', tapered(circle(0, 0, 15)), (f) => f.normal !== null && f.normal[2] > 0.9, -4, -frustum(15 - 10 * lean, 15 - 6 * lean, 4)], // prettier-ignore
      ['the top of a pyramid', tapered(outline(rectangle(0, 0, 40, 30))), (f) => f.normal![2] > 0.9, 6, pyramid(6)],
      ['with a bore in it', { ...tapered(outline(rectangle(0, 0, 40, 30))), s2: circle(20, 15, 4), c: cut(10) }, (f) => f.normal !== null && f.normal[2] > 0.9, 6, pyramid(6) - Math.PI * 16 * 6], // prettier-ignore
      ['the floor of a pocket that narrows, deeper', pocket, (f) => f.normal![2] > 0.9 && f.center[2] < 10, -3, -floor(3)], // prettier-ignore
      ['the same, raised', pocket, (f) => f.normal![2] > 0.9 && f.center[2] < 10, 3, -floor(-3)],
    ])('%s', async (_, steps, is, by, change) => {
      const [plain] = (await evaluated(designOf(steps))).bodies;
      const outcome = await evaluated(designOf({ ...steps, o: offset(plain!, is, by) }));
      expect(last(outcome)).toMatchObject({ message: null, doubts: [] });
      const { facts, faceNames } = outcome.bodies[0]!;
      expect(facts.valid).toBe(true);
      expect(facts.volume - plain!.facts.volume).toBeCloseTo(change, 5);
      // Cones that run on into each other stay two faces of one name.
      const names = (of: Body['faceNames']) => new Set(of.flat().map((n) => n.text));
      expect(names(faceNames)).toEqual(names(plain!.faceNames));
    });

    test('as far as there is something left of it', async () => {
      const [plain] = (await evaluated(designOf(trapezium))).bodies;
      const outcome = await evaluated(designOf({ ...trapezium, o: offset(plain!, (f) => f.normal![1] > 0.9, 25) }));
      expect(last(outcome).message).toMatch(/an edge of this face comes to nothing between the faces beside it/);
    });
  });

  test('what was picked on a moved face is found again while its distance goes up and down', async () => {
    const steps = PARTS.block!;
    const [plain] = (await evaluated(designOf(steps))).bodies;
    const edges = [edgeNear(plain!, [20, 0, 20])];
    const at = (by: number): Design =>
      designOf({ ...steps, o: offset(plain!, (f) => f.normal![2] > 0.9, by), f: { kind: 'fillet', name: 'Rim', edges, way: 'even', radius: '3 mm' } }); // prettier-ignore
    for (const by of [1, 8, -3, -12]) {
      const outcome = await evaluated(at(by));
      expect(last(outcome)).toMatchObject({ status: 'ok', doubts: [] });
      const height = 20 + by;
      expect(outcome.bodies[0]!.facts.volume).toBeCloseTo(40 * 30 * height - 40 * 9 * (1 - Math.PI / 4), 5);
    }
  });
});
