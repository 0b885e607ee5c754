/** A plane to draw on: a datum plane, or a flat face. */
import { z } from 'zod';
import { Id } from '../../ids/ids.ts';
import { StepFailure } from '../../names/body.ts';
import { findFace, refOfFace } from '../../names/find-face.ts';
import { stepsIn } from '../../names/name.ts';
import { FaceRef } from '../../references/references.ts';
import { DATUM_FRAMES, DATUM_PLANES, frameOfFace } from '../../space/planes.ts';
import type { Frame } from '../../space/vector.ts';
import { faceRewritten } from '../faces/faces.ts';
import { foundOrNull } from '../found.ts';
import { slotKind, type SlotKind } from '../slot.ts';

export const PlaneRef = z.union([
  z.strictObject({ datum: z.enum(DATUM_PLANES) }).describe('floor: x→X, y→Y. wall: x→X, y→Z. side: x→Y, y→Z.'),
  z.strictObject({ step: Id }).describe('A datum plane that a step sets up.'),
  z
    .strictObject({ face: FaceRef })
    .describe(
      'A planar face of this part. The origin is the part’s origin dropped onto it, x runs level; on a level face x is the part’s X, and y is the part’s Y where it looks up, against Y where it looks down.',
    ),
]);
export type PlaneRef = z.infer<typeof PlaneRef>;

export const PLANE_LABELS = { floor: 'the floor plane', wall: 'the wall plane', side: 'the side plane' } as const;

export interface PlaneFound {
  readonly frame: Frame;
  /** Why what it lay on is gone; the frame is then where it was when it was picked, so that things can still be seen. */
  readonly lost: string | null;
}

/** @throws StepFailure when what it lay on is gone */
export function frameOf({ frame, lost }: PlaneFound): Frame {
  if (lost) throw new StepFailure(lost);
  return frame;
}

const keyOf = (frame: Frame) => JSON.stringify(frame);

export function plane(): SlotKind<PlaneRef, PlaneFound> {
  return slotKind<PlaneRef, PlaneFound>({
    kind: 'plane',
    schema: PlaneRef,
    steps(stored) {
      if ('step' in stored) return [stored.step];
      return 'face' in stored ? stepsIn(stored.face.name) : [];
    },
    rewritten(stored, change) {
      if ('step' in stored) return { step: change.step(stored.step) };
      return 'face' in stored ? { face: faceRewritten(stored.face, change) } : stored;
    },
    resolve(stored, slot, context) {
      const made = (frame: Frame, lost: string | null = null) => ({
        value: { frame, lost },
        digest: keyOf(frame) + (lost ?? ''),
      });
      if ('datum' in stored) return made(DATUM_FRAMES[stored.datum]);
      if ('step' in stored) return made(context.datum(stored.step, 'plane').frame);
      const { face: ref } = stored;
      const found = foundOrNull(
        findFace(ref, context.bodies),
        {
          slot,
          index: 0,
          what: 'The face it lies on',
          stored: ({ body, face }) => ({ face: refOfFace(body, face, context.bodies) }),
        },
        context,
      );
      const facts = found?.body.facts.faces[found.face];
      if (facts?.normal) return made(frameOfFace(facts.center, facts.normal));
      const lost = `The face this lies on is no longer ${found ? 'flat' : 'there'}; pick another face or plane for it.`;
      if (!ref.near || !ref.normal) throw new StepFailure(lost);
      return made(frameOfFace(ref.near, ref.normal), lost);
    },
    label(stored, _, reading) {
      if ('step' in stored) return { label: reading.stepName(stored.step) ?? 'a deleted plane' };
      return { label: 'datum' in stored ? PLANE_LABELS[stored.datum] : 'a face' };
    },
    take(_, pick) {
      if (pick.kind === 'datum') return { datum: pick.datum };
      if (pick.kind === 'step' && pick.is === 'plane') return { step: pick.step };
      return pick.kind === 'face' && pick.flat ? { face: pick.ref } : null;
    },
  });
}
