/** What leads from one state of plain data to another, as patches. */
import { applyPatches, enablePatches, type Patch } from 'immer';

enablePatches();

type Plain = Readonly<Record<string, unknown>>;

const isMap = (value: unknown): value is Plain => typeof value === 'object' && value !== null && !Array.isArray(value);

/** Maps are compared entry by entry; lists and single values are replaced whole. */
export function differences(before: unknown, after: unknown, path: (string | number)[] = []): Patch[] {
  if (before === after) return [];
  if (!isMap(before) || !isMap(after))
    return JSON.stringify(before) === JSON.stringify(after) ? [] : [{ op: 'replace', path, value: after }];
  const patches: Patch[] = [];
  for (const key of Object.keys(before))
    if (!Object.hasOwn(after, key)) patches.push({ op: 'remove', path: [...path, key] });
  for (const key of Object.keys(after)) {
    const value = after[key];
    // Most of thousands are the same.
    if (value === before[key] && Object.hasOwn(before, key)) continue;
    if (Object.hasOwn(before, key)) patches.push(...differences(before[key], value, [...path, key]));
    else patches.push({ op: 'add', path: [...path, key], value });
  }
  return patches;
}

/** The state after the differences from it. */
export const withDifferences = <T extends object>(before: T, patches: readonly Patch[]): T =>
  applyPatches(before, patches as Patch[]);
