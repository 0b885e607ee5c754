/** Edits of how the ledger is kept: headings, notes, dials, order, links, and readings from the model. */
import { z } from 'zod';
import { declareCommand } from '../document/command.ts';
import { Dial, type Dimension } from '../document/dimension.ts';
import type { DimensionEntry } from '../ledger/entries.ts';
import { Ledger } from '../ledger/ledger.ts';
import { scopeOf } from '../ledger/names.ts';
import { Measure } from '../document/measure.ts';
import { kindOfPowers, samePowers } from '../units/units.ts';
import { EditRefused, type Edit } from '../document/change.ts';
import { Id } from '../ids/ids.ts';
import { MAX_DIMENSIONS } from '../ids/limits.ts';
import { Ref } from './refs.ts';
import type { Design } from '../document/schema.ts';
import { addDimension, homeOf, refuseShared, storeExpression } from './dimensions.ts';
import { plain } from '../document/plain.ts';
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

function namedDimension(draft: Design, entry: DimensionEntry): Dimension {
  const { owner, ref, name } = entry;
  refuseShared(entry);
  const home = homeOf(draft, owner);
  if (home) return home.dimensions[ref]!;
  throw new EditRefused(
    `${name} belongs to its step; give it to a dimension of the design first, which can be a dial and stand in a group.`,
  );
}

const Text = z.string().max(500).nullable().optional();

const describeCommand = declareCommand({
  name: 'describe-dimensions',
  args: z.strictObject({ refs: z.array(Ref).max(MAX_DIMENSIONS), change: z.strictObject({ group: Text, note: Text, dial: Dial.nullable().optional() }) }), // prettier-ignore
  label: ({ refs }) => (refs.length === 1 ? 'Describe a dimension' : `Describe ${refs.length} dimensions`),
  run(draft, { refs, change }) {
    const ledger = Ledger.of(plain(draft));
    for (const ref of refs) {
      const own = namedDimension(draft, entryIn(ledger, ref));
      if (own.measured && change.dial) throw new EditRefused(`${own.name} is measured and cannot be a dial.`);
      for (const [key, value] of Object.entries(change) as [keyof Described, string | Dial | null][]) {
        if (value === null || value === '') delete own[key];
        else Object.assign(own, { [key]: typeof value === 'string' ? value.trim() : value });
      }
      if (own.dial) own.dial = boundDial(ledger, entryIn(ledger, ref), own.dial);
    }
  },
});

/** Change heading, note or range of the design's or a part's dimensions. */
export const describeDimensions = (refs: readonly string[], change: Described): Edit =>
  describeCommand({ refs: [...refs], change });

const ENDS: Readonly<Record<keyof Dial, string>> = { min: 'least', max: 'most', step: 'step' };

/** Ends fit to be stored: a bare number gets the unit it was read in. @throws EditRefused */
function boundDial(ledger: Ledger, entry: DimensionEntry, dial: Dial): Dial {
  const value = ledger.valueOfEntry(entry);
  const powers = value.ok ? value.quantity.powers : null;
  const kind = powers && kindOfPowers(powers);
  const bound: Dial = {};
  for (const [end, text] of Object.entries(dial) as [keyof Dial, string][]) {
    const read = ledger.read(text, scopeOf(entry), kind);
    if (!read.ok) throw new EditRefused(`The ${ENDS[end]} cannot be read: ${read.message}`);
    if (powers && !samePowers(powers, read.quantity.powers))
      throw new EditRefused(
        `The ${ENDS[end]} is of another kind than ${entry.name}; write both in the same kind of unit.`,
      );
    bound[end] = ledger.bind(text, scopeOf(entry), kind);
  }
  return bound;
}

const moveCommand = declareCommand({
  name: 'move-dimensions',
  args: z.strictObject({ refs: z.array(Ref).max(MAX_DIMENSIONS), before: Ref.nullable() }),
  label: ({ refs }) => (refs.length === 1 ? 'Move a dimension' : `Move ${refs.length} dimensions`),
  run(draft, { refs, before }) {
    const ledger = Ledger.of(plain(draft));
    // What was deleted meanwhile need not be moved.
    const there = [...refs, ...(before ? [before] : [])].flatMap((r) => ledger.index.byReference(r) ?? []);
    const owners = there.map((e) => e.owner);
    const first = owners[0];
    if (!first) return;
    if (owners.some((o) => JSON.stringify(o) !== JSON.stringify(first)) || 'step' in first || 'joint' in first)
      throw new EditRefused('Dimensions can be moved among those of the same part or of the design.');
    refuseShared(there[0]!);
    const home = homeOf(draft, first)!;
    const rest = home.dimensionOrder.filter((id) => !refs.includes(id));
    const at = before === null ? rest.length : rest.indexOf(before);
    if (at < 0) return;
    rest.splice(at, 0, ...home.dimensionOrder.filter((id) => refs.includes(id)));
    home.dimensionOrder = rest;
  },
});

