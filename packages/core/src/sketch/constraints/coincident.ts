/** Two points are one; or a point lies on a curve. */
import { pointOnEllipse, pointOnSpline } from '../equations/contact.ts';
import { alongAt, nearestParameter } from '../equations/contact-start.ts';
import { pointLineDistance } from '../equations/distance.ts';
import { pointOnRound } from '../equations/tangent.ts';
import { declareConstraint } from './constraint-kind.ts';
import { refuse } from './operands.ts';

export const coincident = declareConstraint('coincident', {
  merge(_, { of }, on) {
    const [p, q] = of.map((e) => on.slots.points.get(e));
    return p && q ? on.samePlace(p, q) : null;
  },

  equations(id, { of }, on) {
    const message = 'Coincident needs two points, or a point and a curve.';
    const pointId = of.find((e) => on.slots.points.has(e));
    const curve = on.curve(of.find((e) => e !== pointId) ?? '');
    if (!pointId || !curve) refuse(message);
    const p = on.slots.points.get(pointId)!;
    switch (curve.kind) {
      case 'line':
        return [pointLineDistance(id, p, curve, 0, 1)];
      case 'round':
        return [pointOnRound(id, p, curve)];
      case 'ellipse':
        return [pointOnEllipse(id, p, curve)];
      case 'spline':
        return pointOnSpline(id, p, curve, alongAt(curve, nearestParameter(curve, p, on.v), on.v, on.newContact));
    }
  },
});
