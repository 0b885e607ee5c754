/** A way to go: along an axis, or straight out of a flat face. */
import { z } from 'zod';
import { StepFailure } from '../../names/body.ts';
import { findFace, refOfFace } from '../../names/find-face.ts';
import { stepsIn } from '../../names/name.ts';
import { FaceRef } from '../../references/references.ts';
import type { Vec3 } from '../../space/vector.ts';
import { axis, AxisRef } from '../axis/axis.ts';
import { faceRewritten } from '../faces/faces.ts';
import { foundOrFail } from '../found.ts';
import { slotKind, type SlotKind } from '../slot.ts';

export const DirectionRef = z.union([
  AxisRef,
  z.strictObject({ out_of: FaceRef }).describe('Straight out of a flat face.'),
]);
export type DirectionRef = z.infer<typeof DirectionRef>;

const line = axis();

export function direction(): SlotKind<DirectionRef, Vec3> {
  return slotKind<DirectionRef, Vec3>({
    kind: 'direction',
    schema: DirectionRef,
    steps: (stored) => ('out_of' in stored ? stepsIn(stored.out_of.name) : line.steps(stored)),
    rewritten: (stored, change) =>
      'out_of' in stored ? { out_of: faceRewritten(stored.out_of, change) } : line.rewritten(stored, change),
    resolve(stored, slot, context) {
      if (!('out_of' in stored)) {
        const value = line.resolve(stored, slot, context).value.direction;
        return { value, digest: value.join() };
      }
      const { body, face } = foundOrFail(
        findFace(stored.out_of, context.bodies),
        {
          slot,
          index: 0,
          what: 'The face it goes straight out of',
          stored: (f) => ({ out_of: refOfFace(f.body, f.face, context.bodies) }),
        },
        context,
      );
      const { normal } = body.facts.faces[face]!;
      if (!normal) throw new StepFailure('The face it goes straight out of is not flat any more; pick another.');
      return { value: normal, digest: normal.join() };
    },
    label: (stored, slot, reading) =>
      'out_of' in stored ? { label: 'straight out of a face' } : line.label(stored, slot, reading),
    take: (stored, pick) =>
      pick.kind === 'face' && pick.flat
        ? { out_of: pick.ref }
        : line.take(stored && !('out_of' in stored) ? stored : undefined, pick),
  });
}
