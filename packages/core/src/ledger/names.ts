/** Finds dimensions by the names people type, and writes stored references as names. */
import { namesIn } from '../dimensions/parser.ts';
import { treeOf } from '../dimensions/trees.ts';
import { ExpressionError } from '../dimensions/lexer.ts';
import { constantNamed } from '../dimensions/evaluate.ts';
import { unitNamed } from '../units/units.ts';
import type { DimensionEntry } from './entries.ts';

/** Where an expression stands; nearer names win over farther ones. */
export interface Scope {
  readonly part?: string;
  readonly step?: string;
  /** A joint or coupling. */
  readonly joint?: string;
}

export function scopeOf(entry: DimensionEntry): Scope {
  if (entry.owner.level === 'design' || entry.owner.level === 'project') return {};
  if (entry.owner.level === 'joint') return { joint: entry.owner.joint };
  if (entry.owner.level === 'part') return { part: entry.owner.part };
  return { part: entry.owner.part, step: entry.owner.step };
}

export type Found =
  | { readonly kind: 'one'; readonly entry: DimensionEntry }
  | { readonly kind: 'none' }
  | { readonly kind: 'several'; readonly entries: readonly DimensionEntry[] };

export class NameIndex {
  private constructor(
    private readonly entries: readonly DimensionEntry[],
    /** The place of each reference among the entries. */
    private readonly slots: ReadonlyMap<string, number>,
    /** Places by the last word of their path. */
    private readonly byLast: ReadonlyMap<string, readonly number[]>,
  ) {}

  static of(entries: readonly DimensionEntry[]): NameIndex {
    const slots = new Map<string, number>();
    const byLast = new Map<string, number[]>();
    for (const [slot, entry] of entries.entries()) {
      slots.set(entry.ref, slot);
      const same = byLast.get(entry.name);
      if (same) same.push(slot);
      else byLast.set(entry.name, [slot]);
    }
    return new NameIndex(entries, slots, byLast);
  }

  /** The same names, in the same places, with other expressions behind some of them. */
  with(entries: readonly DimensionEntry[]): NameIndex {
    return new NameIndex(entries, this.slots, this.byLast);
  }

  /** The place of a reference among the ledger's entries. */
  slotOf(ref: string): number | undefined {
    return this.slots.get(ref);
  }

  byReference(ref: string): DimensionEntry | undefined {
    const slot = this.slots.get(ref);
    return slot === undefined ? undefined : this.entries[slot];
  }

  private named(last: string): DimensionEntry[] {
    return (this.byLast.get(last) ?? []).map((slot) => this.entries[slot]!);
  }

  /**
   * `width` looks in the same step, then the same part, then the design;
   * `bracket.width` also looks into other parts and may leave out what lies between.
   */
  find(name: string, scope: Scope): Found {
    const segments = name.split('.');
    const last = segments.at(-1)!;
    let best: DimensionEntry[] = [];
    let bestRank = -Infinity;
    for (const entry of this.named(last)) {
      if (!containsInOrder(entry.path, segments)) continue;
      const rank = closeness(entry, scope, segments.length);
      if (rank === null || rank < bestRank) continue;
      if (rank > bestRank) best = [];
      bestRank = rank;
      best.push(entry);
    }
    if (best.length === 0) return { kind: 'none' };
    return best.length === 1 ? { kind: 'one', entry: best[0]! } : { kind: 'several', entries: best };
  }

  /** The shortest name that finds this entry from here. */
  nameFrom(entry: DimensionEntry, scope: Scope): string {
    // A number of another step is named with its step, or one would look for it here.
    const inStep =
      ('step' in entry.owner && entry.owner.step !== scope.step) ||
      ('joint' in entry.owner && entry.owner.joint !== scope.joint);
    for (let take = inStep ? 2 : 1; take <= entry.path.length; take++) {
      const name = entry.path.slice(-take).join('.');
      const found = this.find(name, scope);
      if (found.kind === 'one' && found.entry === entry) return name;
    }
    return `$${entry.ref}`;
  }

