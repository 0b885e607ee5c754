/** Places and directions in space, mm. */
export type Vec3 = readonly [number, number, number];

/** A plane in space with directions of its own: right-handed, unit vectors. */
export interface Frame {
  readonly origin: Vec3;
  readonly x: Vec3;
  readonly y: Vec3;
  readonly normal: Vec3;
}

/** A line in space with a sense; the direction is a unit vector. */
export interface Axis {
  readonly origin: Vec3;
  readonly direction: Vec3;
}

export function dot(a: Vec3, b: Vec3): number {
  return a[0] * b[0] + a[1] * b[1] + a[2] * b[2];
}

export function cross(a: Vec3, b: Vec3): Vec3 {
  return [a[1] * b[2] - a[2] * b[1], a[2] * b[0] - a[0] * b[2], a[0] * b[1] - a[1] * b[0]];
}

export function minus(a: Vec3, b: Vec3): Vec3 {
  return [a[0] - b[0], a[1] - b[1], a[2] - b[2]];
}

export function apart(a: Vec3, b: Vec3): number {
  return Math.hypot(a[0] - b[0], a[1] - b[1], a[2] - b[2]);
}

/** A place so far on in a direction. */
export const further = ([x, y, z]: Vec3, [a, b, c]: Vec3, by: number): Vec3 => [x + by * a, y + by * b, z + by * c];

export const opposite = ([x, y, z]: Vec3): Vec3 => [-x, -y, -z];

/** The same direction at length 1; null of what has no direction. */
export function unit(a: Vec3): Vec3 | null {
  const size = Math.hypot(...a);
  return size > 1e-12 ? [a[0] / size, a[1] / size, a[2] / size] : null;
}
