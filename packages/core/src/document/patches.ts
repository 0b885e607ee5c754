/** Patches that come from outside: only such as an edit could have made are applied. */
import { applyPatches, type Draft, type Patch } from 'immer';
import { z } from 'zod';
import type { Design } from './schema.ts';

/** Deeper than any design; what nests deeper would exhaust the stack of whatever walks it. */
const MOST_DEPTH = 32;
/** More single values than a design of the largest size holds. */
const MOST_VALUES = 1_000_000;

/** Is this data that nests and counts no more than a design could? Walked with a list, as it may nest without end. */
function isModest(value: unknown): boolean {
  const waiting: { value: unknown; depth: number }[] = [{ value, depth: 0 }];
  for (let seen = 0; waiting.length > 0; seen++) {
    const { value: now, depth } = waiting.pop()!;
    if (depth > MOST_DEPTH || seen > MOST_VALUES) return false;
    if (typeof now !== 'object' || now === null) continue;
    for (const inner of Object.values(now)) waiting.push({ value: inner, depth: depth + 1 });
  }
  return true;
}

/** Data of any form that a client sends, of bounded size and depth. */
export const Given = z.unknown().refine(isModest, 'nests too deep or holds too much');

export const PatchSchema = z.strictObject({
  op: z.enum(['add', 'remove', 'replace']),
  path: z
    .array(z.union([z.string().max(200), z.number().int().min(0)]))
    .min(1)
    .max(20),
  value: Given.optional(),
});

/** A patch leads nowhere in this design, or where no edit would. */
export class PatchRefused extends Error {}

/** Keys through which an object's own data cannot be reached. */
const FORBIDDEN: ReadonlySet<string> = new Set(['__proto__', 'constructor', 'prototype']);

/**
 * Apply patches one after another, each checked against the design as the ones before left it.
 * @throws PatchRefused
 */
export function applyGiven(draft: Draft<Design>, patches: readonly Patch[]): void {
  for (const patch of patches) {
    checkPath(draft, patch);
    applyPatches(draft, [patch]);
  }
}

function checkPath(design: object, { op, path, value }: Patch): void {
  if (path.length === 0) throw new PatchRefused('a patch must name a place within the design');
  let at: unknown = design;
  for (const key of path.slice(0, -1)) {
    if (typeof at !== 'object' || at === null || FORBIDDEN.has(String(key)) || !Object.hasOwn(at, key))
      throw new PatchRefused('a patch names a place that is not there');
    at = (at as Record<string | number, unknown>)[key];
  }
  const last = path.at(-1)!;
  if (typeof at !== 'object' || at === null || FORBIDDEN.has(String(last)))
    throw new PatchRefused('a patch names a place that is not there');
  if (Array.isArray(at)) checkListPlace(at, last, op, value);
  else if (op !== 'add' && !Object.hasOwn(at, last)) throw new PatchRefused('a patch names a place that is not there');
}

/** A list grows by one at a time and is never given holes. */
function checkListPlace(list: readonly unknown[], key: string | number, op: Patch['op'], value: unknown): void {
  // A shorter length cuts the end off, which is how some edits are taken back.
  if (
    key === 'length' &&
    op === 'replace' &&
    Number.isInteger(value) &&
    Number(value) >= 0 &&
    Number(value) <= list.length
  )
    return;
  if (key === '-' && op === 'add') return;
  const most = op === 'add' ? list.length : list.length - 1;
  const index = typeof key === 'number' ? key : /^\d{1,7}$/.test(key) ? Number(key) : NaN;
  if (!(index <= most)) throw new PatchRefused('a patch names a place beyond the end of a list');
}
