/** Mechanisms of known mobility: by the field’s counting where axes stand anyhow, and those that counting gets wrong. */
import { describe, expect, test } from '@jest/globals';
import { frameAlong, poseOfFrame, turnOf, type Pose } from '../space/pose.ts';
import { unit, type Vec3 } from '../space/vector.ts';
import { atHome } from './home.ts';
import { freedomsOf, type JointKind } from './kinds.ts';
import { Mechanism, type Coupling, type Pair } from './mechanism.ts';
import { mobility } from './mobility.ts';
import { along, at, chain, link, pair, pinned } from './samples.ts';

function freedoms(m: Mechanism): number {
  const { placed, closed } = atHome(m);
  expect(closed).toBe(true);
  return mobility(m, placed.posture).freedoms;
}

const KINDS: Readonly<Record<string, JointKind>> = { R: 'revolute', P: 'prismatic', C: 'cylindrical', S: 'spherical', E: 'planar', H: 'screw', G: 'pin_in_slot' }; // prettier-ignore

/** Numbers between −1 and 1, the same every time (Park and Miller). */
function steady(seed: number): () => number {
  let now = seed;
  return () => ((now = (now * 48_271) % 2_147_483_647) / 2_147_483_647) * 2 - 1;
}
/** A frame that stands anyhow. */
function anyhow(next: () => number): Pose {
  const origin: Vec3 = [next() * 100, next() * 100, next() * 100];
  return poseOfFrame(frameAlong(origin, unit([next(), next(), next()])!));
}

const joined = (id: string, letter: string, a: number, b: number, frame: Pose): Pair =>
  pair(id, KINDS[letter]!, a, b, frame, letter === 'H' ? { pitch: 7 } : {});

/** One loop of joints with axes that stand anyhow: Σf − 6 by Kutzbach, where every loop has all six ways to fail. */
function loop(letters: string): Mechanism {
  const next = steady(letters.length * 7919 + letters.charCodeAt(0) * 31 + letters.charCodeAt(1));
  const links = [...letters].map((_, i) => link(`l${i}`, i === 0));
  return new Mechanism(
    links,
    [...letters].map((k, i) => joined(`j${i}`, k, i, (i + 1) % links.length, anyhow(next))),
  );
}
const sum = (letters: string) => [...letters].reduce((n, k) => n + freedomsOf(KINDS[k]!), 0);

/** A platform on legs, each a chain of joints that stand anyhow. */
function platform(legs: readonly string[]): Mechanism {
  const next = steady(legs.length * 104_729 + legs[0]!.charCodeAt(0));
  const links = [link('base', true), link('platform')];
  const pairs: Pair[] = [];
  for (const [n, leg] of legs.entries()) {
    let from = 0;
    [...leg].forEach((k, i) => {
      const to = i === leg.length - 1 ? 1 : links.push(link(`${n} ${i}`)) - 1;
      pairs.push(joined(`${n}${i}`, k, from, to, anyhow(next)));
      from = to;
    });
  }
  return new Mechanism(links, pairs);
}

describe('single loops of axes that stand anyhow have Σf − 6 freedoms, or none', () => {
  test.each(['RRRRR', 'RRRRRR', 'RRRRRRR', 'RRRRRRRR', 'RCCC', 'CCC', 'CCCC', 'RSCR', 'RSSR', 'RRSC', 'PRSC', 'RCRCR', 'SSP', 'SSS', 'RHHHRRR', 'HHHHHH', 'PCRS', 'ESR', 'EES', 'GRSR', 'RRRRE', 'PPSC'])(
    '%s',
    (letters) => expect(freedoms(loop(letters))).toBe(Math.max(0, sum(letters) - 6)),
  );
}); // prettier-ignore

describe('platforms on legs that stand anyhow', () => {
  // Each leg of f freedoms takes 6 − f from the platform; what turns idly counts besides.
  test.each<[string, readonly string[], number]>([
    ['on three legs of five freedoms', ['RRRRR', 'RRRRR', 'RRRRR'], 3],
    ['on three legs of revolute, slide and ball', ['RPS', 'RPS', 'RPS'], 3],
    ['on six legs of six freedoms', Array<string>(6).fill('RRPS'), 6],
    ['on six rods with a ball at each end, which spin', Array<string>(6).fill('SPS'), 12],
    ['on two rods with balls, which spin', ['SS', 'SS'], 4 + 2],
    ['on five bars with balls, which spin', Array<string>(5).fill('SS'), 1 + 5],
    ['on six bars with balls it stands, but for their spin', Array<string>(6).fill('SS'), 0 + 6],
    ['on four legs of five freedoms', Array<string>(4).fill('RRRRR'), 2],
    ['on six legs of five freedoms it stands', Array<string>(6).fill('RRRRR'), 0],
  ])('%s', (_, legs, expected) => expect(freedoms(platform(legs))).toBe(expected));
});

