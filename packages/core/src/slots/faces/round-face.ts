/** What is to be known of a cylinder's face to work on it. */
import { curveOfEdge, StepFailure, type Body } from '../../names/body.ts';
import type { EdgeCurve, SolidKernel } from '../../solid/kernel.ts';
import { cross, dot, minus, unit, type Axis, type Vec3 } from '../../space/vector.ts';

export interface RoundFace {
  readonly axis: Axis;
  readonly radius: number;
  /** Is the material outside it, as round a hole? */
  readonly hollow: boolean;
  /** Directions square to the axis and to each other, from which angles about it are counted. */
  readonly out: Vec3;
  readonly aside: Vec3;
  /** Where it ends along the axis, mm from the axis's origin. */
  readonly low: number;
  readonly high: number;
  /** The curves that bound it; its seam is none. */
  readonly bounds: readonly EdgeCurve[];
}

/** @throws StepFailure when the face is no cylinder */
export function roundFace(body: Pick<Body, 'solid' | 'facts'>, face: number, kernel: SolidKernel): RoundFace {
  const { radius, axis, hollow } = body.facts.faces[face]!;
  if (radius === null || !axis || hollow === null)
    throw new StepFailure('One of these faces is no cylinder; choose round ones.');
  const way = axis.direction;
  const out = unit(cross(way, Math.abs(way[2]) < 0.9 ? [0, 0, 1] : [1, 0, 0]))!;
  const height = (p: Vec3) => dot(minus(p, axis.origin), way);
  const bounds = body.facts.edges.flatMap((edge, i) =>
    edge.faces.includes(face) && edge.faces.some((f) => f !== face) ? [curveOfEdge(body, i, kernel)] : [],
  );
  const heights = bounds.flatMap((curve) => curve.samples.map(height));
  return { axis, radius, hollow, out, aside: cross(way, out), low: Math.min(...heights), high: Math.max(...heights), bounds }; // prettier-ignore
}
