/** What a dimension reads on the geometry as it stands. Lengths mm, angles rad. */
import { constraintKind } from '../constraints/register.ts';
import type { DimensionConstraint, SketchGeometry } from '../schema.ts';

export function measureDimension(sketch: SketchGeometry, c: DimensionConstraint): number {
  return constraintKind(c.kind).reads!(c, sketch);
}
