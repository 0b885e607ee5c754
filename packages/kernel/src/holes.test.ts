/** Holes: volumes in closed form from sizes the tables give, at every kind of place; and what cannot be drilled. */
import { describe, expect, test } from '@jest/globals';
import type { Step } from '@helb/core';
import { block, designOf, edgeNear, evaluated, faceLooking, last, namesIn, outline, rectangle } from './sample-parts.ts'; // prettier-ignore

const base = (await evaluated(designOf(block(60, 40, 12)))).bodies[0]!;
const top = faceLooking(base, [0, 0, 1]);
const WHOLE = 60 * 40 * 12;
const marks: Step = {
  ...outline([], { plane: { face: top }, name: 'Marks' }),
  points: { a: [10, 10], b: [30, 10], c: [50, 30] },
};
const drilled = (more: Partial<Step>) =>
  evaluated(designOf({ ...block(60, 40, 12), m: marks, h: { kind: 'hole', name: 'Holes', places: [{ all_of: 'm' }], size: 'own', diameter: '5 mm', ...more } as Step })); // prettier-ignore
const disc = (d: number) => (Math.PI * d * d) / 4;
/** A cone's frustum. */
const sink = (wide: number, narrow: number, depth: number) => (Math.PI * depth * (wide * wide + wide * narrow + narrow * narrow)) / 12; // prettier-ignore

describe('the material a hole takes', () => {
  test.each<[string, Partial<Step>, number]>([
    ['through all', {}, disc(5) * 12],
    ['to a depth, flat', { through: false, depth: '7 mm', pointed: false }, disc(5) * 7],
    ['to a depth, with a drill point', { through: false, depth: '7 mm' }, disc(5) * 7 + (disc(5) * 2.5) / Math.tan((59 * Math.PI) / 180) / 3], // prettier-ignore
    ['counterbored', { form: 'counterbored', head_diameter: '9 mm', head_depth: '4 mm' }, disc(5) * 8 + disc(9) * 4],
    ['countersunk', { form: 'countersunk', head_diameter: '9 mm' }, disc(5) * 10 + sink(9, 5, 2)],
    ['M5, normal fit', { size: 'M5' }, disc(5.5) * 12],
    ['M5, close fit', { size: 'M5', fit: 'close' }, disc(5.3) * 12],
    ['M6 tapped', { size: 'M6', form: 'tapped' }, disc(5) * 12],
    ['M10 × 1 tapped', { size: 'M10x1', form: 'tapped' }, disc(9) * 12],
    ['M5 with a socket head', { size: 'M5', form: 'counterbored' }, disc(10) * 5.4 + disc(5.5) * (12 - 5.4)],
    ['M4 countersunk', { size: 'M4', form: 'countersunk' }, sink(8.96, 4.5, 2.23) + disc(4.5) * (12 - 2.23)],
    ['1/4-20, free fit', { size: '1/4-20', fit: 'free' }, disc((25.4 * 19) / 64) * 12],
  ])('%s', async (_, more, each) => {
    const outcome = await drilled(more);
    expect(last(outcome)).toMatchObject({ status: 'ok', message: null, doubts: [] });
    expect((WHOLE - outcome.bodies[0]!.facts.volume) / each).toBeCloseTo(3, 7);
  });
});

