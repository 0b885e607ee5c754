import { cross, type Axis, type Vec3 } from './vector.ts';

/** A line wound about an axis, from a place at `radius` in the direction `from` off it. */
export interface Helix {
  readonly axis: Axis;
  readonly from: Vec3;
  readonly radius: number;
  /** How far it rises in a turn, mm. */
  readonly pitch: number;
  readonly turns: number;
  /** By how much it widens as it rises, rad. */
  readonly taper: number;
  /** Clockwise as it rises. */
  readonly left: boolean;
}

const PLACES_A_TURN = 36;

/** Places along a helix, mm, for drawing it. */
export function helixPlaces({ axis, from, radius, pitch, turns, taper, left }: Helix): Vec3[] {
  const side = cross(axis.direction, from);
  const count = Math.ceil(PLACES_A_TURN * turns);
  return Array.from({ length: count + 1 }, (_, i) => {
    const turned = (i / count) * turns;
    const angle = 2 * Math.PI * turned * (left ? -1 : 1);
    const rise = pitch * turned;
    const r = radius + rise * Math.tan(taper);
    const at = (k: 0 | 1 | 2) =>
      axis.origin[k] + rise * axis.direction[k] + r * (Math.cos(angle) * from[k] + Math.sin(angle) * side[k]);
    return [at(0), at(1), at(2)];
  });
}