  /** Names near to a mistyped one, for the sentence that refuses it. */
  similarTo(name: string): string | undefined {
    const wanted = name.split('.').at(-1)!.toLowerCase();
    const [elsewhere] = this.named(name.split('.').at(-1)!);
    if (elsewhere) return elsewhere.path.join('.');
    for (const known of this.byLast.keys()) if (known.toLowerCase() === wanted) return known;
    for (const known of this.byLast.keys()) if (editDistanceAtMost(known.toLowerCase(), wanted, 2)) return known;
    return undefined;
  }
}

function containsInOrder(path: readonly string[], segments: readonly string[]): boolean {
  let at = path.length - 1;
  for (let i = segments.length - 1; i >= 0; i--) {
    while (at >= 0 && path[at] !== segments[i]) {
      if (i === segments.length - 1) return false;
      at--;
    }
    if (at < 0) return false;
    at--;
  }
  return true;
}

/** Higher is nearer; null when a single word may not reach that far. */
function closeness(entry: DimensionEntry, scope: Scope, segments: number): number | null {
  const owner = entry.owner;
  const skipped = entry.path.length - segments;
  if ('step' in owner && owner.step === scope.step) return 40 - skipped;
  if ('joint' in owner && owner.joint === scope.joint) return 40 - skipped;
  if ('part' in owner && owner.part === scope.part) return (owner.level === 'part' ? 30 : 20) - skipped;
  if (owner.level === 'design') return 10 - skipped;
  if (owner.level === 'project') return (segments > 1 ? 4 : 5) - skipped;
  return segments > 1 ? -skipped : null;
}

function editDistanceAtMost(a: string, b: string, most: number): boolean {
  if (Math.abs(a.length - b.length) > most || Math.min(a.length, b.length) <= most) return false;
  let row = Array.from({ length: b.length + 1 }, (_, j) => j);
  for (let i = 1; i <= a.length; i++) {
    const next = [i];
    for (let j = 1; j <= b.length; j++) {
      next.push(Math.min(next[j - 1]! + 1, row[j]! + 1, row[j - 1]! + (a[i - 1] === b[j - 1] ? 0 : 1)));
    }
    row = next;
  }
  return row[b.length]! <= most;
}

/** The sentence for a name that finds nothing, or too much. */
export function missingName(
  name: string,
  found: Exclude<Found, { kind: 'one' }>,
  index: NameIndex,
  at: { from: number; to: number },
): ExpressionError {
  if (found.kind === 'several') {
    const where = found.entries.slice(0, 3).map((e) => e.path.join('.'));
    return new ExpressionError(`“${name}” could mean ${where.join(' or ')}; write it in full.`, at.from, at.to);
  }
  if (name.startsWith('$')) {
    return new ExpressionError('This refers to a dimension that no longer exists; choose another.', at.from, at.to);
  }
  const near = index.similarTo(name);
  return new ExpressionError(
    `No dimension is called “${name}”${near ? `; did you mean “${near}”?` : '.'}`,
    at.from,
    at.to,
  );
}

function rewriteNames(text: string, rewrite: (name: string) => string | null): string {
  const tree = treeOf(text);
  if (tree instanceof ExpressionError) throw tree;
  const names = namesIn(tree).sort((a, b) => b.from - a.from);
  let result = text;
  for (const node of names) {
    const replacement = rewrite(node.name);
    if (replacement !== null) result = result.slice(0, node.from) + replacement + result.slice(node.to);
  }
  return result;
}

/**
 * Turn typed names into stored references, so that renaming cannot break them.
 * Names that find nothing stay as they are and fail when evaluated, in words.
 * @throws ExpressionError when the text cannot be read.
 */
export function bindNames(text: string, scope: Scope, index: NameIndex): string {
  return rewriteNames(text, (name) => {
    if (name.startsWith('$') || constantNamed(name) || unitNamed(name)) return null;
    const found = index.find(name, scope);
    return found.kind === 'one' ? `$${found.entry.ref}` : null;
  });
}

/** Write stored references as names; text that cannot be read is returned as it is. */
export function showNames(text: string, scope: Scope, index: NameIndex): string {
  try {
    return rewriteNames(text, (name) => {
      const entry = name.startsWith('$') ? index.byReference(name.slice(1)) : undefined;
      return entry ? index.nameFrom(entry, scope) : null;
    });
  } catch {
    return text;
  }
}
