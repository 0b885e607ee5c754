/** Edits of numbers and their names. */
import { z } from 'zod';
import { declareCommand } from '../document/command.ts';
import { Id } from '../ids/ids.ts';
import { MAX_DIMENSIONS } from '../ids/limits.ts';
import { Ref } from './refs.ts';
import { constantNamed, RESERVED_NAMES, type Quantity } from '../dimensions/evaluate.ts';
import { ExpressionError } from '../dimensions/lexer.ts';
import { DimensionName } from '../dimensions/expression.ts';
import { Dimension } from '../document/dimension.ts';
import { type DimensionEntry, type EntryOwner } from '../ledger/entries.ts';
import { Ledger, type Value } from '../ledger/ledger.ts';
import { scopeOf } from '../ledger/names.ts';
import { removeNumber, setNumber, setNumberName } from '../steps/slots-of.ts';
import { kindOfPowers, UNITS, unitNamed, type QuantityKind } from '../units/units.ts';
import { EditRefused, type Edit } from '../document/change.ts';
import type { Design } from '../document/schema.ts';
import { numberedOf } from '../document/numbered.ts';
import { plain } from '../document/plain.ts';
import { requirementNaming } from '../document/requirement.ts';
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

/** Where the named dimensions of an owner are kept. */
export type DimensionHome = Pick<Design, 'dimensions' | 'dimensionOrder'>;

/** Null for the numbers of sketches and steps, which have no home of their own. */
export function homeOf(draft: Design, owner: EntryOwner): DimensionHome | null {
  if (owner.level === 'project') return draft.shared!;
  if (owner.level === 'design') return draft;
  return owner.level === 'part' ? draft.parts[owner.part]! : null;
}

/** The numbers of a joint, a coupling or a motion of a run, by key. */
function numbersOfJoint(
  draft: Design,
  { assembly, joint }: { readonly assembly: string; readonly joint: string },
): Record<string, string> {
  const own = draft.assemblies![assembly]!;
  return numberedOf(own, joint)!.numbers as Record<string, string>;
}

export function storeExpression(draft: Design, entry: DimensionEntry, expression: string): void {
  const { owner, ref } = entry;
  const key = ref.slice(ref.indexOf('.') + 1);
  const home = homeOf(draft, owner);
  if (home) home.dimensions[ref]!.value = expression;
  else if ('step' in owner) setNumber(draft.parts[owner.part]!.steps[owner.step]!, key, expression);
  else if ('joint' in owner) numbersOfJoint(draft, owner)[key] = expression;
}

/** What a text would come to if it were this dimension's expression. */
export function readTyped(ledger: Ledger, entry: DimensionEntry, typed: string): Value {
  return ledger.read(typed, scopeOf(entry), entry.kind ?? kindNow(ledger, entry));
}

/** An expression fit to be stored for this entry, and the kind it is read as. @throws EditRefused when it cannot be read */
export function boundFor(
  ledger: Ledger,
  entry: DimensionEntry,
  typed: string,
): { readonly bound: string; readonly kind: QuantityKind | null } {
  if (entry.measured)
    throw new EditRefused(`${entry.name} is measured from the model; change what it is measured on instead.`);
  const kind = entry.kind ?? kindNow(ledger, entry);
  try {
    return { bound: ledger.bind(typed.trim(), scopeOf(entry), kind), kind };
  } catch (error) {
    if (error instanceof ExpressionError) throw new EditRefused(error.message);
    throw error;
  }
}

/** What belongs to the project is changed there, for all its designs. */
export function refuseShared({ owner, name }: DimensionEntry): void {
  if (owner.level === 'project')
    throw new EditRefused(`${name} is shared by the designs of this project; change it under Project in the ledger.`);
}

type Typed = readonly (readonly [ref: string, text: string])[];

