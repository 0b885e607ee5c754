/** Steps and bodies repeated: volumes in closed form, members that keep their names, and what is refused. */
import { describe, expect, test } from '@jest/globals';
import { setDimension, setSlot, suppressStep, type Step } from '@helb/core';
import { block, designOf, edgeNear, edited, evaluated, extruded, faceLooking, last, namesIn, outline, rectangle } from './sample-parts.ts'; // prettier-ignore

const CORNER = 1 - Math.PI / 4;
const base = (await evaluated(designOf(block(100, 30, 10)))).bodies[0]!;
const top = faceLooking(base, [0, 0, 1]);

/** A groove of 4 by 30 by 3 across the block's top, its two upper edges rounded by 1. */
const grooved = async (more: Partial<Step>, numbers = {}) => {
  const steps: Record<string, Step> = {
    ...block(100, 30, 10),
    g: outline(rectangle(6, -5, 4, 40), { plane: { face: top }, name: 'Groove outline' }),
    h: extruded('g', '3 mm', { name: 'Groove', result: 'cut', reversed: true }),
  };
  const cut = (await evaluated(designOf(steps))).bodies[0]!;
  const edges = [edgeNear(cut, [6, 15, 10]), edgeNear(cut, [10, 15, 10])];
  return designOf(
    { ...steps, f: { kind: 'fillet', name: 'Lips', edges, radius: '1 mm' }, r: { kind: 'pattern', name: 'Row', ...more } as Step }, // prettier-ignore
    numbers,
  );
};
const row = { what: 'steps', steps: ['h', 'f'], layout: 'row', axis: { datum: 'x' }, count: 'n', pitch: '12 mm' };
const eachGroove = 4 * 30 * 3 + 2 * CORNER * 30;

