/** Bores and shanks that nearly line up: what a designer reads as “the holes are a little out”. */
import type { CorneredBody } from '../names/find-vertex.ts';
import { movedAxis } from '../space/transform.ts';
import { transformOf, type Pose } from '../space/pose.ts';
import { cross, dot, further, minus, type Axis, type Vec3 } from '../space/vector.ts';

/** A round face standing in space. */
export interface Round {
  readonly member: number;
  readonly body: number;
  readonly face: number;
  readonly hollow: boolean;
  readonly radius: number;
  readonly axis: Axis;
  /** How far it reaches along its axis, from the axis’ origin, mm. */
  readonly from: number;
  readonly to: number;
}

export interface OutOfLine {
  readonly one: Round;
  readonly other: Round;
  /** How far the axes are apart where they should be one, mm, and in which direction (unit length). */
  readonly by: number;
  readonly towards: Vec3;
}

/** Axes closer than this are one, mm. */
const IN_LINE = 1e-4;
/** Of the smaller radius: farther apart two rounds are not meant for each other. */
const MEANT = 0.6;
/** Radii that differ by more of the smaller are not meant for each other. */
const ALIKE = 0.5;
const PARALLEL = 1e-4;
/** Apart along the axis by more of the radius, they do not meet. */
const BESIDE = 1;

/** Cylinders of a body, where it stands. */
export function roundsOf(body: CorneredBody, pose: Pose, member: number, nth: number): Round[] {
  const to = transformOf(pose);
  const { faces, edges, corners } = body.facts;
  return faces.flatMap((facts, face): Round[] => {
    if (!facts.axis || facts.radius === null || facts.hollow === null) return [];
    const along = facts.axis.direction;
    const on = edges
      .filter((e) => e.faces.includes(face))
      .flatMap((e) => [e.middle, ...e.ends.map((v) => corners[v]!)]);
    const heights = on.map((p) => dot(minus(p, facts.axis!.origin), along));
    if (heights.length === 0) return [];
    return [{ member, body: nth, face, hollow: facts.hollow, radius: facts.radius, axis: movedAxis(to, facts.axis), from: Math.min(...heights), to: Math.max(...heights) }]; // prettier-ignore
  });
}

/** By how much two axes lean, and lie apart. */
export function awayOf(a: Round, b: Round): [number, number] {
  const lean = Math.hypot(...cross(a.axis.direction, b.axis.direction));
  const off: Vec3 = cross(minus(b.axis.origin, a.axis.origin), a.axis.direction);
  return [lean, Math.hypot(...off)];
}

/** Do two rounds on one axis reach over the same stretch of it? */
export function overlapAlong(a: Round, b: Round): boolean {
  const along = (t: number) => dot(minus(further(b.axis.origin, b.axis.direction, t), a.axis.origin), a.axis.direction);
  const [from, to] = [along(b.from), along(b.to)];
  return Math.max(a.from, Math.min(from, to)) < Math.min(a.to, Math.max(from, to));
}

/** Pairs of rounds of different members that nearly share an axis, the worst first. */
export function outOfLine(rounds: readonly Round[], togetherAnyway: (a: number, b: number) => boolean): OutOfLine[] {
  const found: OutOfLine[] = [];
  for (const [i, one] of rounds.entries())
    for (const other of rounds.slice(i + 1)) {
      if (one.member === other.member || togetherAnyway(one.member, other.member)) continue;
      // A bore with a shank, or with the bore it continues; two shanks do not fit each other.
      if (!one.hollow && !other.hollow) continue;
      const least = Math.min(one.radius, other.radius);
      if (Math.abs(one.radius - other.radius) > ALIKE * least) continue;
      if (Math.hypot(...cross(one.axis.direction, other.axis.direction)) > PARALLEL) continue;
      const d = minus(other.axis.origin, one.axis.origin);
      const lift = dot(d, one.axis.direction);
      const off: Vec3 = [0, 1, 2].map((k) => d[k]! - lift * one.axis.direction[k]!) as unknown as Vec3;
      const by = Math.hypot(...off);
      if (by <= IN_LINE || by > MEANT * least) continue;
      const sense = dot(one.axis.direction, other.axis.direction) > 0 ? 1 : -1;
      const [low, high] = [lift + sense * other.from, lift + sense * other.to].sort((a, b) => a - b) as [
        number,
        number,
      ];
      if (low > one.to + BESIDE * least || high < one.from - BESIDE * least) continue;
      found.push({ one, other, by, towards: [off[0] / by, off[1] / by, off[2] / by] });
    }
  return found.sort((a, b) => b.by - a.by);
}