describe('flat linkages, by Grübler', () => {
  test.each<[string, Mechanism, number]>([
    ['a triangle', pinned({ a: [0, 0], b: [40, 0], c: [10, 30] }, { ground: 'a b', one: 'b c', two: 'c a' }), 0],
    ['five bars', pinned({ a: [0, 0], b: [-10, 30], c: [25, 60], d: [60, 35], e: [50, 0] }, { ground: 'a e', p: 'a b', q: 'b c', r: 'c d', s: 'd e' }), 2],
    ['six bars in a ring', pinned({ a: [0, 0], b: [-15, 30], c: [10, 60], d: [45, 66], e: [70, 30], f: [55, 0] }, { ground: 'a f', p: 'a b', q: 'b c', r: 'c d', s: 'd e', t: 'e f' }), 3],
    ['eight bars in a ring', pinned({ a: [0, 0], b: [-15, 20], c: [-12, 45], d: [10, 66], e: [40, 70], f: [66, 50], g: [72, 20], h: [55, 0] }, { ground: 'a h', p: 'a b', q: 'b c', r: 'c d', s: 'd e', t: 'e f', u: 'f g', v: 'g h' }), 5],
    ['six bars, the triangles next to each other', pinned({ a: [0, 0], b: [5, 30], c: [40, 45], d: [50, 0], e: [60, 60], f: [100, 40], g: [110, 5] }, { ground: 'a d g', p: 'a b', q: 'b c e', r: 'c d', s: 'e f', t: 'f g' }), 1],
    ['six bars, the triangles apart', pinned({ a: [0, 0], b: [5, 30], c: [40, 45], d: [50, 0], e: [25, 70], f: [80, 66], g: [90, 5] }, { ground: 'a d g', p: 'a b', q: 'b c e', r: 'c d', s: 'e f', t: 'f g' }), 1],
    ['a bar across a four-bar', pinned({ a: [0, 0], b: [0, 20], c: [60, 50], d: [70, 0] }, { ground: 'a d', crank: 'a b', coupler: 'b c', rocker: 'c d', stay: 'a c' }), 0],
    ['a four-bar with a dyad hung on', pinned({ a: [0, 0], b: [0, 20], c: [60, 50], d: [70, 0], e: [30, 70], f: [20, 90] }, { ground: 'a d', crank: 'a b', coupler: 'b c e', rocker: 'c d', tail: 'e f' }), 2],
    ['a pantograph on its pivot', pinned({ o: [0, 0], a: [20, 30], b: [40, 60], c: [60, 30], d: [40, 0] }, { ground: 'o', long: 'o a b', other: 'b c', short: 'a d', last: 'd c' }), 2],
  ])('%s', (_, m, expected) => expect(freedoms(m)).toBe(expected));
}); // prettier-ignore

/** Scissors: cells of crossed bars; the foot of one turns on the ground, that of the other slides. */
function scissors(cells: number): Mechanism {
  const pins: Record<string, [number, number]> = {};
  const links: Record<string, string> = { ground: 'p0' };
  for (let i = 0; i <= cells; i++) {
    pins[`p${i}`] = [0, 30 * i];
    pins[`q${i}`] = [40, 30 * i];
  }
  for (let i = 0; i < cells; i++) {
    pins[`m${i}`] = [20, 30 * i + 15];
    links[`up${i}`] = `p${i} m${i} q${i + 1}`;
    links[`down${i}`] = `q${i} m${i} p${i + 1}`;
  }
  const bare = pinned(pins, links);
  const foot = bare.links.findIndex((l) => l.id === 'down0');
  return new Mechanism(bare.links, [...bare.given, pair('slot', 'pin_in_slot', 0, foot, { at: [40, 0, 0], turn: [0, 0, 0, 1] })]); // prettier-ignore
}

