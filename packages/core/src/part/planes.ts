/** The planes sketches lie on. The part's Z is up; the floor is level. */
import type { Frame, Vec3 } from '../solid/kernel.ts';
import type { PlaneRef } from '../steps/sketch/schema.ts';

const X: Vec3 = [1, 0, 0];
const Y: Vec3 = [0, 1, 0];
const Z: Vec3 = [0, 0, 1];
const ORIGIN: Vec3 = [0, 0, 0];

export const DATUM_FRAMES: Readonly<Record<Extract<PlaneRef, { datum: string }>['datum'], Frame>> = {
  floor: { origin: ORIGIN, x: X, y: Y, normal: Z },
  wall: { origin: ORIGIN, x: X, y: Z, normal: [0, -1, 0] },
  side: { origin: ORIGIN, x: Y, y: Z, normal: X },
};

/**
 * The frame of a planar face: its origin is the part's origin dropped onto the
 * plane, and x runs level, so that both stay put while the face grows or moves
 * along its normal.
 */
export function frameOfFace(center: Vec3, normal: Vec3): Frame {
  const height = dot(center, normal);
  const origin: Vec3 = [normal[0] * height, normal[1] * height, normal[2] * height];
  const level = cross(Z, normal);
  const size = Math.hypot(...level);
  // On a level face x is the part's x, whether it looks up or down.
  const x: Vec3 = size > 1e-9 ? [level[0] / size, level[1] / size, level[2] / size] : [1, 0, 0];
  return { origin, x, y: cross(normal, x), normal };
}

/** A point of the sketch plane in space. */
export function toSpace(frame: Frame, u: number, v: number, w = 0): Vec3 {
  const at = (i: 0 | 1 | 2) => frame.origin[i] + u * frame.x[i] + v * frame.y[i] + w * frame.normal[i];
  return [at(0), at(1), at(2)];
}

function dot(a: Vec3, b: Vec3): number {
  return a[0] * b[0] + a[1] * b[1] + a[2] * b[2];
}

function cross(a: Vec3, b: Vec3): Vec3 {
  return [a[1] * b[2] - a[2] * b[1], a[2] * b[0] - a[0] * b[2], a[0] * b[1] - a[1] * b[0]];
}
