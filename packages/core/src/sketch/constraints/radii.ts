/** Sizes that are one unknown, and so are pinned: of circles and arcs, and an ellipse's second half axis; its first is a distance. */
import { placeIn, radiusIn } from '../drawn.ts';
import { pointDistance } from '../equations/distance.ts';
import { distance } from '../regions/primitives.ts';
import { declareConstraint } from './constraint-kind.ts';
import { refuse } from './operands.ts';

export const radius = declareConstraint('radius', {
  merge(id, { of }, on) {
    const round = on.slots.rounds.get(of[0]!) ?? refuse('A radius needs a circle or an arc.');
    return [on.pin(round.radius, on.positive(id, 'A radius'))];
  },
  reads: ({ of }, sketch) => radiusIn(sketch, of[0]!),
});

export const diameter = declareConstraint('diameter', {
  merge(id, { of }, on) {
    const round = on.slots.rounds.get(of[0]!) ?? refuse('A diameter needs a circle or an arc.');
    return [on.pin(round.radius, on.positive(id, 'A diameter') / 2)];
  },
  reads: ({ of }, sketch) => 2 * radiusIn(sketch, of[0]!),
});

export const majorRadius = declareConstraint('major_radius', {
  equations(id, { of }, on) {
    const ellipse = on.slots.ellipses.get(of[0]!) ?? refuse('A major radius needs an ellipse.');
    return [pointDistance(id, ellipse.center, ellipse.major, on.positive(id, 'A radius'))];
  },
  reads({ of }, sketch) {
    const curve = sketch.curves[of[0]!];
    return curve && 'major' in curve ? distance(placeIn(sketch, curve.center)!, placeIn(sketch, curve.major)!) : 0;
  },
});

export const minorRadius = declareConstraint('minor_radius', {
  merge(id, { of }, on) {
    const ellipse = on.slots.ellipses.get(of[0]!) ?? refuse('A minor radius needs an ellipse.');
    return [on.pin(ellipse.minor, on.positive(id, 'A radius'))];
  },
  reads({ of }, sketch) {
    const curve = sketch.curves[of[0]!];
    return curve && 'minor' in curve ? curve.minor : 0;
  },
});
