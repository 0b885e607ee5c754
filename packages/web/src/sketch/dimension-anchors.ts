/** Between which places of a sketch a length runs, mm. */
import {
  lineIn, memberId, placeIn, pointAt, pointsOf, radiusIn, type DimensionConstraint, type SketchGeometry, type Vec2,
} from '@helb/core'; // prettier-ignore
import { placeOf, primitivesFor } from './hit.ts';

export type Px = readonly [number, number];

export const sub = (a: Px, b: Px): Px => [a[0] - b[0], a[1] - b[1]];
export const along = (a: Px, d: Px, t: number): Px => [a[0] + d[0] * t, a[1] + d[1] * t];
export const dot = (a: Px, b: Px) => a[0] * b[0] + a[1] * b[1];
export const unit = (v: Px): Px => {
  const size = Math.hypot(...v) || 1;
  return [v[0] / size, v[1] / size];
};

/** The two places a distance runs between, and the way it is measured where that is not from one to the other. */
export interface Anchors {
  readonly ends: readonly [Vec2, Vec2];
  readonly along?: Vec2;
}

export function anchors(sketch: SketchGeometry, c: DimensionConstraint): Anchors | null {
  const { of, label } = c;
  const special = anchorsOfKind(sketch, c);
  if (special !== undefined) return special;
  const lines = of.map((id) => lineIn(sketch, id));
  if (of.length === 1) return lines[0] ? { ends: lines[0] } : null;
  const places = of.map((id) => placeIn(sketch, id));
  if (places[0] && places[1]) {
    const ends = atRims(sketch, c, [places[0], places[1]]);
    return { ends };
  }
  // A centre line comes second.
  const at = c.kind === 'across' || !lines[0] ? 1 : 0;
  const line = lines[at];
  const other = of[1 - at]!;
  const otherLine = lineIn(sketch, other);
  let point = placeIn(sketch, other) ?? (otherLine && nearestEnd(otherLine, label));
  if (!line || !point) return null;
  const d = unit(sub(line[1], line[0]));
  let foot = along(line[0], d, dot(sub(point, line[0]), d));
  const way = unit(sub(foot, point));
  const rim = c.kind === 'distance' ? c.rims?.[of.indexOf(other)] : undefined;
  if (rim && rim !== 'center') point = along(point, way, (rim === 'near' ? 1 : -1) * radiusIn(sketch, other));
  // Across a centre line, the number spans both sides of it.
  if (c.kind === 'across') foot = along(point, way, 2 * Math.hypot(...sub(foot, point)));
  // From a drawn line the extension starts at its end, so that it does not run along the line itself.
  const isDrawn = c.kind !== 'across' && of.find((id) => id !== other)! in sketch.curves;
  return { ends: [point, isDrawn ? nearestEnd(line, label ?? point) : foot], along: way };
}

/** Kinds that are measured between places of their own; undefined for all others. */
function anchorsOfKind(sketch: SketchGeometry, c: DimensionConstraint): Anchors | null | undefined {
  const curve = sketch.curves[c.of[0]!];
  switch (c.kind) {
    case 'major_radius':
      return curve && 'major' in curve ? { ends: [placeOf(sketch, curve.center), placeOf(sketch, curve.major)] } : null;
    case 'minor_radius': {
      if (!curve || !('major' in curve)) return null;
      const [center, major] = [placeOf(sketch, curve.center), placeOf(sketch, curve.major)];
      const u = unit(sub(major, center));
      return { ends: [center, along(center, [-u[1], u[0]], curve.minor)] };
    }
    case 'text_height': {
      const ends = lineIn(sketch, c.of[0]!);
      if (!ends || curve?.kind !== 'text') return null;
      const u = unit(sub(ends[1], ends[0]));
      const boxes = primitivesFor(sketch, c.of[0]!).flatMap((p) => [pointAt(p, 0), pointAt(p, 0.5)]);
      const top = Math.max(0, ...boxes.map((p) => dot(sub(p, ends[0]), [-u[1], u[0]])));
      return { ends: [ends[0], along(ends[0], [-u[1], u[0]], top)] };
    }
    case 'spacing':
    case 'spacing_across': {
      const pattern = sketch.patterns?.[c.of[0]!];
      const first =
        pattern && (sketch.curves[pattern.of[0]!] ? pointsOf(sketch.curves[pattern.of[0]!]!)[0]! : pattern.of[0]!);
      const member =
        first && memberId(first, c.of[0]!, ...((c.kind === 'spacing' ? [1, 0] : [0, 1]) as [number, number]));
      return first && member && sketch.points[member]
        ? { ends: [placeOf(sketch, first), placeOf(sketch, member)] }
        : null;
    }
    case 'offset': {
      const [line, copy] = [lineIn(sketch, c.of[0]!), lineIn(sketch, c.of[1]!)];
      if (line && copy) {
        const middle = along(copy[0], sub(copy[1], copy[0]), 0.5);
        const d = unit(sub(line[1], line[0]));
        return { ends: [middle, along(line[0], d, dot(sub(middle, line[0]), d))] };
      }
      const center = placeIn(sketch, c.of[0]!);
      const u: Vec2 = [Math.SQRT1_2, Math.SQRT1_2];
      const rim = (id: string) => along(center!, u, radiusIn(sketch, id));
      return center ? { ends: [rim(c.of[0]!), rim(c.of[1]!)] } : null;
    }
    default:
      return undefined;
  }
}

/** Two places, each moved to the edge of its circle where the number is measured from there. */
function atRims(sketch: SketchGeometry, c: DimensionConstraint, [a, b]: readonly [Vec2, Vec2]): [Vec2, Vec2] {
  const rims = c.kind === 'distance' ? (c.rims ?? []) : [];
  const u = unit(sub(b, a));
  const shift = (p: Vec2, i: 0 | 1): Vec2 => {
    const rim = rims[i];
    if (!rim || rim === 'center') return p;
    const inwards = (i === 0 ? 1 : -1) * (rim === 'near' ? 1 : -1);
    return along(p, u, inwards * radiusIn(sketch, c.of[i]!));
  };
  return [shift(a, 0), shift(b, 1)];
}

/** The end of a line nearer to where the number stands; its first without one. */
function nearestEnd([a, b]: readonly [Vec2, Vec2], to: Vec2 | undefined): Vec2 {
  return to && Math.hypot(...sub(b, to)) < Math.hypot(...sub(a, to)) ? b : a;
}
