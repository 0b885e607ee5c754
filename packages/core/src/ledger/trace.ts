/** Where a number comes from, and all that hangs on it. */
import { ExpressionError } from '../dimensions/lexer.ts';
import { treeOf } from '../dimensions/trees.ts';
import type { DimensionEntry } from './entries.ts';
import type { Ledger } from './ledger.ts';

export interface Trace {
  readonly ref: string;
  /** What it depends on, nearest first: how many links away, and on whose account. */
  readonly above: readonly TraceLink[];
  /** What depends on it, nearest first. */
  readonly below: readonly TraceLink[];
  /** Steps whose own numbers hang on it, each with its part. */
  readonly steps: readonly { readonly part: string; readonly step: string }[];
}

export interface TraceLink {
  readonly ref: string;
  readonly away: number;
  /** The nearer dimensions it is linked with. */
  readonly through: readonly string[];
}

export function traceOf(ledger: Ledger, ref: string): Trace {
  const usedBy = (r: string) => ledger.usersOf(r);
  const uses = (r: string) => ledger.dependenciesOf(ledger.index.byReference(r)!);
  const below = linksFrom(ref, usedBy);
  const steps = new Map<string, { part: string; step: string }>();
  for (const r of [ref, ...below.map((l) => l.ref)]) {
    const owner = ledger.index.byReference(r)?.owner;
    if (owner && 'step' in owner) steps.set(owner.step, { part: owner.part, step: owner.step });
  }
  return { ref, above: linksFrom(ref, uses), below, steps: [...steps.values()] };
}

function linksFrom(ref: string, next: (ref: string) => Iterable<string>): TraceLink[] {
  const links = new Map<string, { ref: string; away: number; through: string[] }>();
  let ring = [ref];
  for (let away = 1; ring.length > 0; away++) {
    const found: string[] = [];
    for (const from of ring) {
      for (const to of next(from)) {
        const known = links.get(to);
        if (known) known.through.push(from);
        else if (to !== ref) {
          links.set(to, { ref: to, away, through: [from] });
          found.push(to);
        }
      }
    }
    ring = found;
  }
  return [...links.values()];
}

/** What hangs on any of these, directly or through others, each with one of these that it hangs on. */
export function hangingOn(ledger: Ledger, refs: Iterable<string>): Map<string, string> {
  const all = new Set(refs);
  const found = new Map<string, string>();
  for (const ref of all)
    for (const { ref: own } of linksFrom(ref, (r) => ledger.usersOf(r)))
      if (!found.has(own) && !all.has(own)) found.set(own, ref);
  return found;
}

/** What is said of a number that hangs on one that is not sure. */
export const hangingSentence = (ledger: Ledger, ref: string): string => `It hangs on ${ledger.index.byReference(ref)?.path.join('.') ?? ref}, which is not sure.`; // prettier-ignore

/** By the list of links: numbers may change without them. */
const counted = new WeakMap<object, ReadonlyMap<string, number>>();

/** How many other numbers hang on each, directly or through others. */
export function influences(ledger: Ledger): ReadonlyMap<string, number> {
  const steps = influenceSteps(ledger);
  for (;;) {
    const step = steps.next();
    if (step.done) return step.value;
  }
}

/** Rows counted between two looks up. */
const AT_ONCE = 250;

/** The same in steps, each soon done. */
export function* influenceSteps(ledger: Ledger): Generator<undefined, ReadonlyMap<string, number>> {
  const users = ledger.usersOfAll();
  const known = counted.get(users);
  if (known) return known;
  const { entries } = ledger;
  const words = (entries.length + 31) >>> 5;
  /** A row of bits per number, one for each that hangs on it. */
  const below = new Uint32Array(entries.length * words);
  const counts = new Map<string, number>();
  for (const i of usersFirst(users)) {
    const row = i * words;
    for (const user of users[i]!) {
      below[row + (user >>> 5)]! |= 1 << (user & 31);
      for (let w = 0; w < words; w++) below[row + w]! |= below[user * words + w]!;
    }
    let count = 0;
    for (let w = 0; w < words; w++) if (below[row + w] !== 0) count += bitsIn(below[row + w]!);
    counts.set(entries[i]!.ref, count);
    if (counts.size % AT_ONCE === 0) yield;
  }
  counted.set(users, counts);
  return counts;
}

/** All places, each after those of its users; those in a circle last. */
function usersFirst(users: readonly (readonly number[])[]): number[] {
  const used: number[][] = users.map(() => []);
  users.forEach((own, i) => own.forEach((user) => used[user]!.push(i)));
  const left = users.map((own) => own.length);
  const order = left.flatMap((n, i) => (n === 0 ? [i] : []));
  for (let k = 0; k < order.length; k++) for (const i of used[order[k]!]!) if (--left[i]! === 0) order.push(i);
  return [...order, ...left.flatMap((n, i) => (n > 0 ? [i] : []))];
}

function bitsIn(word: number): number {
  let n = word - ((word >>> 1) & 0x55555555);
  n = (n & 0x33333333) + ((n >>> 2) & 0x33333333);
  return Math.imul((n + (n >>> 4)) & 0x0f0f0f0f, 0x01010101) >>> 24;
}

/** Named dimensions that nothing uses. */
export function unusedDimensions(ledger: Ledger): DimensionEntry[] {
  return ledger.entries.filter(
    (e) => (e.owner.level === 'design' || e.owner.level === 'part') && ledger.usersOf(e.ref).length === 0,
  );
}

export interface SameNumber {
  /** The one the others could follow: a named dimension where there is one. */
  readonly keep: string;
  /** All of them, `keep` among them. */
  readonly refs: readonly string[];
}

/** Numbers so common that being equal means nothing. */
const COMMON = new Set([0, 1, 2]);

/** Plain numbers typed in more than one place that could be one. */
export function numbersTypedTwice(ledger: Ledger): SameNumber[] {
  const groups = new Map<string, DimensionEntry[]>();
  for (const entry of ledger.entries) {
    if (entry.measured || !isPlainNumber(entry.expression)) continue;
    const value = ledger.valueOfEntry(entry);
    if (!value.ok) continue;
    const { value: n, powers } = value.quantity;
    const inUnits = Number(n.toPrecision(10));
    if (COMMON.has(inUnits) || (powers.length === 0 && powers.angle === 0)) continue;
    const key = `${inUnits} ${powers.length} ${powers.angle}`;
    const own = groups.get(key);
    if (own) own.push(entry);
    else groups.set(key, [entry]);
  }
  return [...groups.values()].flatMap((same) => {
    // Two dials that happen to be equal are meant apart.
    const dials = same.filter((e) => e.dial);
    const rest = same.filter((e) => !e.dial);
    const linked = dials.length > 0 ? [dials[0]!, ...rest] : rest;
    if (linked.length < 2) return [];
    const keep = [...linked].sort((a, b) => rank(a) - rank(b))[0]!;
    return [{ keep: keep.ref, refs: linked.map((e) => e.ref) }];
  });
}

/** A dimension of the design is best followed, a number in a step worst. */
function rank(entry: DimensionEntry): number {
  return ['project', 'design', 'part', 'sketch', 'slot'].indexOf(entry.owner.level) - (entry.dial ? 10 : 0);
}

function isPlainNumber(text: string): boolean {
  const tree = treeOf(text);
  return !(tree instanceof ExpressionError) && (tree.kind === 'number' || tree.kind === 'measure');
}