/** Revolutes of which all axes meet in one place. */
function spherical(count: number): Mechanism {
  const next = steady(count * 31_337);
  return new Mechanism(
    Array.from({ length: count }, (_, i) => link(`l${i}`, i === 0)),
    Array.from({ length: count }, (_, i) => pair(`j${i}`, 'revolute', i, (i + 1) % count, along([10, 20, 30], [next(), next(), next()]))), // prettier-ignore
  );
}

/** Two legs of three parallel axes each, the axes of the one square to those of the other: the top goes straight up. */
function straightUp(): Mechanism {
  const leg = (axis: Vec3, out: Vec3) => [0, 1, 2].map((i) => along([out[0] * [1, 2, 1][i]!, out[1] * [1, 2, 1][i]!, i * 20] as Vec3, axis)); // prettier-ignore
  const [a, b] = [leg([1, 0, 0], [0, 30, 0]), leg([0, 1, 0], [30, 0, 0])];
  const links = [link('base', true), link('a1'), link('a2'), link('top'), link('b1'), link('b2')];
  return new Mechanism(links, [
    ...[[0, 1], [1, 2], [2, 3]].map(([p, q], i) => pair(`a${i}`, 'revolute', p!, q!, a[i]!)),
    ...[[0, 4], [4, 5], [5, 3]].map(([p, q], i) => pair(`b${i}`, 'revolute', p!, q!, b[i]!)),
  ]); // prettier-ignore
}

/** Wheels side by side on the ground, each meshing with the next, and if closed the last with the first. */
function wheels(count: number, closed: boolean): Mechanism {
  const mesh = (i: number, j: number): Coupling => ({ id: `m${i}`, sum: 0, terms: [{ pair: i, motion: 0, by: 20 }, { pair: j, motion: 0, by: 20 }] }); // prettier-ignore
  const couplings = Array.from({ length: closed ? count : count - 1 }, (_, i) => mesh(i, (i + 1) % count));
  return new Mechanism(
    [link('ground', true), ...Array.from({ length: count }, (_, i) => link(`w${i}`))],
    Array.from({ length: count }, (_, i) => pair(`w${i}`, 'revolute', 0, i + 1, at(i * 40, 0))),
    couplings,
  );
}

const Z = along([0, 0, 0], [0, 0, 1]);
const X = along([0, 0, 0], [1, 0, 0]);
const bars = (n: number) => Array.from({ length: n }, (_, i) => link(`l${i}`, i === 0));

