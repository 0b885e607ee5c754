/** Faces of the part. */
import { z } from 'zod';
import type { Body } from '../../names/body.ts';
import { findFace, refOfFace, type FoundFace } from '../../names/find-face.ts';
import { stepsIn } from '../../names/name.ts';
import { FaceRef } from '../../references/references.ts';
import { foundEach } from '../found.ts';
import { slotKind, type Rewriting, type SlotKind } from '../slot.ts';

const MOST_FACES = 1000;

export function faceRewritten(ref: FaceRef, { name, place, direction }: Rewriting): FaceRef {
  return {
    ...ref,
    name: name(ref.name),
    ...(ref.beside ? { beside: ref.beside.map(name) } : {}),
    ...(ref.near ? { near: [...place(ref.near)] } : {}),
    ...(ref.normal ? { normal: [...direction(ref.normal)] } : {}),
  };
}

/** @param what as the subject of a sentence: “A face this step opens” */
export function faces(what: string): SlotKind<readonly FaceRef[], readonly FoundFace<Body>[]> {
  return slotKind<readonly FaceRef[], readonly FoundFace<Body>[]>({
    kind: 'faces',
    schema: z.array(FaceRef).min(1).max(MOST_FACES),
    steps: (stored) => stored.flatMap((ref) => stepsIn(ref.name)),
    rewritten: (stored, change) => stored.map((ref) => faceRewritten(ref, change)),
    resolve(stored, slot, context) {
      const found = foundEach(
        stored,
        { slot, what, ref: ({ body, face }: FoundFace<Body>) => refOfFace(body, face, context.bodies) },
        (ref) => findFace(ref, context.bodies),
        context,
      );
      return { value: found, digest: found.map((f) => `${f.body.key}/${f.face}`).join() };
    },
    label: (stored) => ({
      label: stored.length === 0 ? 'no face yet' : `${stored.length} face${stored.length === 1 ? '' : 's'}`,
    }),
    take(stored, pick) {
      if (pick.kind !== 'face') return null;
      const rest = (stored ?? []).filter((r) => r.name !== pick.ref.name || r.near?.join() !== pick.ref.near?.join());
      return rest.length < (stored ?? []).length && rest.length > 0 ? rest : [...rest, pick.ref];
    },
  });
}
