/** Going along a path by lengths: where one is after so many mm, and which way one looks. */
import { StepFailure } from '../../names/body.ts';
import { basisAt } from '../../sketch/curves/spline.ts';
import { knotsWithin } from '../../sketch/regions/piece-parts.ts';
import type { LoopPiece } from '../../sketch/regions/piece.ts';
import type { EdgeCurve, PathPiece, SolidKernel } from '../../solid/kernel.ts';
import type { Helix } from '../../space/helix.ts';
import { followedBy, shiftBy, STAY, turnAbout, undone, type Transform } from '../../space/transform.ts';
import { apart, cross, dot, minus, opposite, unit, type Vec3 } from '../../space/vector.ts';

/** A stretch of a path by a parameter from 0 to 1. */
interface Stretch {
  at(t: number): Vec3;
  /** By the parameter; its size is the speed, mm. */
  slope(t: number): Vec3;
  /** A straight one or an arc is gone along at an even speed. */
  readonly even: boolean;
  /** Of a helix what turns its beginning to a place on it. */
  readonly screw?: (t: number) => Transform;
  /** Where it is differentiable only twice. */
  readonly knots: readonly number[];
}

/** Where one is on the way. */
export interface OnWay {
  readonly at: Vec3;
  /** Which way it goes on, unit length. */
  readonly way: Vec3;
  /** What turns the beginning so that it looks along the way here; the place stays. */
  readonly turned: Transform;
}

/** Where the way is less smooth: between two curves of it, with a corner or without, or at a knot of a spline. */
export interface Stop {
  /** mm from the beginning */
  readonly along: number;
  readonly how: 'corner' | 'joint' | 'knot';
}

export interface Walk {
  /** mm */
  readonly length: number;
  readonly closed: boolean;
  /** In order. */
  readonly stops: readonly Stop[];
  /** @param along mm from the beginning, at most the length */
  on(along: number): OnWay;
}

/** Parts of a stretch in which its length is added up, each by five Gauss points. */
const PARTS = 64;
const SAME_PLACE = 1e-6;
const STRAIGHT = 1e-12;

/** @throws StepFailure where the path cannot be gone along by lengths */
export function walkAlong(pieces: readonly PathPiece[], kernel: SolidKernel): Walk {
  const stretches = oriented(pieces.map((piece) => stretchOf(piece, kernel)));
  const tables = stretches.map(lengthsOf);
  const starts: number[] = [0];
  for (const table of tables) starts.push(starts.at(-1)! + table.at(-1)!);
  const length = starts.pop()!;
  const [first, last] = [stretches[0]!, stretches.at(-1)!];
  // What turns the beginning of the way to the beginning of each stretch.
  const turns: Transform[] = [STAY];
  for (let i = 1; i < stretches.length; i++)
    turns.push(corner(turnedTo(turns[i - 1]!, stretches[i - 1]!, 1), stretches[i - 1]!.slope(1), stretches[i]!.slope(0))); // prettier-ignore
  return {
    length,
    closed: apart(first.at(0), last.at(1)) < SAME_PLACE,
    stops: stopsOf(stretches, tables, starts),
    on(along) {
      let i = starts.length - 1;
      while (i > 0 && along < starts[i]!) i--;
      const t = parameterAt(stretches[i]!, tables[i]!, Math.max(0, along - starts[i]!));
      return {
        at: stretches[i]!.at(t),
        way: unit(stretches[i]!.slope(t))!,
        turned: turnedTo(turns[i]!, stretches[i]!, t),
      };
    },
  };
}

function stopsOf(
  stretches: readonly Stretch[],
  tables: readonly (readonly number[])[],
  starts: readonly number[],
): Stop[] {
  return stretches.flatMap((stretch, i): Stop[] => {
    const along = (t: number) => starts[i]! + lengthTo(stretch, tables[i]!, t);
    const knots = stretch.knots.map((t): Stop => ({ along: along(t), how: 'knot' })).sort((a, b) => a.along - b.along);
    const before = stretches[i - 1];
    if (!before) return knots;
    const [from, to] = [unit(before.slope(1))!, unit(stretch.slope(0))!];
    return [{ along: starts[i]!, how: apart(from, to) < SAME_PLACE ? 'joint' : 'corner' }, ...knots];
  });
}

/** The same way gone from its end. */
export function goneBack(walk: Walk): Walk {
  const back = undone(walk.on(walk.length).turned);
  return {
    ...walk,
    stops: walk.stops.map(({ along, how }) => ({ along: walk.length - along, how })).reverse(),
    on(along) {
      const { at, way, turned } = walk.on(walk.length - along);
      return { at, way: opposite(way), turned: followedBy(back, turned) };
    },
  };
}

