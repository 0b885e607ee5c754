/** Where a rigid thing stands: turned by a unit quaternion, then moved. Lengths mm. */
import type { Transform } from './transform.ts';
import { cross, dot, type Frame, type Vec3 } from './vector.ts';

/** x, y, z and the real part, last. */
export type Quat = readonly [number, number, number, number];

export interface Pose {
  readonly at: Vec3;
  readonly turn: Quat;
}

export const NO_TURN: Quat = [0, 0, 0, 1];
export const HERE: Pose = { at: [0, 0, 0], turn: NO_TURN };

/** First the right one, then the left one (Hamilton). */
export function turnedBy([a, b, c, d]: Quat, [x, y, z, w]: Quat): Quat {
  return [
    d * x + a * w + b * z - c * y,
    d * y - a * z + b * w + c * x,
    d * z + a * y - b * x + c * w,
    d * w - a * x - b * y - c * z,
  ];
}

/** Less from nought, so that nought stays itself. */
export const turnedBack = ([x, y, z, w]: Quat): Quat => [0 - x, 0 - y, 0 - z, w];

export function ofUnitLength([x, y, z, w]: Quat): Quat {
  // Not Math.hypot, which is ten times slower: this is called for every link of every step.
  const size = x * x + y * y + z * z + w * w;
  if (size === 0) return NO_TURN;
  const k = 1 / Math.sqrt(size);
  return [x * k, y * k, z * k, w * k];
}

/** A turn by so many rad about a unit axis. */
export function turnOf([x, y, z]: Vec3, angle: number): Quat {
  const s = Math.sin(angle / 2);
  return [x * s, y * s, z * s, Math.cos(angle / 2)];
}

/** A turn by a vector: its direction is the axis, its length the angle in rad. */
export function turnOfVector(by: Vec3): Quat {
  const angle = Math.hypot(...by);
  return angle < 1e-12
    ? ofUnitLength([by[0] / 2, by[1] / 2, by[2] / 2, 1])
    : turnOf([by[0] / angle, by[1] / angle, by[2] / angle], angle);
}

/** The vector of a turn, of length at most π. */
export function vectorOfTurn(turn: Quat): Vec3 {
  const [x, y, z, w] = turn[3] < 0 ? ([-turn[0], -turn[1], -turn[2], -turn[3]] as const) : turn;
  const s = Math.hypot(x, y, z);
  const k = s < 1e-12 ? 2 : (2 * Math.atan2(s, w)) / s;
  return [x * k, y * k, z * k];
}

/** A direction turned along. */
export function turned([x, y, z, w]: Quat, v: Vec3): Vec3 {
  // Written out: mechanisms ask for it many thousand times.
  const a = v[0];
  const b = v[1];
  const c = v[2];
  const k = y * c - z * b;
  const l = z * a - x * c;
  const m = x * b - y * a;
  return [a + 2 * (w * k + y * m - z * l), b + 2 * (w * l + z * k - x * m), c + 2 * (w * m + x * l - y * k)];
}

export function placedAt({ at, turn }: Pose, p: Vec3): Vec3 {
  const [x, y, z] = turned(turn, p);
  return [x + at[0], y + at[1], z + at[2]];
}

/** What stands so in something that itself stands at `outer`. */
export function poseWithin(outer: Pose, inner: Pose): Pose {
  // Most of what is put together slides or turns only, and much stands at the very beginning.
  if (outer === HERE) return inner;
  if (inner === HERE) return outer;
  const turn = inner.turn === NO_TURN ? outer.turn : outer.turn === NO_TURN ? inner.turn : ofUnitLength(turnedBy(outer.turn, inner.turn)); // prettier-ignore
  return { at: placedAt(outer, inner.at), turn };
}

export function poseBack({ at, turn }: Pose): Pose {
  const back = turnedBack(turn);
  const [x, y, z] = turned(back, at);
  return { at: [0 - x, 0 - y, 0 - z], turn: back };
}

/** Where `inner` stands as seen from `outer`. */
export const poseFrom = (outer: Pose, inner: Pose): Pose => poseWithin(poseBack(outer), inner);

/** How far two poses are apart: mm between their places, and rad between their directions. */
export function posesApart(a: Pose, b: Pose): { readonly by: number; readonly turn: number } {
  const { at, turn } = poseFrom(a, b);
  return { by: Math.hypot(...at), turn: Math.hypot(...vectorOfTurn(turn)) };
}

export function transformOf({ at, turn }: Pose): Transform {
  const [x, y, z] = [turned(turn, [1, 0, 0]), turned(turn, [0, 1, 0]), turned(turn, [0, 0, 1])];
  return [
    [x[0], y[0], z[0], at[0]],
    [x[1], y[1], z[1], at[1]],
    [x[2], y[2], z[2], at[2]],
  ];
}

/** The pose of a right-handed frame (Shepperd). */
export function poseOfFrame({ origin, x, y, normal: z }: Frame): Pose {
  const trace = x[0] + y[1] + z[2];
  const all: readonly Quat[] = [
    [1 + x[0] - y[1] - z[2], x[1] + y[0], z[0] + x[2], y[2] - z[1]],
    [x[1] + y[0], 1 - x[0] + y[1] - z[2], y[2] + z[1], z[0] - x[2]],
    [z[0] + x[2], y[2] + z[1], 1 - x[0] - y[1] + z[2], x[1] - y[0]],
    [y[2] - z[1], z[0] - x[2], x[1] - y[0], 1 + trace],
  ];
  const sizes = [x[0], y[1], z[2], trace];
  return { at: origin, turn: ofUnitLength(all[sizes.indexOf(Math.max(...sizes))]!) };
}

export function frameOfPose({ at, turn }: Pose): Frame {
  return { origin: at, x: turned(turn, [1, 0, 0]), y: turned(turn, [0, 1, 0]), normal: turned(turn, [0, 0, 1]) };
}

/** A frame whose z axis is given, and its x axis as near as can be to a hint, or level. */
export function frameAlong(origin: Vec3, normal: Vec3, hint: Vec3 | null = null): Frame {
  const level: Vec3 = Math.abs(normal[2]) > 1 - 1e-9 ? [1, 0, 0] : [-normal[1], normal[0], 0];
  const wanted = hint && Math.hypot(...cross(hint, normal)) > 1e-6 ? hint : level;
  const along = dot(wanted, normal);
  const flat: Vec3 = [wanted[0] - along * normal[0], wanted[1] - along * normal[1], wanted[2] - along * normal[2]];
  const size = Math.hypot(...flat);
  const x: Vec3 = [flat[0] / size, flat[1] / size, flat[2] / size];
  return { origin, x, y: cross(normal, x), normal };
}
