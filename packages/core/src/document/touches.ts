/**
 * What an edit did, place by place: what stood there and what stands there now. Enough to hand the edit on, to take it
 * back on a later state, and to tell whether two edits meet. Derived from two states, never written by hand.
 */
import { produce } from 'immer';
import { z } from 'zod';
import { Given, isOwnKey } from './given.ts';

export const Touch = z.strictObject({
  path: z.array(z.string().min(1).max(200).refine(isOwnKey)).min(1).max(12),
  was: Given.optional().describe('What stood there; left out where nothing did.'),
  is: Given.optional().describe('What stands there; left out where nothing does.'),
  loose: z.literal(true).optional().describe('A solved position or a reading: where computing begins, no decision.'),
});
export type Touch = z.infer<typeof Touch>;

type Plain = Record<string, unknown>;
const isMap = (value: unknown): value is Plain => typeof value === 'object' && value !== null && !Array.isArray(value);

/** Lists of ids, or of words, each in them once: merged, where other things are replaced. */
const ORDERS = /^(dimensionOrder|partOrder|assemblyOrder|sheetOrder|sheets\/\w+\/viewOrder|outlinesOrder|outlines\/\w+\/pieceOrder|assemblies\/\w+\/(instanceOrder|jointOrder)|(requirements|variants)\/order|variants\/columns|shared\/dimensionOrder|parts\/\w+\/(dimensionOrder|stepOrder|sections\/order|brief\/(numberOrder|drawingOrder)))$/; // prettier-ignore
const isOrder = ({ path }: Touch) => path.length <= 4 && ORDERS.test(path.join('/'));

/** Maps begun when their first member comes: both of two people may begin one. */
const GATHERED = /^(requirements|variants|shared|assemblies|guests|sheets|outlines|assemblies\/\w+\/(couplings|poses|runs)|parts\/\w+\/sections|parts\/\w+\/brief(\/(numbers|drawings|underlays))?|parts\/\w+\/steps\/\w+\/(patterns|borrowed))(\/(rows|dimensions))?$/; // prettier-ignore
const isGathered = (path: readonly string[]) => path.length <= 5 && GATHERED.test(path.join('/'));

/** Of a sketch: how deep its things are told apart. Other fields of a step are slots, each decided whole. */
const IN_SKETCH: Readonly<Record<string, number>> = { points: 6, borrowed: 6, curves: 7, constraints: 7, patterns: 7 };
const AT_TOP: Readonly<Record<string, number>> = { dimensions: 3, guests: 2, shared: 3, requirements: 3, variants: 5 };
/** Of an instance each field is decided by itself, and of a joint each number. */
const IN_ASSEMBLY: Readonly<Record<string, number>> = { instances: 5, joints: 5, couplings: 5, poses: 4, runs: 5 };
const IN_SHEET: Readonly<Record<string, number>> = { views: 5, sizes: 5, fields: 4, parts: 5 };
const IN_OUTLINES: Readonly<Record<string, number>> = { pieces: 5, board: 4 };
const IN_PART: Readonly<Record<string, number>> = { dimensions: 5, sections: 5, brief: 5 };

/** How long the path is of what is decided as one. */
function depthAt([first, , third, , fifth]: readonly string[]): number {
  if (first === 'assemblies')
    return fifth === 'numbers' ? 6 : third === undefined ? Infinity : (IN_ASSEMBLY[third] ?? 3);
  if (first === 'sheets') return third === undefined ? Infinity : (IN_SHEET[third] ?? 3);
  if (first === 'outlines') return third === undefined ? Infinity : (IN_OUTLINES[third] ?? 3);
  if (first !== 'parts') return AT_TOP[first!] ?? 1;
  if (third === undefined || (third === 'steps' && fifth === undefined)) return Infinity;
  return third === 'steps' ? (IN_SKETCH[fifth!] ?? 5) : (IN_PART[third] ?? 3);
}

/** Numbers of curves and patterns that follow from their constraints. */
const SOLVED: Readonly<Record<string, readonly string[]>> = { curves: ['radius', 'minor'], patterns: ['steps'] };