function stretchOf(piece: PathPiece, kernel: SolidKernel): Stretch {
  if (piece.kind === 'helix') return onHelix(piece);
  if (piece.kind === 'edge') return onEdge(kernel.curves(piece.solid)[piece.index]!);
  const { frame } = piece;
  const vector = ([u, v]: readonly [number, number]): Vec3 => [0, 1, 2].map((k) => u * frame.x[k]! + v * frame.y[k]!) as unknown as Vec3; // prettier-ignore
  const flat = onPlane(piece.piece);
  const place = (p: readonly [number, number]): Vec3 => [0, 1, 2].map((k) => frame.origin[k]! + vector(p)[k]!) as unknown as Vec3; // prettier-ignore
  return { at: (t) => place(flat.at(t)), slope: (t) => vector(flat.slope(t)), even: flat.even, knots: flat.knots };
}

type Flat = {
  at(t: number): readonly [number, number];
  slope(t: number): readonly [number, number];
  even: boolean;
  knots: readonly number[];
};

function onPlane(p: LoopPiece): Flat {
  if (p.kind === 'line') {
    const by = [p.to[0] - p.from[0], p.to[1] - p.from[1]] as const;
    return { at: (t) => [p.from[0] + t * by[0], p.from[1] + t * by[1]], slope: () => by, even: true, knots: [] };
  }
  if (p.kind === 'spline') {
    const u = (t: number) => p.t0 + t * (p.t1 - p.t0);
    const sum = (t: number, order: number, by: number): [number, number] => {
      const weights = basisAt(p.knots, p.degree, u(t), order);
      const at = (k: 0 | 1) => by * p.control.reduce((s, c, i) => s + weights[i]! * c[k], 0);
      return [at(0), at(1)];
    };
    return { at: (t) => sum(t, 0, 1), slope: (t) => sum(t, 1, p.t1 - p.t0), even: false, knots: knotsWithin(p) };
  }
  const [major, minor] = p.kind === 'arc' ? ([[p.radius, 0], [0, p.radius]] as const) : [p.major, p.minor]; // prettier-ignore
  const angle = (t: number) => p.start + t * p.sweep;
  return {
    at(t) {
      const [c, s] = [Math.cos(angle(t)), Math.sin(angle(t))];
      return [p.center[0] + c * major[0] + s * minor[0], p.center[1] + c * major[1] + s * minor[1]];
    },
    slope(t) {
      const [c, s] = [Math.cos(angle(t)), Math.sin(angle(t))];
      return [p.sweep * (c * minor[0] - s * major[0]), p.sweep * (c * minor[1] - s * major[1])];
    },
    even: p.kind === 'arc',
    knots: [],
  };
}

function onEdge(curve: EdgeCurve): Stretch {
  if (curve.kind === 'line') {
    const by = minus(curve.to, curve.from);
    return { at: (t) => added(curve.from, by, t), slope: () => by, even: true, knots: [] };
  }
  if (curve.kind !== 'ellipse')
    throw new StepFailure('An edge of the path is a free curve, along which lengths are not known; draw the path in a sketch.'); // prettier-ignore
  const { center, normal, along, major, minor } = curve;
  const across = cross(normal, along);
  const angleOf = (p: Vec3) => Math.atan2(dot(minus(p, center), across) / minor, dot(minus(p, center), along) / major);
  const start = angleOf(curve.from);
  const ahead = (((angleOf(curve.to) - start) % (2 * Math.PI)) + 2 * Math.PI) % (2 * Math.PI);
  const sweep = curve.whole || ahead === 0 ? 2 * Math.PI : ahead;
  const angle = (t: number) => start + t * sweep;
  const both = (a: number, b: number): Vec3 => [0, 1, 2].map((k) => a * major * along[k]! + b * minor * across[k]!) as unknown as Vec3; // prettier-ignore
  return {
    at: (t) => added(center, both(Math.cos(angle(t)), Math.sin(angle(t))), 1),
    slope: (t) => both(-sweep * Math.sin(angle(t)), sweep * Math.cos(angle(t))),
    even: major === minor,
    knots: [],
  };
}

function onHelix({ axis, from, radius, pitch, turns, taper, left }: Helix): Stretch {
  const side = cross(axis.direction, from);
  const whole = 2 * Math.PI * turns * (left ? -1 : 1);
  const rise = pitch * turns;
  const grow = rise * Math.tan(taper);
  const round = (angle: number, r: number): Vec3 => [0, 1, 2].map((k) => r * (Math.cos(angle) * from[k]! + Math.sin(angle) * side[k]!)) as unknown as Vec3; // prettier-ignore
  return {
    at: (t) => added(added(axis.origin, axis.direction, t * rise), round(t * whole, radius + t * grow), 1),
    slope: (t) => added(added(round(t * whole, grow), round(t * whole + Math.PI / 2, (radius + t * grow) * whole), 1), axis.direction, rise), // prettier-ignore
    even: taper === 0,
    knots: [],
    screw: (t) => turnAbout({ origin: [0, 0, 0], direction: axis.direction }, t * whole),
  };
}