/** @param trial shared dimensions may be tried in one design; they are kept only in the project */
function giveValues(draft: Design, typed: Typed, trial: boolean): void {
  const before = Ledger.of(plain(draft));
  for (const [ref, text] of typed) {
    const entry = entryOf(before, ref);
    if (!trial) refuseShared(entry);
    storeExpression(draft, entry, boundFor(before, entry, text).bound);
  }
  const design = plain(draft);
  const after = Ledger.of(design);
  const many = typed.length > 1;
  for (const [ref] of typed) {
    const entry = entryOf(after, ref);
    const value = after.valueOfEntry(entry);
    if (!value.ok) throw new EditRefused(many ? `${entry.path.join('.')}: ${value.message}` : value.message);
    refuseOutsideRange(after, entry, value.quantity);
  }
  refuseNewCircles(before, after);
  const own = typed.length === 1 ? entryOf(after, typed[0]![0]).owner : null;
  resolveSketches(draft, before, own?.level === 'sketch' ? own.step : null, design);
}

const Text = z.string().max(2000);
const expressionIn = (ledger: Ledger, ref: string, otherwise: string) =>
  ledger.index.byReference(ref)?.expression ?? otherwise;

const setDimensionCommand = declareCommand({
  name: 'set-dimension',
  args: z.strictObject({ ref: Ref, text: Text }),
  label: ({ ref, text }) => `Set $${ref} to ${text}`,
  bound: ({ ref, text }, after) => ({ ref, text: expressionIn(Ledger.of(after), ref, text) }),
  run: (draft, { ref, text }) => giveValues(draft, [[ref, text]], false),
});

/**
 * Give a dimension a new expression, as typed. Refused when it cannot be read,
 * clashes in units, goes in a circle, lies outside its allowed range, or leaves
 * its own sketch unsolvable.
 */
export const setDimension = (ref: string, text: string): Edit => setDimensionCommand({ ref, text });

const setDimensionsCommand = declareCommand({
  name: 'set-dimensions',
  args: z.strictObject({ typed: z.array(z.tuple([Ref, Text])).max(MAX_DIMENSIONS), label: Text.optional() }),
  label: ({ typed, label }) => label ?? `Set ${typed.length} dimensions`,
  bound({ typed, ...rest }, after) {
    const ledger = Ledger.of(after);
    return { ...rest, typed: typed.map(([ref, text]): [string, string] => [ref, expressionIn(ledger, ref, text)]) };
  },
  run: (draft, { typed }) => giveValues(draft, typed, false),
});

/** Several dimensions at once, all of them or none: a trial kept, a row of a table, one value for many. */
export const setDimensions = (typed: Typed, label?: string): Edit =>
  setDimensionsCommand({ typed: typed.map(([ref, text]) => [ref, text]), ...(label === undefined ? {} : { label }) });

/** Values to look at only; shared ones may be among them. */
export const tryDimensions = (typed: Typed): Edit => ({
  command: 'try-dimensions',
  label: `Try ${typed.length} dimensions`,
  run: (draft) => giveValues(draft, typed, true),
});

/** Measured numbers may come to stand on themselves through a number edited elsewhere. */
function refuseNewCircles(before: Ledger, after: Ledger): void {
  for (const entry of after.entries) {
    if (!entry.measured) continue;
    const value = after.valueOfEntry(entry);
    if (!value.ok && before.valueOf(entry.ref).ok) throw new EditRefused(value.message);
  }
}

/** The allowed range of a dial, in mm, rad or as numbers; null where an end is open or has no value. */
export function rangeOf(
  ledger: Ledger,
  entry: DimensionEntry,
): { min: number | null; max: number | null; step: number | null } {
  const { dial } = entry;
  const value = ledger.valueOfEntry(entry);
  const kind = value.ok ? kindOfPowers(value.quantity.powers) : null;
  const read = (text: string | undefined) => {
    const end = text === undefined ? null : ledger.read(text, scopeOf(entry), kind);
    return end?.ok ? end.quantity.value : null;
  };
  return { min: read(dial?.min), max: read(dial?.max), step: read(dial?.step) };
}