describe('a hole through the first wall alone', () => {
  // Hollow from front to rear between z = 4 and z = 9: walls of 4 mm below and 3 mm above.
  const channel = { ...block(60, 40, 12), v: outline(rectangle(5, 4, 50, 5), { plane: { datum: 'wall' }, name: 'Hollow' }), w: { kind: 'extrude', name: 'Hollowed', profile: { sketch: 'v', regions: 'all' }, way: 'through_both', result: 'cut' } as Step }; // prettier-ignore
  const hole = (more: Partial<Step>): Step => ({ kind: 'hole', name: 'Holes', places: [{ all_of: 'm' }], size: 'own', diameter: '5 mm', to_next: true, ...more }) as Step; // prettier-ignore
  test.each<[string, Record<string, Step>, Partial<Step>, number]>([
    ['of a channel', channel, {}, disc(5) * 3],
    ['of a channel, all it meets', channel, { to_next: false }, disc(5) * 7],
    ['counterbored', channel, { form: 'counterbored', head_diameter: '9 mm', head_depth: '1 mm' }, disc(9) + disc(5) * 2],
    ['over another body', { ...block(60, 40, 12), c: outline(rectangle(0, 0, 60, 40), { name: 'Lower' }), d: { kind: 'extrude', name: 'Cellar', profile: { sketch: 'c', regions: 'all' }, way: 'one_way', distance: '3 mm', start: '-20 mm', result: 'new_body' } as Step }, {}, disc(5) * 12],
  ])('%s', async (_, steps, more, each) => {
    const total = (bodies: readonly { facts: { volume: number } }[]) => bodies.reduce((sum, b) => sum + b.facts.volume, 0);
    const before = await evaluated(designOf(steps));
    const plane = { face: faceLooking(before.bodies[0]!, [0, 0, 1]) };
    const outcome = await evaluated(designOf({ ...steps, m: { ...marks, plane } as Step, h: hole(more) }));
    expect(last(outcome)).toMatchObject({ status: 'ok', message: null, doubts: [] });
    expect(outcome.bodies.every((b) => b.facts.valid)).toBe(true);
    expect((total(before.bodies) - total(outcome.bodies)) / each).toBeCloseTo(3, 7);
  }); // prettier-ignore

  test('a place off the face is counted', async () => {
    const off = { ...marks, points: { a: [10, 10], b: [300, 10] } } as Step;
    const outcome = await evaluated(designOf({ ...block(60, 40, 12), m: off, h: hole({}) }));
    expect(last(outcome)).toMatchObject({ status: 'ok', message: '1 of 2 holes met no material.' });
  });
});

describe('places', () => {
  test('circles where no point stands alone, the centre of a face, the centre of a round edge', async () => {
    const circle = {
      ...marks,
      points: { k: [20, 20] },
      curves: { o: { kind: 'circle', center: 'k', radius: 3 } },
    } as Step;
    const steps = { ...block(60, 40, 12), m: circle, h: { kind: 'hole', name: 'First', places: [{ all_of: 'm' }], size: 'own', diameter: '8 mm', through: false, depth: '4 mm', pointed: false } as Step }; // prettier-ignore
    const one = (await evaluated(designOf(steps))).bodies[0]!;
    expect(WHOLE - one.facts.volume).toBeCloseTo(disc(8) * 4, 6);
    const rim = edgeNear(one, [20 + 4, 20, 12]);
    const bottom = faceLooking(one, [0, 0, -1]);
    const more = (place: unknown, depth: string): Step => ({ kind: 'hole', name: 'Second', places: [place], size: 'own', diameter: '2 mm', through: false, depth, pointed: false }); // prettier-ignore
    const onRim = await evaluated(designOf({ ...steps, i: more({ edge: rim }, '9 mm') }));
    // It begins at the rim, and the first 4 mm are open already.
    expect(WHOLE - onRim.bodies[0]!.facts.volume).toBeCloseTo(disc(8) * 4 + disc(2) * 5, 6);
    const below = await evaluated(designOf({ ...steps, i: more({ face: bottom }, '3 mm') }));
    expect(WHOLE - below.bodies[0]!.facts.volume).toBeCloseTo(disc(8) * 4 + disc(2) * 3, 6);
  });

  test('each hole has its place in its name, which stays when another place is added', async () => {
    const bores = (outcome: Awaited<ReturnType<typeof drilled>>) => namesIn(outcome.bodies[0]!).filter((n) => n.startsWith('h:bore')).sort(); // prettier-ignore
    expect(bores(await drilled({}))).toEqual(['h:bore:a', 'h:bore:b', 'h:bore:c']);
    const marked = { ...marks, points: { d: [20, 30], c: [50, 30], b: [30, 10], a: [10, 10] } } as Step;
    const steps = { ...block(60, 40, 12), m: marked, h: { kind: 'hole', name: 'Holes', places: [{ all_of: 'm' }], size: 'M4' } as Step }; // prettier-ignore
    expect(bores(await evaluated(designOf(steps)))).toEqual(['h:bore:a', 'h:bore:b', 'h:bore:c', 'h:bore:d']);
  });

  test('holes repeated in a pattern, rims bevelled after', async () => {
    const steps: Record<string, Step> = {
      ...block(60, 40, 12),
      m: { ...marks, points: { a: [10, 10] } } as Step,
      h: { kind: 'hole', name: 'Hole', places: [{ all_of: 'm' }], size: 'M4' },
      r: { kind: 'pattern', name: 'Grid', what: 'steps', steps: ['h'], layout: 'grid', axis: { datum: 'x' }, count: '3', pitch: '20 mm', second_count: '2', second_pitch: '20 mm' }, // prettier-ignore
      c: { kind: 'chamfer', name: 'Rims', edges: [{ around: top }], distance: '0.5 mm' },
    };
    const outcome = await evaluated(designOf(steps));
    expect(outcome.steps.map((s) => s.status)).toEqual(['ok', 'ok', 'ok', 'ok', 'ok', 'ok']);
    const rim = (60 + 40) * 0.25 - 4 * (0.5 ** 3 / 3) + 6 * Math.PI * (0.25 * (2.25 + 0.5 / 3));
    expect(outcome.bodies[0]!.facts.volume).toBeCloseTo(WHOLE - 6 * disc(4.5) * 12 - rim, 4);
  });
});

