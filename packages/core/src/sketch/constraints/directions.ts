/** Two lines run the same way, or square to each other. */
import { parallel as parallelLines, perpendicular as squareLines } from '../equations/direction.ts';
import { declareConstraint } from './constraint-kind.ts';

export const parallel = declareConstraint('parallel', {
  equations(id, { of }, on) {
    const message = 'Parallel needs two lines.';
    return [parallelLines(id, on.line(of[0]!, message), on.line(of[1]!, message))];
  },
});

export const perpendicular = declareConstraint('perpendicular', {
  equations(id, { of }, on) {
    const message = 'Perpendicular needs two lines.';
    return [squareLines(id, on.line(of[0]!, message), on.line(of[1]!, message))];
  },
});
