import { hashText } from '../ids/hash.ts';

/**
 * Durable names: which step made a thing, in which role, and what it was made from.
 *   plate:side:l3            swept by curve l3
 *   plate:end:(+l1 +l2 +l3)  the far cap of the region between these curves
 *   ring:side:(cut:side:c1)  made from a thing that has a name itself
 * Names are interned: the same name is the same object, so that they compare at once.
 */
export interface Name {
  readonly step: string;
  readonly role: string;
  /** Names, or ids of curves with their sign. */
  readonly parents: readonly (Name | string)[];
  readonly text: string;
}

/** Longer names, in letters, are not spelled out. */
const MOST_SPELLED_OUT = 700;

const interned = new Map<string, Name>();

export function nameOf(step: string, role: string, parents: readonly (Name | string)[] = []): Name {
  const whole = textOf(step, role, parents);
  // Names nest without end; what lies deep is told by a digest, so that it still is the same for the same.
  const short = whole.length > MOST_SPELLED_OUT;
  const behind = short ? [`~${hashText(whole)}`] : [...parents];
  const text = short ? textOf(step, role, behind) : whole;
  const known = interned.get(text);
  if (known) return known;
  const name: Name = { step, role, parents: behind, text };
  interned.set(text, name);
  return name;
}

function textOf(step: string, role: string, parents: readonly (Name | string)[]): string {
  if (parents.length === 0) return `${step}:${role}`;
  const texts = parents.map((p) => (typeof p === 'string' ? p : p.text));
  const alone = parents.length === 1 && typeof parents[0] === 'string';
  return `${step}:${role}:${alone ? texts[0]! : `(${texts.join(' ')})`}`;
}

const WORD = /[A-Za-z0-9_+~-]+/y;

/** Read a name from its text; null when it is none. */
export function readName(text: string): Name | null {
  const known = interned.get(text);
  if (known) return known;
  let at = 0;
  const word = (): string | null => {
    WORD.lastIndex = at;
    const found = WORD.exec(text);
    if (!found) return null;
    at = WORD.lastIndex;
    return found[0];
  };
  const take = (c: string): boolean => {
    if (text[at] !== c) return false;
    at++;
    return true;
  };
  function item(depth: number): Name | string | null {
    if (depth > MOST_NESTED) return null;
    const step = word();
    if (step === null) return null;
    if (!take(':')) return step;
    const role = word();
    if (role === null) return null;
    if (!take(':')) return nameOf(step, role);
    if (!take('(')) {
      const parent = word();
      return parent === null ? null : nameOf(step, role, [parent]);
    }
    const parents: (Name | string)[] = [];
    do {
      const parent = item(depth + 1);
      if (parent === null) return null;
      parents.push(parent);
    } while (take(' '));
    return take(')') ? nameOf(step, role, parents) : null;
  }
  const name = item(0);
  return at === text.length && name !== null && typeof name !== 'string' ? name : null;
}

const MOST_NESTED = 40;

/** All steps in a name: the one that made it, and those behind it. */
export function stepsIn(text: string): string[] {
  const found = new Set<string>();
  const walk = (name: Name | string) => {
    if (typeof name === 'string') return;
    found.add(name.step);
    name.parents.forEach(walk);
  };
  const name = readName(text);
  if (name) walk(name);
  else found.add(text.split(':')[0]!);
  return [...found];
}

/** The same name with other steps in it. */
export function withSteps(text: string, to: (step: string) => string): string {
  const change = (name: Name | string): Name | string =>
    typeof name === 'string' ? name : nameOf(to(name.step), name.role, name.parents.map(change));
  const name = readName(text);
  return name ? (change(name) as Name).text : text;
}

/** More curves than these are not spelled out in a name; the rest is told by a digest. */
const MOST_SPELLED = 12;

/** The curves round a region as parents of a name. */
export function curvesAsParents(outer: readonly string[]): string[] {
  const sorted = [...outer].sort();
  if (sorted.length <= MOST_SPELLED) return sorted;
  return [...sorted.slice(0, MOST_SPELLED), `~${hashText(sorted.join()).slice(0, 8)}`];
}

/** How much of what two names were made from is the same: 0 nothing, 1 all. */
export function likeness(a: Name, b: Name): number {
  if (a.step !== b.step || a.role !== b.role) return 0;
  if (a.parents.length === 0 || b.parents.length === 0) return 1;
  const own = new Set(a.parents);
  const nested = a.parents.filter((p) => typeof p !== 'string');
  const shared = b.parents.reduce<number>((sum, p) => {
    if (own.has(p)) return sum + 1;
    return typeof p === 'string' ? sum : sum + Math.max(0, ...nested.map((n) => likeness(n as Name, p)));
  }, 0);
  return shared / (a.parents.length + b.parents.length - shared);
}
