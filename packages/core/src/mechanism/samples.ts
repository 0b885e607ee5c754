/** Mechanisms of known motion, for tests and measuring. Lengths mm. */
import { HERE, NO_TURN, poseOfFrame, turnOf, type Pose } from '../space/pose.ts';
import { frameAlong } from '../space/pose.ts';
import { unit, type Vec3 } from '../space/vector.ts';
import type { PairKind } from './kinds.ts';
import { Mechanism, type Coupling, type Link, type Pair } from './mechanism.ts';

export const link = (id: string, held = false, home: Pose = HERE): Link => ({ id, home, held });
export const at = (x: number, y: number, z = 0): Pose => ({ at: [x, y, z], turn: NO_TURN });
export const along = (origin: Vec3, direction: Vec3): Pose => poseOfFrame(frameAlong(origin, unit(direction)!));

/** A pair whose frame stands at the same place of both links as they are at home. */
export const pair = (
  id: string,
  kind: PairKind,
  a: number,
  b: number,
  frame: Pose,
  more: Partial<Pair> = {},
): Pair => ({
  id,
  kind,
  a: { link: a, frame },
  b: { link: b, frame },
  ...more,
});

/** Links drawn in place in one plane, pinned: each given by the names of its pins. */
export function pinned(
  pins: Readonly<Record<string, readonly [number, number]>>,
  links: Readonly<Record<string, string>>,
): Mechanism {
  const names = Object.keys(links);
  const pairs: Pair[] = [];
  for (const [pin, [x, y]] of Object.entries(pins)) {
    const on = names.flatMap((n, i) => (links[n]!.split(' ').includes(pin) ? [i] : []));
    for (const other of on.slice(1)) pairs.push(pair(`${pin}${pairs.length}`, 'revolute', on[0]!, other, at(x, y)));
  }
  return new Mechanism(
    names.map((n) => link(n, n === 'ground')),
    pairs,
  );
}

export const fourBar = (): Mechanism =>
  pinned(
    { a: [0, 0], b: [0, 20], c: [60, 50], d: [70, 0] },
    { ground: 'a d', crank: 'a b', coupler: 'b c', rocker: 'c d' },
  );

/** Crank of 20, rod of 70, sliding along x. */
export const sliderCrank = (): Mechanism =>
  new Mechanism(
    [link('ground', true), link('crank'), link('rod'), link('slider')],
    [
      pair('turn', 'revolute', 0, 1, at(0, 0)),
      pair('pin', 'revolute', 1, 2, at(20, 0)),
      pair('wrist', 'revolute', 2, 3, at(90, 0)),
      pair('way', 'prismatic', 0, 3, along([90, 0, 0], [1, 0, 0])),
    ],
  );

/** Two sliders at right angles, a rod of 100 between them. */
export const trammel = (): Mechanism =>
  new Mechanism(
    [link('ground', true), link('one'), link('other'), link('rod')],
    [
      pair('level', 'prismatic', 0, 1, along([60, 0, 0], [1, 0, 0])),
      pair('upright', 'prismatic', 0, 2, along([0, 80, 0], [0, 1, 0])),
      pair('first', 'revolute', 1, 3, at(60, 0)),
      pair('second', 'revolute', 2, 3, at(0, 80)),
    ],
  );

export const chain = (count: number): Mechanism =>
  new Mechanism(
    Array.from({ length: count }, (_, i) => link(`l${i}`)),
    Array.from({ length: count }, (_, i) => pair(`j${i}`, 'revolute', i - 1, i, at(i * 10, 0))),
    [],
    100,
  );

/** Two wheels on the ground whose turns are coupled. */
export const gears = (teeth: number, others: number): Mechanism =>
  new Mechanism(
    [link('ground', true), link('one'), link('other')],
    [pair('a', 'revolute', 0, 1, at(0, 0)), pair('b', 'revolute', 0, 2, at(teeth + others, 0))],
    [gearCoupling(teeth, others)],
  );

const gearCoupling = (teeth: number, others: number): Coupling => ({
  id: 'mesh',
  sum: 0,
  terms: [
    { pair: 0, motion: 0, by: teeth },
    { pair: 1, motion: 0, by: others },
  ],
});

