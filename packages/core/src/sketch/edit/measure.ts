/** What a dimension reads on the geometry as it stands. Lengths mm, angles rad. */
import { letteringProportion } from '../lettering/lettering.ts';
import { distance, primitivesOfCurve, type Vec2 } from '../regions/primitives.ts';
import { BUILT_IN, type DimensionConstraint, type SketchGeometry } from '../schema.ts';

export type Ends = readonly [Vec2, Vec2];

/** A point, or the centre of a round curve; null for anything else. */
export function placeIn(sketch: SketchGeometry, id: string): Vec2 | null {
  if (id === BUILT_IN.origin) return [0, 0];
  const curve = sketch.curves[id];
  if (!curve) return sketch.points[id] ?? null;
  if (!('center' in curve)) return null;
  return curve.center === BUILT_IN.origin ? [0, 0] : (sketch.points[curve.center] ?? null);
}

/** The ends of a line or an axis; null for anything else. */
export function lineIn(sketch: SketchGeometry, id: string): Ends | null {
  if (id === BUILT_IN.xAxis) return [[0, 0], [1, 0]]; // prettier-ignore
  if (id === BUILT_IN.yAxis) return [[0, 0], [0, 1]]; // prettier-ignore
  const curve = sketch.curves[id];
  if (curve?.kind !== 'line' && curve?.kind !== 'text') return null;
  return [placeIn(sketch, curve.from) ?? [0, 0], placeIn(sketch, curve.to) ?? [0, 0]];
}

/** Radius of a circle or arc; 0 for anything else. */
export function radiusIn(sketch: SketchGeometry, id: string): number {
  const curve = sketch.curves[id];
  if (curve?.kind === 'circle') return curve.radius;
  return curve?.kind === 'arc' ? distance(placeIn(sketch, curve.center)!, placeIn(sketch, curve.from)!) : 0;
}

/** Unsigned distance of a point from a full line. */
export function offLine(p: Vec2, [a, b]: Ends): number {
  const [dx, dy] = [b[0] - a[0], b[1] - a[1]];
  return Math.abs(dx * (p[1] - a[1]) - dy * (p[0] - a[0])) / (Math.hypot(dx, dy) || 1);
}

/** From the first direction counter-clockwise to the second, in (−π, π]. */
export function angleFrom([a, b]: Ends, [c, d]: Ends): number {
  const [u, v] = [[b[0] - a[0], b[1] - a[1]] as const, [d[0] - c[0], d[1] - c[1]] as const];
  return Math.atan2(u[0] * v[1] - u[1] * v[0], u[0] * v[0] + u[1] * v[1]);
}

export function measureDimension(sketch: SketchGeometry, c: DimensionConstraint): number {
  const [first, second] = c.of;
  const line = lineIn(sketch, first!);
  switch (c.kind) {
    case 'radius':
      return radiusIn(sketch, first!);
    case 'diameter':
      return 2 * radiusIn(sketch, first!);
    case 'major_radius': {
      const curve = sketch.curves[first!];
      return curve && 'major' in curve ? distance(placeIn(sketch, curve.center)!, placeIn(sketch, curve.major)!) : 0;
    }
    case 'minor_radius': {
      const curve = sketch.curves[first!];
      return curve && 'minor' in curve ? curve.minor : 0;
    }
    case 'arc_length': {
      const curve = sketch.curves[first!];
      const [p] = curve ? primitivesOfCurve(sketch, first!, curve) : [];
      return p?.kind === 'arc' ? p.radius * p.sweep : 0;
    }
    case 'text_height': {
      const curve = sketch.curves[first!];
      return curve?.kind === 'text' && line ? distance(...line) / letteringProportion(curve.text) : 0;
    }
    case 'angle': {
      const other = lineIn(sketch, second!);
      if (!line || !other) return 0;
      const turned = ([a, b]: Ends): Ends => [b, a];
      return angleFrom(
        c.reversed === 'first' || c.reversed === 'both' ? turned(line) : line,
        c.reversed === 'second' || c.reversed === 'both' ? turned(other) : other,
      );
    }
    case 'across':
      return 2 * separation(sketch, c.of);
    case 'offset':
      return offsetNow(sketch, c.of);
    case 'horizontal_distance':
    case 'vertical_distance': {
      const [a, b] = c.of.length === 1 ? (line ?? [null, null]) : c.of.map((e) => placeIn(sketch, e));
      const k = c.kind === 'horizontal_distance' ? 0 : 1;
      return a && b ? Math.abs(b[k] - a[k]) : 0;
    }
    case 'distance': {
      if (c.of.length === 1) return line ? distance(...line) : 0;
      const rims = c.rims ?? [];
      const shift = c.of.reduce((sum, e, i) => {
        if (!rims[i] || rims[i] === 'center') return sum;
        return sum + (rims[i] === 'far' ? 1 : -1) * radiusIn(sketch, e);
      }, 0);
      return Math.abs(separation(sketch, c.of) + shift);
    }
    default: {
      const steps = sketch.patterns?.[first!]?.steps ?? [];
      return c.kind === 'spacing_across' ? (steps[1] ?? 0) : (steps[0] ?? 0);
    }
  }
}

/** Distance of two places, of a place and a line, or of two lines. */
function separation(sketch: SketchGeometry, of: readonly string[]): number {
  const places = of.map((e) => placeIn(sketch, e));
  if (places[0] && places[1]) return distance(places[0], places[1]);
  const lines = of.map((e) => lineIn(sketch, e));
  const line = lines[1] ?? lines[0];
  const other = places[0] ?? places[1] ?? lines[0]?.[0];
  return line && other ? offLine(other, line) : 0;
}

function offsetNow(sketch: SketchGeometry, of: readonly string[]): number {
  const [original, copy] = [of[0]!, of[1]!];
  const [line, moved] = [lineIn(sketch, original), lineIn(sketch, copy)];
  if (line && moved) return offLine(moved[0], line);
  return Math.abs(radiusIn(sketch, original) - radiusIn(sketch, copy));
}
