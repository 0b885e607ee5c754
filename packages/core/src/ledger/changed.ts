/** What of the ledger an edit touched, found by comparing documents that share what did not change. */
import type { Dimension } from '../document/dimension.ts';
import type { Design, Part } from '../document/schema.ts';
import { lendersOf } from '../document/outside.ts';
import { NOTHING_SHARED, sharedIn } from '../document/shared.ts';
import { entriesOfAssembly, entriesOfStep, ownEntry, PROJECT, wordOf, type DimensionEntry } from './entries.ts';

interface Changed {
  readonly changed: Map<string, DimensionEntry>;
  /** Some name differs, so that texts may read otherwise. */
  renamed: boolean;
}

/**
 * Entries of `after` that differ from those of `before`; null when there are
 * others, in another order or other units, and all has to be collected again.
 */
export function changedEntries(
  before: Design,
  after: Design,
  entries: readonly DimensionEntry[],
): Readonly<Changed> | null {
  if (before.units !== after.units || !alike(before.partOrder, after.partOrder)) return null;
  const changed: Changed = { changed: new Map(), renamed: false };
  if (!compareDimensions(sharedHome(before), sharedHome(after), { level: 'project' }, [PROJECT], changed)) return null;
  if (!compareDimensions(before, after, { level: 'design' }, [], changed)) return null;
  for (const id of after.partOrder) {
    const [was, is] = [before.parts[id], after.parts[id]];
    if (was === is) continue;
    if (!was || !is || was.name !== is.name || !compareParts(id, was, is, changed)) return null;
  }
  if (!compareAssemblies(before, after, changed)) return null;
  addMeasured(before, after, entries, changed);
  return changed;
}

const alike = (a: readonly string[], b: readonly string[]) =>
  a === b || (a.length === b.length && a.every((id, i) => id === b[i]));

const sharedHome = (design: Design) => ({
  dimensions: (design.shared ?? NOTHING_SHARED).dimensions,
  dimensionOrder: sharedIn(design),
});

function compareParts(id: string, was: Part, is: Part, changed: Changed): boolean {
  const word = wordOf(is.name);
  if (!alike(was.stepOrder, is.stepOrder)) return false;
  if (!compareDimensions(was, is, { level: 'part', part: id }, [word], changed)) return false;
  for (const step of is.stepOrder) {
    const [old, now] = [was.steps[step], is.steps[step]];
    if (old === now) continue;
    if (!old || !now) return false;
    const [from, to] = [entriesOfStep(id, word, step, old), entriesOfStep(id, word, step, now)];
    if (from.length !== to.length) return false;
    for (const [i, entry] of to.entries()) {
      const twin = from[i]!;
      if (twin.ref !== entry.ref) return false;
      const renamed = twin.path.some((word, n) => word !== entry.path[n]);
      if (
        !renamed &&
        twin.expression === entry.expression &&
        twin.kind === entry.kind &&
        valueIn(twin) === valueIn(entry)
      )
        continue;
      changed.changed.set(entry.ref, entry);
      changed.renamed ||= renamed;
    }
  }
  return true;
}

/** What a sketch reads there. */
const valueIn = ({ measured }: DimensionEntry) => (measured?.of === 'sketch' ? measured.value : null);

function compareAssemblies(before: Design, after: Design, changed: Changed): boolean {
  if (before.assemblies === after.assemblies && before.assemblyOrder === after.assemblyOrder) return true;
  const all = (design: Design) =>
    (design.assemblyOrder ?? []).flatMap((id) =>
      design.assemblies?.[id] ? entriesOfAssembly(id, design.assemblies[id]) : [],
    );
  const [from, to] = [all(before), all(after)];
  if (from.length !== to.length) return false;
  for (const [i, entry] of to.entries()) {
    const twin = from[i]!;
    if (twin.ref !== entry.ref || twin.path.join('.') !== entry.path.join('.')) return false;
    if (twin.expression !== entry.expression) changed.changed.set(entry.ref, entry);
  }
  return true;
}

type Home = Pick<Design, 'dimensions' | 'dimensionOrder'>;

