/** Twelve parts as designers make them, by the steps they would take, with the range of each dial. */
import type { Constraint, Step } from '@helb/core';
import { designOf, edgeNear, evaluated, extruded, faceLooking, outline, type At } from './sample-parts.ts';

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
/** Faces and edges of a part half made, to be picked. */
const half = async (steps: Steps, numbers: Numbers) => (await evaluated(designOf(steps, numbers))).bodies[0]!;

export interface SamplePart {
  readonly steps: Steps;
  readonly numbers: Numbers;
  /** Both ends of each dial, between which the part stays whole. */
  readonly ranges: Readonly<Record<string, readonly [string, string]>>;
}

/** A turned knob: groove and fillets repeated round it. */
export async function turnedKnob(): Promise<SamplePart> {
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
  return {
    steps: grooved,
    numbers,
    ranges: { knob: ['28 mm', '50 mm'], grooves: ['1', '20'], lip: ['0.5 mm', '3 mm'], high: ['14 mm', '40 mm'] },
  };
}

/** A slotted disc: pins the other way, bars from an offset start. */
export function slottedDisc(): SamplePart {
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
  return {
    steps,
    numbers,
    ranges: {
      slots: ['1', '9'],
      thick: ['1 mm', '9 mm'],
      disc: ['56 mm', '90 mm'],
    },
  };
}

/** A bottle: crossed ellipses, a slanted cut, a neck down to the next, hollow. */
export async function bottle(): Promise<SamplePart> {
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
  const solid = await half(steps, numbers);
  const hollow: Steps = { ...steps, h: step('shell', 'Hollow', { open: [faceLooking(solid, [0, 0, 1])], thickness: 'wall' }) }; // prettier-ignore
  return {
    steps: hollow,
    numbers,
    // Each takes seconds: its free sides are measured exactly.
    ranges: { tall: ['60 mm', '140 mm'], wall: ['0.8 mm', '2.5 mm'] },
  };
}

/** A fan scroll: swept housing, cut up to next, a row of holes that stays in the middle. */
export function fanScroll(): SamplePart {
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
  return {
    steps,
    numbers,
    ranges: {
      wide: ['44 mm', '90 mm'],
      thick: ['3 mm', '15 mm'],
      holes: ['1', '5'],
    },
  };
}

/** A plate whose holes are mirrored both ways. */
export function plate(): SamplePart {
  const numbers = { long: '80 mm', broad: '50 mm', hole_dia: '5 mm', edge: '8 mm' };
  const steps: Steps = {
    s: rect('long', 'broad', '-long / 2', '-broad / 2'), e: extruded('s', '6 mm'),
    h: ring('hole_dia', 'long / 2 - edge', 'broad / 2 - edge'), d: cut('h', '1 mm', { name: 'Hole', way: 'through_all' }),
    m: step('mirror', 'Holes', { what: 'steps', steps: ['d'], plane: { datum: 'side' }, twice: true, second_plane: { datum: 'wall' } }), // prettier-ignore
  }; // prettier-ignore
  return { steps, numbers, ranges: { long: ['40 mm', '200 mm'], broad: ['30 mm', '120 mm'], edge: ['4 mm', '12 mm'] } };
}

/** A toothed wheel: one tooth, twelve by pattern, a chamfered bore. */
export async function toothedWheel(): Promise<SamplePart> {
  const numbers = { root: '40 mm', teeth: '12', thick: '8 mm', bore: '10 mm' };
  const steps: Steps = {
    s: ring('root'), e: extruded('s', 'thick'),
    t: rect('5 mm', '4 mm', 'root / 2 - 2 mm', '-2 mm'), j: extruded('t', 'thick', { name: 'Tooth', result: 'join' }),
    r: step('pattern', 'Teeth', { what: 'steps', steps: ['j'], layout: 'round', axis: { datum: 'z' }, count: 'teeth' }),
    b: ring('bore'), c: cut('b', '1 mm', { name: 'Bore', way: 'through_all' }),
  }; // prettier-ignore
  const body = await half(steps, numbers);
  const chamfered = { ...steps, f: step('chamfer', 'Lead-in', { edges: [edgeNear(body, [-5, 0, 8]), edgeNear(body, [-5, 0, 0])], distance: '1 mm' }) }; // prettier-ignore
  return {
    steps: chamfered,
    numbers,
    ranges: { teeth: ['1', '20'], root: ['30 mm', '80 mm'], bore: ['4 mm', '20 mm'], thick: ['3 mm', '20 mm'] },
  };
}

/** A rim with spokes and a tread cut 25 times. */
export function rim(): SamplePart {
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
  return { steps, numbers, ranges: { spokes: ['2', '7'], cuts: ['10', '40'], outer: ['76 mm', '100 mm'], wide: ['6 mm', '30 mm'] } }; // prettier-ignore
}

