/** Two curves touch: at an end they share, or where they come nearest as drawn. */
import { sameDirection, touching, type CurveSlots, type PlaceOn } from '../equations/contact.ts';
import { alongAt, nearestTouch } from '../equations/contact-start.ts';
import { parallel } from '../equations/direction.ts';
import { tangentLineRound, tangentRounds } from '../equations/tangent.ts';
import type { Equation } from '../solver/equation.ts';
import { declareConstraint } from './constraint-kind.ts';
import { refuse, type Equating } from './operands.ts';

export const tangent = declareConstraint('tangent', {
  equations(id, { of }, on) {
    const [one, other] = on.twoCurves(of, 'Tangent needs two curves.');
    const simple = (c: CurveSlots) => c.kind === 'line' || c.kind === 'round';
    if (simple(one) && simple(other)) return [tangentSimple(id, of, one, other, on)];
    const shared = on.sharedPlace(of, one, other);
    if (shared) return [alike(id, endLeg(one, shared[0]), shared[0], endLeg(other, shared[1]), shared[1])];
    const [s, t] = nearestTouch(one, other, on.v);
    const place = (c: CurveSlots, at: number): PlaceOn => ({
      at: 'along',
      along: alongAt(c, at, on.v, on.newContact),
    });
    return touching(id, one, place(one, s), other, place(other, t));
  },
});

function tangentSimple(id: string, of: readonly string[], one: CurveSlots, other: CurveSlots, on: Equating): Equation {
  if (one.kind === 'line' && other.kind === 'round') return tangentLineRound(id, one, on.meeting(of[1]!, other), on.v);
  if (one.kind === 'round' && other.kind === 'line') return tangentLineRound(id, other, on.meeting(of[0]!, one), on.v);
  if (one.kind === 'round' && other.kind === 'round')
    return tangentRounds(id, on.meeting(of[0]!, one), on.meeting(of[1]!, other), on.v);
  return refuse('Two lines cannot be tangent; make them collinear.');
}

/** Same direction at a shared end; of two straight legs, by the plain equation. */
function alike(id: string, one: CurveSlots, atOne: PlaceOn, other: CurveSlots, atOther: PlaceOn): Equation {
  if (one.kind === 'line' && other.kind === 'line') return parallel(id, one, other);
  return sameDirection(id, one, legPlace(one, atOne), other, legPlace(other, atOther));
}

/** Of a line, any place will do for its direction. */
const legPlace = (curve: CurveSlots, place: PlaceOn): PlaceOn =>
  curve.kind === 'line' ? { at: 'point', point: curve.from } : place;

/** At its end, a spline by control points runs along the leg between the last two of them. */
function endLeg(curve: CurveSlots, place: PlaceOn): CurveSlots {
  if (curve.kind !== 'spline' || curve.basis.matrix !== null || place.at !== 'end') return curve;
  const points = place.parameter === 0 ? curve.points : [...curve.points].reverse();
  return { kind: 'line', from: points[0]!, to: points[1]! };
}