/** @param before the map in which the touched place lies, as it was */
function isLoose([first, second, third, , fifth, , seventh]: readonly string[], before: Plain): boolean {
  if (first === 'dimensions') return third === 'value' && before.measured !== undefined;
  if (first !== 'parts' || second === undefined) return false;
  if (third === 'dimensions') return fifth === 'value' && before.measured !== undefined;
  return third === 'steps' && (fifth === 'points' || (SOLVED[fifth!]?.includes(seventh ?? '') ?? false));
}

/**
 * What leads from one state to the other. What is the same object in both is not looked into.
 * @param at where in a design the two stand
 */
export function touchesBetween(before: unknown, after: unknown, at: readonly string[] = []): Touch[] {
  const touches: Touch[] = [];
  collect(before, after, [...at], null, touches);
  return touches;
}

function collect(was: unknown, is: unknown, path: string[], home: Plain | null, into: Touch[]): void {
  if (was === is) return;
  const gathered = isGathered(path);
  const [from, to] = gathered ? [was ?? {}, is ?? {}] : [was, is];
  if (isMap(from) && isMap(to) && path.length < depthAt(path)) {
    if (was === undefined) into.push({ path, is: {} });
    for (const key of new Set([...Object.keys(from), ...Object.keys(to)]))
      collect(from[key], to[key], [...path, key], from, into);
    if (is === undefined) into.push({ path, was: {} });
  } else if (!same(was, is)) {
    const moved = was !== undefined && is !== undefined && home !== null && isLoose(path, home);
    into.push({ path, ...(was === undefined ? {} : { was }), ...(is === undefined ? {} : { is }), ...(moved ? { loose: true as const } : {}) }); // prettier-ignore
  }
}

/** Equal as JSON would have them, whatever the order of keys. */
export function same(a: unknown, b: unknown): boolean {
  if (a === b) return true;
  if (Array.isArray(a) || Array.isArray(b))
    return Array.isArray(a) && Array.isArray(b) && a.length === b.length && a.every((x, i) => same(x, b[i]));
  if (!isMap(a) || !isMap(b)) return false;
  const keys = Object.keys(a).filter((k) => a[k] !== undefined);
  return (
    keys.length === Object.keys(b).filter((k) => b[k] !== undefined).length && keys.every((key) => same(a[key], b[key]))
  );
}

/** What stands at a place, without what is loose in it. */
function decided(path: readonly string[], value: unknown): unknown {
  if (!isMap(value)) return path[4] === 'points' && value !== undefined ? true : value;
  const each = (map: unknown, at: readonly string[]) =>
    isMap(map) ? Object.fromEntries(Object.entries(map).map(([key, v]) => [key, decided([...at, key], v)])) : map;
  const [first, , third, , fifth] = path;
  if (first === 'dimensions' && path.length === 2) return value.measured === undefined ? value : { ...value, value: '' }; // prettier-ignore
  if (first !== 'parts') return value;
  if (path.length === 2)
    return { ...value, steps: each(value.steps, [...path, 'steps']), dimensions: each(value.dimensions, [...path, 'dimensions']) }; // prettier-ignore
  if (path.length === 4 && third === 'dimensions') return decided(['dimensions', ''], value);
  if (path.length === 4 && third === 'steps')
    return { ...value, ...Object.fromEntries(['points', 'curves', 'patterns'].filter((k) => k in value).map((k) => [k, each(value[k], [...path, k])])) }; // prettier-ignore
  const solved = path.length === 6 ? SOLVED[fifth!] : undefined;
  return solved ? Object.fromEntries(Object.entries(value).filter(([key]) => !solved.includes(key))) : value;
}

/** What takes these back. */
export const inverted = (touches: readonly Touch[]): Touch[] =>
  touches
    .map(({ path, was, is, loose }) => ({
      path,
      ...(is === undefined ? {} : { was: is }),
      ...(was === undefined ? {} : { is: was }),
      ...(loose ? { loose } : {}),
    }))
    .reverse();

/** A place does not stand as it did when the edit was made. */
export class TouchClash extends Error {
  constructor(readonly touch: Touch) {
    super('what this touches was changed meanwhile');
  }
}

/**
 * The state with the touches made. Lists of order are merged: what came or moved meanwhile stays.
 * @param checked refuse where anything decided does not stand as it was when the edit was made
 * @throws TouchClash
 */
