/** Giving a curve another end while what is put on it stays, as far as it can still hold. */
import { constraintKind } from '../constraints/register.ts';
import { SketchPen, type Place } from '../draw/pen.ts';
import { BUILT_IN, endsOf, onPoints, pointsOf, type Constraint, type SketchGeometry } from '../schema.ts';
import { removeFromSketch } from '../edit/remove.ts';

/** An edit of a sketch's geometry that cannot be made; the message is for the user. */
export class ChangeRefused extends Error {}

/** Constraints that speak of a whole curve between its ends, and are lost when it gets shorter or longer. */
export function ofLength(id: string, c: Constraint): boolean {
  return constraintKind(c.kind).ofLength?.(c, id) ?? false;
}

/**
 * A point that two or more curves share, or that constraints hold, is left to
 * them; the curve gets a fresh one there instead.
 */
export function ownEnd(pen: SketchPen, curve: string, end: string, at: Place): string {
  const { sketch } = pen;
  const shared =
    end === BUILT_IN.origin ||
    Object.entries(sketch.curves).some(([id, c]) => id !== curve && pointsOf(c).includes(end)) ||
    Object.values(sketch.constraints).some((c) => c.of.includes(end));
  if (!shared) {
    sketch.points[end] = [at[0], at[1]];
    return end;
  }
  const fresh = pen.point({ at });
  const own = sketch.curves[curve]!;
  const [from, to] = endsOf(own)!;
  sketch.curves[curve] = onEnds(own, end === from ? fresh : from, end === to ? fresh : to);
  return fresh;
}

/** The same open curve between other ends. */
export function onEnds(curve: SketchGeometry['curves'][string], from: string, to: string) {
  const [a, b] = endsOf(curve)!;
  let first = true;
  return onPoints(curve, (p) => {
    if (p === a && first) {
      first = false;
      return from;
    }
    return p === b ? to : p;
  });
}

/** Drop the constraints on a curve's length (and, for lines, its equality with others); returns what went. */
export function dropLength(sketch: SketchGeometry, curve: string): Constraint[] {
  const line = sketch.curves[curve]?.kind === 'line';
  const lost = Object.entries(sketch.constraints).filter(
    ([, c]) => ofLength(curve, c) || (line && c.kind === 'equal' && c.of.includes(curve)),
  );
  for (const [id] of lost) delete sketch.constraints[id];
  return lost.map(([, c]) => c);
}

/** Take a curve out; the points that only it used go along, those that constraints hold stay. */
export function removeCurve(sketch: SketchGeometry, curve: string): Constraint[] {
  const before = { ...sketch.constraints };
  const gone = removeFromSketch(sketch, [curve]);
  return gone.map((id) => before[id]!);
}
