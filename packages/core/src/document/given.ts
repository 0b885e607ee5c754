/** Data of any form that a client sends, of bounded size and depth. */
import { z } from 'zod';

/** Deeper than any design; what nests deeper would exhaust the stack of whatever walks it. */
const MOST_DEPTH = 32;
/** More single values than a design of the largest size holds. */
const MOST_VALUES = 1_000_000;
/** Keys through which an object's own data cannot be reached. */
const FORBIDDEN: ReadonlySet<string> = new Set(['__proto__', 'constructor', 'prototype']);

/** May something be kept under this key? */
export const isOwnKey = (key: string): boolean => !FORBIDDEN.has(key);

/** Does this nest and count no more than a design could, under keys of its own? Walked with a list, as it may nest without end. */
function isModest(value: unknown): boolean {
  const waiting: { value: unknown; depth: number }[] = [{ value, depth: 0 }];
  for (let seen = 0; waiting.length > 0; seen++) {
    const { value: now, depth } = waiting.pop()!;
    if (depth > MOST_DEPTH || seen > MOST_VALUES) return false;
    if (typeof now !== 'object' || now === null) continue;
    for (const [key, inner] of Object.entries(now)) {
      if (!isOwnKey(key)) return false;
      waiting.push({ value: inner, depth: depth + 1 });
    }
  }
  return true;
}

export const Given = z.unknown().refine(isModest, 'nests too deep, holds too much, or has keys that nothing can have');
