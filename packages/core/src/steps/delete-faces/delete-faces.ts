/** Faces taken away: holes and pockets filled, bosses taken off. */
import { StepFailure, type Body } from '../../names/body.ts';
import { faces } from '../../slots/faces/faces.ts';
import type { FaceParent, MadeSolid, SolidKernel } from '../../solid/kernel.ts';
import { facesPicked } from '../begin.ts';
import { byBody, inTurn, rework } from '../rework/rework.ts';
import { declareStep } from '../step.ts';

export const deleteFaces = declareStep({
  kind: 'delete_faces',
  version: 1,
  worksOn: 'faces',
  label: 'Delete faces',
  says: 'Faces taken away: what they are the sides of is filled where it is hollow, and taken off where it stands out.',
  slots: { faces: { of: faces('A face this step takes away') } },
  begin(from) {
    const picked = facesPicked(from);
    return picked && { faces: picked };
  },
  sentence: () => ['Delete', { slot: 'faces' }],
  make: ({ faces: picked }, context) =>
    rework(byBody(picked), {}, context, (body, own) =>
      without(
        body,
        own.map((f) => f.face),
        context.kernel,
      ),
    ),
});

/** By this share of what is filled, or taken off, the outcome may differ: of the whole it could hide a small boss that stayed. */
const SLACK = 1e-3;

/** @throws StepFailure, KernelError */
const without = (body: Body, picked: readonly number[], kernel: SolidKernel): MadeSolid =>
  inTurn(
    body,
    togetherOf(body, picked),
    (now, group) => {
      const here = now.faces.flatMap((parents, i) => (parents.some((p) => group.includes(p.index)) ? [i] : []));
      return withoutOne(now, here, kernel);
    },
    kernel,
  );

function withoutOne(from: MadeSolid, picked: readonly number[], kernel: SolidKernel): MadeSolid {
  const plug = kernel.plug(from.solid, picked);
  try {
    const [whole, own] = [kernel.bulk(from.solid).volume, kernel.bulk(plug).volume];
    for (const [kind, change] of [['join', own], ['cut', -own]] as const) {
      const made = kernel.combine(kind, [from.solid], [plug]);
      const [only] = made;
      if (made.length === 1 && Math.abs(kernel.bulk(only!.solid).volume - whole - change) <= SLACK * own) {
        // What is left of the plug are its caps, which lie in faces that were there.
        const kept = (p: FaceParent) => (p.argument === 0 ? from.faces[p.index]! : []);
        return { solid: only!.solid, faces: only!.faces.map((parents) => parents.flatMap(kept)) };
      }
      for (const { solid } of made) kernel.free(solid);
    } // prettier-ignore
  } finally {
    kernel.free(plug);
  }
  throw new StepFailure('Without these faces the body does not close; pick all faces of a hole, a pocket or a boss.');
}

/** Picked faces that hang together by edges, group by group. */
function togetherOf({ facts: { edges } }: Body, picked: readonly number[]): number[][] {
  const groups = picked.map((f) => [f]);
  for (const { faces: sides } of edges) {
    const met = groups.filter((g) => g.some((f) => sides.includes(f)));
    if (met.length < 2) continue;
    for (const other of met.slice(1)) {
      met[0]!.push(...other);
      groups.splice(groups.indexOf(other), 1);
    }
  }
  return groups;
}
