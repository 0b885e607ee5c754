/**
 * Durable names of faces. A name says where a face came from: the step, its
 * role there, and the sketch curve or region behind it:
 *   plate:side:l3        swept by curve l3
 *   plate:end:k2x9…      the far cap of one region
 * Combining bodies keeps the names of their faces. A face cut into several
 * gets `#1`, `#2` … in order of position.
 */
import type { FaceRef } from '../steps/slots.ts';
import type { FaceOrigin, Vec3 } from '../solid/kernel.ts';
import type { Body } from './body.ts';

export function nameOfOrigin(step: string, origin: FaceOrigin, regionKey: string): string {
  return origin.role === 'side' ? `${step}:side:${origin.curve}` : `${step}:${origin.role}:${regionKey}`;
}

/** Make names unique within a body, numbering equals by position so that the order is repeatable. */
export function numberEquals(names: readonly string[], centerOf: (face: number) => Vec3): string[] {
  const groups = new Map<string, number[]>();
  names.forEach((name, i) => {
    const group = groups.get(name);
    if (group) group.push(i);
    else groups.set(name, [i]);
  });
  const result = [...names];
  for (const [name, group] of groups) {
    if (group.length < 2) continue;
    group.sort((a, b) => comparePositions(centerOf(a), centerOf(b)));
    group.forEach((face, k) => (result[face] = `${name}#${k + 1}`));
  }
  return result;
}

/** Rounded to a micron first, so that noise does not change the order. */
function comparePositions(a: Vec3, b: Vec3): number {
  for (const i of [0, 1, 2] as const) {
    const d = Math.round(a[i] * 1000) - Math.round(b[i] * 1000);
    if (d !== 0) return d;
  }
  return 0;
}

export interface FoundFace {
  readonly body: Body;
  /** Index in the body's faces. */
  readonly face: number;
  /** `name`: it is the one. `kin`: one of several of the same origin. `place`: only the spot agrees. */
  readonly how: 'name' | 'kin' | 'place';
}

/** Step, role and curve of a name, without the region it capped and the number of the piece. */
export function kinOf(name: string): string {
  const [step, role, detail] = name.replace(/#.*$/, '').split(':');
  return role === 'side' ? `${step}:${role}:${detail}` : `${step}:${role}`;
}

/** Largest distance, mm, at which a remembered spot still means the same face. */
const SAME_PLACE = 1e-3;

/**
 * Find a referenced face: by its exact name; else by its origin, the nearest
 * to the remembered spot among several; else a face at that very spot.
 */
export function findFace(ref: FaceRef, bodies: readonly Body[]): FoundFace | null {
  const all = bodies.flatMap((body) => body.faceNames.map((name, face) => ({ body, face, name })));
  const exact = all.filter((c) => c.name === ref.name);
  if (exact.length > 0) return { ...nearest(exact, ref), how: 'name' };
  const kin = all.filter((c) => kinOf(c.name) === kinOf(ref.name));
  if (kin.length === 1) return { ...kin[0]!, how: 'name' };
  if (kin.length > 1) return { ...nearest(kin, ref), how: 'kin' };
  const { near, normal } = ref;
  if (!near || !normal) return null;
  const there = all.filter(({ body, face }) => {
    const facts = body.facts.faces[face]!;
    return facts.normal !== null && dot(facts.normal, normal) > 0.999 && distance(facts.center, near) < SAME_PLACE;
  });
  return there[0] ? { ...there[0], how: 'place' } : null;
}

function nearest<T extends { body: Body; face: number }>(candidates: readonly T[], ref: FaceRef): T {
  const near = ref.near;
  if (!near) return candidates[0]!;
  const away = (c: T) => distance(c.body.facts.faces[c.face]!.center, near);
  return candidates.reduce((best, c) => (away(c) < away(best) ? c : best));
}

export function refOfFace(body: Body, face: number): FaceRef {
  const facts = body.facts.faces[face]!;
  return {
    name: body.faceNames[face]!,
    near: [...facts.center],
    ...(facts.normal ? { normal: [...facts.normal] } : {}),
  };
}

function distance(a: Vec3, b: Vec3): number {
  return Math.hypot(a[0] - b[0], a[1] - b[1], a[2] - b[2]);
}

function dot(a: Vec3, b: Vec3): number {
  return a[0] * b[0] + a[1] * b[1] + a[2] * b[2];
}
