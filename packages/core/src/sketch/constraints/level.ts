/** A line, or two places, level along x or upright along y: two coordinates are one. */
import { declareConstraint } from './constraint-kind.ts';

export const horizontal = declareConstraint('horizontal', {
  merge(_, { of }, on) {
    const [p, q] = on.twoPlaces(of, 'Horizontal needs a line or two points.');
    return [on.same(p.y, q.y)];
  },
});

export const vertical = declareConstraint('vertical', {
  merge(_, { of }, on) {
    const [p, q] = on.twoPlaces(of, 'Vertical needs a line or two points.');
    return [on.same(p.x, q.x)];
  },
});