const lists = new WeakMap<Home['dimensions'], { order: Home['dimensionOrder']; list: (Dimension | undefined)[] }>();

/** Its dimensions in their order; found once, since looking up thousands takes as long as all the rest. */
function listed({ dimensions, dimensionOrder }: Home): readonly (Dimension | undefined)[] {
  const known = lists.get(dimensions);
  if (known && alike(known.order, dimensionOrder)) return known.list;
  const list = dimensionOrder.map((id) => dimensions[id]);
  lists.set(dimensions, { order: dimensionOrder, list });
  return list;
}

function compareDimensions(
  was: Home,
  is: Home,
  owner: Parameters<typeof ownEntry>[2],
  within: readonly string[],
  changed: Changed,
): boolean {
  if (!alike(was.dimensionOrder, is.dimensionOrder)) return false;
  if (was.dimensions === is.dimensions) return true;
  const [before, after] = [listed(was), listed(is)];
  for (let slot = 0; slot < after.length; slot++) {
    const now = after[slot];
    const old = before[slot];
    if (old === now) continue;
    if (!old || !now) return false;
    const id = is.dimensionOrder[slot]!;
    changed.changed.set(id, ownEntry(id, now, owner, within));
    if (old.name !== now.name) changed.renamed = true;
  }
  return true;
}

/**
 * What is measured on a part depends on its whole recipe, on the order and presence of steps as well; and on those of
 * the parts it borrows from.
 */
function addMeasured(before: Design, after: Design, entries: readonly DimensionEntry[], changed: Changed): void {
  if (before.parts === after.parts) return;
  const touched = new Map<string, boolean>();
  const differs = (part: string) => before.parts[part] !== after.parts[part];
  const isTouched = (part: string) => {
    const known =
      touched.get(part) ?? [part, ...lendersOf(before, part).parts, ...lendersOf(after, part).parts].some(differs);
    touched.set(part, known);
    return known;
  };
  for (const entry of entries)
    if (entry.measured && !changed.changed.has(entry.ref) && isTouched(entry.measured.part))
      changed.changed.set(entry.ref, { ...entry });
}

/**
 * The places in `roots` and all that hang on them, each after those it uses
 * unless they go in a circle.
 * @param users for each place, those that use it; not changed afterwards
 */
export function downstream(roots: ReadonlySet<number>, users: readonly (readonly number[])[]): readonly number[] {
  const known = orders.get(users);
  if (known && known.roots.size === roots.size && [...roots].every((r) => known.roots.has(r))) return known.order;
  const order = walk(roots, users);
  orders.set(users, { roots, order });
  return order;
}

/** The order last found: one dial dragged asks for the same again and again. */
const orders = new WeakMap<object, { readonly roots: ReadonlySet<number>; readonly order: readonly number[] }>();

function walk(roots: Iterable<number>, users: readonly (readonly number[])[]): number[] {
  const seen = new Uint8Array(users.length);
  const order: number[] = [];
  // Walked with lists rather than recursion: chains may be thousands long.
  const path: number[] = [];
  const next: number[] = [];
  const enter = (slot: number) => {
    seen[slot] = 1;
    path.push(slot);
    next.push(0);
  };
  for (const root of roots) {
    if (!seen[root]) enter(root);
    while (path.length > 0) {
      const own = users[path.at(-1)!]!;
      const user = own[next[next.length - 1]!++];
      if (user === undefined) {
        order.push(path.pop()!);
        next.pop();
      } else if (!seen[user]) enter(user);
    }
  }
  return order.reverse();
}

/** All that can be reached from `start` by `next`, the start included. */
export function reachedFrom(
  start: Iterable<string>,
  next: (ref: string) => Iterable<string> | undefined,
): ReadonlySet<string> {
  const reached = new Set(start);
  const waiting = [...reached];
  for (let ref = waiting.pop(); ref !== undefined; ref = waiting.pop()) {
    for (const other of next(ref) ?? []) {
      if (reached.has(other)) continue;
      reached.add(other);
      waiting.push(other);
    }
  }
  return reached;
}
