/** The planes sketches lie on. The part's Z is up; the floor is level. */
import { cross, dot, type Frame, type Vec3 } from './vector.ts';

export const DATUM_PLANES = ['floor', 'wall', 'side'] as const;
export type DatumPlane = (typeof DATUM_PLANES)[number];

const X: Vec3 = [1, 0, 0];
const Y: Vec3 = [0, 1, 0];
const Z: Vec3 = [0, 0, 1];
const ORIGIN: Vec3 = [0, 0, 0];

export const DATUM_FRAMES: Readonly<Record<DatumPlane, Frame>> = {
  floor: { origin: ORIGIN, x: X, y: Y, normal: Z },
  wall: { origin: ORIGIN, x: X, y: Z, normal: [0, -1, 0] },
  side: { origin: ORIGIN, x: Y, y: Z, normal: X },
};

export const DATUM_AXES = { x: X, y: Y, z: Z } as const;

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

/** The same frame so far along its normal, mm. */
export const raised = (frame: Frame, by: number): Frame => ({ ...frame, origin: toSpace(frame, 0, 0, by) });

/** Of the line in which two planes meet, the point nearest to the part's origin; they are not parallel. */
export function meeting(a: Frame, b: Frame): Vec3 {
  const [p, q] = [dot(a.origin, a.normal), dot(b.origin, b.normal)];
  const c = dot(a.normal, b.normal);
  const [s, t] = [(p - q * c) / (1 - c * c), (q - p * c) / (1 - c * c)];
  const at = (i: 0 | 1 | 2) => s * a.normal[i] + t * b.normal[i];
  return [at(0), at(1), at(2)];
}

/** A direction of the sketch plane in space. */
export function directionInSpace(frame: Frame, u: number, v: number): Vec3 {
  const at = (i: 0 | 1 | 2) => u * frame.x[i] + v * frame.y[i];
  return [at(0), at(1), at(2)];
}

/** A point in space as seen straight onto the frame: along x, along y, and height above it. */
export function ontoFrame(frame: Frame, p: Vec3): Vec3 {
  const d: Vec3 = [p[0] - frame.origin[0], p[1] - frame.origin[1], p[2] - frame.origin[2]];
  return [dot(d, frame.x), dot(d, frame.y), dot(d, frame.normal)];
}