/** A bracket from an open outline, holes through both legs. */
export function bracket(): SamplePart {
  const numbers = { gauge: '4 mm', tall: '50 mm', broad: '30 mm' };
  const line: Step = { ...chain([[0, 50], [0, 0], [40, 0]], { plane: { datum: 'wall' } }), constraints: { o: k('coincident', ['q1', 'origin']), a: k('vertical', ['m0']), b: k('horizontal', ['m1']), h: k('distance', ['m0'], 'tall'), w: k('distance', ['m1'], '40 mm') } } as Step; // prettier-ignore
  const steps: Steps = {
    s: line,
    e: extruded('s', 'broad', { profile: { sketch: 's', regions: 'chain' }, wall: 'gauge', wall_side: 'left', way: 'symmetric' }),
    h: ring('6 mm', '25 mm', '0 mm'), d: cut('h', '1 mm', { name: 'Floor hole', way: 'through_both' }),
    g: ring('6 mm', '0 mm', 'tall - 12 mm', { plane: { datum: 'side' } }), c: cut('g', '1 mm', { name: 'Wall hole', way: 'through_both' }),
  }; // prettier-ignore
  return { steps, numbers, ranges: { gauge: ['1 mm', '9 mm'], tall: ['30 mm', '90 mm'], broad: ['12 mm', '60 mm'] } };
}

/** A fork with its pin. */
export function fork(): SamplePart {
  const numbers = { gap: '12 mm', leg: '6 mm', pin_dia: '8 mm', reach: '40 mm' };
  const steps: Steps = {
    s: rect('reach', 'gap + 2 * leg', '0 mm', '-(gap + 2 * leg) / 2'), e: extruded('s', '20 mm'),
    t: rect('reach', 'gap', '14 mm', '-gap / 2'), c: cut('t', '1 mm', { name: 'Mouth', way: 'through_all' }),
    b: ring('pin_dia', 'reach - 10 mm', '10 mm', { plane: { datum: 'wall' } }), d: cut('b', '1 mm', { name: 'Eye', way: 'through_both' }),
    p: ring('pin_dia - 0.2 mm', 'reach - 10 mm', '10 mm', { plane: { datum: 'wall' } }), f: extruded('p', 'gap + 2 * leg + 4 mm', { name: 'Pin', way: 'symmetric', result: 'new_body' }),
  }; // prettier-ignore
  return {
    steps,
    numbers,
    ranges: { gap: ['4 mm', '30 mm'], leg: ['2 mm', '15 mm'], pin_dia: ['3 mm', '12 mm'], reach: ['30 mm', '70 mm'] },
  };
}

/** A tube with a cone and a ball end. */
export function tube(): SamplePart {
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
  return { steps, numbers, ranges: { bore: ['4 mm', '24 mm'], wall: ['0.8 mm', '6 mm'], long: ['20 mm', '120 mm'] } };
}

/** A hollow link whose corner rounds fail when its wall is thinned, and say so. */
export async function hollowLink(): Promise<SamplePart> {
  const numbers = { long: '60 mm', high: '24 mm', wall: '5 mm' };
  const steps: Steps = {
    s: rect('long', 'high', '0 mm', '0 mm'), e: extruded('s', '10 mm'),
    t: rect('long - 2 * wall', 'high - 2 * wall', 'wall', 'wall'), c: cut('t', '1 mm', { name: 'Hollow', way: 'through_all' }),
  }; // prettier-ignore
  const body = await half(steps, numbers);
  const link = { ...steps, f: step('fillet', 'Corners', { edges: [edgeNear(body, [0, 0, 5]), edgeNear(body, [60, 24, 5])], radius: '6 mm' }), n: step('fillet', 'Rim', { edges: [edgeNear(body, [30, 0, 10])], radius: '2 mm' }) }; // prettier-ignore
  return {
    steps: link,
    numbers,
    ranges: { long: ['40 mm', '90 mm'], high: ['22 mm', '50 mm'], wall: ['3 mm', '8 mm'] },
  };
}

/** A foot with a boss and a chamfer of two distances. */
export async function foot(): Promise<SamplePart> {
  const numbers = { pad: '50 mm', boss_dia: '20 mm', boss_high: '18 mm', bore: '8 mm' };
  const steps: Steps = {
    s: rect('pad', 'pad', '-pad / 2', '-pad / 2'), e: extruded('s', '10 mm'),
    t: ring('boss_dia'), j: extruded('t', 'boss_high', { name: 'Boss', start: '10 mm', result: 'join' }),
    b: ring('bore'), c: cut('b', '1 mm', { name: 'Bore', way: 'through_all' }),
  }; // prettier-ignore
  const body = await half(steps, numbers);
  const foot = { ...steps, f: step('chamfer', 'Lead-in', { edges: [edgeNear(body, [-10, 0, 28])], distance: '3 mm', way: 'two', other_distance: '1 mm' }) }; // prettier-ignore
  return {
    steps: foot,
    numbers,
    ranges: {
      pad: ['30 mm', '90 mm'],
      boss_dia: ['16 mm', '28 mm'],
      boss_high: ['6 mm', '50 mm'],
      bore: ['3 mm', '12 mm'],
    },
  };
}

export const twelveParts: readonly (() => SamplePart | Promise<SamplePart>)[] = [
  turnedKnob, slottedDisc, bottle, fanScroll, plate, toothedWheel, rim, bracket, fork, tube, hollowLink, foot,
]; // prettier-ignore
