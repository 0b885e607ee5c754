/** What the ledger shows and in what order. */
import {
  influences,
  influenceSteps,
  numbersTypedTwice,
  unusedDimensions,
  type Design,
  type DimensionEntry,
  type Ledger,
} from '@helb/core';

export const SORTS = { order: 'As made', influence: 'By influence', name: 'By name', value: 'By value' } as const;
export type Sort = keyof typeof SORTS;

export const FILTERS = {
  all: 'All',
  dials: 'Dials',
  measured: 'Measured',
  unused: 'Unused',
  twice: 'Typed twice',
  failing: 'Without a value',
} as const;
export type Filter = keyof typeof FILTERS;

export type LedgerLine =
  | { readonly kind: 'heading'; readonly key: string; readonly title: string }
  | { readonly kind: 'entry'; readonly key: string; readonly entry: DimensionEntry };

export interface Wanted {
  readonly query: string;
  readonly sort: Sort;
  readonly filter: Filter;
  /** Part that stands nearest to the dials. */
  readonly activePart: string | null;
}

/**
 * A test for what was typed: a part of a name, of an expression or of a shown
 * value; or a quantity in any unit, to as many digits as were typed.
 */
export function matcher(ledger: Ledger, query: string): (entry: DimensionEntry) => boolean {
  const wanted = query.trim().toLowerCase();
  if (!wanted) return () => true;
  const inName = (entry: DimensionEntry) => entry.path.join('.').toLowerCase().includes(wanted);
  const read = ledger.read(query.trim(), {}, null);
  const digits = /^-?[\d.]+/.exec(wanted)?.[0];
  if (!read.ok || !digits)
    return (entry) =>
      inName(entry) ||
      ledger.shown(entry).toLowerCase().includes(wanted) ||
      ledger.format(ledger.valueOfEntry(entry)).toLowerCase().includes(wanted);
  const { value, powers, bare } = read.quantity;
  const decimals = digits.split('.')[1]?.length ?? 0;
  // Half of the last digit typed, as a share of the number.
  const slack = bare ? 0 : Math.abs((value / Number(digits)) * 0.5 * 10 ** -decimals) * (1 + 1e-9);
  return (entry) => {
    if (inName(entry)) return true;
    const own = ledger.valueOfEntry(entry);
    if (!own.ok) return false;
    // A bare number is looked for as it would be shown.
    if (bare) return ledger.format(own).toLowerCase().startsWith(wanted) || ledger.shown(entry).includes(wanted);
    const { quantity } = own;
    const same = quantity.powers.length === powers.length && quantity.powers.angle === powers.angle;
    return same && Math.abs(quantity.value - value) <= slack;
  };
}

function kept(ledger: Ledger, filter: Filter): (entry: DimensionEntry) => boolean {
  switch (filter) {
    case 'dials':
      return (e) => e.dial !== null;
    case 'measured':
      return (e) => e.measured !== null;
    case 'failing':
      return (e) => !ledger.valueOfEntry(e).ok;
    case 'unused': {
      const refs = new Set(unusedDimensions(ledger).map((e) => e.ref));
      return (e) => refs.has(e.ref);
    }
    case 'twice': {
      const refs = new Set(numbersTypedTwice(ledger).flatMap((s) => s.refs));
      return (e) => refs.has(e.ref);
    }
    default:
      return () => true;
  }
}

function compared(ledger: Ledger, sort: Sort): ((a: DimensionEntry, b: DimensionEntry) => number) | null {
  if (sort === 'name') return (a, b) => a.name.localeCompare(b.name, undefined, { numeric: true });
  if (sort === 'influence') {
    const counts = influences(ledger);
    return (a, b) => counts.get(b.ref)! - counts.get(a.ref)!;
  }
  if (sort === 'value') {
    const number = (e: DimensionEntry) => {
      const value = ledger.valueOfEntry(e);
      return value.ok ? value.quantity.value : Infinity;
    };
    return (a, b) => number(a) - number(b);
  }
  return null;
}

/** So many dimensions are looked at between two breaths. */
const SLICE = 100;

/** Is it the ledger as it stands, with nothing looked for, which is soon laid out? */
export const isPlain = ({ query, sort, filter }: Wanted): boolean =>
  query.trim() === '' && sort === 'order' && filter === 'all';

/** What the ledger shows, found in small steps, as texts and links of thousands of dimensions take their time. */
export function* lineSteps(design: Design, ledger: Ledger, wanted: Wanted): Generator<undefined, LedgerLine[]> {
  const { entries } = ledger;
  // What hangs on what is read from every expression; once read, it is known.
  if (wanted.sort === 'influence' || wanted.filter === 'unused') {
    for (let i = 0; i < entries.length; i++) {
      ledger.dependenciesOf(entries[i]!);
      if (i % SLICE === 0) yield;
    }
    ledger.usersOfAll();
    yield;
    if (wanted.sort === 'influence') yield* influenceSteps(ledger);
    yield;
  }
  const [matches, keeps] = [matcher(ledger, wanted.query), kept(ledger, wanted.filter)];
  const shown: DimensionEntry[] = [];
  for (let i = 0; i < entries.length; i++) {
    const entry = entries[i]!;
    if (keeps(entry) && matches(entry)) shown.push(entry);
    if (i % SLICE === 0) yield;
  }
  return linesOf(design, ledger, shown, wanted);
}

/** The same at one go. */
export function ledgerLines(design: Design, ledger: Ledger, wanted: Wanted): LedgerLine[] {
  const steps = lineSteps(design, ledger, wanted);
  for (;;) {
    const step = steps.next();
    if (step.done) return step.value;
  }
}

function linesOf(design: Design, ledger: Ledger, shown: readonly DimensionEntry[], wanted: Wanted): LedgerLine[] {
  const compare = compared(ledger, wanted.sort);
  const line = (entry: DimensionEntry): LedgerLine => ({ kind: 'entry', key: entry.ref, entry });
  if (compare) return [...shown].sort(compare).map(line);
  // Headings in the order in which they are wanted; each keeps the order of the document.
  const under = new Map<string, DimensionEntry[]>();
  const parts = [...design.partOrder].sort((a, b) => Number(b === wanted.activePart) - Number(a === wanted.activePart));
  for (const title of ['Dials', 'Design']) under.set(title, []);
  for (const entry of shown) if (entry.group && entry.owner.level === 'design') addTo(under, entry.group, entry);
  for (const entry of shown) {
    if (entry.owner.level === 'design' && !entry.group) under.get(entry.dial ? 'Dials' : 'Design')!.push(entry);
    else if (entry.owner.level === 'project') addTo(under, 'Project', entry);
  }
  const ofPart = new Map<string, DimensionEntry[]>();
  for (const entry of shown) if ('part' in entry.owner) addTo(ofPart, entry.owner.part, entry);
  for (const id of parts) {
    for (const entry of ofPart.get(id) ?? []) {
      const { name } = design.parts[id]!;
      addTo(under, entry.group ? `${name}: ${entry.group}` : name, entry);
    }
  }
  return [...under].flatMap(([title, entries]): LedgerLine[] =>
    entries.length === 0 ? [] : [{ kind: 'heading', key: `heading ${title}`, title }, ...entries.map(line)],
  );
}

function addTo(map: Map<string, DimensionEntry[]>, key: string, entry: DimensionEntry): void {
  const own = map.get(key);
  if (own) own.push(entry);
  else map.set(key, [entry]);
}
