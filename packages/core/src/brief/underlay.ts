/** A picture under a sketch: set to scale, squared and put in place by what is pointed at in it. */
import type { Underlay } from '../document/brief.ts';
import type { Vec2 } from '../sketch/curves/spline.ts';

/** Where a pixel of the picture lies in the sketch, mm; pixels run right and down. */
export function pixelInSketch({ at, pixel, turn }: Underlay, [u, v]: Vec2): [number, number] {
  const [c, s] = [Math.cos(turn), Math.sin(turn)];
  return [at[0] + pixel * (c * u + s * v), at[1] + pixel * (s * u - c * v)];
}

/** Put so that a pixel lies at a place of the sketch. */
export function putAt(underlay: Underlay, place: Vec2, to: Vec2): Underlay {
  const [x, y] = pixelInSketch(underlay, place);
  return { ...underlay, at: [underlay.at[0] + to[0] - x, underlay.at[1] + to[1] - y] };
}

/**
 * To scale by two places of known distance; the first stays where it is.
 * @param apart mm; null is returned where the two are one place, or the distance is none
 */
export function scaledBy(underlay: Underlay, a: Vec2, b: Vec2, apart: number): Underlay | null {
  const pixels = Math.hypot(b[0] - a[0], b[1] - a[1]);
  if (!(pixels > 0) || !(apart > 0)) return null;
  return putAt({ ...underlay, pixel: apart / pixels }, a, pixelInSketch(underlay, a));
}

/** Turned so that two places lie level or upright, whichever is nearer; the first stays where it is. */
export function squaredBy(underlay: Underlay, a: Vec2, b: Vec2): Underlay | null {
  if (a[0] === b[0] && a[1] === b[1]) return null;
  const own = Math.atan2(-(b[1] - a[1]), b[0] - a[0]);
  const quarter = Math.PI / 2;
  const turn = Math.round((own + underlay.turn) / quarter) * quarter - own;
  return putAt({ ...underlay, turn }, a, pixelInSketch(underlay, a));
}

/** For a drawing that is laid under a sketch for the first time: its middle at the origin. */
export function firstUnderlay(drawing: string, width: number, height: number, pixel: number | undefined): Underlay {
  const mm = pixel ?? USUAL_WIDTH / width;
  return { drawing, at: [(-width * mm) / 2, (height * mm) / 2], pixel: mm, turn: 0, seen: 0.5 };
}
/** mm, of a picture that does not say. */
const USUAL_WIDTH = 200;
