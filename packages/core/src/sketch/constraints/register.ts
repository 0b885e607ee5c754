/** Every kind of constraint there is. */
import type { ConstraintKind as KindName } from '../schema.ts';
import { angle } from './angle.ts';
import { arcLength } from './arc-length.ts';
import { horizontalDistance, verticalDistance } from './axis-distances.ts';
import { coincident } from './coincident.ts';
import { collinear } from './collinear.ts';
import { concentric } from './concentric.ts';
import type { ConstraintKind } from './constraint-kind.ts';
import { parallel, perpendicular } from './directions.ts';
import { across, distance } from './distance.ts';
import { equal } from './equal.ts';
import { equalSpacing } from './equal-spacing.ts';
import { fixed } from './fixed.ts';
import { horizontal, vertical } from './level.ts';
import { midpoint } from './midpoint.ts';
import { offset } from './offset.ts';
import { count, countAcross, spacing, spacingAcross, stepAngle } from './pattern-numbers.ts';
import { diameter, majorRadius, minorRadius, radius } from './radii.ts';
import { smooth } from './smooth.ts';
import { symmetric } from './symmetric.ts';
import { tangent } from './tangent.ts';
import { textHeight } from './text-height.ts';

const KINDS = [
  coincident, collinear, horizontal, vertical, equal, concentric, parallel, perpendicular, tangent, smooth, midpoint,
  symmetric, fixed, equalSpacing, distance, horizontalDistance, verticalDistance, radius, diameter, across, offset,
  arcLength, majorRadius, minorRadius, textHeight, count, countAcross, spacing, spacingAcross, stepAngle, angle,
] as const; // prettier-ignore

/** The compiler tells of a kind in the file's form that is not listed here. */
type Missing = Exclude<KindName, (typeof KINDS)[number][0]>;
const complete: [Missing] extends [never] ? true : Missing = true;
void complete;

const byKind = new Map<KindName, ConstraintKind>(KINDS);

export function constraintKind(kind: KindName): ConstraintKind {
  return byKind.get(kind)!;
}
