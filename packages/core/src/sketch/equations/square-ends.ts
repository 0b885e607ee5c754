import { derivativeAt, primitivesOfCurve, type Vec2 } from '../regions/primitives.ts';
import { endsOf, type SketchGeometry } from '../schema.ts';

/**
 * Where an offset has to be held square to its original, by curve: at ends that
 * no other curve of the chain shares, and where two run smoothly into each other
 * (there, the crossing of the two copies leaves their joint free to slide).
 */
export function squareEnds(sketch: SketchGeometry, curves: readonly string[]): Map<string, Set<string>> {
  const at = new Map<string, string[]>();
  for (const id of curves) for (const e of endsOf(sketch.curves[id]!) ?? []) at.set(e, [...(at.get(e) ?? []), id]);
  const square = new Map<string, Set<string>>();
  for (const [end, ids] of at) {
    const smooth =
      ids.length === 2 && sine(directionAt(sketch, ids[0]!, end), directionAt(sketch, ids[1]!, end)) < 1e-6;
    if (ids.length === 1 || smooth) square.set(ids[0]!, new Set([...(square.get(ids[0]!) ?? []), end]));
  }
  return square;
}

const sine = (u: Vec2, v: Vec2) => Math.abs(u[0] * v[1] - u[1] * v[0]) / (Math.hypot(...u) * Math.hypot(...v) || 1);

function directionAt(sketch: SketchGeometry, id: string, end: string): Vec2 {
  const [p] = primitivesOfCurve(sketch, id, sketch.curves[id]!);
  return p ? derivativeAt(p, endsOf(sketch.curves[id]!)![0] === end ? 0 : 1, 1) : [1, 0];
}