describe('a groove repeated with its fillets', () => {
  test.each([1, 2, 8])('%i times', async (n) => {
    const outcome = await evaluated(await grooved(row, { n: String(n) }));
    expect(last(outcome)).toMatchObject({ status: 'ok', message: null, doubts: [] });
    expect(outcome.bodies[0]!.facts.volume).toBeCloseTo(30000 - n * eachGroove, 5);
  });

  test('fillets chosen by what the groove made are those of each member', async () => {
    const design = await grooved(row, { n: '4' });
    const byRule = edited(design, setSlot('p', 'f', 'edges', [{ made_by: 'h' }]), setDimension('f.radius', '0.8 mm'));
    const outcome = await evaluated(byRule);
    expect(last(outcome)).toMatchObject({ status: 'ok', message: null, doubts: [] });
    // Two lips, two roots, and three edges at either open end: every groove loses as much as the first.
    const lost = 30000 - outcome.steps.find((s) => s.id === 'f')!.bodies[0]!.facts.volume;
    expect(outcome.bodies[0]!.facts.volume).toBeCloseTo(30000 - 4 * lost, 5);
    expect(namesIn(outcome.bodies[0]!).filter((n) => n.startsWith('r:m3:(f:round'))).toHaveLength(10);
  });

  test('a block mirrored in the plane it lies about is the same block, and that is said', async () => {
    const about = { s: outline(rectangle(-20, -10, 40, 20)), e: extruded('s', '8 mm') };
    const mirrored = (steps: string[]) => ({ kind: 'mirror', name: 'Other half', what: 'steps', steps, plane: { datum: 'side' } }) as Step; // prettier-ignore
    const says = async (steps: Record<string, Step>) => last(await evaluated(designOf(steps))).message;
    expect(await says({ ...about, m: mirrored(['e']) })).toMatch(/^A copy lies just where the same body is already/);
    // A Z mirrored is an S: it fills the same box, and is another body.
    const bent = outline([[-20, -10], [5, -10], [5, -2], [20, -2], [20, 10], [-5, 10], [-5, 2], [-20, 2]]); // prettier-ignore
    expect(await says({ ...about, s: bent, m: mirrored(['e']) })).toBeNull();
    const rib = { t: outline(rectangle(-5, -10, 10, 20)), j: extruded('t', '12 mm', { name: 'Rib', result: 'join' }) };
    expect(await says({ ...about, ...rib, m: mirrored(['j']) })).toMatch(/^This adds nothing/);
    const aside = {
      t: outline(rectangle(-15, -10, 10, 20)),
      j: extruded('t', '12 mm', { name: 'Rib', result: 'join' }),
    };
    expect(await says({ ...about, ...aside, m: mirrored(['j']) })).toBeNull();
  });

  test('members keep their names while others come and go', async () => {
    const design = await grooved(row, { n: '4' });
    const four = (await evaluated(design)).bodies[0]!;
    const third = namesIn(four).filter((n) => n.startsWith('r:m3:'));
    // Two walls, the bottom, and the two rounds.
    expect(third).toHaveLength(5);
    const id = Object.keys(design.dimensions)[0]!;
    const six = (await evaluated(edited(design, setDimension(id, '6')))).bodies[0]!;
    expect(namesIn(six)).toEqual(expect.arrayContaining(namesIn(four)));
    const wider = (await evaluated(edited(design, setDimension('r.pitch', '15 mm')))).bodies[0]!;
    expect(namesIn(wider).sort()).toEqual(namesIn(four).sort());
    expect(wider.facts.volume).toBeCloseTo(30000 - 4 * eachGroove, 5);
  });

  test('an edge of a member can be worked on, and stays that member’s', async () => {
    const design = await grooved(row, { n: '5' });
    const five = (await evaluated(design)).bodies[0]!;
    // The fourth groove begins at 42 and lies between x = 42 and 46; its bottom edge on the near side.
    const edge = edgeNear(five, [42, 15, 7]);
    const bevelled = (count: string) =>
      evaluated(edited(designOf({ ...design.parts.p!.steps, c: { kind: 'fillet', name: 'Root', edges: [edge], radius: '0.5 mm' } as Step }, { n: count }))); // prettier-ignore
    for (const count of ['5', '7', '4']) {
      const outcome = await bevelled(count);
      expect(last(outcome)).toMatchObject({ status: 'ok', doubts: [] });
      const round = outcome.bodies[0]!.facts.faces[outcome.bodies[0]!.faceNames.findIndex((n) => n[0]!.step === 'c')]!;
      expect(round.center[0]).toBeGreaterThan(42);
      expect(round.center[0]).toBeLessThan(43);
    }
    expect(last(await bevelled('3'))).toMatchObject({ status: 'failed', doubts: [{ how: 'lost' }] });
  });

  test('leaving some out, both ways, and over a length', async () => {
    const volume = async (more: Partial<Step>) => (await evaluated(await grooved({ ...row, ...more }))).bodies[0]!.facts.volume; // prettier-ignore
    expect(await volume({ count: '6', left_out: '3, 5' })).toBeCloseTo(30000 - 4 * eachGroove, 5);
    expect(await volume({ count: '4', steps_by: 'over', pitch: '60 mm' })).toBeCloseTo(30000 - 4 * eachGroove, 5);
    // Backwards the groove runs out of the block after one more, at x = −6 … −2.
    const both = await evaluated(await grooved({ ...row, steps: ['h'], count: '2', way: 'both_ways' }));
    expect(last(both)).toMatchObject({ status: 'ok', message: 'Of Groove, member b2 changed nothing where it lies.' });
  });
});

