/** Several paths side by side: all that is drawn in sketches, chain by chain, edges one by one, and helices. */
import { z } from 'zod';
import { chainOf } from '../../sketch/change/chain.ts';
import type { PathPiece } from '../../solid/kernel.ts';
import { chainIn, path, PathRef, type PathFound } from '../path/path.ts';
import type { Resolving } from '../resolving.ts';
import { slotKind, type SlotKind } from '../slot.ts';

const MOST_PATHS = 40;
const one = path();

export function paths(): SlotKind<readonly PathRef[], readonly PathFound[]> {
  return slotKind<readonly PathRef[], readonly PathFound[]>({
    kind: 'paths',
    schema: z.array(PathRef).max(MOST_PATHS),
    steps: (stored) => stored.flatMap((ref) => [...one.steps(ref)]),
    rewritten: (stored, change) => stored.map((ref) => one.rewritten(ref, change)),
    resolve(stored, slot, context) {
      const all = stored.map((ref, index) => {
        if ('sketch' in ref) return chainsOf(ref.sketch, context);
        const instead = (proposed: unknown) => stored.map((o, i) => (i === index ? proposed : o));
        const { value, digest } = one.resolve(ref, slot, {
          ...context,
          doubt: (d) => context.doubt({ ...d, index, ...(d.proposed === undefined ? {} : { proposed: instead(d.proposed) }) }), // prettier-ignore
        });
        return { value: [value], digest };
      });
      return { value: all.flatMap((a) => a.value), digest: JSON.stringify(all.map((a) => a.digest)) };
    },
    label(stored, step, reading) {
      const [first, ...more] = stored;
      if (!first) return { label: 'no curve yet' };
      return more.length === 0 ? one.label(first, step, reading) : { label: `${stored.length} curves` };
    },
    take(stored, pick) {
      const taken = one.take(undefined, pick);
      if (!taken) return null;
      const key = JSON.stringify(taken);
      const rest = (stored ?? []).filter((ref) => JSON.stringify(ref) !== key);
      return rest.length < (stored ?? []).length ? rest : [...rest, taken];
    },
  });
}

/** What is drawn in a sketch, each chain a path of its own. @throws StepFailure */
function chainsOf(id: string, context: Resolving): { value: PathFound[]; digest: string } {
  const { name, outcome } = context.sketch(id);
  const { frame, solution } = outcome;
  const left = new Set(Object.keys(solution.geometry.curves).filter((c) => !solution.geometry.curves[c]!.construction));
  const chains: PathPiece[][] = [];
  for (const curve of left) {
    const own = chainOf(solution.geometry, curve);
    for (const c of own) left.delete(c);
    chains.push(chainIn(solution.geometry, name, own).map((piece): PathPiece => ({ kind: 'curve', frame, piece })));
  }
  // Nothing drawn is told as for one path.
  if (chains.length === 0) chainIn(solution.geometry, name);
  return { value: chains.map((pieces) => ({ pieces, of: name })), digest: JSON.stringify(chains) };
}
