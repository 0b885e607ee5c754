/** Edges of the part. */
import { z } from 'zod';
import type { Body } from '../../names/body.ts';
import { findEdge, refOfEdge, type FoundEdge } from '../../names/find-edge.ts';
import { stepsIn, withSteps } from '../../names/name.ts';
import { EdgeRef } from '../../references/references.ts';
import { foundEach } from '../found.ts';
import { slotKind, type SlotKind } from '../slot.ts';

const MOST_EDGES = 2000;

export function edgeWithSteps(ref: EdgeRef, to: (step: string) => string): EdgeRef {
  return {
    ...ref,
    faces: ref.faces.map((n) => withSteps(n, to)),
    ...(ref.ends ? { ends: ref.ends.map((n) => withSteps(n, to)) } : {}),
  };
}

/** @param what as the subject of a sentence: “An edge this step rounds” */
export function edges(what: string): SlotKind<readonly EdgeRef[], readonly FoundEdge<Body>[]> {
  return slotKind<readonly EdgeRef[], readonly FoundEdge<Body>[]>({
    kind: 'edges',
    schema: z.array(EdgeRef).min(1).max(MOST_EDGES),
    steps: (stored) => stored.flatMap((ref) => ref.faces.flatMap(stepsIn)),
    copied: (stored, to) => stored.map((ref) => edgeWithSteps(ref, to)),
    resolve(stored, slot, context) {
      const found = foundEach(
        stored,
        { slot, what, ref: ({ body, edge }: FoundEdge<Body>) => refOfEdge(body, edge) },
        (ref) => findEdge(ref, context.bodies),
        context,
      );
      return { value: found, digest: found.map((f) => `${f.body.key}/${f.edge}`).join() };
    },
    label: (stored) => ({ label: `${stored.length} edge${stored.length === 1 ? '' : 's'}` }),
    take(stored, pick) {
      if (pick.kind !== 'edge') return null;
      const key = (r: EdgeRef) => `${[...r.faces].sort().join()} ${r.near.join()}`;
      const rest = (stored ?? []).filter((r) => key(r) !== key(pick.ref));
      return rest.length < (stored ?? []).length && rest.length > 0 ? rest : [...rest, pick.ref];
    },
  });
}
