/** A sketch as a whole. */
import { Id } from '../../ids/ids.ts';
import { hashText } from '../../ids/hash.ts';
import type { SketchOutcome } from '../resolving.ts';
import { slotKind, type SlotKind } from '../slot.ts';

export function sketch(): SlotKind<string, SketchOutcome> {
  return slotKind<string, SketchOutcome>({
    kind: 'sketch',
    schema: Id,
    steps: (stored) => [stored],
    rewritten: (stored, change) => change.step(stored),
    resolve(stored, _, context) {
      const { outcome } = context.sketch(stored);
      return { value: outcome, digest: hashText(JSON.stringify([outcome.frame, outcome.solution.geometry])) };
    },
    label: (stored, _, reading) => ({ label: reading.stepName(stored) ?? 'a deleted sketch' }),
    take: (_, pick) => (pick.kind === 'region' || pick.kind === 'line' ? pick.sketch : null),
  });
}
