/**
 * Designs stored by earlier versions, brought to the present one step at a time; and with a design its
 * log, so that what was done before can still be taken back.
 */
import { applyPatches, enablePatches, type Patch } from 'immer';
import { FORMAT_VERSION } from '../document/schema.ts';
import { differences } from '../document/differences.ts';
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

/** What a change did and how it is taken back. */
export interface LoggedPatches {
  readonly patches: readonly Patch[];
  readonly inverse: readonly Patch[];
}

/**
 * A design with its log as the present version has both.
 * @param log all changes, oldest first
 */
export function upgradedWithLog(
  document: object,
  log: readonly LoggedPatches[],
): { readonly document: unknown; readonly log: readonly LoggedPatches[] } {
  const rewritten: LoggedPatches[] = [];
  let [after, afterNow] = [document, upgraded(document)];
  // Backwards, since only the newest state is kept.
  for (const { inverse } of [...log].reverse()) {
    const before = applyPatches(after, inverse as Patch[]);
    const beforeNow = upgraded(before);
    rewritten.push({ patches: differences(beforeNow, afterNow), inverse: differences(afterNow, beforeNow) });
    [after, afterNow] = [before, beforeNow];
  }
  return { document: upgraded(document), log: rewritten.reverse() };
}
