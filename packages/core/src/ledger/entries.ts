/**
 * Every number of a design in one list: its own dimensions, each part's,
 * each sketch's, and the numbers in steps' slots.
 */
import type { Dial, Dimension } from '../dimensions/schema.ts';
import type { Design } from '../document/schema.ts';
import { sharedIn } from '../document/shared.ts';
import { measureDimension } from '../sketch/edit/measure.ts';
import { isDimension, type Constraint, type DimensionConstraint } from '../sketch/schema.ts';
import { numberSlots } from '../steps/numbers.ts';
import type { Step } from '../steps/schema.ts';
import type { QuantityKind } from '../units/units.ts';

export type EntryOwner =
  | { readonly level: 'project' }
  | { readonly level: 'design' }
  | { readonly level: 'part'; readonly part: string }
  | { readonly level: 'sketch' | 'slot'; readonly part: string; readonly step: string };

export interface DimensionEntry {
  /** How expressions store it: `plate_thk`, or `step.key` for a number inside a step. */
  readonly ref: string;
  readonly owner: EntryOwner;
  readonly name: string;
  /** Name with its surroundings, outermost first: ['bracket', 'outline', 'width']. */
  readonly path: readonly string[];
  readonly expression: string;
  /** The kind the place demands; null where any will do. */
  readonly kind: QuantityKind | null;
  /** Its range, where it is a dial. */
  readonly dial: Dial | null;
  /** Heading it stands under, where it was given one. */
  readonly group: string | null;
  readonly note: string | null;
  /** Read from the model or its sketch; nobody types it. */
  readonly measured: Measured | null;
}

/** What a measured number is read from: a part up to a step, or a sketch. */
export type Measured =
  | { readonly of: 'part'; readonly part: string; readonly after: string | null }
  | { readonly of: 'sketch'; readonly part: string; readonly step: string; readonly value: number };

/** A name as it can be typed in an expression: `Wall holes` → `wall_holes`. */
export function wordOf(name: string): string {
  const word = name
    .trim()
    .toLowerCase()
    .replace(/[^\p{L}\p{N}]+/gu, '_')
    .replace(/^_+|_+$/g, '');
  return /^[\p{L}_]/u.test(word) ? word : `_${word}`;
}

export function collectEntries(design: Design): DimensionEntry[] {
  const entries: DimensionEntry[] = [];
  for (const id of sharedIn(design))
    entries.push(ownEntry(id, design.shared!.dimensions[id]!, { level: 'project' }, [PROJECT]));
  for (const id of design.dimensionOrder) {
    const d = design.dimensions[id];
    if (d) entries.push(ownEntry(id, d, { level: 'design' }, []));
  }
  for (const partId of design.partOrder) {
    const part = design.parts[partId];
    if (!part) continue;
    const partWord = wordOf(part.name);
    for (const id of part.dimensionOrder) {
      const d = part.dimensions[id];
      if (d) entries.push(ownEntry(id, d, { level: 'part', part: partId }, [partWord]));
    }
    for (const stepId of part.stepOrder) {
      const step = part.steps[stepId];
      if (step) entries.push(...entriesOfStep(partId, partWord, stepId, step));
    }
  }
  return entries;
}

/** What a shared dimension's name may be preceded by, where the design has one of the same name. */
export const PROJECT = 'project';

/** The entry of a named dimension of the project, the design or a part. */
export function ownEntry(
  id: string,
  d: Dimension,
  owner: EntryOwner & { level: 'project' | 'design' | 'part' },
  within: readonly string[],
): DimensionEntry {
  return {
    ref: id,
    owner,
    name: d.name,
    path: [...within, d.name],
    expression: d.value,
    kind: null,
    dial: d.dial ?? null,
    group: d.group ?? null,
    note: d.note ?? null,
    measured: d.measured ? { of: 'part', part: d.measured.part, after: d.measured.after ?? null } : null,
  };
}

/** The entries of one step: a sketch's dimensions, driven ones among them, or the numbers in its slots. */
export function entriesOfStep(part: string, partWord: string, stepId: string, step: Step): DimensionEntry[] {
  const stepWord = wordOf(step.name);
  const make = (
    level: 'sketch' | 'slot',
    key: string,
    name: string,
    expression: string,
    kind: QuantityKind,
    measured: Measured | null = null,
  ): DimensionEntry => ({
    ref: `${stepId}.${key}`,
    owner: { level, part, step: stepId },
    name,
    path: [partWord, stepWord, name],
    expression,
    kind,
    dial: null,
    group: null,
    note: null,
    measured,
  });
  if (step.kind !== 'sketch') {
    return numberSlots(step).map(({ key, expression, kind }) =>
      make('slot', key, step.names?.[key] ?? key, expression, kind),
    );
  }
  const names = sketchDimensionNames(step.constraints);
  return Object.entries(step.constraints).flatMap(([id, constraint]) => {
    if (!isDimension(constraint)) return [];
    const read = (): Measured => ({ of: 'sketch', part, step: stepId, value: measureDimension(step, constraint) });
    const measured = constraint.driven ? read() : null;
    return [make('sketch', id, names.get(id)!, constraint.value, quantityOf(constraint), measured)];
  });
}

export function quantityOf(constraint: DimensionConstraint): QuantityKind {
  if (constraint.kind === 'angle' || constraint.kind === 'step_angle') return 'angle';
  return constraint.kind === 'count' || constraint.kind === 'count_across' ? 'number' : 'length';
}

/** A line has a width and a height; a distance between two things lies across or rises. */
function defaultName({ kind, of }: DimensionConstraint): string {
  switch (kind) {
    case 'distance':
      return of.length === 1 ? 'length' : 'distance';
    case 'horizontal_distance':
      return of.length === 1 ? 'width' : 'across';
    case 'vertical_distance':
      return of.length === 1 ? 'height' : 'rise';
    default:
      return kind;
  }
}

/** Names of a sketch's dimensions by constraint id; those without one get `across`, `across_2`, … */
export function sketchDimensionNames(constraints: Readonly<Record<string, Constraint>>): Map<string, string> {
  const names = new Map<string, string>();
  const taken = new Set<string>();
  const dimensions = Object.entries(constraints).filter((entry): entry is [string, DimensionConstraint] =>
    isDimension(entry[1]),
  );
  for (const [id, c] of dimensions) {
    if (c.name) {
      names.set(id, c.name);
      taken.add(c.name);
    }
  }
  for (const [id, c] of dimensions) {
    if (c.name) continue;
    const base = defaultName(c);
    let name = base;
    for (let n = 2; taken.has(name); n++) name = `${base}_${n}`;
    names.set(id, name);
    taken.add(name);
  }
  return names;
}
