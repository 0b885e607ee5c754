/** How faces that are moved stand to those beside them: whether they can be moved without a step between. */
import { StepFailure, type Body } from '../../names/body.ts';
import type { CurveKind, FaceFacts } from '../../solid/kernel.ts';

/** Angles nearer than this, rad, are the same. */
const SAME = 1e-6;

/** Along such edges, faces beside a flat one are carried on as they lean. */
const EVEN: readonly (readonly [CurveKind, FaceFacts['kind']])[] = [['line', 'plane'], ['circle', 'cylinder'], ['circle', 'cone']]; // prettier-ignore

/** @throws StepFailure where a face beside can neither be carried on, nor is square to a moved one, nor runs on from it and moves as well */
export function refuseLeaning(
  body: Pick<Body, 'facts'>,
  moved: ReadonlySet<number>,
  nameOf: (face: number) => string,
): void {
  const { edges, bends, faces } = body.facts;
  edges.forEach((edge, i) => {
    const [a, b] = edge.faces;
    if (a === undefined || b === undefined || a === b || (!moved.has(a) && !moved.has(b))) return;
    const [own, other] = moved.has(a) ? [a, b] : [b, a];
    const bend = Math.abs(bends[i]!);
    if (bend < SAME) {
      if (moved.has(other)) return;
      throw new StepFailure(`A face runs smoothly on into one of ${nameOf(other)} that stays; pick that too, or offset before it is made.`); // prettier-ignore
    }
    if (faces[own]!.kind === 'plane' && EVEN.some(([curve, face]) => edge.kind === curve && faces[other]!.kind === face)) return; // prettier-ignore
    const kinds = [faces[own]!.kind, faces[other]!.kind];
    const square = Math.abs(bend - Math.PI / 2) < SAME && kinds.every((k) => k === 'plane' || k === 'cylinder');
    // A cylinder is square to a flat face all along only where their edge is a circle or a straight line.
    if (square && (edge.kind === 'line' || edge.kind === 'circle')) return;
    throw new StepFailure(`A face beside one of ${nameOf(other)} is not square to it, so it cannot be moved straight; change the step that made it.`); // prettier-ignore
  });
}
