/** Twelve parts as designers make them, by the steps they would take: exact at their numbers, and whole over the range of each dial. */
import { describe, expect, test } from '@jest/globals';
import { setDimension, type Constraint, type Design, type Step } from '@helb/core';
import { designOf, edgeNear, edited, evaluated, extruded, faceLooking, outline, type At } from './sample-parts.ts';

type Steps = Record<string, Step>;
type Numbers = Record<string, string>;
const step = (kind: string, name: string, more: Partial<Step>): Step => ({ kind, name, ...more }) as Step;
const k = (kind: string, of: string[], value?: string): Constraint => ({ kind, of, ...(value === undefined ? {} : { value }) }) as Constraint; // prettier-ignore

/** A distance has no sign: on which side a point lies is as it is drawn. */
const side = (text: string): readonly [at: number, distance: string] =>
  text.startsWith('-') ? [-20, text.slice(1)] : [20, text];

/** A rectangle by numbers: its first corner at x, y; below 0 with a minus before all. */
const rect = (w: string, h: string, left: string, low: string, more: Partial<Step> = {}): Step => {
  const [[px, x], [py, y]] = [side(left), side(low)];
  return {
    ...outline([[px, py], [px + 10, py], [px + 10, py + 10], [px, py + 10]], more), // prettier-ignore
    constraints: {
      a: k('horizontal', ['l0']), b: k('horizontal', ['l2']), c: k('vertical', ['l1']), d: k('vertical', ['l3']),
      w: k('distance', ['l0'], w), h: k('distance', ['l1'], h),
      x: k('horizontal_distance', ['origin', 'p0'], x), y: k('vertical_distance', ['origin', 'p0'], y),
    }, // prettier-ignore
  } as Step;
};
const ring = (d: string, x = '0 mm', y = '0 mm', more: Partial<Step> = {}): Step =>
  ({
    ...outline([], more),
    points: { m: [1, 1] },
    curves: { o: { kind: 'circle', center: 'm', radius: 5 } },
    constraints: { d: k('diameter', ['o'], d), x: k('horizontal_distance', ['origin', 'm'], x), y: k('vertical_distance', ['origin', 'm'], y) }, // prettier-ignore
  }) as Step;
/** Straight lines from place to place, open. */
const chain = (places: readonly At[], more: Partial<Step> = {}): Step => ({
  ...outline([], more),
  points: Object.fromEntries(places.map((p, i) => [`q${i}`, [...p]])),
  curves: Object.fromEntries(places.slice(1).map((_, i) => [`m${i}`, { kind: 'line', from: `q${i}`, to: `q${i + 1}` }])), // prettier-ignore
});
const cut = (sketch: string, distance: string, more: Partial<Step> = {}) => extruded(sketch, distance, { result: 'cut', ...more }); // prettier-ignore

/** All steps are made, of nothing is there a doubt, and the bodies are sound. */
async function whole(design: Design, at = 'as drawn') {
  const outcome = await evaluated(design);
  const told = outcome.steps.flatMap((s) => [...(s.status === 'ok' ? [] : [`${s.id}: ${s.message}`]), ...s.doubts.map((d) => d.says)]); // prettier-ignore
  expect([at, told]).toEqual([at, []]);
  for (const body of outcome.bodies) expect(body.facts.valid).toBe(true);
  return outcome;
}
/** And over the range of every dial. @returns the volume as drawn */
async function flexed(steps: Steps, numbers: Numbers, ranges: Record<string, [string, string]>): Promise<number> {
  const design = designOf(steps, numbers);
  const { bodies } = await whole(design);
  for (const [name, ends] of Object.entries(ranges))
    for (const end of ends) await whole(edited(design, setDimension(name, end)), `${name} = ${end}`);
  return bodies.reduce((sum, b) => sum + b.facts.volume, 0);
}
/** Faces and edges of a part half made, to be picked. */
const half = async (steps: Steps, numbers: Numbers) => (await whole(designOf(steps, numbers))).bodies[0]!;