describe('round patterns, grids, mirrors and bodies', () => {
  const disc = (n: string, more: Partial<Step> = {}): Record<string, Step> => ({
    s: { ...outline([]), points: { c: [0, 0], k: [20, 0] }, curves: { o: { kind: 'circle', center: 'c', radius: 30 }, i: { kind: 'circle', center: 'k', radius: 3 } } }, // prettier-ignore
    e: extruded('s', '5 mm', { profile: { sketch: 's', regions: [{ outer: ['+o'] }, { outer: ['+i'] }] } }),
    h: extruded('s', '20 mm', { name: 'Hole', profile: { sketch: 's', regions: [{ outer: ['+i'] }] }, way: 'symmetric', result: 'cut' }), // prettier-ignore
    r: { kind: 'pattern', name: 'Holes', what: 'steps', steps: ['h'], layout: 'round', axis: { datum: 'z' }, count: n, ...more } as Step, // prettier-ignore
  });
  const whole = Math.PI * 900 * 5;
  const hole = Math.PI * 9 * 5;

  test.each<[string, Record<string, Step>, number]>([
    ['all round', disc('12'), whole - 12 * hole],
    ['every 40°', disc('4', { turns_by: 'every', angle: '40 deg' }), whole - 4 * hole],
    ['over 90°', disc('3', { turns_by: 'over', angle: '90 deg' }), whole - 3 * hole],
    ['both ways', disc('3', { turns_by: 'every', angle: '30 deg', way: 'both_ways' }), whole - 5 * hole],
  ])('%s', async (_, steps, volume) => {
    const outcome = await evaluated(designOf(steps));
    expect(last(outcome)).toMatchObject({ status: 'ok', message: null });
    expect(outcome.bodies[0]!.facts.volume).toBeCloseTo(volume, 5);
    if (steps.r!.turns_by === undefined) expect(Math.hypot(...outcome.bodies[0]!.facts.center.slice(0, 2))).toBeLessThan(1e-9); // prettier-ignore
  });

  test('the same pattern of many holes is one cut', async () => {
    const outcome = await evaluated(designOf(disc('18', {})));
    expect(outcome.bodies[0]!.facts.faces).toHaveLength(3 + 18);
  });

  const pegged = (more: Partial<Step>): Record<string, Step> => ({
    ...block(60, 40, 5),
    g: outline(rectangle(4, 6, 3, 5), { plane: { face: top }, name: 'Peg outline' }),
    h: extruded('g', '10 mm', { name: 'Peg', result: 'join' }),
    r: { name: 'More', what: 'steps', steps: ['h'], ...more } as Step,
  });

  test('a grid, with one left out', async () => {
    const outcome = await evaluated(
      designOf(
        pegged({ kind: 'pattern', layout: 'grid', axis: { datum: 'x' }, count: '3', pitch: '15 mm', second_axis: { datum: 'y' }, second_count: '2', second_pitch: '20 mm', left_out: '2.2' }), // prettier-ignore
      ),
    );
    expect(last(outcome).message).toBeNull();
    expect(outcome.bodies).toHaveLength(1);
    expect(outcome.bodies[0]!.facts.volume).toBeCloseTo(12000 + 5 * 150, 6);
    const [x, y] = outcome.bodies[0]!.facts.center;
    const pegs = [[5.5, 8.5], [20.5, 8.5], [35.5, 8.5], [5.5, 28.5], [35.5, 28.5]] as const; // prettier-ignore
    const mean = (i: 0 | 1, half: number) => (12000 * half + 150 * pegs.reduce((s, p) => s + p[i], 0)) / (12000 + 750);
    expect([x, y]).toEqual([expect.closeTo(mean(0, 30), 8), expect.closeTo(mean(1, 20), 8)]);
  });

  test('steps mirrored in two planes at once lie evenly', async () => {
    const steps = pegged({ kind: 'mirror', plane: { datum: 'side' }, twice: true, second_plane: { datum: 'wall' } });
    const shifted = { ...steps, s: outline(rectangle(-30, -20, 60, 40)) };
    const { bodies } = await evaluated(designOf(shifted));
    expect(bodies[0]!.facts.volume).toBeCloseTo(12000 + 4 * 150, 6);
    expect(Math.hypot(bodies[0]!.facts.center[0], bodies[0]!.facts.center[1])).toBeLessThan(1e-9);
  });

  test('a body mirrored in its own face and joined to it is twice the body, of the opposite hand', async () => {
    const half = { s: outline([[0, 0], [20, 0], [20, 10], [0, 25]]), e: extruded('s', '4 mm') }; // prettier-ignore
    const area = 20 * 10 + (20 * 15) / 2;
    const made = async (joined: boolean) =>
      evaluated(designOf({ ...half, r: { kind: 'mirror', name: 'Twin', what: 'bodies', plane: { datum: 'side' }, joined } as Step })); // prettier-ignore
    const one = await made(true);
    expect(one.bodies.map((b) => b.facts.volume)).toEqual([expect.closeTo(2 * area * 4, 6)]);
    expect(one.bodies[0]!.facts.center[0]).toBeCloseTo(0, 9);
    const two = await made(false);
    expect(two.bodies.map((b) => [b.name.step, Math.sign(b.facts.center[0])])).toEqual([
      ['e', 1],
      ['r', -1],
    ]);
    expect(two.bodies.every((b) => b.facts.valid)).toBe(true);
  });

  test('bodies in a row, and a step that uses one of them by name', async () => {
    const steps = { ...block(10, 10, 10), r: { kind: 'pattern', name: 'Row', what: 'bodies', layout: 'row', axis: { datum: 'x' }, count: '3', pitch: '20 mm' } as Step }; // prettier-ignore
    const outcome = await evaluated(designOf(steps));
    expect(outcome.bodies.map((b) => b.facts.center[0])).toEqual([5, 25, 45].map((x) => expect.closeTo(x, 9)));
    const [, second] = outcome.bodies;
    expect(second!.name.text).toBe('r:body:(e:body:(+l0 +l1 +l2 +l3) 2)');
  });
});

