/** Edits taken back, or made again, whatever was done since. */
import { produce } from 'immer';
import { Ledger } from '../ledger/ledger.ts';
import { same, TouchClash, touchesBetween, withTouches, type Touch } from '../document/touches.ts';
import type { Design } from '../document/schema.ts';
import { settleTouched } from './sketch.ts';

export type Reverted =
  | { readonly ok: true; readonly design: Design; readonly touches: readonly Touch[] }
  /** `at`: the place that somebody decided otherwise since. */
  | { readonly ok: false; readonly at: Touch };

/** @param touches from the state as it should still stand to the state that is wanted */
export function retouched(design: Design, touches: readonly Touch[]): Reverted {
  try {
    const written = withTouches(design, touches, true);
    // Where nothing else was done, what was solved then is what is solved now.
    const undisturbed = touches.every(({ path, was }) => same(at(design, path), was));
    const before = Ledger.of(design);
    const next = undisturbed ? written : produce(written, (draft) => settleTouched(draft, before, touches));
    return { ok: true, design: next, touches: touchesBetween(design, next) };
  } catch (error) {
    if (error instanceof TouchClash) return { ok: false, at: error.touch };
    throw error;
  }
}

function at(value: unknown, path: readonly string[]): unknown {
  return path.reduce<unknown>((now, key) => (now as Record<string, unknown> | undefined)?.[key], value);
}
