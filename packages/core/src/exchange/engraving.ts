/** What is drawn in a sketch on a face, to be engraved on it. */
import type { SketchOutcome } from '../slots/resolving.ts';
import { flatten } from '../slots/regions/flatten.ts';
import type { FlatPiece } from '../sketch/borrow/flat-piece.ts';
import { isWhole, pointAt, primitivesOf, type Primitive, type Vec2 } from '../sketch/regions/primitives.ts';
import type { EdgeCurve } from '../solid/kernel.ts';
import { toSpace } from '../space/planes.ts';
import { cross, dot, minus, type Frame, type Vec3 } from '../space/vector.ts';

/** A sketch farther off the face than this, mm, or leaning by such a sine, does not lie on it. */
const OFF = 1e-6;
/** Shorter than this, mm, is nothing. */
const NOTHING = 1e-9;
const SAMPLES = 96;

/** Does the plane lie in the face's? */
export const liesOn = (face: Frame, plane: Frame): boolean =>
  Math.hypot(...cross(face.normal, plane.normal)) < OFF && Math.abs(dot(minus(plane.origin, face.origin), face.normal)) < OFF; // prettier-ignore

/** Its curves but for construction, along the face's own directions. */
export function engravingOf(face: Frame, { frame, solution }: SketchOutcome): FlatPiece[] {
  return primitivesOf(solution.geometry, NOTHING).map((p) => flatten(face, inSpace(frame, p)));
}

function inSpace(frame: Frame, p: Primitive): EdgeCurve {
  const at = (t: number) => toSpace(frame, ...pointAt(p, t));
  const count = p.kind === 'line' ? 2 : SAMPLES + 1;
  const samples = Array.from({ length: count }, (_, i) => at(i / (count - 1)));
  const ends = { from: samples[0]!, to: samples.at(-1)!, middle: at(0.5), samples };
  if (p.kind === 'line') return { kind: 'line', ...ends };
  if (p.kind === 'spline') return { kind: 'other', ...ends };
  const [major, minor] = p.kind === 'arc' ? [[p.radius, 0] as const, [0, p.radius] as const] : [p.major, p.minor];
  const long = Math.hypot(...major);
  return {
    kind: 'ellipse', ...ends, center: toSpace(frame, ...p.center), normal: frame.normal, along: inDirection(frame, [major[0] / long, major[1] / long]),
    major: long, minor: Math.hypot(...minor), whole: isWhole(p),
  }; // prettier-ignore
}

const inDirection = ({ x, y }: Frame, [a, b]: Vec2): Vec3 => [0, 1, 2].map((k) => a * x[k]! + b * y[k]!) as unknown as Vec3; // prettier-ignore