export function refuseOutsideRange(ledger: Ledger, entry: DimensionEntry, quantity: Quantity): void {
  if (!entry.dial) return;
  const { min, max } = rangeOf(ledger, entry);
  const now = quantity.value;
  const slack = 1e-9 * Math.max(1, Math.abs(now));
  const shown = (n: number) => ledger.format({ ok: true, quantity: { ...quantity, value: n } });
  if (min !== null && now < min - slack)
    throw new EditRefused(
      `${shown(now)} is below ${shown(min)}, the least allowed for ${entry.name}; widen its range or choose more.`,
    );
  if (max !== null && now > max + slack)
    throw new EditRefused(
      `${shown(now)} is above ${shown(max)}, the most allowed for ${entry.name}; widen its range or choose less.`,
    );
}

/** Why a name cannot be taken, as a sentence; null when it can. */
export function nameFault(name: string, taken: Iterable<string>): string | null {
  if (!DimensionName.safeParse(name).success) {
    return 'A name starts with a letter and has only letters, digits and _, 40 at most.';
  }
  if (unitNamed(name)) return `“${name}” is a unit; try “${name}_value”.`;
  const looksLike = lookOf(name);
  const unit = Object.keys(UNITS).find((u) => lookOf(u) === looksLike && !/[0-9]/.test(name));
  if (unit) return `“${name}” looks like the unit ${unit}; try “${name}_value”.`;
  if (RESERVED_NAMES.has(name) || constantNamed(name))
    return `“${name}” has a meaning of its own in expressions; try “${name}_value”.`;
  const lower = name.toLowerCase();
  for (const other of taken) {
    if (other === name) return `“${name}” is taken here; try “${name}_2”.`;
    if (other.toLowerCase() === lower)
      return `“${name}” differs from “${other}” only in its capitals; try “${name}_2”.`;
    if (lookOf(other) === looksLike) return `“${name}” looks like “${other}”, which is here already; try “${name}_2”.`;
  }
  return null;
}

/** Letters that look like others in most typefaces: Cyrillic and Greek like Latin, and digits like letters. */
const TWINS: Readonly<Record<string, string>> = {
  а: 'a', в: 'b', с: 'c', е: 'e', ё: 'e', һ: 'h', і: 'l', ј: 'j', к: 'k', м: 'm', н: 'h', о: 'o', р: 'p', ѕ: 's', т: 't', у: 'y', х: 'x',
  α: 'a', β: 'b', γ: 'y', ε: 'e', ι: 'l', κ: 'k', ν: 'v', ο: 'o', ρ: 'p', τ: 't', υ: 'u', χ: 'x',
  '0': 'o', '1': 'l', i: 'l',
}; // prettier-ignore

/** Letters and digits that are their own look. */
const PLAIN = /^[a-hj-z2-9_]*$/;

/** How a name looks, whatever letters it is made of: names of one look are taken for each other. */
function lookOf(name: string): string {
  let look = looks.get(name);
  if (look === undefined) {
    const plain = PLAIN.test(name)
      ? name
      : [...name.normalize('NFKC').toLowerCase()].map((c) => TWINS[c] ?? c).join('');
    look = plain.replace(/rn/g, 'm');
    if (looks.size >= LOOKS_KEPT) looks.clear();
    looks.set(name, look);
  }
  return look;
}

const LOOKS_KEPT = 20_000;
const looks = new Map<string, string>();

/** Names beside which a new one must stand apart. */
function siblingNames(ledger: Ledger, entry: DimensionEntry): string[] {
  const { level } = entry.owner;
  const home = JSON.stringify(entry.owner);
  return ledger.entries
    .filter((e) => e !== entry && e.owner.level === level && JSON.stringify(e.owner) === home)
    .map((e) => e.name);
}

