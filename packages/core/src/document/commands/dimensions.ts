/** Edits of numbers and their names. */
import { constantNamed, RESERVED_NAMES } from '../../dimensions/evaluate.ts';
import { ExpressionError } from '../../dimensions/lexer.ts';
import { DimensionName, type Dimension } from '../../dimensions/schema.ts';
import { sketchDimensionNames, type DimensionEntry } from '../../ledger/entries.ts';
import { Ledger } from '../../ledger/ledger.ts';
import { scopeOf } from '../../ledger/names.ts';
import { setNumberSlot } from '../../steps/numbers.ts';
import { kindOfPowers, unitNamed, type QuantityKind } from '../../units/units.ts';
import { EditRefused, type Edit } from '../change.ts';
import type { Design } from '../schema.ts';
import { plain } from './plain.ts';
import { resolveSketches } from './sketch.ts';

function entryOf(ledger: Ledger, ref: string): DimensionEntry {
  const entry = ledger.index.byReference(ref);
  if (!entry) throw new EditRefused('This dimension no longer exists.');
  return entry;
}

/** A dimension that is free in kind keeps the one it has: 8 typed over 6 mm means 8 mm. */
function kindNow(ledger: Ledger, entry: DimensionEntry): QuantityKind | null {
  const value = ledger.valueOfEntry(entry);
  const kind = value.ok ? kindOfPowers(value.quantity.powers) : null;
  return kind === 'number' ? null : kind;
}

function storeExpression(draft: Design, entry: DimensionEntry, expression: string): void {
  const { owner, ref } = entry;
  const key = ref.slice(ref.indexOf('.') + 1);
  if (owner.level === 'design') draft.dimensions[ref]!.value = expression;
  else if (owner.level === 'part') draft.parts[owner.part]!.dimensions[ref]!.value = expression;
  else {
    const step = draft.parts[owner.part]!.steps[owner.step]!;
    if (owner.level === 'slot') setNumberSlot(step, key, expression);
    else if (step.kind === 'sketch') {
      const c = step.constraints[key]!;
      if ('value' in c) c.value = expression;
    }
  }
}

/**
 * Give a dimension a new expression, as typed. Refused when it cannot be read,
 * clashes in units, goes in a circle, or leaves its own sketch unsolvable.
 */
export function setDimension(ref: string, typed: string): Edit {
  return {
    command: 'set-dimension',
    label: `Set a dimension to ${typed}`,
    run(draft) {
      const before = new Ledger(plain(draft));
      const entry = entryOf(before, ref);
      let bound: string;
      try {
        bound = before.bind(typed.trim(), scopeOf(entry), entry.kind ?? kindNow(before, entry));
      } catch (error) {
        if (error instanceof ExpressionError) throw new EditRefused(error.message);
        throw error;
      }
      storeExpression(draft, entry, bound);
      const after = new Ledger(plain(draft));
      const value = after.valueOf(ref);
      if (!value.ok) throw new EditRefused(value.message);
      resolveSketches(draft, before, after, entry.owner.level === 'sketch' ? entry.owner.step : null);
    },
  };
}

/** Why a name cannot be taken, as a sentence; null when it can. */
export function nameFault(name: string, taken: Iterable<string>): string | null {
  if (!DimensionName.safeParse(name).success) {
    return 'A name starts with a letter and has only letters, digits and _, 40 at most.';
  }
  if (unitNamed(name)) return `“${name}” is a unit; try “${name}_value”.`;
  if (RESERVED_NAMES.has(name) || constantNamed(name))
    return `“${name}” has a meaning of its own in expressions; try “${name}_value”.`;
  const lower = name.toLowerCase();
  for (const other of taken) {
    if (other === name) return `“${name}” is taken here; try “${name}_2”.`;
    if (other.toLowerCase() === lower)
      return `“${name}” differs from “${other}” only in its capitals; try “${name}_2”.`;
  }
  return null;
}

/** Names beside which a new one must stand apart. */
function siblingNames(ledger: Ledger, entry: DimensionEntry): string[] {
  const mine = entry.owner;
  return ledger.entries
    .filter((e) => e !== entry && e.owner.level === mine.level && JSON.stringify(e.owner) === JSON.stringify(mine))
    .map((e) => e.name);
}

export function renameDimension(ref: string, name: string): Edit {
  return {
    command: 'rename-dimension',
    label: `Rename a dimension to ${name}`,
    run(draft) {
      const ledger = new Ledger(plain(draft));
      const entry = entryOf(ledger, ref);
      const fault = nameFault(name, siblingNames(ledger, entry));
      if (fault) throw new EditRefused(fault);
      const { owner } = entry;
      if (owner.level === 'design') draft.dimensions[ref]!.name = name;
      else if (owner.level === 'part') draft.parts[owner.part]!.dimensions[ref]!.name = name;
      else if (owner.level === 'slot')
        throw new EditRefused('This number takes its name from its step; rename the step.');
      else {
        const step = draft.parts[owner.part]!.steps[owner.step]!;
        if (step.kind !== 'sketch') return;
        // Fix the other default names first, so that none shifts.
        for (const [id, own] of sketchDimensionNames(step.constraints)) {
          const c = step.constraints[id]!;
          if ('value' in c) c.name = `${owner.step}.${id}` === ref ? name : own;
        }
      }
    },
  };
}

/** A new dimension of the design, or of a part. */
export function addDimension(id: string, dimension: Dimension, part?: string): Edit {
  return {
    command: 'add-dimension',
    label: `Add ${dimension.name}`,
    run(draft) {
      const home = part === undefined ? draft : draft.parts[part];
      if (!home) throw new EditRefused('The part this dimension is for no longer exists.');
      const fault = nameFault(
        dimension.name,
        Object.values(home.dimensions).map((d) => d.name),
      );
      if (fault) throw new EditRefused(fault);
      const ledger = new Ledger(plain(draft));
      try {
        home.dimensions[id] = {
          ...dimension,
          value: ledger.bind(dimension.value, part === undefined ? {} : { part }, null),
        };
      } catch (error) {
        if (error instanceof ExpressionError) throw new EditRefused(error.message);
        throw error;
      }
      home.dimensionOrder.push(id);
      const value = new Ledger(plain(draft)).valueOf(id);
      if (!value.ok) throw new EditRefused(value.message);
    },
  };
}

export function deleteDimension(ref: string): Edit {
  return {
    command: 'delete-dimension',
    label: 'Delete a dimension',
    run(draft) {
      const ledger = new Ledger(plain(draft));
      const entry = entryOf(ledger, ref);
      const users = ledger.entries.filter((e) => ledger.dependenciesOf(e).includes(ref));
      if (users.length > 0) {
        const names = users.slice(0, 3).map((e) => e.path.join('.'));
        throw new EditRefused(
          `${entry.name} is used by ${names.join(', ')}${users.length > 3 ? ` and ${users.length - 3} more` : ''}; change these first.`,
        );
      }
      const { owner } = entry;
      const key = ref.slice(ref.indexOf('.') + 1);
      if (owner.level === 'slot') throw new EditRefused('This number belongs to its step and goes only with it.');
      if (owner.level === 'sketch') {
        const step = draft.parts[owner.part]!.steps[owner.step]!;
        if (step.kind === 'sketch') delete step.constraints[key];
        return;
      }
      const home = owner.level === 'design' ? draft : draft.parts[owner.part]!;
      delete home.dimensions[ref];
      home.dimensionOrder.splice(home.dimensionOrder.indexOf(ref), 1);
    },
  };
}