const added = (a: Vec3, b: Vec3, by: number): Vec3 => [a[0] + by * b[0], a[1] + by * b[1], a[2] + by * b[2]];

/** Edges may run against the way: each is turned so that it begins where the one before ends. @throws StepFailure */
function oriented(stretches: readonly Stretch[]): Stretch[] {
  const back = (s: Stretch): Stretch => ({ ...s, at: (t) => s.at(1 - t), slope: (t) => opposite(s.slope(1 - t)), knots: s.knots.map((t) => 1 - t) }); // prettier-ignore
  const meets = (a: Vec3, b: Vec3) => apart(a, b) < SAME_PLACE;
  const [first, second] = stretches;
  if (!first || !second) return [...stretches];
  const ends = [second.at(0), second.at(1)];
  const way = [ends.some((e) => meets(first.at(1), e)) ? first : back(first)];
  for (const next of stretches.slice(1)) {
    const end = way.at(-1)!.at(1);
    if (meets(next.at(0), end)) way.push(next);
    else if (meets(next.at(1), end)) way.push(back(next));
    else throw new StepFailure('The path has a gap in it; join its ends.');
  }
  return way;
}

const GAUSS = [[0, 0.5688888888888889], [0.5384693101056831, 0.47862867049936647], [-0.5384693101056831, 0.47862867049936647], [0.906179845938664, 0.23692688505618908], [-0.906179845938664, 0.23692688505618908]] as const; // prettier-ignore

function lengthBetween({ slope }: Stretch, a: number, b: number): number {
  return GAUSS.reduce((sum, [x, w]) => sum + (w * (b - a) * Math.hypot(...slope((a + b) / 2 + (x * (b - a)) / 2))) / 2, 0); // prettier-ignore
}

/** Its length up to the end of each of its parts. */
function lengthsOf(stretch: Stretch): number[] {
  if (stretch.even) return [0, Math.hypot(...stretch.slope(0))];
  const table = [0];
  for (let i = 0; i < PARTS; i++) table.push(table[i]! + lengthBetween(stretch, i / PARTS, (i + 1) / PARTS));
  return table;
}

function lengthTo(stretch: Stretch, table: readonly number[], t: number): number {
  if (stretch.even) return t * table.at(-1)!;
  const i = Math.min(PARTS - 1, Math.floor(t * PARTS));
  return table[i]! + lengthBetween(stretch, i / PARTS, t);
}

function parameterAt(stretch: Stretch, table: readonly number[], along: number): number {
  const whole = table.at(-1)!;
  if (stretch.even) return Math.min(1, along / whole);
  if (along >= whole) return 1;
  let i = 0;
  while (table[i + 1]! < along) i++;
  const a = i / PARTS;
  let t = a + (along - table[i]!) / (table[i + 1]! - table[i]!) / PARTS;
  for (let n = 0; n < 6; n++) t -= (table[i]! + lengthBetween(stretch, a, t) - along) / Math.hypot(...stretch.slope(t));
  return Math.min(1, Math.max(0, t));
}

/** Turned on as a stretch turns, never about its own direction; a helix as a screw. */
function turnedTo(before: Transform, stretch: Stretch, t: number): Transform {
  if (stretch.screw) return followedBy(before, stretch.screw(t));
  let now = before;
  // Half a turn at once could go either way.
  const steps = Math.max(1, Math.ceil(t * PARTS));
  for (let i = 0; i < steps; i++) now = corner(now, stretch.slope((t * i) / steps), stretch.slope((t * (i + 1)) / steps)); // prettier-ignore
  return now;
}

/** Turned on from one direction to another, the shortest way. @throws StepFailure where that is straight back */
function corner(before: Transform, from: Vec3, to: Vec3): Transform {
  const [a, b] = [unit(from), unit(to)];
  if (!a || !b) return before;
  const about = unit(cross(a, b));
  const angle = Math.atan2(Math.hypot(...cross(a, b)), dot(a, b));
  if (Math.PI - angle < SAME_PLACE) throw new StepFailure('The path turns straight back on itself; round that corner.');
  if (!about || angle < STRAIGHT) return before;
  return followedBy(before, turnAbout({ origin: [0, 0, 0], direction: about }, angle));
}

/** What brings a thing at the beginning of the way to where one is on it. */
export function carriedTo(walk: Walk, { at, turned }: OnWay, turning: boolean): Transform {
  const start = walk.on(0).at;
  const back = shiftBy([-start[0], -start[1], -start[2]]);
  return followedBy(turning ? followedBy(back, turned) : back, shiftBy(at));
}
