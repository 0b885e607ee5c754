/**
 * Every number of a design in one list: its own dimensions, each part's,
 * each sketch's, and the numbers in steps' slots.
 */
import type { Assembly } from '../document/assembly.ts';
import type { Dial, Dimension } from '../document/dimension.ts';
import { numberedIn } from '../document/numbered.ts';
import type { Design } from '../document/schema.ts';
import { sharedIn } from '../document/shared.ts';
import { numbersOf } from '../steps/slots-of.ts';
import type { Step } from '../steps/schema.ts';
import type { QuantityKind } from '../units/units.ts';

export type EntryOwner =
  | { readonly level: 'project' }
  | { readonly level: 'design' }
  | { readonly level: 'part'; readonly part: string }
  | { readonly level: 'joint'; readonly assembly: string; readonly joint: string }
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
  for (const id of design.assemblyOrder ?? []) {
    const own = design.assemblies?.[id];
    if (own) entries.push(...entriesOfAssembly(id, own));
  }
  return entries;
}

/** The numbers of an assembly’s joints, couplings and runs. */
export function entriesOfAssembly(assembly: string, own: Assembly): DimensionEntry[] {
  const word = wordOf(own.name);
  return numberedIn(own).flatMap(({ id, name, numbers, kinds }) =>
    Object.keys(kinds).flatMap(
      (key): DimensionEntry[] =>
      numbers[key] === undefined
        ? []
        : [{ ref: `${id}.${key}`, owner: { level: 'joint', assembly, joint: id }, name: key, path: [word, wordOf(name), key], expression: numbers[key], kind: kinds[key]!, dial: null, group: null, note: null, measured: null }], // prettier-ignore
    ),
  );
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

const ofSteps = new WeakMap<Step, { readonly of: string; readonly entries: readonly DimensionEntry[] }>();

/** The entries of one step: every number in its slots. Found once, as a large sketch is asked several times in an edit. */
export function entriesOfStep(part: string, partWord: string, stepId: string, step: Step): readonly DimensionEntry[] {
  const of = `${part} ${stepId} ${partWord}`;
  const known = ofSteps.get(step);
  if (known?.of === of) return known.entries;
  const entries = foundIn(part, partWord, stepId, step);
  ofSteps.set(step, { of, entries });
  return entries;
}

function foundIn(part: string, partWord: string, stepId: string, step: Step): DimensionEntry[] {
  const stepWord = wordOf(step.name);
  return numbersOf(step).map(({ key, name, expression, kind, level, measured }) => ({
    ref: `${stepId}.${key}`,
    owner: { level, part, step: stepId },
    name,
    path: [partWord, stepWord, name],
    expression,
    kind,
    dial: null,
    group: null,
    note: null,
    measured: measured === null ? null : { of: 'sketch', part, step: stepId, value: measured },
  }));
}