describe('what cannot be repeated is said', () => {
  test.each<[string, Partial<Step>, RegExp]>([
    ['a count of 100,000', { count: '100000' }, /must be from 1 to 2000/],
    ['no count', { count: '0' }, /must be from 1 to/],
    ['half a count', { count: '2.5' }, /no whole number/],
    ['one place for all', { count: '3', pitch: '0 mm' }, /all lie in one place/],
    ['a sketch', { steps: ['s'], count: '2' }, /^Outline cannot be repeated/],
    [
      'a member that is not there',
      { count: '3', left_out: '7' },
      /^There is no member 7 to leave out; they are numbered 2, 3/,
    ],
    ['a step that was deleted', { steps: ['gone'], count: '2' }, /A step this step uses was deleted/],
    ['fillets alone, whose edges are nowhere else', { steps: ['f'], count: '2' }, /^Lips in member 2: /],
    ['more than a whole turn', { layout: 'round', axis: { datum: 'z' }, count: '5', turns_by: 'every', angle: '90 deg' }, /run once round into themselves/], // prettier-ignore
  ])('%s', async (_, more, sentence) => {
    const outcome = await evaluated(await grooved({ ...row, ...more }));
    expect(last(outcome)).toMatchObject({ status: 'failed' });
    expect(last(outcome).message).toMatch(sentence);
    expect(outcome.bodies[0]!.facts.volume).toBeCloseTo(30000 - eachGroove, 5);
  });

  test('a suppressed original leaves the pattern without what it repeats', async () => {
    const design = edited(await grooved(row, { n: '3' }), suppressStep('p', 'h', true));
    expect(last(await evaluated(design)).message).toBe('Groove is suppressed, and this step needs it.');
  });

  test('another step to repeat is another pattern', async () => {
    const design = edited(await grooved(row, { n: '3' }), setSlot('p', 'r', 'steps', ['h']));
    const { bodies } = await evaluated(design);
    expect(bodies[0]!.facts.volume).toBeCloseTo(30000 - 3 * 360 - 2 * CORNER * 30, 5);
  });
});