/** Four equal bars and a fifth parallel to two of them: it moves, though one bar too many says it does not. */
export const doubleParallelogram = (): Mechanism =>
  pinned(
    { a: [0, 0], b: [0, 40], c: [50, 0], d: [50, 40], e: [100, 0], f: [100, 40] },
    { ground: 'a c e', one: 'a b', two: 'c d', three: 'e f', top: 'b d f' },
  );

/** A spatial four-bar that counting says cannot move (Bennett): twists and lengths in proportion. */
export function bennett(): Mechanism {
  const [a, alpha] = [100, Math.PI / 6];
  const beta = Math.PI / 3;
  const b = (a * Math.sin(beta)) / Math.sin(alpha);
  // Closed at any input θ: tan(θ/2) tan(φ/2) = −sin((β+α)/2) / sin((β−α)/2).
  const theta = 1.1;
  const phi = -2 * Math.atan(Math.sin((beta + alpha) / 2) / Math.sin((beta - alpha) / 2) / Math.tan(theta / 2));
  return new Mechanism(bars(4), bennettPairs(a, b, alpha, beta, theta, phi));
}

const bars = (n: number): Link[] => Array.from({ length: n }, (_, i) => link(`bar${i}`, i === 0));

/** Bars by Denavit and Hartenberg: the next axis lies at a length along x, twisted about it. */
function bennettPairs(a: number, b: number, alpha: number, beta: number, theta: number, phi: number): Pair[] {
  const near: Pose = HERE;
  const far = (length: number, twist: number): Pose => ({ at: [length, 0, 0], turn: turnOf([1, 0, 0], twist) });
  const lengths = [a, b, a, b];
  const twists = [alpha, beta, alpha, beta];
  const angles = [theta, phi, -theta, -phi];
  return [0, 1, 2, 3].map((i) => ({
    id: `j${i}`,
    kind: 'revolute' as const,
    a: { link: i, frame: far(lengths[i]!, twists[i]!) },
    b: { link: (i + 1) % 4, frame: near },
    rest: [i === 3 ? null : angles[i]!],
  }));
}

type At = readonly [number, number];

/** Where two circles meet, to the left of the line from the one to the other. */
function meet(p: At, r: number, q: At, s: number): At {
  const [dx, dy] = [q[0] - p[0], q[1] - p[1]];
  const d = Math.hypot(dx, dy);
  const a = (r * r - s * s + d * d) / (2 * d);
  const h = Math.sqrt(r * r - a * a);
  return [p[0] + (a * dx - h * dy) / d, p[1] + (a * dy + h * dx) / d];
}

/** Legs on one crank, each of three dyads: six have 55 revolutes in 18 closed loops, and move as one. */
export function walker(legs: number): Mechanism {
  const pins: Record<string, At> = { o: [0, 0] };
  const links: Record<string, string> = { ground: 'o', crank: 'o' };
  for (let i = 0; i < legs; i++) {
    const side = i % 2 === 0 ? 1 : -1;
    const flipped = ([x, y]: At): At => [side * x, y];
    const phase = (i * 2 * Math.PI) / legs;
    // Drawn on the right, where the crank pin of a leg on the left is mirrored.
    const c: At = [12 * Math.cos(phase) * side, 12 * Math.sin(phase)];
    const [d, e]: readonly [At, At] = [[52, -18], [56, 20]]; // prettier-ignore
    const b = meet(d, 36, c, 58);
    const f = meet(c, 60, e, 38);
    const p: At = [d[0] + 1.2 * (b[0] - d[0]) - 0.5 * (b[1] - d[1]), d[1] + 1.2 * (b[1] - d[1]) + 0.5 * (b[0] - d[0])];
    const g = meet(f, 78, p, 74);
    for (const [name, at] of Object.entries({ b, c, d, e, f, g, p })) pins[`${name}${i}`] = flipped(at);
    links.ground += ` d${i} e${i}`;
    links.crank += ` c${i}`;
    Object.assign(links, { [`one${i}`]: `c${i} b${i}`, [`rocker${i}`]: `b${i} d${i} p${i}`, [`two${i}`]: `c${i} f${i}`, [`other${i}`]: `f${i} e${i}`, [`shin${i}`]: `f${i} g${i}`, [`foot${i}`]: `p${i} g${i}` }); // prettier-ignore
  }
  return pinned(pins, links);
}
