/** Edits of how the ledger is kept: headings, notes, dials, order, links, and readings from the model. */
import type { Dial, Dimension } from '../../dimensions/schema.ts';
import type { DimensionEntry } from '../../ledger/entries.ts';
import { Ledger } from '../../ledger/ledger.ts';
import type { Measure } from '../../measures/schema.ts';
import { EditRefused, type Edit } from '../change.ts';
import type { Design } from '../schema.ts';
import { addDimension, storeExpression } from './dimensions.ts';
import { plain } from './plain.ts';
import { resolveSketches } from './sketch.ts';

export interface Described {
  /** null takes away what was there. */
  readonly group?: string | null;
  readonly note?: string | null;
  readonly dial?: Dial | null;
}

function entryIn(ledger: Ledger, ref: string): DimensionEntry {
  const entry = ledger.index.byReference(ref);
  if (!entry) throw new EditRefused('This dimension no longer exists.');
  return entry;
}

function namedDimension(draft: Design, { owner, ref, name }: DimensionEntry): Dimension {
  if (owner.level === 'design') return draft.dimensions[ref]!;
  if (owner.level === 'part') return draft.parts[owner.part]!.dimensions[ref]!;
  throw new EditRefused(
    `${name} belongs to its step; give it to a dimension of the design first, which can be a dial and stand in a group.`,
  );
}

/** Change heading, note or range of the design's or a part's dimensions. */
export function describeDimensions(refs: readonly string[], change: Described): Edit {
  return {
    command: 'describe-dimensions',
    label: refs.length === 1 ? 'Describe a dimension' : `Describe ${refs.length} dimensions`,
    run(draft) {
      const ledger = Ledger.of(plain(draft));
      for (const ref of refs) {
        const own = namedDimension(draft, entryIn(ledger, ref));
        if (own.measured && change.dial) throw new EditRefused(`${own.name} is measured and cannot be a dial.`);
        for (const [key, value] of Object.entries(change) as [keyof Described, string | Dial | null][]) {
          if (value === null || value === '') delete own[key];
          else Object.assign(own, { [key]: typeof value === 'string' ? value.trim() : value });
        }
        for (const [end, text] of Object.entries(own.dial ?? {})) refuseBadEnd(ledger, ref, end, text);
      }
    },
  };
}

const ENDS: Readonly<Record<string, string>> = { min: 'least', max: 'most', step: 'step' };

function refuseBadEnd(ledger: Ledger, ref: string, end: string, text: string): void {
  const value = ledger.valueOf(ref);
  const read = ledger.read(text, {}, null);
  if (!read.ok) throw new EditRefused(`The ${ENDS[end]} cannot be read: ${read.message}`);
  if (!value.ok || read.quantity.bare) return;
  const [a, b] = [read.quantity.powers, value.quantity.powers];
  if (a.length !== b.length || a.angle !== b.angle)
    throw new EditRefused(
      `The ${ENDS[end]} is of another kind than the dimension; write both in the same kind of unit.`,
    );
}

/** Move dimensions of one owner before another of the same owner, or to the end. */
export function moveDimensions(refs: readonly string[], before: string | null): Edit {
  return {
    command: 'move-dimensions',
    label: refs.length === 1 ? 'Move a dimension' : `Move ${refs.length} dimensions`,
    run(draft) {
      const ledger = Ledger.of(plain(draft));
      const owners = [...refs, ...(before ? [before] : [])].map((r) => entryIn(ledger, r).owner);
      const first = owners[0];
      if (!first || owners.some((o) => JSON.stringify(o) !== JSON.stringify(first)) || 'step' in first)
        throw new EditRefused('Dimensions can be moved among those of the same part or of the design.');
      const home = first.level === 'design' ? draft : draft.parts[first.part]!;
      const rest = home.dimensionOrder.filter((id) => !refs.includes(id));
      const at = before === null ? rest.length : rest.indexOf(before);
      if (at < 0) return;
      rest.splice(at, 0, ...home.dimensionOrder.filter((id) => refs.includes(id)));
      home.dimensionOrder = rest;
    },
  };
}

/** Let numbers that are equal be one: all but `to` then follow it. */
export function linkNumbers(refs: readonly string[], to: string): Edit {
  return {
    command: 'link-numbers',
    label: `Link ${refs.length} numbers`,
    run(draft) {
      const before = Ledger.of(plain(draft));
      const kept = entryIn(before, to);
      for (const ref of refs) if (ref !== to) storeExpression(draft, entryIn(before, ref), `$${to}`);
      const after = Ledger.of(plain(draft));
      for (const ref of refs) {
        const value = after.valueOf(ref);
        if (!value.ok)
          throw new EditRefused(`${entryIn(before, ref).name} cannot follow ${kept.name}: ${value.message}`);
      }
      resolveSketches(draft, before, null);
    },
  };
}

/**
 * Give a reading of the model a name, so that other dimensions can use it.
 * @param reading what it reads now, as an expression
 */
export function addMeasured(id: string, name: string, measured: Measure, reading: string): Edit {
  const { run } = addDimension(id, { name, value: reading, measured });
  return { command: 'add-measured', label: `Measure ${name}`, run };
}

/** Store what the model reads now. Follows the edit that changed the model, and is not an edit of its own. */
export function keepReadings(readings: ReadonlyMap<string, string>): Edit {
  return {
    command: 'keep-readings',
    label: 'Read the model',
    run(draft) {
      const before = Ledger.of(plain(draft));
      for (const [ref, text] of readings) {
        const entry = before.index.byReference(ref);
        if (entry?.measured?.of === 'part' && entry.expression !== text) namedDimension(draft, entry).value = text;
      }
      resolveSketches(draft, before, null);
    },
  };
}