describe('what counting gets wrong, or has no word for', () => {
  test.each<[string, Mechanism, number]>([
    ['three parallel cranks and their rod move', pinned({ a: [0, 0], b: [0, 40], c: [50, 0], d: [50, 40], e: [100, 0], f: [100, 40] }, { ground: 'a c e', one: 'a b', two: 'c d', three: 'e f', top: 'b d f' }), 1],
    ['six parallel cranks and their rod move', pinned(Object.fromEntries([0, 1, 2, 3, 4, 5].flatMap((i) => [[`g${i}`, [i * 30, 0]], [`t${i}`, [i * 30 + 12, 35]]])) as Record<string, [number, number]>, { ground: 'g0 g1 g2 g3 g4 g5', top: 't0 t1 t2 t3 t4 t5', ...Object.fromEntries([0, 1, 2, 3, 4, 5].map((i) => [`c${i}`, `g${i} t${i}`])) }), 1],
    ['one cell of scissors', scissors(1), 1],
    ['five cells of scissors', scissors(5), 1],
    ['four axes that meet', spherical(4), 1],
    ['five axes that meet', spherical(5), 2],
    ['six axes that meet', spherical(6), 3],
    ['three axes that meet stand', spherical(3), 0],
    ['two legs square to each other lift straight up', straightUp(), 1],
    ['two hinges on one axis', new Mechanism(bars(2), [pair('a', 'revolute', 0, 1, Z), pair('b', 'revolute', 0, 1, along([0, 0, 50], [0, 0, 1]))]), 1],
    ['two hinges on parallel axes stand', new Mechanism(bars(2), [pair('a', 'revolute', 0, 1, Z), pair('b', 'revolute', 0, 1, along([20, 0, 0], [0, 0, 1]))]), 0],
    ['two slides on parallel rails', new Mechanism(bars(2), [pair('a', 'prismatic', 0, 1, X), pair('b', 'prismatic', 0, 1, along([0, 40, 0], [1, 0, 0]))]), 1],
    ['a screw whose nut may not turn', new Mechanism(bars(3), [pair('turn', 'revolute', 0, 1, X), pair('screw', 'screw', 1, 2, X, { pitch: 2 }), pair('way', 'prismatic', 0, 2, X)]), 1],
    ['two screws of other pitch on one spindle', new Mechanism(bars(3), [pair('one', 'screw', 0, 1, X, { pitch: 2 }), pair('other', 'screw', 1, 2, X, { pitch: 3 }), pair('way', 'prismatic', 0, 2, X)]), 1],
    ['a bolt in its hole and nut', new Mechanism(bars(2), [pair('hole', 'cylindrical', 0, 1, Z), pair('nut', 'screw', 0, 1, Z, { pitch: 1 })]), 1],
    ['a block flat on a table', new Mechanism(bars(2), [pair('flat', 'planar', 0, 1, Z)]), 3],
    ['a block between two parallel tables', new Mechanism(bars(2), [pair('flat', 'planar', 0, 1, Z), pair('top', 'planar', 0, 1, along([0, 0, 20], [0, 0, 1]))]), 3],
    ['a block in a corner of two tables', new Mechanism(bars(2), [pair('flat', 'planar', 0, 1, Z), pair('wall', 'planar', 0, 1, X)]), 1],
    ['a ball on a string of two', new Mechanism(bars(2), [pair('a', 'spherical', 0, 1, at(0, 0)), pair('b', 'spherical', 0, 1, at(30, 0))]), 1],
    ['a body on three balls stands', new Mechanism(bars(2), [pair('a', 'spherical', 0, 1, at(0, 0)), pair('b', 'spherical', 0, 1, at(30, 0)), pair('c', 'spherical', 0, 1, at(0, 30))]), 0],
    ['a drive through a cross, its shafts at an angle', new Mechanism(bars(4), [pair('in', 'revolute', 0, 1, X), pair('p', 'revolute', 1, 2, along([0, 0, 0], [0, 1, 0])), pair('q', 'revolute', 2, 3, along([0, 0, 0], [0.4, 0, 1])), pair('out', 'revolute', 0, 3, along([0, 0, 0], [-1, 0.5, 0.4]))]), 1],
    ['a coupling of two slots square to each other', new Mechanism(bars(4), [pair('in', 'revolute', 0, 1, at(0, 0)), pair('one', 'prismatic', 1, 2, along([0, 0, 5], [1, 0, 0])), pair('two', 'prismatic', 2, 3, along([0, 0, 5], [0, 1, 0])), pair('out', 'revolute', 0, 3, at(6, 4))]), 1],
    ['a crank whose pin runs in a rocker’s slot', new Mechanism(bars(3), [pair('crank', 'revolute', 0, 1, at(0, 0)), pair('rocker', 'revolute', 0, 2, at(0, -50)), pair('pin', 'pin_in_slot', 2, 1, { at: [0, 20, 0], turn: turnOf([0, 0, 1], Math.PI / 2) })]), 1],
    ['a train of five wheels', wheels(5, false), 1],
    ['a ring of four wheels turns', wheels(4, true), 1],
    ['a ring of three wheels stands', wheels(3, true), 0],
    ['a chain of nine hinges', chain(9), 9],
    ['three slides on each other', new Mechanism(bars(4), [pair('x', 'prismatic', 0, 1, X), pair('y', 'prismatic', 1, 2, along([0, 0, 0], [0, 1, 0])), pair('z', 'prismatic', 2, 3, Z)]), 3],
    ['two bodies that nothing holds', new Mechanism([link('a'), link('b')], []), 12],
    ['two bodies that hold only each other', new Mechanism([link('a'), link('b')], [pair('r', 'rigid', 0, 1, at(3, 4))]), 6],
  ])('%s', (_, m, expected) => expect(freedoms(m)).toBe(expected));
}); // prettier-ignore

test('three hundred bodies that nothing holds, beside a five-bar, are counted at once', () => {
  const bar = pinned({ a: [0, 0], b: [-10, 30], c: [25, 60], d: [60, 35], e: [50, 0] }, { ground: 'a e', p: 'a b', q: 'b c', r: 'c d', s: 'd e' }); // prettier-ignore
  const loose = Array.from({ length: 300 }, (_, i) => link(`free${i}`, false, at(i, 200)));
  const m = new Mechanism([...bar.links, ...loose], bar.given);
  expect(freedoms(m)).toBe(2 + 300 * 6);
});