/** Move dimensions of one owner before another of the same owner, or to the end. */
export const moveDimensions = (refs: readonly string[], before: string | null): Edit =>
  moveCommand({ refs: [...refs], before });

const linkCommand = declareCommand({
  name: 'link-numbers',
  args: z.strictObject({ refs: z.array(Ref).max(MAX_DIMENSIONS), to: Ref }),
  label: ({ refs }) => `Link ${refs.length} numbers`,
  run(draft, { refs, to }) {
    const before = Ledger.of(plain(draft));
    const kept = entryIn(before, to);
    for (const ref of refs) if (ref !== to) storeExpression(draft, entryIn(before, ref), `$${to}`);
    const after = Ledger.of(plain(draft));
    for (const ref of refs) {
      const value = after.valueOf(ref);
      if (!value.ok) throw new EditRefused(`${entryIn(before, ref).name} cannot follow ${kept.name}: ${value.message}`);
    }
    resolveSketches(draft, before, null);
  },
});

/** Let numbers that are equal be one: all but `to` then follow it. */
export const linkNumbers = (refs: readonly string[], to: string): Edit => linkCommand({ refs: [...refs], to });

const addMeasuredCommand = declareCommand({
  name: 'add-measured',
  args: z.strictObject({ id: Id, name: z.string().max(200), measured: Measure, reading: z.string().max(500) }),
  label: ({ name }) => `Measure ${name}`,
  run(draft, { id, name, measured, reading }) {
    const part = draft.parts[measured.part];
    if (!part || (measured.after !== undefined && !part.steps[measured.after]))
      throw new EditRefused('What this would be measured on no longer exists.');
    addDimension(id, { name, value: reading, measured }).run(draft);
  },
});

/**
 * Give a reading of the model a name, so that other dimensions can use it.
 * @param reading what it reads now, as an expression
 */
export const addMeasured = (id: string, name: string, measured: Measure, reading: string): Edit =>
  addMeasuredCommand({ id, name, measured, reading });

const keepReadingsCommand = declareCommand({
  name: 'keep-readings',
  args: z.strictObject({ readings: z.array(z.tuple([Ref, z.string().max(500)])).max(MAX_DIMENSIONS) }),
  label: () => 'Read the model',
  run(draft, { readings }) {
    const before = Ledger.of(plain(draft));
    for (const [ref, text] of readings) {
      const entry = before.index.byReference(ref);
      if (entry?.measured?.of === 'part' && entry.expression !== text) namedDimension(draft, entry).value = text;
    }
    resolveSketches(draft, before, null);
  },
});

/** Store what the model reads now. Follows the edit that changed the model, and is not an edit of its own. */
export const keepReadings = (readings: ReadonlyMap<string, string>): Edit =>
  keepReadingsCommand({ readings: [...readings] });

const makeDialCommand = declareCommand({
  name: 'make-dial',
  args: z.strictObject({ ref: Ref, id: Id, name: z.string().max(200) }),
  label: ({ name }) => `Make ${name} a dial`,
  run(draft, { ref, id, name }) {
    const before = Ledger.of(plain(draft));
    const entry = entryIn(before, ref);
    if (entry.measured) throw new EditRefused(`${entry.name} is measured and cannot be a dial.`);
    const value = entry.expression;
    const scope = scopeOf(entry);
    // Names that are near from there may be far from here; the design's own scope reads references alone.
    const reads = before.read(value, scope, entry.kind);
    if (!reads.ok) throw new EditRefused(`${entry.name} has no value yet: ${reads.message}`);
    addDimension(id, { name, value, dial: {} }).run(draft);
    storeExpression(draft, entry, `$${id}`);
    resolveSketches(draft, before, null);
  },
});

/** Let a number of a sketch, a step or a part be driven by a new dial of the design, which starts at its value. */
export const makeDial = (ref: string, id: string, name: string): Edit => makeDialCommand({ ref, id, name });
