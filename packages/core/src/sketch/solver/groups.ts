/** Independent parts of a sketch: equations that share no unknown are solved apart. */
import type { System } from '../system.ts';
import type { Equation } from './equation.ts';
import { EquationRows } from './rows.ts';

export interface Group {
  readonly slots: number[];
  readonly rows: EquationRows;
}

export interface Split {
  readonly groups: readonly Group[];
  /** Unknowns no equation speaks of. */
  readonly idle: readonly number[];
  /** Equations all of whose variables are pinned. */
  readonly without: readonly Equation[];
}

/** Split into groups that share no unknown. Equations without unknowns come apart. */
export function splitGroups(system: System): Split {
  const { merger, equations } = system;
  /** Of each unknown, one nearer to the root of its group; −1 for slots that are none. */
  const parent = new Int32Array(merger.size).fill(-1);
  const unknowns: number[] = [];
  const claim = (slot: number) => {
    const root = merger.root(slot);
    if (parent[root]! >= 0 || merger.isFixed(root)) return;
    parent[root] = root;
    unknowns.push(root);
  };
  for (const p of system.points.values()) {
    claim(p.x);
    claim(p.y);
  }
  for (const r of system.rounds.values()) claim(r.radius);
  for (const e of system.ellipses.values()) claim(e.minor);
  for (const [id, steps] of system.steps) if (!system.wholeTurns.has(id)) for (const s of steps) claim(s);
  for (const s of system.contacts) claim(s);

  const find = (s: number): number => {
    while (parent[s] !== s) s = parent[s] = parent[parent[s]!]!;
    return s;
  };
  /** The first unknown of each equation; −1 where all is pinned. */
  const firstOf = new Int32Array(equations.length).fill(-1);
  for (let r = 0; r < equations.length; r++) {
    for (const s of equations[r]!.slots) {
      if (parent[s]! < 0) continue;
      if (firstOf[r]! < 0) firstOf[r] = s;
      else parent[find(s)] = find(firstOf[r]!);
    }
  }
  const members = new Map<number, { slots: number[]; equations: Equation[] }>();
  const local = new Int32Array(merger.size).fill(-1);
  for (const slot of unknowns) {
    const root = find(slot);
    const group = members.get(root);
    if (group) local[slot] = group.slots.push(slot) - 1;
    else {
      local[slot] = 0;
      members.set(root, { slots: [slot], equations: [] });
    }
  }
  const without: Equation[] = [];
  equations.forEach((e, r) => {
    if (firstOf[r]! < 0) without.push(e);
    else members.get(find(firstOf[r]!))!.equations.push(e);
  });
  const groups: Group[] = [];
  const idle: number[] = [];
  for (const { slots, equations: own } of members.values()) {
    if (own.length === 0) idle.push(...slots);
    else groups.push({ slots, rows: new EquationRows(own, slots.length, (s) => local[s]!) });
  }
  return { groups, idle, without };
}
