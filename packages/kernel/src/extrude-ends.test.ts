/** How far an extrude goes, walls of open outlines, and flat faces as profiles: closed forms, and what is refused. */
import { describe, expect, test } from '@jest/globals';
import type { Step } from '@helb/core';
import { block, designOf, evaluated, extruded, faceLooking, last, namesIn, outline, rectangle } from './sample-parts.ts'; // prettier-ignore

const base = (await evaluated(designOf(block(40, 30, 10)))).bodies[0]!;
const top = faceLooking(base, [0, 0, 1]);
const PEG = 6 * 8;
/** A block, a roof over it at z = 40 … 44, and a peg of 6 by 8 drawn on the block's top. */
const housed = (more: Partial<Step>, extra: Record<string, Step> = {}): Record<string, Step> => ({
  ...block(40, 30, 10),
  r: outline(rectangle(0, 0, 40, 30), { name: 'Roof outline' }),
  q: extruded('r', '4 mm', { name: 'Roof', start: '40 mm' }),
  ...extra,
  t: outline(rectangle(10, 10, 6, 8), { plane: { face: top }, name: 'Peg outline' }),
  u: extruded('t', '5 mm', { name: 'Peg', ...more }),
});
const total = async (steps: Record<string, Step>) => {
  const outcome = await evaluated(designOf(steps));
  expect(last(outcome)).toMatchObject({ status: 'ok', doubts: [] });
  expect(outcome.bodies.every((b) => b.facts.valid)).toBe(true);
  return outcome.bodies.reduce((sum, b) => sum + b.facts.volume, 0);
};
const BEFORE = 40 * 30 * 14;

