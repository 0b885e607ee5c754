/** A swept or lofted solid made a thin wall along its sides, open at its ends. */
import { StepFailure } from '../../names/body.ts';
import { nameOf, type Name } from '../../names/name.ts';
import { choice } from '../../slots/choice/choice.ts';
import { expression } from '../../slots/expression/expression.ts';
import type { StepData } from '../../slots/slot.ts';
import type { FaceParent } from '../../solid/kernel.ts';
import { inMm, refuseNone } from '../rework/rework.ts';
import type { Fresh, Making, SentencePiece } from '../step.ts';

const SIDES = { inward: 'inward', outward: 'outward' } as const;
export type ThinSide = keyof typeof SIDES;

const isThin = (step: StepData) => step.thin !== undefined;

export const thinSlots = {
  thin: {
    of: expression('length'),
    when: isThin,
    says: 'Only a wall of this thickness along its sides, measured square to them; open at its ends.',
  },
  thin_side: {
    of: choice<ThinSide>(SIDES),
    when: isThin,
    otherwise: () => 'inward' as const,
    says: 'On which side of the sides the wall lies.',
  },
};

export const thinSentence = (step: StepData): SentencePiece[] =>
  isThin(step) ? ['as a wall of', { slot: 'thin' }, { slot: 'thin_side' }] : [];

export const thinExtras = (step: StepData) =>
  isThin(step) ? [] : [{ label: 'only a thin wall', slot: 'thin', stored: '2 mm' }];

/** Solids hollowed from end to end; what is given is let go of. @throws StepFailure, KernelError */
export function thinned(
  all: readonly Fresh[],
  thickness: number | undefined,
  side: ThinSide | undefined,
  context: Making,
): readonly Fresh[] {
  if (thickness === undefined) return all;
  const waiting = new Set(all);
  try {
    refuseNone(thickness, 'The thickness of the wall');
    return all.map((fresh) => {
      const wall = wallOf(fresh, thickness, side === 'outward', context);
      waiting.delete(fresh);
      context.kernel.free(fresh.solid);
      return wall;
    });
  } finally {
    for (const { solid } of waiting) context.kernel.free(solid);
  }
}

function wallOf(fresh: Fresh, thickness: number, outward: boolean, { kernel, stepId }: Making): Fresh {
  const ends = fresh.faceNames.flatMap((names, i) => (names.some((n) => n.role === 'start' || n.role === 'end') ? [i] : [])); // prettier-ignore
  const { solid, faces } = kernel.shell(fresh.solid, ends, thickness, outward);
  const [before, after] = [kernel.bulk(fresh.solid).volume, kernel.bulk(solid).volume];
  // Walls of all a solid takes, or of nothing, are reported as made, too.
  if (!(after > 0) || (!outward && after >= before)) {
    kernel.free(solid);
    throw new StepFailure(`A wall of ${inMm(thickness)} does not fit into this shape; give a smaller thickness.`);
  }
  const named = ({ kind, index, how }: FaceParent): readonly Name[] => {
    if (kind !== 'face') return [];
    const own = fresh.faceNames[index]!;
    return how === 'inner' ? [nameOf(stepId, 'inner', [own[0]!])] : own;
  };
  const faceNames = faces.map((parents) => {
    const names = [...new Set(parents.flatMap(named))];
    return names.length > 0 ? names : [nameOf(stepId, 'new')];
  });
  return { ...fresh, solid, faces, faceNames };
}
