/** A design with one number a little different, for seeing what hangs on it. */
import { applyEdit, EditRefused } from '../document/change.ts';
import { storeExpression } from './dimensions.ts';
import { plain } from '../document/plain.ts';
import { resolveSketches } from './sketch.ts';
import type { Design } from '../document/schema.ts';
import { kindOfPowers } from '../units/units.ts';
import { Ledger } from '../ledger/ledger.ts';

/** Large enough to be told from the kernel's rounding, small enough to change no shape's character. */
const SHARE = 0.002;
const LEAST = 0.01;

/** The design with this number nudged up, or down where up cannot be; null when neither can be had. */
export function nudged(design: Design, ref: string): Design | null {
  const ledger = Ledger.of(design);
  const value = ledger.valueOf(ref);
  const entry = ledger.index.byReference(ref);
  if (!entry || !value.ok || entry.measured?.of === 'sketch') return null;
  const { value: now, powers } = value.quantity;
  const isCount = kindOfPowers(powers) === 'number' && Number.isInteger(now);
  const step = isCount ? 1 : Math.max(Math.abs(now) * SHARE, LEAST);
  const unit = [
    ...(powers.length ? [` * (1 mm)^${powers.length}`] : []),
    ...(powers.angle ? [` * (1 rad)^${powers.angle}`] : []),
  ].join('');
  for (const next of [now + step, now - step]) {
    const outcome = applyEdit(design, {
      command: 'nudge',
      label: 'Nudge a number',
      run(draft) {
        storeExpression(draft, entry, `(${next})${unit}`);
        const reads = Ledger.of(plain(draft)).valueOf(ref);
        if (!reads.ok) throw new EditRefused(reads.message);
        resolveSketches(draft, ledger, null);
      },
    });
    if (outcome.ok) return outcome.design;
  }
  return null;
}