describe('the twelve parts', () => {
  test('a turned knob: groove and fillets repeated round it', async () => {
    const numbers = { knob: '36 mm', high: '20 mm', lip: '1.5 mm', grooves: '12' };
    const profile: Step = { ...outline([[0, 0], [18, 0], [18, 20], [0, 20]], { plane: { datum: 'wall' } }), constraints: { o: k('coincident', ['p0', 'origin']), a: k('horizontal', ['l0']), b: k('vertical', ['l1']), c: k('horizontal', ['l2']), d: k('vertical', ['l3']), r: k('distance', ['l0'], 'knob / 2'), h: k('distance', ['l1'], 'high') } } as Step; // prettier-ignore
    const turned: Steps = { s: profile, e: step('revolve', 'Body', { profile: { sketch: 's', regions: 'all' }, axis: { datum: 'z' }, way: 'whole', result: 'new_body' }) }; // prettier-ignore
    const foot = await half(turned, numbers);
    const grooved: Steps = {
      ...turned,
      b: step('fillet', 'Rims', { edges: [edgeNear(foot, [-18, 0, 20]), edgeNear(foot, [-18, 0, 0])], radius: 'lip' }),
      g: ring('4 mm', 'knob / 2', '0 mm'),
      h: cut('g', '1 mm', { name: 'Groove', way: 'through_both' }),
      r: step('pattern', 'Grooves', {
        what: 'steps',
        steps: ['h'],
        layout: 'round',
        axis: { datum: 'z' },
        count: 'grooves',
      }),
      p: ring('8 mm', '0 mm', '0 mm', { plane: { face: faceLooking(foot, [0, 0, -1]) } }),
      q: cut('p', '12 mm', { name: 'Pocket', reversed: true }),
    };
    const volume = await flexed(grooved, numbers, { knob: ['28 mm', '50 mm'], grooves: ['1', '20'], lip: ['0.5 mm', '3 mm'], high: ['14 mm', '40 mm'] }); // prettier-ignore
    expect(volume).toBeLessThan(Math.PI * 18 * 18 * 20 - Math.PI * 16 * 12);
  });

  test('a slotted disc: pins the other way, bars from an offset start', async () => {
    const numbers = { disc: '60 mm', thick: '4 mm', slots: '6', pin_dia: '3 mm' };
    const steps: Steps = {
      s: ring('disc'), e: extruded('s', 'thick'),
      t: rect('12 mm', '3 mm', '12 mm', '-1.5 mm'), c: cut('t', '1 mm', { name: 'Slot', way: 'through_both' }),
      r: step('pattern', 'Slots', { what: 'steps', steps: ['c'], layout: 'round', axis: { datum: 'z' }, count: 'slots' }),
      p: ring('pin_dia', '0 mm', '8 mm'), j: extruded('p', '6 mm', { name: 'Pin', reversed: true, result: 'join' }),
      q: step('pattern', 'Pins', { what: 'steps', steps: ['j'], layout: 'round', axis: { datum: 'z' }, count: '3' }),
      u: rect('2 mm', '20 mm', '-26 mm', '-10 mm'), b: extruded('u', '3 mm', { name: 'Bar', start: 'thick', result: 'join' }),
      m: step('mirror', 'Bars', { what: 'steps', steps: ['b'], plane: { datum: 'side' } }),
    }; // prettier-ignore
    const volume = await flexed(steps, numbers, {
      slots: ['1', '9'],
      thick: ['1 mm', '9 mm'],
      disc: ['56 mm', '90 mm'],
    });
    expect(volume).toBeCloseTo(Math.PI * 900 * 4 - 6 * 36 * 4 + 3 * Math.PI * 2.25 * 6 + 2 * 2 * 20 * 3, 5);
  });

  test('a bottle: crossed ellipses, a slanted cut, a neck down to the next, hollow', async () => {
    const numbers = { tall: '90 mm', neck_dia: '18 mm', wall: '1.6 mm' };
    const oval = (long: number, short: number, more: Partial<Step>): Step => ({ ...outline([], more), points: { m: [0, 0], j: [long, 0] }, curves: { o: { kind: 'ellipse', center: 'm', major: 'j', minor: short } } }) as Step; // prettier-ignore
    const steps: Steps = {
      s: oval(28, 18, {}),
      p: step('datum_plane', 'Shoulder', { way: 'offset', plane: { datum: 'floor' }, distance: 'tall' }),
      t: oval(16, 24, { plane: { step: 'p' } }),
      e: step('loft', 'Body', { sections: [{ sketch: 's', regions: 'all' }, { sketch: 't', regions: 'all' }], way: 'ruled', result: 'new_body' }), // prettier-ignore
      n: step('datum_plane', 'Mouth', { way: 'offset', plane: { datum: 'floor' }, distance: 'tall + 14 mm' }),
      c: ring('neck_dia', '0 mm', '0 mm', { plane: { step: 'n' } }),
      j: extruded('c', '1 mm', { name: 'Neck', way: 'to_next', reversed: true, result: 'join' }),
    };
    const solid = (await whole(designOf(steps, numbers))).bodies[0]!;
    const hollow: Steps = { ...steps, h: step('shell', 'Hollow', { open: [faceLooking(solid, [0, 0, 1])], thickness: 'wall' }) }; // prettier-ignore
    const volume = await flexed(hollow, numbers, { tall: ['60 mm', '140 mm'], neck_dia: ['10 mm', '26 mm'], wall: ['0.8 mm', '2.5 mm'] }); // prettier-ignore
    expect(volume).toBeLessThan(0.4 * solid.facts.volume);
  });

  test('a fan scroll: swept housing, cut up to next, a row of holes that stays in the middle', async () => {
    const numbers = { wide: '50 mm', thick: '8 mm', holes: '4' };
    const base: Steps = {
      s: rect('wide', '40 mm', '0 mm', '0 mm'), e: extruded('s', 'thick'),
      q: step('datum_plane', 'Way plane', { way: 'offset', plane: { datum: 'floor' }, distance: 'thick' }),
      w: chain([[25, 20], [25, 70]], { plane: { step: 'q' } }),
      t: rect('14 mm', '10 mm', '18 mm', 'thick', { plane: { datum: 'wall' } }),
    }; // prettier-ignore
    const steps: Steps = {
      ...base,
      v: extruded('t', '40 mm', { name: 'Duct', reversed: true, result: 'join' }),
      u: rect('8 mm', '6 mm', '21 mm', 'thick + 2 mm', { plane: { datum: 'wall' } }),
      c: cut('u', '60 mm', { name: 'Air', reversed: true }),
      h: ring('4 mm', 'wide / 2 - (holes - 1) / 2 * 9 mm', '34 mm'),
      d: cut('h', '1 mm', { name: 'Hole', way: 'through_all' }),
      r: step('pattern', 'Holes', { what: 'steps', steps: ['d'], layout: 'row', axis: { datum: 'x' }, count: 'holes', pitch: '9 mm' }), // prettier-ignore
    };
    const design = designOf(steps, numbers);
    const volume = await flexed(steps, numbers, {
      wide: ['44 mm', '90 mm'],
      thick: ['3 mm', '15 mm'],
      holes: ['1', '5'],
    });
    expect(volume).toBeGreaterThan(0);
    for (const wide of ['50 mm', '74 mm']) {
      const { bodies } = await whole(edited(design, setDimension('wide', wide)));
      // The duct parts the walls of some holes.
      const all = bodies[0]!.facts.faces.flatMap((f) => (f.axis ? [f.axis.origin[0].toFixed(6)] : []));
      const at = [...new Set(all)].map(Number);
      expect(at).toHaveLength(4);
      expect(at.reduce((a, b) => a + b, 0) / at.length).toBeCloseTo(parseFloat(wide) / 2, 5);
    }
  });

  test('a plate whose holes are mirrored both ways', async () => {
    const numbers = { long: '80 mm', broad: '50 mm', hole_dia: '5 mm', edge: '8 mm' };
    const steps: Steps = {
      s: rect('long', 'broad', '-long / 2', '-broad / 2'), e: extruded('s', '6 mm'),
      h: ring('hole_dia', 'long / 2 - edge', 'broad / 2 - edge'), d: cut('h', '1 mm', { name: 'Hole', way: 'through_all' }),
      m: step('mirror', 'Holes', { what: 'steps', steps: ['d'], plane: { datum: 'side' }, twice: true, second_plane: { datum: 'wall' } }), // prettier-ignore
    }; // prettier-ignore
    const volume = await flexed(steps, numbers, { long: ['40 mm', '200 mm'], broad: ['30 mm', '120 mm'], edge: ['4 mm', '12 mm'] }); // prettier-ignore
    expect(volume).toBeCloseTo(80 * 50 * 6 - 4 * Math.PI * 6.25 * 6, 5);
  });

  test('a toothed wheel: one tooth, twelve by pattern, a chamfered bore', async () => {
    const numbers = { root: '40 mm', teeth: '12', thick: '8 mm', bore: '10 mm' };
    const steps: Steps = {
      s: ring('root'), e: extruded('s', 'thick'),
      t: rect('5 mm', '4 mm', 'root / 2 - 2 mm', '-2 mm'), j: extruded('t', 'thick', { name: 'Tooth', result: 'join' }),
      r: step('pattern', 'Teeth', { what: 'steps', steps: ['j'], layout: 'round', axis: { datum: 'z' }, count: 'teeth' }),
      b: ring('bore'), c: cut('b', '1 mm', { name: 'Bore', way: 'through_all' }),
    }; // prettier-ignore
    const body = await half(steps, numbers);
    const chamfered = { ...steps, f: step('chamfer', 'Lead-in', { edges: [edgeNear(body, [-5, 0, 8]), edgeNear(body, [-5, 0, 0])], distance: '1 mm' }) }; // prettier-ignore
    const volume = await flexed(chamfered, numbers, { teeth: ['1', '20'], root: ['30 mm', '80 mm'], bore: ['4 mm', '20 mm'], thick: ['3 mm', '20 mm'] }); // prettier-ignore
    // A tooth from the circle of the root to its flat end, less what lies within the circle (its chord of 4 mm).
    const within = 2 * Math.sqrt(400 - 4) + 400 * Math.asin(2 / 20);
    const tooth = 4 * 23 - within;
    const cone = (Math.PI * 1 * (36 + 30 + 25)) / 3 - Math.PI * 25;
    expect(volume).toBeCloseTo(Math.PI * (400 - 25) * 8 + 12 * tooth * 8 - 2 * cone, 4);
  });

  test('a rim with spokes and a tread cut 25 times', async () => {
    const numbers = { outer: '80 mm', inner: '60 mm', wide: '16 mm', spokes: '4', cuts: '25' };
    const steps: Steps = {
      s: ring('outer'), e: extruded('s', 'wide', { way: 'symmetric' }),
      t: ring('inner'), c: cut('t', '1 mm', { name: 'Opening', way: 'through_both' }),
      h: ring('14 mm'), j: extruded('h', 'wide', { name: 'Hub', way: 'symmetric', result: 'new_body' }),
      p: rect('(inner - 10 mm) / 2 + 2 mm', '5 mm', '5 mm', '-2.5 mm'), q: extruded('p', '4 mm', { name: 'Spoke', way: 'symmetric', result: 'join' }),
      r: step('pattern', 'Spokes', { what: 'steps', steps: ['q'], layout: 'round', axis: { datum: 'z' }, count: 'spokes' }),
      u: rect('4 mm', '2 mm', 'outer / 2 - 1.5 mm', '-1 mm'), v: cut('u', '1 mm', { name: 'Tread', way: 'through_both' }),
      w: step('pattern', 'Treads', { what: 'steps', steps: ['v'], layout: 'round', axis: { datum: 'z' }, count: 'cuts' }),
    }; // prettier-ignore
    const design = designOf(steps, numbers);
    const { bodies, steps: made } = await evaluated(design);
    expect(made.filter((s) => s.status !== 'ok').map((s) => s.message)).toEqual([]);
    expect(bodies).toHaveLength(1);
    for (const [name, value] of [
      ['spokes', '7'],
      ['cuts', '40'],
      ['outer', '100 mm'],
      ['wide', '6 mm'],
    ] as const) {
      // prettier-ignore
      const after = await evaluated(edited(design, setDimension(name, value)));
      expect([name, after.steps.filter((s) => s.status !== 'ok').map((s) => s.message)]).toEqual([name, []]);
      expect(after.bodies).toHaveLength(1);
    }
  });

  test('a bracket from an open outline, holes through both legs', async () => {
    const numbers = { gauge: '4 mm', tall: '50 mm', broad: '30 mm' };
    const line: Step = { ...chain([[0, 50], [0, 0], [40, 0]], { plane: { datum: 'wall' } }), constraints: { o: k('coincident', ['q1', 'origin']), a: k('vertical', ['m0']), b: k('horizontal', ['m1']), h: k('distance', ['m0'], 'tall'), w: k('distance', ['m1'], '40 mm') } } as Step; // prettier-ignore
    const steps: Steps = {
      s: line,
      e: extruded('s', 'broad', { profile: { sketch: 's', regions: 'chain' }, wall: 'gauge', wall_side: 'left', way: 'symmetric' }),
      h: ring('6 mm', '25 mm', '0 mm'), d: cut('h', '1 mm', { name: 'Floor hole', way: 'through_both' }),
      g: ring('6 mm', '0 mm', 'tall - 12 mm', { plane: { datum: 'side' } }), c: cut('g', '1 mm', { name: 'Wall hole', way: 'through_both' }),
    }; // prettier-ignore
    const volume = await flexed(steps, numbers, { gauge: ['1 mm', '9 mm'], tall: ['30 mm', '90 mm'], broad: ['12 mm', '60 mm'] }); // prettier-ignore
    // The wall lies left of the line as it runs: inside the corner.
    expect(volume).toBeCloseTo((50 + 40 - 4) * 4 * 30 - 2 * Math.PI * 9 * 4, 4);
  });

  test('a fork with its pin', async () => {
    const numbers = { gap: '12 mm', leg: '6 mm', pin_dia: '8 mm', reach: '40 mm' };
    const steps: Steps = {
      s: rect('reach', 'gap + 2 * leg', '0 mm', '-(gap + 2 * leg) / 2'), e: extruded('s', '20 mm'),
      t: rect('reach', 'gap', '14 mm', '-gap / 2'), c: cut('t', '1 mm', { name: 'Mouth', way: 'through_all' }),
      b: ring('pin_dia', 'reach - 10 mm', '10 mm', { plane: { datum: 'wall' } }), d: cut('b', '1 mm', { name: 'Eye', way: 'through_both' }),
      p: ring('pin_dia - 0.2 mm', 'reach - 10 mm', '10 mm', { plane: { datum: 'wall' } }), f: extruded('p', 'gap + 2 * leg + 4 mm', { name: 'Pin', way: 'symmetric', result: 'new_body' }),
    }; // prettier-ignore
    const volume = await flexed(steps, numbers, { gap: ['4 mm', '30 mm'], leg: ['2 mm', '15 mm'], pin_dia: ['3 mm', '12 mm'], reach: ['30 mm', '70 mm'] }); // prettier-ignore
    expect(volume).toBeCloseTo(40 * 24 * 20 - 26 * 12 * 20 - 2 * 6 * Math.PI * 16 + 28 * Math.PI * 3.9 ** 2, 4);
  });

  test('a tube with a cone and a ball end', async () => {
    const numbers = { bore: '10 mm', wall: '2 mm', long: '50 mm' };
    const profile: Step = {
      ...outline([], { plane: { datum: 'wall' } }),
      points: { a: [0, 0], b: [7, 0], c: [0, 7] },
      curves: { x: { kind: 'line', from: 'a', to: 'b' }, r: { kind: 'arc', center: 'a', from: 'b', to: 'c' }, z: { kind: 'line', from: 'c', to: 'a' } }, // prettier-ignore
      constraints: { o: k('coincident', ['a', 'origin']), h: k('horizontal', ['x']), v: k('vertical', ['z']), d: k('distance', ['x'], 'bore / 2 + wall') },
    } as Step; // prettier-ignore
    const steps: Steps = {
      s: ring('bore + 2 * wall'), e: extruded('s', 'long', { reversed: true }),
      q: profile, j: step('revolve', 'Ball', { profile: { sketch: 'q', regions: 'all' }, axis: { datum: 'z' }, way: 'whole', result: 'join', bodies: 'all' }),
      t: ring('bore'), c: cut('t', 'long', { name: 'Bore', reversed: true }),
    }; // prettier-ignore
    const volume = await flexed(steps, numbers, { bore: ['4 mm', '24 mm'], wall: ['0.8 mm', '6 mm'], long: ['20 mm', '120 mm'] }); // prettier-ignore
    expect(volume).toBeCloseTo(Math.PI * (49 - 25) * 50 + (2 / 3) * Math.PI * 343, 4);
  });

  test('a hollow link whose corner rounds fail when its wall is thinned, and say so', async () => {
    const numbers = { long: '60 mm', high: '24 mm', wall: '5 mm' };
    const steps: Steps = {
      s: rect('long', 'high', '0 mm', '0 mm'), e: extruded('s', '10 mm'),
      t: rect('long - 2 * wall', 'high - 2 * wall', 'wall', 'wall'), c: cut('t', '1 mm', { name: 'Hollow', way: 'through_all' }),
    }; // prettier-ignore
    const body = await half(steps, numbers);
    const link = { ...steps, f: step('fillet', 'Corners', { edges: [edgeNear(body, [0, 0, 5]), edgeNear(body, [60, 24, 5])], radius: '6 mm' }), n: step('fillet', 'Rim', { edges: [edgeNear(body, [30, 0, 10])], radius: '2 mm' }) }; // prettier-ignore
    const volume = await flexed(link, numbers, { long: ['40 mm', '90 mm'], high: ['22 mm', '50 mm'], wall: ['3 mm', '8 mm'] }); // prettier-ignore
    expect(volume).toBeLessThan((60 * 24 - 50 * 14) * 10);
    const thin = await evaluated(edited(designOf(link, numbers), setDimension('wall', '1.5 mm')));
    const rim = thin.steps.find((s) => s.id === 'n')!;
    expect(rim).toMatchObject({ status: 'failed', message: expect.stringMatching(/^A radius of 2 mm does not fit this edge/) }); // prettier-ignore
    expect(rim.cure?.value).toBeGreaterThan(1);
    expect(rim.cure!.value).toBeLessThan(1.5);
    expect(thin.bodies[0]!.facts.valid).toBe(true);
  });

  test('a foot with a boss and a chamfer of two distances', async () => {
    const numbers = { pad: '50 mm', boss_dia: '20 mm', boss_high: '18 mm', bore: '8 mm' };
    const steps: Steps = {
      s: rect('pad', 'pad', '-pad / 2', '-pad / 2'), e: extruded('s', '10 mm'),
      t: ring('boss_dia'), j: extruded('t', 'boss_high', { name: 'Boss', start: '10 mm', result: 'join' }),
      b: ring('bore'), c: cut('b', '1 mm', { name: 'Bore', way: 'through_all' }),
    }; // prettier-ignore
    const body = await half(steps, numbers);
    const foot = { ...steps, f: step('chamfer', 'Lead-in', { edges: [edgeNear(body, [-10, 0, 28])], distance: '3 mm', way: 'two', other_distance: '1 mm' }) }; // prettier-ignore
    const volume = await flexed(foot, numbers, { pad: ['30 mm', '90 mm'], boss_dia: ['16 mm', '28 mm'], boss_high: ['6 mm', '50 mm'], bore: ['3 mm', '12 mm'] }); // prettier-ignore
    const plain = 50 * 50 * 10 + Math.PI * 100 * 18 - Math.PI * 16 * 28;
    // A ring whose section is a right triangle: Pappus. Which way round it lies is told by which fits.
    const chamfer = (inward: number, down: number) => 2 * Math.PI * (10 - inward / 3) * ((inward * down) / 2);
    expect([plain - chamfer(3, 1), plain - chamfer(1, 3)].map((v) => Math.abs(v - volume) < 1e-3)).toContain(true);
  });
});
