/** What the finished part measures: rounds, distances, angles, and what it comes to as a whole. */
import type { Body } from '../names/body.ts';
import { massOf, type MaterialKey } from '../standards/materials.ts';
import { cross, dot, minus, type Vec3 } from '../space/vector.ts';

export interface Finished {
  /** Radius of every round, and on how many axes there are such. */
  readonly rounds: readonly { readonly radius: number; readonly count: number }[];
  /** mm: between parallel faces, axes, and along straight edges. */
  readonly lengths: readonly number[];
  /** rad, between 0 and half a turn: between flat faces, and of them with axes. */
  readonly angles: readonly number[];
  /** kg; null without a material. */
  readonly mass: number | null;
  readonly box: Vec3;
  readonly centre: Vec3;
}

const SAME = 1e-6;
const PARALLEL = 1e-7;
/** Faces and axes beyond these are not measured against each other: a pair each. */
const MOST_FACES = 400;

const apartFrom = (from: Vec3, along: Vec3, at: Vec3) => Math.abs(dot(minus(at, from), along));
/** Of a point from a line. */
const offLine = (at: Vec3, from: Vec3, along: Vec3) => Math.hypot(...cross(minus(at, from), along));

/** Null without a body. */
export function finished(bodies: readonly Body[], material: MaterialKey | null): Finished | null {
  if (bodies.length === 0) return null;
  const faces = bodies.flatMap((b) => b.facts.faces);
  const planes = distinct(
    faces.flatMap((f) => (f.normal ? [{ normal: f.normal, center: f.center }] : [])),
    (a, b) => Math.hypot(...cross(a.normal, b.normal)) < PARALLEL && apartFrom(a.center, a.normal, b.center) < SAME,
  ).slice(0, MOST_FACES);
  const axes = distinct(
    [...faces, ...bodies.flatMap((b) => b.facts.edges)].flatMap((f) => (f.axis && f.radius !== null ? [{ radius: f.radius, at: f.axis.origin, along: f.axis.direction }] : [])), // prettier-ignore
    (a, b) => Math.abs(a.radius - b.radius) < SAME && Math.hypot(...cross(a.along, b.along)) < PARALLEL && offLine(b.at, a.at, a.along) < SAME, // prettier-ignore
  ).slice(0, MOST_FACES);
  const spheres = faces.flatMap((f) => (f.kind === 'sphere' && f.radius !== null ? [f.radius] : []));
  const rounds = new Map<number, number>();
  for (const radius of [...axes.map((a) => a.radius), ...spheres]) {
    const known = [...rounds.keys()].find((r) => Math.abs(r - radius) < SAME) ?? radius;
    rounds.set(known, (rounds.get(known) ?? 0) + 1);
  }
  const lengths = bodies.flatMap((b) => b.facts.edges.flatMap((e) => (e.kind === 'line' ? [e.length] : [])));
  const angles: number[] = [];
  for (const [i, a] of planes.entries()) {
    for (const b of planes.slice(i + 1))
      if (Math.hypot(...cross(a.normal, b.normal)) < PARALLEL) lengths.push(apartFrom(a.center, a.normal, b.center));
      else angles.push(angleOf(a.normal, b.normal));
    for (const axis of axes)
      if (Math.abs(dot(a.normal, axis.along)) < PARALLEL) lengths.push(apartFrom(a.center, a.normal, axis.at));
      else angles.push(angleOf(a.normal, axis.along));
  }
  for (const [i, a] of axes.entries())
    for (const b of axes.slice(i + 1))
      if (Math.hypot(...cross(a.along, b.along)) < PARALLEL) lengths.push(offLine(b.at, a.at, a.along), ...alongEach(a.at, b.at)); // prettier-ignore
  const volume = bodies.reduce((sum, b) => sum + b.facts.volume, 0);
  const over = (pick: 'min' | 'max', best: (...n: number[]) => number) => [0, 1, 2].map((i) => best(...bodies.map((b) => b.facts.box[pick][i]!))); // prettier-ignore
  const [low, high] = [over('min', Math.min), over('max', Math.max)];
  return {
    rounds: [...rounds].map(([radius, count]) => ({ radius, count })),
    lengths: eachOnce(lengths.filter((l) => l > SAME)),
    angles: eachOnce(angles),
    mass: material ? massOf(volume, material) : null,
    box: [0, 1, 2].map((i) => high[i]! - low[i]!) as unknown as Vec3,
    centre: [0, 1, 2].map((i) => bodies.reduce((sum, b) => sum + (b.facts.volume * b.facts.center[i]!) / volume, 0)) as unknown as Vec3, // prettier-ignore
  };
}

/** How far two axes lie apart along x, y and z, as drawings give it. */
const alongEach = (a: Vec3, b: Vec3) => a.map((v, i) => Math.abs(v - b[i]!));
const angleOf = (a: Vec3, b: Vec3) => Math.acos(Math.max(-1, Math.min(1, dot(a, b))));

function eachOnce(numbers: readonly number[]): number[] {
  const rising = [...numbers].sort((a, b) => a - b);
  return rising.filter((n, i) => i === 0 || n - rising[i - 1]! > SAME);
}

function distinct<T>(all: readonly T[], same: (a: T, b: T) => boolean): T[] {
  const kept: T[] = [];
  for (const one of all) if (!kept.some((k) => same(k, one))) kept.push(one);
  return kept;
}
