import { cross, type Axis, type Vec3 } from './vector.ts';

interface Wound {
  readonly axis: Axis;
  readonly from: Vec3;
  readonly radius: number;
  readonly pitch: number;
  readonly turns: number;
  readonly taper: number;
  readonly left: boolean;
}

const PLACES_A_TURN = 36;

/** Places along a helix, mm, for drawing it. */
export function helixPlaces({ axis, from, radius, pitch, turns, taper, left }: Wound): Vec3[] {
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
