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
  const unknowns = new Set<number>();
  const claim = (slot: number) => {
    if (!merger.isFixed(slot)) unknowns.add(merger.root(slot));
  };
  for (const p of system.points.values()) {
    claim(p.x);
    claim(p.y);
  }
  for (const r of system.rounds.values()) claim(r.radius);
  for (const e of system.ellipses.values()) claim(e.minor);
  for (const [id, steps] of system.steps) if (!system.wholeTurns.has(id)) for (const s of steps) claim(s);
  for (const s of system.contacts) claim(s);

  const parent = new Map<number, number>([...unknowns].map((s) => [s, s]));
  const find = (s: number): number => {
    while (parent.get(s) !== s) {
      parent.set(s, parent.get(parent.get(s)!)!);
      s = parent.get(s)!;
    }
    return s;
  };
  const free = equations.map((e) => e.slots.filter((s) => parent.has(s)));
  for (const slots of free) for (let i = 1; i < slots.length; i++) parent.set(find(slots[i]!), find(slots[0]!));
  const members = new Map<number, { slots: number[]; equations: Equation[] }>();
  const groupOf = (root: number) => {
    let group = members.get(root);
    if (!group) members.set(root, (group = { slots: [], equations: [] }));
    return group;
  };
  for (const slot of unknowns) groupOf(find(slot)).slots.push(slot);
  const without: Equation[] = [];
  equations.forEach((e, i) => {
    const first = free[i]![0];
    if (first === undefined) without.push(e);
    else groupOf(find(first)).equations.push(e);
  });
  const groups: Group[] = [];
  const idle: number[] = [];
  for (const { slots, equations: own } of members.values()) {
    if (own.length === 0) {
      idle.push(...slots);
      continue;
    }
    const local = new Map(slots.map((s, i) => [s, i]));
    groups.push({ slots, rows: new EquationRows(own, slots.length, (s) => local.get(s) ?? -1) });
  }
  return { groups, idle, without };
}
