/** New instances: where they come to stand. */
import { newId, placeInstances, type Instance, type Vec3 } from '@helb/core';
import { useDesign } from '../design/design-store.ts';
import { useSession } from '../design/session.ts';
import { useEvaluation } from '../evaluation/evaluation-store.ts';
import { useTogether } from './together-store.ts';

/** Kind of data a card dragged from the tray carries. */
export const DRAGGED = 'application/x-helb-placing';
const GAP_MM = 20;

export function usePlacing() {
  const design = useDesign();
  const session = useSession();
  const evaluation = useEvaluation();
  const together = useTogether();

  /** @param at in space; beside what stands there already where it is not told */
  function place(of: Instance['of'], at: Vec3 | null = null): void {
    const own = together.assembly;
    if (!session.activeAssembly || !own) return;
    const first = own.instanceOrder.length === 0;
    const where = first ? ([0, 0, 0] as const) : (at ?? beside());
    const instance: Instance = {
      of,
      home: { at: [...where], turn: [0, 0, 0, 1] },
      ...(first ? { fixed: true as const } : {}),
    };
    session.notice = design.edit(placeInstances(session.activeAssembly, [[newId('i'), instance]]));
  }

  /** To the right of all that stands there. */
  function beside(): Vec3 {
    let right = 0;
    for (const { key, part } of together.it?.members ?? [])
      for (const { box } of evaluation.parts.get(part)?.bodies ?? [])
        right = Math.max(right, (together.poses.get(key)?.at[0] ?? 0) + Math.max(box.max[0], box.max[1], box.max[2]));
    return [right + GAP_MM, 0, 0];
  }

  return { place };
}