export function withTouches<T extends object>(state: T, touches: readonly Touch[], checked: boolean): T {
  return produce(state, (draft) => writeTouches(draft, touches, checked));
}

/** The same upon a draft. @throws TouchClash */
export function writeTouches(draft: object, touches: readonly Touch[], checked: boolean): void {
  for (const touch of touches) write(draft as Plain, touch, checked);
}

function write(root: Plain, touch: Touch, checked: boolean): void {
  const { path, was, is, loose } = touch;
  let home = root;
  for (const key of path.slice(0, -1)) {
    const next = Object.hasOwn(home, key) ? home[key] : undefined;
    // What is to go from a place that is not there has gone already.
    if (next === undefined && (loose || is === undefined || !checked)) return;
    if (!isMap(next)) throw new TouchClash(touch);
    home = next;
  }
  const key = path.at(-1)!;
  const now = Object.hasOwn(home, key) ? home[key] : undefined;
  if (isGathered(path)) {
    if (is !== undefined) home[key] ??= {};
    else if (isMap(now) && Object.values(now).every(isEmpty)) delete home[key];
  } else if (isOrder(touch)) {
    const merged = mergedOrder((now ?? []) as string[], (was ?? []) as string[], (is ?? []) as string[]);
    if (is === undefined && merged.length === 0) delete home[key];
    else home[key] = merged;
  } else if (loose) {
    if (now !== undefined) home[key] = is;
  } else {
    if (checked && !same(decided(path, now), decided(path, was))) throw new TouchClash(touch);
    if (is === undefined) delete home[key];
    else home[key] = is;
  }
}

const isEmpty = (value: unknown) =>
  Array.isArray(value) ? value.length === 0 : isMap(value) && Object.keys(value).length === 0;

/** An order as it is now, with what was added, removed or moved between two others done to it. */
export function mergedOrder(now: readonly string[], was: readonly string[], is: readonly string[]): string[] {
  const [before, after, there] = [new Map(was.map((id, i) => [id, i])), new Set(is), new Set(now)];
  const stays = unmoved(is.filter((id) => before.has(id)).map((id) => [id, before.get(id)!]));
  const placed = (id: string) => after.has(id) && !stays.has(id) && (there.has(id) || !before.has(id));
  const merged = now.filter((id) => (after.has(id) || !before.has(id)) && !placed(id));
  for (const [i, id] of is.entries()) {
    if (!placed(id)) continue;
    let at = 0;
    for (let j = i - 1; j >= 0 && at === 0; j--) at = merged.indexOf(is[j]!) + 1;
    merged.splice(at, 0, id);
  }
  return merged;
}

/** The longest run of ids that follow each other as they did. */
function unmoved(ids: readonly (readonly [id: string, at: number])[]): Set<string> {
  const ends: number[] = [];
  const back: number[] = [];
  for (const [i, [, at]] of ids.entries()) {
    let [low, high] = [0, ends.length];
    while (low < high) {
      const middle = (low + high) >> 1;
      if (ids[ends[middle]!]![1] < at) low = middle + 1;
      else high = middle;
    }
    back[i] = low > 0 ? ends[low - 1]! : -1;
    ends[low] = i;
  }
  const run = new Set<string>();
  for (let i = ends.at(-1) ?? -1; i >= 0; i = back[i]!) run.add(ids[i]![0]);
  return run;
}

const isDecision = (t: Touch) => !t.loose && !isOrder(t) && !isGathered(t.path);
/** Is one of the places within the other? */
const within = (a: readonly string[], b: readonly string[]): boolean =>
  a.length <= b.length ? a.every((key, i) => key === b[i]) : within(b, a);

/** Where two edits decide the same thing otherwise, or one within what the other takes away; null where they do not meet. */
export function clashBetween(one: readonly Touch[], other: readonly Touch[]): readonly [Touch, Touch] | null {
  const others = other.filter(isDecision);
  for (const p of one.filter(isDecision))
    for (const q of others)
      if (within(p.path, q.path) && !(p.path.length === q.path.length && same(p.is, q.is))) return [p, q];
  return null;
}

/** Does an edit decide anything at or within these places? */
export const isDecided = (places: readonly (readonly string[])[], touches: readonly Touch[]): boolean =>
  places.some((place) => touches.some((t) => isDecision(t) && within(place, t.path)));