const renameCommand = declareCommand({
  name: 'rename-dimension',
  args: z.strictObject({ ref: Ref, name: z.string().max(200) }),
  label: ({ ref, name }) => `Rename $${ref} to ${name}`,
  run(draft, { ref, name }) {
    const ledger = Ledger.of(plain(draft));
    const entry = entryOf(ledger, ref);
    const fault = nameFault(name, siblingNames(ledger, entry));
    if (fault) throw new EditRefused(fault);
    const { owner } = entry;
    refuseShared(entry);
    const home = homeOf(draft, owner);
    if (owner.level === 'joint')
      throw new EditRefused('A number of a joint is called by what it is; rename the joint instead.');
    if (home) home.dimensions[ref]!.name = name;
    else if ('step' in owner)
      setNumberName(draft.parts[owner.part]!.steps[owner.step]!, ref.slice(ref.indexOf('.') + 1), name);
  },
});

export const renameDimension = (ref: string, name: string): Edit => renameCommand({ ref, name });

const addCommand = declareCommand({
  name: 'add-dimension',
  args: z.strictObject({ id: Id, dimension: Dimension, part: Id.optional() }),
  label: ({ dimension }) => `Add ${dimension.name}`,
  bound: ({ dimension, ...rest }, after) => ({ ...rest, dimension: { ...dimension, value: expressionIn(Ledger.of(after), rest.id, dimension.value) } }), // prettier-ignore
  run(draft, { id, dimension, part }) {
    const home = part === undefined ? draft : draft.parts[part];
    if (!home) throw new EditRefused('The part this dimension is for no longer exists.');
    const fault = nameFault(
      dimension.name,
      Object.values(home.dimensions).map((d) => d.name),
    );
    if (fault) throw new EditRefused(fault);
    const ledger = Ledger.of(plain(draft));
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
    const value = Ledger.of(plain(draft)).valueOf(id);
    if (!value.ok) throw new EditRefused(value.message);
  },
});

/** A new dimension of the design, or of a part. */
export const addDimension = (id: string, dimension: Dimension, part?: string): Edit =>
  addCommand({ id, dimension, ...(part === undefined ? {} : { part }) });

const deleteCommand = declareCommand({
  name: 'delete-dimension',
  args: z.strictObject({ ref: Ref }),
  label: ({ ref }) => `Delete $${ref}`,
  run(draft, { ref }) {
    const ledger = Ledger.of(plain(draft));
    const entry = entryOf(ledger, ref);
    // What is measured where it stands reads on without it.
    const users = ledger.usersOf(ref).flatMap((r) => ledger.index.byReference(r) ?? []).filter((e) => !e.measured); // prettier-ignore
    if (users.length > 0) {
      const names = users.slice(0, 3).map((e) => e.path.join('.'));
      throw new EditRefused(
        `${entry.name} is used by ${names.join(', ')}${users.length > 3 ? ` and ${users.length - 3} more` : ''}; change these first.`,
      );
    }
    const required = requirementNaming(draft.requirements, (used) => used === ref);
    if (required)
      throw new EditRefused(
        `${entry.name} is in the requirement “${ledger.shownAt(required, {})}”; change that first.`,
      );
    const { owner } = entry;
    refuseShared(entry);
    const key = ref.slice(ref.indexOf('.') + 1);
    if ('step' in owner) {
      if (!removeNumber(draft.parts[owner.part]!.steps[owner.step]!, key))
        throw new EditRefused('This number belongs to its step and goes only with it.');
      return;
    }
    if (owner.level === 'joint') {
      delete numbersOfJoint(draft, owner)[key];
      return;
    }
    const home = homeOf(draft, owner)!;
    delete home.dimensions[ref];
    home.dimensionOrder.splice(home.dimensionOrder.indexOf(ref), 1);
  },
});

export const deleteDimension = (ref: string): Edit => deleteCommand({ ref });
