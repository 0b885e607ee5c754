/** Faces of a body made slabs of a thickness. */
import { StepFailure } from '../../names/body.ts';
import { BODY_ROLE } from '../../names/find-body.ts';
import type { FoundFace } from '../../names/find-face.ts';
import type { Body } from '../../names/body.ts';
import { nameOf, type Name } from '../../names/name.ts';
import { choice } from '../../slots/choice/choice.ts';
import { expression } from '../../slots/expression/expression.ts';
import { faces } from '../../slots/faces/faces.ts';
import type { FaceParent } from '../../solid/kernel.ts';
import { expressionOf } from '../../units/units.ts';
import { facesPicked } from '../begin.ts';
import { declareTools, resultSentence, resultSlots } from '../result/result.ts';
import { refuseNone } from '../rework/rework.ts';
import type { Fresh, Making } from '../step.ts';

const SIDES = { outward: 'outward', inward: 'inward', both: 'half each way' } as const;
const FIRST_THICKNESS_MM = 2;

export const thicken = declareTools({
  kind: 'thicken',
  version: 1,
  label: 'Thicken',
  says: 'Faces of a body made slabs of a thickness, measured square to them; faces that meet are joined to one.',
  slots: {
    faces: { of: faces('A face this step thickens') },
    thickness: { of: expression('length') },
    side: { of: choice<keyof typeof SIDES>(SIDES), otherwise: () => 'outward' as const },
    ...resultSlots,
  },
  first: 'thickness',
  begin(from) {
    const picked = facesPicked(from);
    const thickness = expressionOf(FIRST_THICKNESS_MM, 'length', from.units);
    return picked && { faces: picked, thickness, side: 'outward', result: 'new_body' };
  },
  sentence: (step) => ['Thicken', { slot: 'faces' }, 'by', { slot: 'thickness' }, { slot: 'side' }, ...resultSentence(step)], // prettier-ignore
  tools({ faces: picked, thickness, side }, context) {
    refuseNone(thickness, 'The thickness');
    const ways = side === 'both' ? [thickness / 2, -thickness / 2] : [side === 'outward' ? thickness : -thickness];
    const slabs: Fresh[] = [];
    try {
      for (const found of picked) for (const by of ways) slabs.push(slabOn(found, by, side === 'both', context));
      return joined(slabs, context);
    } catch (error) {
      for (const { solid } of slabs) context.kernel.free(solid);
      throw error;
    }
  },
});

/** @param both its other half lies on the other side, and is told apart from it */
function slabOn({ body, face }: FoundFace<Body>, by: number, both: boolean, { kernel, stepId }: Making): Fresh {
  const { solid, faces: made } = kernel.thicken(body.solid, face, by);
  const [own] = body.faceNames[face]!;
  const half = both && by < 0 ? 'start' : 'end';
  const named = ({ kind, index, how }: FaceParent): Name => {
    if (kind === 'face') return nameOf(stepId, how === 'end' ? half : 'start', [own!]);
    const beside = body.facts.edges[index]!.faces.find((f) => f !== face) ?? face;
    return nameOf(stepId, 'side', [own!, body.faceNames[beside]![0]!]);
  };
  const faceNames = made.map((parents) =>
    parents.length > 0 ? [...new Set(parents.map(named))] : [nameOf(stepId, 'new')],
  );
  return { solid, faces: made, faceNames, name: nameOf(stepId, BODY_ROLE, [own!]) };
}

/** Slabs that lie against each other are one. Those given are let go of. */
function joined(slabs: Fresh[], { kernel }: Making): readonly Fresh[] {
  const [first, ...rest] = slabs;
  if (!first) throw new StepFailure('No face is chosen yet to thicken; pick one.');
  if (rest.length === 0) return slabs;
  const made = kernel.combine('join', [first.solid], rest.map((s) => s.solid)); // prettier-ignore
  for (const { solid } of slabs) kernel.free(solid);
  return made.map(({ solid, faces: from }) => {
    const faceNames = from.map((parents) => [
      ...new Set(parents.flatMap((p) => slabs[p.argument]!.faceNames[p.index]!)),
    ]);
    // It is called after the first of the slabs in it.
    const { name } = slabs[Math.min(...from.flatMap((parents) => parents.map((p) => p.argument)))]!;
    return { solid, faces: from, faceNames, name };
  });
}
