/** What cannot be met together, and by how much. */
import { close } from './close.ts';
import { Mechanism } from './mechanism.ts';
import { postureFrom, type Placed } from './posture.ts';
import { closureRows } from './rows.ts';

export interface Misfit {
  /** The pair or coupling that misses. */
  readonly id: string;
  /** mm, and rad. */
  readonly by: number;
  readonly turn: number;
}

export interface Contradiction {
  readonly misfits: readonly Misfit[];
  /** Without any one of these all others can be met. */
  readonly either: readonly string[];
}

/** Below this, of the size, rows hold after a joint was left out. */
const HOLDS = 1e-7;
const MOST_TRIED = 60;

/** @param now as near to closed as it came */
export function contradictionAt(mechanism: Mechanism, now: Placed): Contradiction {
  const rows = closureRows(mechanism, now);
  const worst = new Map<string, Misfit>();
  for (const [i, id] of rows.of.entries()) {
    const off = Math.abs(rows.off[i]!);
    if (off <= 1e-8) continue;
    const own = worst.get(id) ?? { id, by: 0, turn: 0 };
    worst.set(id, { ...own, by: Math.max(own.by, off * mechanism.size) });
  }
  const named = mechanism.pairs.filter((p) => p.id !== '');
  const either = named.slice(0, MOST_TRIED).flatMap(({ id }) => (holdsWithout(mechanism, now, id) ? [id] : []));
  return { misfits: [...worst.values()], either };
}

function holdsWithout({ links, pairs, couplings, size }: Mechanism, now: Placed, id: string): boolean {
  const kept = pairs.filter((p) => p.id !== id && p.id !== '');
  const places = new Map(kept.map((p, i) => [p.id, i]));
  const still = couplings.flatMap(({ id: own, sum, terms }) => {
    const moved = terms.map((t) => ({ ...t, pair: places.get(pairs[t.pair]!.id) ?? -1 }));
    return moved.every((t) => t.pair >= 0) ? [{ id: own, sum, terms: moved }] : [];
  });
  const stood = links.map((l, i) => ({ ...l, home: l.held ? l.home : now.poses[i]! }));
  const without = new Mechanism(stood, kept, still, size);
  const { off } = close(
    without,
    postureFrom(
      without,
      stood.map((l) => l.home),
    ),
    { most: 40 },
  );
  return off <= HOLDS;
}