describe('what cannot be drilled is said', () => {
  test.each<[string, Partial<Step>, RegExp]>([
    ['no diameter', { diameter: '0 mm' }, /^The diameter of a hole must be more than nothing/],
    ['no depth', { through: false, depth: '-1 mm' }, /^The depth of a hole must be more/],
    [
      'a head narrower than the hole',
      { form: 'counterbored', head_diameter: '4 mm' },
      /^A head of 4 mm is no wider than the hole of 5 mm/,
    ],
    ['a head deeper than the hole', { form: 'counterbored', head_depth: '30 mm' }, /takes up the whole depth/],
    ['a head the table lacks', { size: 'M2', form: 'counterbored' }, /^The table has no socket head for M2/],
    ['a corner, which has no way in', { places: [{ vertex: { faces: ['e:end', 'e:side:l0', 'e:side:l1'], near: [60, 0, 12] } }] }, /does not tell which way to drill/], // prettier-ignore
    ['a point that is gone', { places: [{ sketch: 'm', point: 'z' }] }, /^A point of Marks that this uses is gone/],
    ['drilled away from the material', { flipped: true }, /^This cuts nothing/],
  ])('%s', async (_, more, sentence) => {
    const failed = last(await drilled(more));
    expect(failed.status).toBe('failed');
    expect(failed.message).toMatch(sentence);
  });

  test('a place off the face is counted', async () => {
    const off = { ...marks, points: { a: [10, 10], b: [300, 10] } } as Step;
    const outcome = await evaluated(designOf({ ...block(60, 40, 12), m: off, h: { kind: 'hole', name: 'Holes', places: [{ all_of: 'm' }], size: 'M4' } as Step })); // prettier-ignore
    expect(last(outcome)).toMatchObject({ status: 'ok', message: '1 of 2 holes met no material.' });
  });

  test('a sketch without points', async () => {
    const none = outline(rectangle(5, 5, 5, 5), { plane: { face: top }, name: 'Marks' });
    const outcome = await evaluated(designOf({ ...block(60, 40, 12), m: none, h: { kind: 'hole', name: 'H', places: [{ all_of: 'm' }], size: 'M4' } as Step })); // prettier-ignore
    expect(last(outcome).message).toMatch(/^Marks has no point that stands alone and no circle/);
  });
});
