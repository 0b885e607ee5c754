/** Other steps of the same part, in the order they were chosen. */
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
    resolve: (stored) => ({ value: stored, digest: stored.join() }),
    label: (stored, _, reading) => ({ label: stored.map((id) => reading.stepName(id) ?? 'a deleted step').join(', ') }),
  });
}
