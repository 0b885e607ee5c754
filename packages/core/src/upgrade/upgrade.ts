/**
 * Designs stored by earlier versions, brought to the present one step at a time; and with a design its
 * log, so that what was done before can still be taken back.
 */
import { applyPatches, enablePatches, type Patch } from 'immer';
import { FORMAT_VERSION } from '../document/schema.ts';
import { inverted, touchesBetween, withTouches, type Touch } from '../document/touches.ts';
import { fromVersion1 } from './version-1.ts';

enablePatches();

/** From each version to the next. What is not as that version had it is left as it is, for the schema to refuse. */
const WAYS: Readonly<Record<number, (document: object) => object>> = { 1: fromVersion1 };

/** The data of a design as the present version has it; anything else comes back as it was. */
export function upgraded(data: unknown): unknown {
  let now = data;
  for (;;) {
    if (typeof now !== 'object' || now === null) return now;
    const { version } = now as { version?: unknown };
    const way = typeof version === 'number' && version < FORMAT_VERSION ? WAYS[version] : undefined;
    if (!way) return now;
    now = way(now);
  }
}

/** What a change did. Versions before touches were kept had patches, and how they are taken back. */
export type LoggedTouches = { readonly touches: readonly Touch[] } | { readonly inverse: readonly Patch[] };

/**
 * A design with its log as the present version has both.
 * @param log all changes, oldest first
 */
export function upgradedWithLog(
  document: object,
  log: readonly LoggedTouches[],
): { readonly document: unknown; readonly log: readonly (readonly Touch[])[] } {
  const rewritten: Touch[][] = [];
  let [after, afterNow] = [document, upgraded(document)];
  // Backwards, since only the newest state is kept.
  for (const change of [...log].reverse()) {
    const before =
      'touches' in change
        ? withTouches(after, inverted(change.touches), false)
        : applyPatches(after, change.inverse as Patch[]);
    const beforeNow = upgraded(before);
    rewritten.push(touchesBetween(beforeNow, afterNow));
    [after, afterNow] = [before, beforeNow];
  }
  return { document: upgraded(document), log: rewritten.reverse() };
}
