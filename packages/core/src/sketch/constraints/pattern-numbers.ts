/** Numbers of a pattern: its spacings are unknowns that are pinned; its counts say how many members there are, and ask nothing of the solver. */
import { STEP_ARM } from '../equations/spacing.ts';
import type { Constraint, SketchGeometry } from '../schema.ts';
import { declareConstraint } from './constraint-kind.ts';
import { refuse, type Merging } from './operands.ts';

const stepOf = ({ of }: Constraint, on: Merging, k: 0 | 1) =>
  (on.slots.steps.get(of[0]!) ?? refuse('A spacing needs a pattern.'))[k];
const read = ({ of }: Constraint, { patterns }: SketchGeometry, k: 0 | 1) => patterns?.[of[0]!]?.steps[k] ?? 0;

export const spacing = declareConstraint('spacing', {
  merge: (id, c, on) => [on.pin(stepOf(c, on, 0), on.value(id))],
  reads: (c, sketch) => read(c, sketch, 0),
});

export const spacingAcross = declareConstraint('spacing_across', {
  merge: (id, c, on) => [on.pin(stepOf(c, on, 1), on.value(id))],
  reads: (c, sketch) => read(c, sketch, 1),
});

export const stepAngle = declareConstraint('step_angle', {
  merge: (id, c, on) => [on.pin(stepOf(c, on, 0), on.value(id) * STEP_ARM)],
  reads: (c, sketch) => read(c, sketch, 0),
  quantity: 'angle',
});

export const count = declareConstraint('count', {
  merge: () => [],
  reads: (c, sketch) => read(c, sketch, 0),
  quantity: 'number',
});

export const countAcross = declareConstraint('count_across', {
  merge: () => [],
  reads: (c, sketch) => read(c, sketch, 0),
  quantity: 'number',
});
