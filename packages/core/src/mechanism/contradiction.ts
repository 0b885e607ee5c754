/** What cannot be met together, and by how much. */
import { atHome, restRows } from './home.ts';
import { Mechanism } from './mechanism.ts';
import type { Placed } from './posture.ts';
import { closureRows, reversedPairs } from './rows.ts';

export interface Misfit {
  /** The pair that misses. */
  readonly id: string;
  /** mm, angles at the mechanism’s size. */
  readonly by: number;
  /** All of it holds, but the wrong way round. */
  readonly reversed: boolean;
}

export interface Contradiction {
  readonly misfits: readonly Misfit[];
  /** Without any one of these all others can be met. */
  readonly either: readonly string[];
}

/** Below this a row holds. */
const HOLDS = 1e-8;
/** Below this, of the size, all hold after a joint was left out. */
const HOLDS_WITHOUT = 1e-7;
const MOST_TRIED = 60;

/** @param now as near to closed as it came, couplings left aside */
export function contradictionAt(mechanism: Mechanism, now: Placed): Contradiction {
  const rows = closureRows(mechanism, now);
  restRows(mechanism)?.(now, rows);
  const worst = new Map<string, Misfit>();
  for (const [i, id] of rows.of.entries()) {
    const off = Math.abs(rows.off[i]!);
    if (off > HOLDS) worst.set(id, { id, by: Math.max(worst.get(id)?.by ?? 0, off * mechanism.size), reversed: false });
  }
  for (const pair of reversedPairs(mechanism, now)) {
    const { id } = mechanism.pairs[pair]!;
    if (!worst.has(id)) worst.set(id, { id, by: 0, reversed: true });
  }
  const named = mechanism.given.filter((p) => p.id !== '');
  const either = named.slice(0, MOST_TRIED).flatMap(({ id }) => (holdsWithout(mechanism, now, id) ? [id] : []));
  return { misfits: [...worst.values()], either };
}

function holdsWithout({ links, given, size }: Mechanism, now: Placed, id: string): boolean {
  const stood = links.map((l, i) => ({ ...l, home: l.held ? l.home : now.poses[i]! }));
  return atHome(new Mechanism(stood, given.filter((p) => p.id !== id), [], size)).off <= HOLDS_WITHOUT; // prettier-ignore
}