describe('where an extrude ends', () => {
  const slant: Step = { kind: 'datum_plane', name: 'Slant', way: 'angled', line: { datum: 'y' }, plane: { datum: 'floor' }, angle: '-60 deg' }; // prettier-ignore
  test.each<[string, Partial<Step>, number, Record<string, Step>?]>([
    ['up to the next body', { way: 'to_next', result: 'join' }, BEFORE + PEG * 30],
    ['up to the next body, less a gap', { way: 'to_next', result: 'join', gap: '4 mm' }, BEFORE + PEG * 26],
    ['up to the next body and into it', { way: 'to_next', result: 'new_body', gap: '-2.5 mm' }, BEFORE + PEG * 32.5],
    ['up to a body, less a gap', { way: 'to_body', until_body: [{ name: 'q' }], result: 'new_body', gap: '7 mm' }, BEFORE + PEG * 23], // prettier-ignore
    ['up to a body and out beyond it', { way: 'to_body', until_body: [{ name: 'q' }], result: 'new_body', gap: '-4.5 mm' }, BEFORE + PEG * 34.5], // prettier-ignore
    ['cut to before it comes out', { way: 'to_next', result: 'cut', reversed: true, gap: '3 mm' }, BEFORE + 40 * 30 * 3 - PEG * 7, { u2: extruded('r', '3 mm', { name: 'Cellar', start: '-20 mm' }) }], // prettier-ignore
    ['cut on beyond where it comes out, into what lies there', { way: 'to_next', result: 'cut', reversed: true, gap: '-18 mm' }, BEFORE + 40 * 30 * 3 - PEG * 11, { u2: extruded('r', '3 mm', { name: 'Cellar', start: '-20 mm' }) }], // prettier-ignore
    ['through all that is above', { way: 'through_all', result: 'cut' }, BEFORE - PEG * 4],
    ['through all below', { way: 'through_all', result: 'cut', reversed: true }, BEFORE - PEG * 10],
    ['cut to where it comes out of the wall it begins in', { way: 'to_next', result: 'cut', reversed: true }, BEFORE + 40 * 30 * 3 - PEG * 10, { u2: extruded('r', '3 mm', { name: 'Cellar', start: '-20 mm' }) }], // prettier-ignore
    ['through all both ways', { way: 'through_both', result: 'cut' }, BEFORE - PEG * 14],
    ['through one body only', { way: 'through_both', result: 'cut', bodies: [{ name: 'q' }] }, BEFORE - PEG * 4],
    ['up to a plane, less a gap', { way: 'to_plane', until: { step: 'a' }, gap: '3 mm', result: 'join', bodies: [{ name: 'e' }] }, BEFORE + PEG * 12, { a: { kind: 'datum_plane', name: 'Stop', way: 'offset', plane: { datum: 'floor' }, distance: '25 mm' } }], // prettier-ignore
    // The plane z = √3 x cuts the peg, x from 10 to 16 and from z = 10 up, at a mean height of 13 √3.
    [
      'up to a slanting plane',
      { way: 'to_plane', until: { step: 'a' }, result: 'new_body' },
      BEFORE + PEG * (13 * Math.sqrt(3) - 10),
      { a: slant },
    ],
    ['what is common', { distance: '50 mm', result: 'common', bodies: [{ name: 'q' }] }, 40 * 30 * 10 + PEG * 4],
    ['starting at a plane', { start_at: { step: 'a' }, distance: '5 mm', result: 'join', bodies: [{ name: 'q' }], reversed: true }, BEFORE + PEG * 5, { a: { kind: 'datum_plane', name: 'Begin', way: 'offset', plane: { datum: 'floor' }, distance: '40 mm' } }], // prettier-ignore
    ['starting off a face that looks the other way', { start_at: { face: faceLooking(base, [0, 0, -1]) }, start: '-3 mm', distance: '5 mm', reversed: true, result: 'new_body' }, BEFORE + PEG * 5], // prettier-ignore
    ['starting at a face, up to the next', { start_at: { face: faceLooking(base, [0, 0, -1]) }, start: '15 mm', way: 'to_next', result: 'new_body' }, BEFORE + PEG * 25], // prettier-ignore
    ['starting off the profile', { start: '2 mm', distance: '5 mm' }, BEFORE + PEG * 5],
    [
      'down from an offset',
      { start: '2 mm', distance: '5 mm', reversed: true, result: 'join', bodies: [{ name: 'e' }] },
      BEFORE + PEG * 2,
    ],
  ])('%s', async (...[, more, volume, extra]) => {
    expect(await total(housed(more, extra))).toBeCloseTo(volume, 5);
  });

  test('tapering inwards and outwards is a prismatoid', async () => {
    const t = Math.tan(Math.PI / 30);
    const frustum = (h: number, s: number) => (h / 6) * (PEG + (6 - 2 * s) * (8 - 2 * s) + 4 * (6 - s) * (8 - s));
    expect(await total(housed({ distance: '9 mm', taper: '6 deg' }))).toBeCloseTo(BEFORE + frustum(9, 9 * t), 6);
    expect(await total(housed({ distance: '9 mm', taper: '-6 deg' }))).toBeCloseTo(BEFORE + frustum(9, -9 * t), 6);
    expect(await total(housed({ distance: '9 mm', taper: '6 deg', reversed: true, result: 'cut', bodies: [{ name: 'e' }] }))).toBeCloseTo(BEFORE - frustum(9, 9 * t), 6); // prettier-ignore
  });

  test('up to the next body follows it', async () => {
    for (const height of [40, 55]) {
      const steps = housed({ way: 'to_next', result: 'join' });
      steps.q = { ...steps.q!, start: `${height} mm` };
      expect(await total(steps)).toBeCloseTo(BEFORE + PEG * (height - 10), 5);
    }
  });

  test.each<[string, Partial<Step>, RegExp]>([
    [
      'up to next where nothing is',
      { way: 'to_next', reversed: false, bodies: [{ name: 'e' }], result: 'join' },
      /There is no material that way/,
    ],
    ['cut up to next from where nothing is', { way: 'to_next', result: 'cut' }, /does not start in a body all over/],
    [
      'a gap wider than the way',
      { way: 'to_next', result: 'join', gap: '31 mm' },
      /With this gap nothing is left of it/,
    ],
    ['a start at a slant', { start_at: { face: faceLooking(base, [1, 0, 0]) } }, /lies at a slant to what is drawn/],
    [
      'a gap and a taper',
      { way: 'to_next', result: 'join', gap: '3 mm', taper: '2 deg' },
      /take the gap or the taper away/,
    ],
    [
      'through all where nothing is',
      { way: 'through_all', bodies: [{ name: 'e' }], result: 'cut' },
      /There is no material that way/,
    ],
    ['up to a plane along its way', { way: 'to_plane', until: { datum: 'side' } }, /is never reached/],
    [
      'a gap longer than the way',
      { way: 'to_plane', until: { datum: 'floor' }, gap: '12 mm' },
      /The gap is more than the way/,
    ],
    ['a taper both ways', { way: 'symmetric', taper: '3 deg' }, /goes one way only/],
    ['a taper lying down', { taper: '85 deg' }, /less than 80°/],
    ['a taper that closes the tool', { distance: '60 mm', taper: '10 deg' }, /slanted|sound/],
  ])('%s is refused in a sentence', async (_, more, sentence) => {
    const outcome = await evaluated(designOf(housed(more)));
    expect(last(outcome).message).toMatch(sentence);
    expect(outcome.bodies.reduce((sum, b) => sum + b.facts.volume, 0)).toBeCloseTo(BEFORE, 6);
  });
});

