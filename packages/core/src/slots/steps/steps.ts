/** Other steps of the same part, before this one; resolved in the recipe's order. */
import { z } from 'zod';
import { Id } from '../../ids/ids.ts';
import { slotKind, type SlotKind } from '../slot.ts';

const MOST_STEPS = 200;

export function steps(): SlotKind<readonly string[], readonly string[]> {
  return slotKind<readonly string[], readonly string[]>({
    kind: 'steps',
    schema: z.array(Id).min(1).max(MOST_STEPS),
    steps: (stored) => stored,
    rewritten: (stored, change) => stored.map(change.step),
    resolve(stored, _, context) {
      const all = stored.map((id) => ({ id, ...context.made(id) })).sort((a, b) => a.place - b.place);
      return { value: all.map(({ id }) => id), digest: all.map(({ digest }) => digest).join() };
    },
    take(stored, pick) {
      // Of what is picked, the step that made it.
      const by = pick.kind === 'edge' ? pick.by : undefined;
      const name = pick.kind === 'face' ? pick.ref.name : pick.kind === 'edge' ? pick.ref.faces[0] : undefined;
      const step = by ?? name?.split(':')[0];
      if (step === undefined) return null;
      const rest = (stored ?? []).filter((id) => id !== step);
      return rest.length < (stored ?? []).length && rest.length > 0 ? rest : [...rest, step];
    },
    label: (stored, _, reading) => ({ label: stored.map((id) => reading.stepName(id) ?? 'a deleted step').join(', ') }),
  });
}
