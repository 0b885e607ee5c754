/** Plane areas wound on a cylinder or a cone without stretching: both unroll into the plane. */
import { dot, minus, type Frame, type Vec3 } from '../space/vector.ts';

/** A cylinder or a cone on which plane areas are wound. */
export interface Winding {
  /** Its normal is the axis, at a cone's origin its tip. In the direction of x the area's plane touches, and y runs along that. */
  readonly frame: Frame;
  /** mm; or between a cone's axis and its side, rad. */
  readonly round: { readonly radius: number } | { readonly halfAngle: number };
  /** How far out from the face, mm, what is wound begins and ends; negative towards the axis. `start` is the cap at the first. */
  readonly from: number;
  readonly to: number;
}

/** Where a place of the touching plane comes to lie: angle about the axis, rad, and mm along it, of a cone from the tip along its side. */
export type Unrolled = readonly [angle: number, along: number];

/** @param at in space; how far it is from the touching plane does not count */
export function unrolled({ frame, round }: Winding, at: Vec3): Unrolled {
  const from = minus(at, frame.origin);
  const [across, high] = [dot(from, frame.y), dot(from, frame.normal)];
  if ('radius' in round) return [across / round.radius, high];
  const [s, c] = [Math.sin(round.halfAngle), Math.cos(round.halfAngle)];
  const along = s * dot(from, frame.x) + c * high;
  return [Math.atan2(across, along) / s, Math.hypot(across, along)];
}

/** @param out from the face, mm. @returns the place in space */
export function wound({ frame, round }: Winding, [angle, along]: Unrolled, out: number): Vec3 {
  const [radius, high] = 'radius' in round ? [round.radius + out, along] : onCone(round.halfAngle, along, out);
  const [c, s] = [Math.cos(angle) * radius, Math.sin(angle) * radius];
  const at = (k: 0 | 1 | 2) => frame.origin[k] + c * frame.x[k] + s * frame.y[k] + high * frame.normal[k];
  return [at(0), at(1), at(2)];
}

/** Square to the side of a cone: how far from the axis, and along it from the tip. */
function onCone(halfAngle: number, along: number, out: number): [radius: number, high: number] {
  const [s, c] = [Math.sin(halfAngle), Math.cos(halfAngle)];
  return [along * s + out * c, along * c - out * s];
}