describe('a flat face as it is', () => {
  test('pushed out, pulled in, with the hole it has', async () => {
    const holed: Record<string, Step> = {
      ...block(40, 30, 10),
      m: { ...outline([], { plane: { face: top } }), points: { a: [20, 15] } } as Step,
      h: { kind: 'hole', name: 'Bore', places: [{ all_of: 'm' }], size: 'own', diameter: '25 mm' },
    };
    const face = faceLooking((await evaluated(designOf(holed))).bodies[0]!, [0, 0, 1]);
    const area = 1200 - Math.PI * 12.5 ** 2;
    const pushed = (more: Partial<Step>) => total({ ...holed, p: extruded('-', '4 mm', { name: 'Push', profile: { face }, ...more }) }); // prettier-ignore
    expect(await pushed({ result: 'join' })).toBeCloseTo(area * 14, 5);
    expect(await pushed({ result: 'cut', reversed: true })).toBeCloseTo(area * 6, 5);
    const names = namesIn((await evaluated(designOf({ ...holed, p: extruded('-', '4 mm', { name: 'Push', profile: { face }, result: 'new_body' }) }))).bodies[1]!); // prettier-ignore
    expect(names).toEqual(expect.arrayContaining(['p:side:(h:bore:a)', 'p:side:(e:side:l0)']));
  });

  test('revolved about an axis of the part', async () => {
    const side = faceLooking(base, [-1, 0, 0]);
    const turned: Step = { kind: 'revolve', name: 'Turn', profile: { face: side }, axis: { datum: 'z' }, way: 'one_way', angle: '90 deg', result: 'new_body' }; // prettier-ignore
    expect(await total({ ...block(40, 30, 10), v: turned })).toBeCloseTo(12000 + (Math.PI / 4) * 900 * 10, 5);
  });
});

describe('walls of open outlines', () => {
  const open = (points: (readonly [number, number])[]): Step => {
    const whole = outline(points, { name: 'Bracket line' });
    const curves = { ...(whole.curves as Record<string, unknown>) };
    delete curves[`l${points.length - 1}`];
    return { ...whole, curves };
  };
  const wall = (more: Partial<Step>): Record<string, Step> => ({
    s: open([[0, 0], [50, 0], [50, 30]]), // prettier-ignore
    w: extruded('s', '20 mm', { name: 'Bracket', profile: { sketch: 's', regions: 'chain' }, wall: '3 mm', ...more }),
  });

  test.each<[string, Partial<Step>, number]>([
    ['half each way', { wall_side: 'middle' }, (50 + 30) * 3],
    ['to the left, inside the bend', { wall_side: 'left' }, (50 + 30) * 3 - 9],
    ['to the right, round the bend', { wall_side: 'right' }, (50 + 30) * 3 + 9],
  ])('%s', async (_, more, area) => {
    expect(await total(wall(more))).toBeCloseTo(area * 20, 6);
  });

  test('its faces are named by the curves, also after a leg is lengthened', async () => {
    const names = async (steps: Record<string, Step>) => namesIn((await evaluated(designOf(steps))).bodies[0]!).sort();
    const before = await names(wall({ wall_side: 'left' }));
    expect(before).toEqual(expect.arrayContaining(['w:side:l0', 'w:side:l1', 'w:side:l0~left', 'w:side:wall_start', 'w:side:wall_end'])); // prettier-ignore
    expect(await names({ ...wall({ wall_side: 'left' }), s: open([[0, 0], [60, 0], [60, 45]]) })).toEqual(before); // prettier-ignore
  });

  test('revolved, it is a thin shell (Pappus)', async () => {
    const ring: Record<string, Step> = {
      s: open([[20, 0], [20, 15]]), // prettier-ignore
      v: { kind: 'revolve', name: 'Ring', profile: { sketch: 's', regions: 'chain' }, wall: '2 mm', wall_side: 'middle', axis: { sketch: 's', line: 'y_axis' }, way: 'whole', result: 'new_body' }, // prettier-ignore
    };
    expect(await total(ring)).toBeCloseTo(2 * 15 * 2 * Math.PI * 20, 6);
  });

  test.each<[string, Record<string, Step>, RegExp]>([
    [
      'a closed outline',
      { ...wall({}), s: outline(rectangle(0, 0, 10, 10), { name: 'Box' }) },
      /The outline of Box is closed/,
    ],
    ['a wall of nothing', wall({ wall: '0 mm' }), /thickness of the wall must be more/],
    ['a wall wider than the bend', { ...wall({ wall_side: 'left', wall: '40 mm' }), s: open([[0, 0], [50, 0], [50, 30], [0, 30]]) }, /runs into itself|makes no wall/], // prettier-ignore
  ])('%s is refused in a sentence', async (_, steps, sentence) => {
    expect(last(await evaluated(designOf(steps))).message).toMatch(sentence);
  });
});
