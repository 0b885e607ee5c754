/** Bodies a step acts on: all there are, or some of them. */
import { z } from 'zod';
import { StepFailure, type Body } from '../../names/body.ts';
import { isBorrowed } from '../../names/borrowed.ts';
import { findBody, refOfBody } from '../../names/find-body.ts';
import { stepsIn } from '../../names/name.ts';
import { BodyRef } from '../../references/references.ts';
import { foundEach } from '../found.ts';
import { slotKind, type Rewriting, type SlotKind } from '../slot.ts';

const MOST_BODIES = 200;

export const Bodies = z
  .union([z.literal('all'), z.array(BodyRef).min(1).max(MOST_BODIES)])
  .describe('"all", or bodies by what began them.');
export type Bodies = z.infer<typeof Bodies>;

function bodyRewritten(ref: BodyRef, { name, place, step }: Rewriting): BodyRef {
  // Where it began only one body, its step alone names it.
  const own = ref.name.includes(':') ? name(ref.name) : step(ref.name);
  return {
    name: own,
    ...(ref.has ? { has: ref.has.map(name) } : {}),
    ...(ref.near ? { near: [...place(ref.near)] } : {}),
  };
}

export function bodies(): SlotKind<Bodies, readonly Body[]> {
  return slotKind<Bodies, readonly Body[]>({
    kind: 'bodies',
    schema: Bodies,
    steps: (stored) => (stored === 'all' ? [] : stored.flatMap((ref) => stepsIn(ref.name))),
    rewritten: (stored, change) => (stored === 'all' ? stored : stored.map((ref) => bodyRewritten(ref, change))),
    resolve(stored, slot, context) {
      const own = context.bodies.filter((b) => !isBorrowed(b));
      if (stored === 'all' && own.length === 0)
        throw new StepFailure('There is no body to act on yet; make a new body instead.');
      const found =
        stored === 'all'
          ? own
          : foundEach(
              stored,
              { slot, what: 'A body this step acts on', ref: (body: Body) => refOfBody(body, context.bodies) },
              (ref) => findBody(ref, context.bodies),
              context,
            );
      const distinct = [...new Set(found)];
      return { value: distinct, digest: distinct.map((b) => b.key).join() };
    },
    label(stored, _, reading) {
      if (stored === 'all') return { label: 'all bodies' };
      const names = stored.map((ref) => reading.stepName(stepsIn(ref.name)[0]!) ?? 'a lost body');
      return { label: names.join(', ') };
    },
    take(stored, pick) {
      const body = pick.kind === 'face' || pick.kind === 'edge' ? pick.of : undefined;
      if (!body) return null;
      const before = stored === undefined || stored === 'all' ? [] : stored;
      const rest = before.filter((r) => r.name !== body.name || (r.has ?? []).join() !== (body.has ?? []).join());
      return rest.length < before.length && rest.length > 0 ? rest : [...rest, body];
    },
  });
}
