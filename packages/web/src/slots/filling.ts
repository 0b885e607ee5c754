/** Filling the slots of steps: by what is chosen, typed or picked. */
import { kindOf, setSlot, type Picked } from '@helb/core';
import { computed } from 'vue';
import { useDesign } from '../design/design-store.ts';
import { useSession } from '../design/session.ts';
import { pickerOf } from './pickers.ts';

export function useFilling() {
  const design = useDesign();
  const session = useSession();

  /** The slot that waits for picks, with its step. */
  const waiting = computed(() => {
    const target = session.pickingFor;
    const part = session.activePart;
    const step = target && part ? design.design?.parts[part]?.steps[target.step] : undefined;
    const slot = step && kindOf(step).slots[target!.slot];
    return step && slot && part && target
      ? { ...target, part, of: step, kind: slot.of, picker: pickerOf(slot.of.kind) }
      : null;
  });

  function fill(part: string, step: string, slot: string, value: unknown): void {
    session.notice = design.edit(setSlot(part, step, slot, value));
  }

  /** Give a pick to the slot that waits for it. False when it is nothing for that slot. */
  function give(pick: Picked): boolean {
    const now = waiting.value;
    if (!now) return false;
    const next: unknown = now.kind.take(now.kind.read(now.of, now.slot), pick);
    if (next === null) {
      session.notice = `This cannot be the ${now.slot} of ${now.of.name}. ${now.picker?.hint ?? 'Pick something else'}.`;
      return false;
    }
    fill(now.part, now.step, now.slot, next);
    if (now.picker?.single && session.notice === null) session.pickingFor = null;
    return true;
  }

  const isWaiting = (step: string, slot: string) =>
    session.pickingFor?.step === step && session.pickingFor.slot === slot;

  /** Let a slot take picks from the stage, or stop it. */
  function awaitPicks(step: string, slot: string): void {
    const same = isWaiting(step, slot);
    session.leaveSketch();
    session.picks = [];
    session.pickingFor = same ? null : { step, slot };
  }

  return { waiting, fill, give, awaitPicks, isWaiting };
}
